import type { DataSource } from 'typeorm';
import type { RevisionSummary } from '../contract/api';
import type { Caller } from './caller';
import { isUuid } from './ids';
import { findJob, readable, type Text } from './jobs';
import { problem } from './problems';

/** All kept builds of a job, newest first. */
export async function listRevisions(
  source: DataSource,
  caller: Caller,
  id: string,
): Promise<RevisionSummary[]> {
  await findJob(source.manager, caller, id);
  const rows: {
    id: string;
    version: number;
    at: Date;
    aside: number;
    marked: number;
    name: string | null;
    by: string | null;
  }[] = await source.query(
    `SELECT id, version, created_at AS at, aside, marked, made_by AS \`by\`, IF(JSON_VALID(build), JSON_VALUE(build, '$.name'), NULL) AS name
       FROM job_revision WHERE job_id = ? ORDER BY created_at DESC, version DESC LIMIT 500`,
    [id],
  );
  return rows.map((row) => ({
    id: row.id,
    version: row.version,
    made: row.at.toISOString(),
    aside: Boolean(row.aside),
    marked: Boolean(row.marked),
    ...(row.name === null ? { damaged: true } : {}),
    name: row.name ?? '',
    ...(row.by ? { by: row.by } : {}),
  }));
}

const noSuchVersion = (id: string) =>
  problem(404, 'No such version', `There is no kept version “${id.slice(0, 60)}” of this job.`);

/** One kept build, as JSON text. One that is damaged is refused. */
export async function readRevisionText(
  source: DataSource,
  caller: Caller,
  { job, id }: { job: string; id: string },
): Promise<string> {
  await findJob(source.manager, caller, job);
  const [row]: (Text & { version: number })[] = isUuid(id)
    ? await source.query('SELECT version, build, digest FROM job_revision WHERE id = ? AND job_id = ?', [
        id,
        job,
      ])
    : [];
  if (!row) throw noSuchVersion(id);
  const text = readable(row);
  if (text === undefined)
    throw problem(
      410,
      'A damaged version',
      `Version ${row.version} of this job was damaged in the database and cannot be read.`,
    );
  return text;
}

/** Marks a kept version, so that thinning passes it over, or takes the mark away. */
export async function markRevision(
  source: DataSource,
  caller: Caller,
  { job, id, marked }: { job: string; id: string; marked: boolean },
): Promise<{ marked: boolean }> {
  await findJob(source.manager, caller, job);
  const done = isUuid(id)
    ? await source.query('UPDATE job_revision SET marked = ? WHERE id = ? AND job_id = ?', [
        marked ? 1 : 0,
        id,
        job,
      ])
    : { affectedRows: 0 };
  if (done.affectedRows !== 1) throw noSuchVersion(id);
  return { marked };
}
