import { createHash, randomUUID } from 'node:crypto';
import type { DataSource, EntityManager } from 'typeorm';
import type { BuildsReply, JobReply, JobSummary } from '../contract/api';
import { readDocument } from '../contract/read';
import { FORMAT_VERSION, type BuildDocument } from '../core/document';
import { again, transact } from './database';
import type { Caller } from './caller';
import { isUuid } from './ids';
import { problem } from './problems';
import { giveReceipt, receiptOf, thinReceipts, writerOf } from './receipts';
import { thinned } from './thinning';

/*
 * Jobs and their kept builds. A build is checked when it is written and leaves as the very text that is stored: reading
 * parses nothing. Its digest says whether the text is still the one that was written.
 */

/** A row of the job table, as the statements below read it. */
interface JobColumns {
  id: string;
  shop: string;
  name: string;
  purpose: string;
  version: number;
  changed: Date;
}
/** A kept build as it is stored. */
export interface Text {
  build: string | null;
  digest: string | null;
}

const JOB = 'j.id, j.shop_id AS shop, j.name, j.purpose, j.version, j.changed_at AS changed';
const OF_SHOP = 'j.shop_id = ?';
/** A job with its newest build. */
const NEWEST = `SELECT ${JOB}, r.build, r.digest FROM job j
  LEFT JOIN job_revision r ON r.job_id = j.id AND r.version = j.version AND r.aside = 0 WHERE ${OF_SHOP}`;

const summary = (job: JobColumns, version = job.version): JobSummary => ({
  id: job.id,
  name: job.name,
  use: job.purpose,
  version,
  changed: job.changed.toISOString(),
});

const digestOf = (text: string): string => createHash('sha256').update(text).digest('hex');

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

const noSuchJob = (id: string) =>
  problem(404, 'No such job', `There is no job “${id.slice(0, 60)}” in this shop.`);

/** A job of the caller's shop, without its build; 404 where there is none. */
export async function findJob(manager: EntityManager, { shop }: Caller, id: string): Promise<JobColumns> {
  const [job]: JobColumns[] = isUuid(id)
    ? await manager.query(`SELECT ${JOB} FROM job j WHERE j.id = ? AND ${OF_SHOP}`, [id, shop])
    : [];
  if (!job) throw noSuchJob(id);
  return job;
}

/** The jobs of the shop, the last changed first. Reads no build. */
export async function listJobs(source: DataSource, { shop }: Caller): Promise<JobSummary[]> {
  const jobs: JobColumns[] = await source.query(
    `SELECT ${JOB} FROM job j WHERE ${OF_SHOP} ORDER BY j.changed_at DESC LIMIT 1000`,
    [shop],
  );
  return jobs.map((job) => summary(job));
}

/** A reply as text around a build that is not parsed. */
const around = (head: object, build: string): string =>
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

/**
 * The newest builds of the shop's jobs as JSON text, the oldest job first: what the calendar is made of. A job whose
 * newest build is damaged is named beside them and takes nothing else along.
 */
export async function listBuildsText(source: DataSource, { shop }: Caller): Promise<string> {
  const rows: (JobColumns & Text)[] = await source.query(
    `${NEWEST} ORDER BY j.created_at, j.changed_at LIMIT 100`,
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

/** Only the version, for tabs that watch whether a job moved on. */
export async function readJobVersion(
  source: DataSource,
  caller: Caller,
  id: string,
): Promise<{ version: number }> {
  return { version: (await findJob(source.manager, caller, id)).version };
}

/** Keeps a build as a revision; gives its id. */
async function keepRevision(
  manager: EntityManager,
  revision: { caller: Caller; job: string; version: number; text: string; digest: string; aside: boolean },
): Promise<string> {
  const id = randomUUID();
  const { caller, job, version, text, digest, aside } = revision;
  await manager.query(
    'INSERT INTO job_revision (id, shop_id, job_id, version, aside, build, digest, made_by) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    [id, caller.shop, job, version, aside ? 1 : 0, text, digest, caller.member],
  );
  return id;
}

/** Adds a job to a shop; gives its id. `changedAt` orders demo jobs. */
export async function insertJob(
  manager: EntityManager,
  caller: Caller,
  build: BuildDocument,
  changedAt = new Date(),
): Promise<string> {
  const id = randomUUID();
  await manager.query(
    'INSERT INTO job (id, shop_id, name, purpose, version, created_at, changed_at) VALUES (?, ?, ?, ?, 1, ?, ?)',
    [id, caller.shop, build.name, build.use, changedAt, changedAt],
  );
  const text = JSON.stringify(build);
  await keepRevision(manager, { caller, job: id, version: 1, text, digest: digestOf(text), aside: false });
  return id;
}

/** Makes a new job; the same write repeated gives the job it made. */
export const createJob = (
  source: DataSource,
  caller: Caller,
  build: BuildDocument,
  write?: string,
): Promise<JobReply> =>
  transact(source, async (manager) => {
    const before = await receiptOf(manager, caller, write);
    if (before) return readJob(manager, caller, before.subject);
    const id = await insertJob(manager, caller, build);
    await giveReceipt(manager, caller, write, { subject: id, version: 1 });
    return readJob(manager, caller, id);
  });

/** Every so many versions a job's kept versions are thinned, so that no timer is needed and no write waits for it. */
const THIN_EVERY = 25;

async function thinRevisions(manager: EntityManager, job: string, version: number): Promise<void> {
  const rows: { id: string; at: Date; aside: number; marked: number; version: number }[] =
    await manager.query(
      'SELECT id, created_at AS at, aside, marked, version FROM job_revision WHERE job_id = ?',
      [job],
    );
  const current = rows.find((row) => row.version === version && !row.aside)?.id;
  const old = thinned(
    rows.map(({ id, at, aside, marked }) => ({
      id,
      at: at.getTime(),
      aside: Boolean(aside),
      marked: Boolean(marked),
    })),
    Date.now(),
    current,
  );
  for (let from = 0; from < old.length; from += 500)
    await manager.query('DELETE FROM job_revision WHERE id IN (?)', [old.slice(from, from + 500)]);
}

/** The version that a write made, where it was carried out before: by its receipt, or by its content in the history. */
async function madeBefore(
  manager: EntityManager,
  caller: Caller,
  { id, from, digest, write }: { id: string; from: number; digest: string; write: string | undefined },
): Promise<number | undefined> {
  const receipt = await receiptOf(manager, caller, write);
  if (receipt?.subject === id) return receipt.version;
  const [same]: { version: number }[] = await manager.query(
    'SELECT version FROM job_revision WHERE job_id = ? AND aside = 0 AND version > ? AND digest = ? ORDER BY version LIMIT 1',
    [id, from, digest],
  );
  return same?.version;
}

/** Puts a build aside that lost a conflict, once: the same content from the same version is not kept again. */
async function putAside(
  manager: EntityManager,
  revision: { caller: Caller; job: string; version: number; text: string; digest: string },
): Promise<string> {
  const [kept]: { id: string }[] = await manager.query(
    'SELECT id FROM job_revision WHERE job_id = ? AND aside = 1 AND version = ? AND digest = ? LIMIT 1',
    [revision.job, revision.version, revision.digest],
  );
  return kept?.id ?? keepRevision(manager, { ...revision, aside: true });
}

/**
 * One statement that stores a build over the version it was made from, with its receipt, or changes nothing: a single
 * way to the database and back, since a write waits for each. A write that has a receipt is not carried out again, not
 * even where the version happens to fit. Answers `stored`.
 */
const STORE = `BEGIN NOT ATOMIC
  DECLARE EXIT HANDLER FOR SQLEXCEPTION BEGIN ROLLBACK; RESIGNAL; END;
  SET TRANSACTION ISOLATION LEVEL READ COMMITTED;
  START TRANSACTION;
  UPDATE job j SET j.name = ?, j.purpose = ?, j.version = j.version + 1, j.changed_at = ?
    WHERE j.id = ? AND j.version = ? AND ${OF_SHOP} AND NOT EXISTS (SELECT 1 FROM receipt WHERE write_id = ?);
  IF ROW_COUNT() = 1 THEN
    INSERT INTO job_revision (id, shop_id, job_id, version, aside, build, digest, made_by)
      SELECT ?, j.shop_id, j.id, j.version, 0, ?, ?, ? FROM job j WHERE j.id = ?;
    IF ? THEN
      INSERT INTO receipt (write_id, shop_id, subject, version) SELECT ?, j.shop_id, j.id, j.version FROM job j WHERE j.id = ?;
    END IF;
    COMMIT;
    SELECT 1 AS stored;
  ELSE
    ROLLBACK;
    SELECT 0 AS stored;
  END IF;
END`;

/** Thins what a job keeps, now and then. */
async function thinNowAndThen(source: DataSource, id: string, version: number): Promise<void> {
  if (version % THIN_EVERY !== 0) return;
  await transact(source, async (manager) => {
    await thinRevisions(manager, id, version);
    await thinReceipts(manager);
  });
}

/**
 * Stores a build made from `from`; gives the version it became. A write that was carried out before, by its receipt or
 * by its content in the history, is answered with the version it made. When the job moved on otherwise, nothing is
 * overwritten: the build is kept as a revision put aside and the answer is 409 with the version that stands and the
 * write that made it.
 */
export async function saveJob(
  source: DataSource,
  caller: Caller,
  { id, from, build, write }: { id: string; from: number; build: BuildDocument; write?: string | undefined },
): Promise<JobSummary> {
  if (!isUuid(id)) throw noSuchJob(id);
  const text = JSON.stringify(build);
  const digest = digestOf(text);
  const changed = new Date();
  const key = write ?? null;
  const [[{ stored }]] = await again<[[{ stored: number }]]>(() =>
    source.query(STORE, [
      ...[build.name, build.use, changed, id, from, caller.shop, key],
      ...[randomUUID(), text, digest, caller.member, id],
      ...[key === null ? 0 : 1, key, id],
    ]),
  );
  const version = from + 1;
  if (Number(stored) === 1) {
    await thinNowAndThen(source, id, version);
    return { id, name: build.name, use: build.use, version, changed: changed.toISOString() };
  }
  const lost = await transact(source, async (manager) => {
    const job = await findJob(manager, caller, id);
    const made = await madeBefore(manager, caller, { id, from, digest, write });
    if (made !== undefined) return summary(job, made);
    const current = await readJob(manager, caller, id);
    const maker = await writerOf(manager, id, current.version);
    const aside = await putAside(manager, { caller, job: id, version: from, text, digest });
    return { current, aside, ...(maker ? { write: maker } : {}) };
  });
  if (!('current' in lost)) return lost;
  throw problem(
    409,
    'Changed in two places',
    `This job is at version ${lost.current.version}; your change was made from version ${from}. Both are kept.`,
    lost,
  );
}

/** Stores a build over the version it was made from, within a transaction of more; 409 undoes the whole of it. */
export async function storeOver(
  manager: EntityManager,
  caller: Caller,
  { id, version, build }: { id: string; version: number; build: BuildDocument },
): Promise<void> {
  const job = await findJob(manager, caller, id);
  const text = JSON.stringify(build);
  const { affectedRows } = await manager.query(
    'UPDATE job SET name = ?, purpose = ?, version = version + 1, changed_at = ? WHERE id = ? AND version = ?',
    [build.name, build.use, new Date(), id, version],
  );
  if (affectedRows !== 1)
    throw problem(
      409,
      'Changed in two places',
      `“${job.name}” is at version ${job.version}; its strips were laid out from version ${version}. Nothing was stored: solve again.`,
    );
  const own = { caller, job: id, version: version + 1, text, digest: digestOf(text), aside: false };
  await keepRevision(manager, own);
}
