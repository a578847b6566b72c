import type { DataSource } from 'typeorm';
import type { BuildsReply, DeletedJob, JobSummary } from '../contract/api';
import { gistOf, type BuildDocument } from '../core/document';
import type { Caller } from './caller';
import { transact } from './database';
import {
  around,
  findAnyJob,
  JOB,
  type JobColumns,
  NEWEST,
  notDeleted,
  OF_SHOP,
  readable,
  summary,
  type Text,
} from './jobs';

/* Lists of jobs, and where a job lies: on the bench, put away or deleted. */

/** Fills in what lists show of jobs that were stored before it was kept beside them. */
async function fillGists(source: DataSource, jobs: readonly JobColumns[]): Promise<void> {
  for (const job of jobs) {
    if (job.gist !== null) continue;
    const [row]: Text[] = await source.query(
      'SELECT build, digest FROM job_revision WHERE job_id = ? AND version = ? AND aside = 0 LIMIT 1',
      [job.id, job.version],
    );
    const text = row && readable(row);
    if (text === undefined) continue;
    job.gist = JSON.stringify(gistOf(JSON.parse(text) as BuildDocument));
    await source.query('UPDATE job SET gist = ? WHERE id = ? AND version = ?', [
      job.gist,
      job.id,
      job.version,
    ]);
  }
}

/** The most jobs of one list. */
const MOST_JOBS = 2000;

/** The jobs of the shop, those put away too, the last changed first. Reads no build. */
export async function listJobs(source: DataSource, { shop }: Caller): Promise<JobSummary[]> {
  const jobs: JobColumns[] = await source.query(
    `SELECT ${JOB} FROM job j WHERE ${OF_SHOP} AND j.deleted_at IS NULL ORDER BY j.changed_at DESC LIMIT ${MOST_JOBS}`,
    [shop],
  );
  await fillGists(source, jobs);
  return jobs.map((job) => summary(job));
}

/** How long what was deleted can be brought back. */
export const KEPT_DAYS = 30;
/** Until when that is. */
export const untilWhen = (deleted: Date): string =>
  new Date(deleted.getTime() + KEPT_DAYS * 86_400_000).toISOString();

/** The jobs that were deleted in the last 30 days, the last one first; those of longer ago are gone for good. */
export async function listDeletedJobs(source: DataSource, { shop }: Caller): Promise<DeletedJob[]> {
  await source.query(`DELETE j FROM job j WHERE ${OF_SHOP} AND j.deleted_at < ?`, [
    shop,
    new Date(Date.now() - KEPT_DAYS * 86_400_000),
  ]);
  const jobs: (JobColumns & { deleted: Date })[] = await source.query(
    `SELECT ${JOB} FROM job j WHERE ${OF_SHOP} AND j.deleted_at IS NOT NULL ORDER BY j.deleted_at DESC LIMIT ${MOST_JOBS}`,
    [shop],
  );
  return jobs.map((job) => ({
    ...summary(job),
    deleted: job.deleted.toISOString(),
    until: untilWhen(job.deleted),
  }));
}

/** What is changed of where a job lies. */
export interface Place {
  putAway?: boolean;
  deleted?: boolean;
  tags?: string[];
}

/**
 * Puts a job away or takes it out, deletes it or brings it back, gives it tags: what is missing stays as it is. Its
 * version stays, since its build does. A job that is deleted frees the boards it had reserved.
 */
export const placeJob = (
  source: DataSource,
  caller: Caller,
  id: string,
  { putAway, deleted, tags }: Place,
): Promise<JobSummary> =>
  transact(source, async (manager) => {
    const job = await findAnyJob(manager, caller, id);
    if (deleted === undefined) notDeleted(job);
    const now = new Date();
    const at = (wanted: boolean | undefined, was: Date | null) =>
      wanted === undefined ? was : wanted ? (was ?? now) : null;
    await manager.query('UPDATE job SET put_away_at = ?, deleted_at = ?, tags = ? WHERE id = ?', [
      at(putAway, job.away),
      at(deleted, job.deleted),
      tags === undefined ? job.tags : JSON.stringify([...new Set(tags)]),
      id,
    ]);
    if (deleted) await manager.query('UPDATE board SET job_id = NULL WHERE job_id = ?', [id]);
    return summary(await findAnyJob(manager, caller, id));
  });

/** Jobs with something left to do, that were not put away or deleted; also those of which that is not known. */
const OPEN =
  "j.put_away_at IS NULL AND j.deleted_at IS NULL AND (j.gist IS NULL OR NOT JSON_VALID(j.gist) OR JSON_VALUE(j.gist, '$.done') < JSON_VALUE(j.gist, '$.steps') OR JSON_VALUE(j.gist, '$.steps') = 0)";

/**
 * The newest builds of the shop's open jobs as JSON text, the oldest job first: what the calendar and Today are made of.
 * A job whose newest build is damaged is named beside them and takes nothing else along.
 */
export async function listBuildsText(source: DataSource, { shop }: Caller): Promise<string> {
  const rows: (JobColumns & Text)[] = await source.query(
    `${NEWEST} AND ${OPEN} ORDER BY j.created_at, j.changed_at LIMIT ${MOST_JOBS}`,
    [shop],
  );
  const damaged: BuildsReply['damaged'] = [];
  const jobs: string[] = [];
  for (const row of rows) {
    const text = readable(row);
    if (text !== undefined) jobs.push(around(summary(row), text));
    else damaged.push({ id: row.id, name: row.name, version: row.version });
  }
  return `{"jobs":[${jobs.join(',')}],"damaged":${JSON.stringify(damaged)}}`;
}
