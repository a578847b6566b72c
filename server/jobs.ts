import { createHash, randomUUID } from 'node:crypto';
import type { DataSource, EntityManager } from 'typeorm';
import type { BuildsReply, JobReply, JobSummary, RevisionSummary } from '../contract/api';
import { checkBuild } from '../contract/build';
import type { BuildDocument } from '../core/document';
import { again, transact } from './database';
import { isUuid, shopId } from './kit';
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
interface Text {
  build: string | null;
  digest: string | null;
}

const JOB = 'j.id, j.shop_id AS shop, j.name, j.purpose, j.version, j.changed_at AS changed';
const OF_SHOP = 'j.shop_id = (SELECT id FROM shop ORDER BY created_at LIMIT 1)';
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

/** Whether stored text is what was once written; text without a digest, or changed by hand, is read whole. */
function isWhole<T extends Text>(stored: T): stored is T & { build: string } {
  const { build, digest } = stored;
  if (build === null) return false;
  if (digest !== null && digestOf(build) === digest) return true;
  try {
    return checkBuild(JSON.parse(build)).ok;
  } catch {
    return false;
  }
}

const noSuchJob = (id: string) =>
  problem(404, 'No such job', `There is no job “${id.slice(0, 60)}” in this shop.`);

async function findJob(manager: EntityManager, id: string): Promise<JobColumns> {
  const [job]: JobColumns[] = isUuid(id)
    ? await manager.query(`SELECT ${JOB} FROM job j WHERE j.id = ? AND ${OF_SHOP}`, [id])
    : [];
  if (!job) throw noSuchJob(id);
  return job;
}

/** The jobs of the shop, the last changed first. Reads no build. */
export async function listJobs(source: DataSource): Promise<JobSummary[]> {
  const jobs: JobColumns[] = await source.query(
    `SELECT ${JOB} FROM job j WHERE ${OF_SHOP} ORDER BY j.changed_at DESC LIMIT 1000`,
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
async function newestOf(manager: EntityManager, id: string): Promise<StoredJob> {
  const [row]: (JobColumns & Text)[] = isUuid(id) ? await manager.query(`${NEWEST} AND j.id = ?`, [id]) : [];
  if (!row) throw noSuchJob(id);
  if (isWhole(row)) return { job: row, text: row.build };
  const older: (Text & { version: number })[] = await manager.query(
    'SELECT version, build, digest FROM job_revision WHERE job_id = ? AND aside = 0 AND version < ? ORDER BY version DESC LIMIT 50',
    [id, row.version],
  );
  const last = older.find((row) => isWhole(row));
  if (!last)
    throw problem(
      500,
      'A job without a build',
      `Version ${row.version} of “${row.name}” is damaged or missing, and none of the ${older.length} versions before it can be read.`,
    );
  return { job: row, text: last.build as string, instead: last.version };
}

const damagedBy = ({ job, instead }: StoredJob) =>
  instead === undefined ? {} : { damaged: { version: job.version, instead } };

/** A job with its newest build, as JSON text; where that is damaged, with the newest that is not, and says so. */
export async function readJobText(source: DataSource, id: string): Promise<string> {
  const stored = await newestOf(source.manager, id);
  return around({ ...summary(stored.job), ...damagedBy(stored) }, stored.text);
}

/** A job with its newest build. */
export async function readJob(manager: EntityManager, id: string): Promise<JobReply> {
  const stored = await newestOf(manager, id);
  return { ...summary(stored.job), ...damagedBy(stored), build: JSON.parse(stored.text) as BuildDocument };
}

/**
 * The newest builds of the shop's jobs as JSON text, the oldest job first: what the calendar is made of. A job whose
 * newest build is damaged is named beside them and takes nothing else along.
 */
export async function listBuildsText(source: DataSource): Promise<string> {
  const rows: (JobColumns & Text)[] = await source.query(
    `${NEWEST} ORDER BY j.created_at, j.changed_at LIMIT 100`,
  );
  const damaged: BuildsReply['damaged'] = [];
  const jobs: string[] = [];
  for (const row of rows) {
    if (isWhole(row)) jobs.push(around(summary(row), row.build));
    else damaged.push({ id: row.id, name: row.name, version: row.version });
  }
  return `{"jobs":[${jobs.join(',')}],"damaged":${JSON.stringify(damaged)}}`;
}

/** Only the version, for tabs that watch whether a job moved on. */
export async function readJobVersion(source: DataSource, id: string): Promise<{ version: number }> {
  return { version: (await findJob(source.manager, id)).version };
}

/** Keeps a build as a revision; gives its id. */
async function keepRevision(
  manager: EntityManager,
  revision: { shop: string; job: string; version: number; text: string; digest: string; aside: boolean },
): Promise<string> {
  const id = randomUUID();
  const { shop, job, version, text, digest, aside } = revision;
  await manager.query(
    'INSERT INTO job_revision (id, shop_id, job_id, version, aside, build, digest) VALUES (?, ?, ?, ?, ?, ?, ?)',
    [id, shop, job, version, aside ? 1 : 0, text, digest],
  );
  return id;
}

/** Adds a job to a shop; gives its id. `changedAt` orders demo jobs. */
export async function insertJob(
  manager: EntityManager,
  shop: string,
  build: BuildDocument,
  changedAt = new Date(),
): Promise<string> {
  const id = randomUUID();
  await manager.query(
    'INSERT INTO job (id, shop_id, name, purpose, version, created_at, changed_at) VALUES (?, ?, ?, ?, 1, ?, ?)',
    [id, shop, build.name, build.use, changedAt, changedAt],
  );
  const text = JSON.stringify(build);
  await keepRevision(manager, { shop, job: id, version: 1, text, digest: digestOf(text), aside: false });
  return id;
}

/** Makes a new job; the same write repeated gives the job it made. */
export const createJob = (source: DataSource, build: BuildDocument, write?: string): Promise<JobReply> =>
  transact(source, async (manager) => {
    const before = await receiptOf(manager, write);
    if (before) return readJob(manager, before.subject);
    const shop = await shopId(manager);
    const id = await insertJob(manager, shop, build);
    await giveReceipt(manager, write, { shopId: shop, subject: id, version: 1 });
    return readJob(manager, id);
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
  id: string,
  from: number,
  digest: string,
  write: string | undefined,
): Promise<number | undefined> {
  const receipt = await receiptOf(manager, write);
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
  revision: { shop: string; job: string; version: number; text: string; digest: string },
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
    INSERT INTO job_revision (id, shop_id, job_id, version, aside, build, digest)
      SELECT ?, j.shop_id, j.id, j.version, 0, ?, ? FROM job j WHERE j.id = ?;
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
  id: string,
  from: number,
  build: BuildDocument,
  write?: string,
): Promise<JobSummary> {
  if (!isUuid(id)) throw noSuchJob(id);
  const text = JSON.stringify(build);
  const digest = digestOf(text);
  const changed = new Date();
  const key = write ?? null;
  const [[{ stored }]] = await again<[[{ stored: number }]]>(() =>
    source.query(STORE, [
      ...[build.name, build.use, changed, id, from, key],
      ...[randomUUID(), text, digest, id],
      ...[key === null ? 0 : 1, key, id],
    ]),
  );
  const version = from + 1;
  if (Number(stored) === 1) {
    await thinNowAndThen(source, id, version);
    return { id, name: build.name, use: build.use, version, changed: changed.toISOString() };
  }
  const lost = await transact(source, async (manager) => {
    const job = await findJob(manager, id);
    const made = await madeBefore(manager, id, from, digest, write);
    if (made !== undefined) return summary(job, made);
    const current = await readJob(manager, id);
    const maker = await writerOf(manager, id, current.version);
    const aside = await putAside(manager, { shop: job.shop, job: id, version: from, text, digest });
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

/** All kept builds of a job, newest first. */
export async function listRevisions(source: DataSource, id: string): Promise<RevisionSummary[]> {
  await findJob(source.manager, id);
  const rows: {
    id: string;
    version: number;
    at: Date;
    aside: number;
    marked: number;
    name: string | null;
  }[] = await source.query(
    `SELECT id, version, created_at AS at, aside, marked, IF(JSON_VALID(build), JSON_VALUE(build, '$.name'), NULL) AS name
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
  }));
}

const noSuchVersion = (id: string) =>
  problem(404, 'No such version', `There is no kept version “${id.slice(0, 60)}” of this job.`);

/** One kept build, as JSON text. One that is damaged is refused. */
export async function readRevisionText(source: DataSource, job: string, id: string): Promise<string> {
  await findJob(source.manager, job);
  const [row]: (Text & { version: number })[] = isUuid(id)
    ? await source.query('SELECT version, build, digest FROM job_revision WHERE id = ? AND job_id = ?', [
        id,
        job,
      ])
    : [];
  if (!row) throw noSuchVersion(id);
  if (!isWhole(row))
    throw problem(
      410,
      'A damaged version',
      `Version ${row.version} of this job was damaged in the database and cannot be read.`,
    );
  return row.build;
}

/** Marks a kept version, so that thinning passes it over, or takes the mark away. */
export async function markRevision(
  source: DataSource,
  job: string,
  id: string,
  marked: boolean,
): Promise<{ marked: boolean }> {
  await findJob(source.manager, job);
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
