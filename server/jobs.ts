import { createHash } from 'node:crypto';
import type { DataSource, EntityManager } from 'typeorm';
import type { JobReply, JobSummary } from '../contract/api';
import { readDocument } from '../contract/read';
import { FORMAT_VERSION, type BuildDocument, type JobGist } from '../core/document';
import type { Caller } from './caller';
import { isUuid } from './ids';
import { problem } from './problems';

/*
 * Jobs and their kept builds. A build is checked when it is written and leaves as the very text that is stored: reading
 * parses nothing. Its digest says whether the text is still the one that was written.
 */

/** A row of the job table, as the statements below read it. */
export interface JobColumns {
  id: string;
  shop: string;
  name: string;
  purpose: string;
  version: number;
  changed: Date;
  tags: string | null;
  gist: string | null;
  away: Date | null;
  deleted: Date | null;
}
/** A kept build as it is stored. */
export interface Text {
  build: string | null;
  digest: string | null;
}

/** What is read of a job, without its build. */
export const JOB =
  'j.id, j.shop_id AS shop, j.name, j.purpose, j.version, j.changed_at AS changed, j.tags, j.gist, j.put_away_at AS away, j.deleted_at AS deleted';
/** Only the caller's shop. */
export const OF_SHOP = 'j.shop_id = ?';
/** A job with its newest build. */
export const NEWEST = `SELECT ${JOB}, r.build, r.digest FROM job j
  LEFT JOIN job_revision r ON r.job_id = j.id AND r.version = j.version AND r.aside = 0 WHERE ${OF_SHOP}`;

/** Text of a column that holds JSON; what was damaged by hand reads as nothing. */
function parsed<T>(text: string | null): T | undefined {
  try {
    return text === null ? undefined : (JSON.parse(text) as T);
  } catch (error) {
    if (error instanceof SyntaxError) return undefined;
    throw error;
  }
}

/** A job as a list holds it. */
export const summary = (job: JobColumns, version = job.version): JobSummary => {
  const gist = parsed<JobGist>(job.gist);
  return {
    id: job.id,
    name: job.name,
    use: job.purpose,
    version,
    changed: job.changed.toISOString(),
    tags: parsed<string[]>(job.tags) ?? [],
    ...(job.away ? { putAway: job.away.toISOString() } : {}),
    ...(gist ? { gist } : {}),
  };
};

/** What tells a text from another, and a damaged one from a whole one. */
export const digestOf = (text: string): string => createHash('sha256').update(text).digest('hex');

/** What stands at the beginning of a build of this version, as it is stored. */
const CURRENT = `{"format":"junta-build","version":${FORMAT_VERSION},`;

/**
 * Stored text as this version writes it: as it is where its digest says that it is what was once written; read whole, and
 * raised, where it is of an earlier version or was changed by hand. Undefined where it cannot be read.
 */
export function readable({ build, digest }: Text): string | undefined {
  if (build === null) return undefined;
  if (digest !== null && build.startsWith(CURRENT) && digestOf(build) === digest) return build;
  try {
    const read = readDocument(JSON.parse(build));
    return read.ok ? JSON.stringify(read.build) : undefined;
  } catch (error) {
    if (error instanceof SyntaxError) return undefined;
    throw error;
  }
}

/** The answer where the shop has no such job. */
export const noSuchJob = (id: string) =>
  problem(404, 'No such job', `There is no job “${id.slice(0, 60)}” in this shop.`);

/** A job that was deleted is there for 30 days, and to be brought back; until then nothing is done to it. */
export function notDeleted(job: JobColumns): void {
  if (job.deleted)
    throw problem(
      410,
      'A deleted job',
      `“${job.name}” was deleted. It can be brought back on the screen Jobs, under “Deleted”.`,
      { deleted: job.deleted.toISOString() },
    );
}

/** A job of the caller's shop, also a deleted one, without its build; 404 where there is none. */
export async function findAnyJob(manager: EntityManager, { shop }: Caller, id: string): Promise<JobColumns> {
  const [job]: JobColumns[] = isUuid(id)
    ? await manager.query(`SELECT ${JOB} FROM job j WHERE j.id = ? AND ${OF_SHOP}`, [id, shop])
    : [];
  if (!job) throw noSuchJob(id);
  return job;
}

/** A job of the caller's shop, without its build; 404 where there is none, 410 where it was deleted. */
export async function findJob(manager: EntityManager, caller: Caller, id: string): Promise<JobColumns> {
  const job = await findAnyJob(manager, caller, id);
  notDeleted(job);
  return job;
}

/** A reply as text around a build that is not parsed. */
export const around = (head: object, build: string): string =>
  `${JSON.stringify(head).slice(0, -1)},"build":${build}}`;

interface StoredJob {
  job: JobColumns;
  text: string;
  /** The version whose text this is, where the newest is damaged. */
  instead?: number;
}

/** A job with its newest build that can be read. */
async function newestOf(manager: EntityManager, { shop }: Caller, id: string): Promise<StoredJob> {
  const [row]: (JobColumns & Text)[] = isUuid(id)
    ? await manager.query(`${NEWEST} AND j.id = ?`, [shop, id])
    : [];
  if (!row) throw noSuchJob(id);
  notDeleted(row);
  const own = readable(row);
  if (own !== undefined) return { job: row, text: own };
  const older: (Text & { version: number })[] = await manager.query(
    'SELECT version, build, digest FROM job_revision WHERE job_id = ? AND aside = 0 AND version < ? ORDER BY version DESC LIMIT 50',
    [id, row.version],
  );
  for (const kept of older) {
    const text = readable(kept);
    if (text !== undefined) return { job: row, text, instead: kept.version };
  }
  throw problem(
    500,
    'A job without a build',
    `Version ${row.version} of “${row.name}” is damaged or missing, and none of the ${older.length} versions before it can be read.`,
  );
}

const damagedBy = ({ job, instead }: StoredJob) =>
  instead === undefined ? {} : { damaged: { version: job.version, instead } };

/** A job with its newest build, as JSON text; where that is damaged, with the newest that is not, and says so. */
export async function readJobText(source: DataSource, caller: Caller, id: string): Promise<string> {
  const stored = await newestOf(source.manager, caller, id);
  return around({ ...summary(stored.job), ...damagedBy(stored) }, stored.text);
}

/** A job with its newest build. */
export async function readJob(manager: EntityManager, caller: Caller, id: string): Promise<JobReply> {
  const stored = await newestOf(manager, caller, id);
  return { ...summary(stored.job), ...damagedBy(stored), build: JSON.parse(stored.text) as BuildDocument };
}

/** Only the version, for tabs that watch whether a job moved on. */
export async function readJobVersion(
  source: DataSource,
  caller: Caller,
  id: string,
): Promise<{ version: number }> {
  return { version: (await findJob(source.manager, caller, id)).version };
}
