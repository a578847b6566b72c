import { randomUUID } from 'node:crypto';
import type { DataSource, EntityManager } from 'typeorm';
import type { JobReply, JobSummary } from '../contract/api';
import { gistOf, type BuildDocument } from '../core/document';
import type { Caller } from './caller';
import { again, transact } from './database';
import { isUuid } from './ids';
import { digestOf, findJob, noSuchJob, OF_SHOP, readJob, summary } from './jobs';
import { problem } from './problems';
import { giveReceipt, receiptOf, thinReceipts, writerOf } from './receipts';
import { thinned } from './thinning';

/* Every way in which a build is stored: a new job, a new version of one, one that lost a conflict. */

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
    'INSERT INTO job (id, shop_id, name, purpose, version, gist, created_at, changed_at) VALUES (?, ?, ?, ?, 1, ?, ?, ?)',
    [id, caller.shop, build.name, build.use, JSON.stringify(gistOf(build)), changedAt, changedAt],
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
  UPDATE job j SET j.name = ?, j.purpose = ?, j.gist = ?, j.version = j.version + 1, j.changed_at = ?
    WHERE j.id = ? AND j.version = ? AND j.deleted_at IS NULL AND ${OF_SHOP} AND NOT EXISTS (SELECT 1 FROM receipt WHERE write_id = ?);
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
): Promise<Pick<JobSummary, 'id' | 'name' | 'use' | 'version' | 'changed'>> {
  if (!isUuid(id)) throw noSuchJob(id);
  const text = JSON.stringify(build);
  const digest = digestOf(text);
  const changed = new Date();
  const key = write ?? null;
  const gist = JSON.stringify(gistOf(build));
  const [[{ stored }]] = await again<[[{ stored: number }]]>(() =>
    source.query(STORE, [
      ...[build.name, build.use, gist, changed, id, from, caller.shop, key],
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
    'UPDATE job SET name = ?, purpose = ?, gist = ?, version = version + 1, changed_at = ? WHERE id = ? AND version = ?',
    [build.name, build.use, JSON.stringify(gistOf(build)), new Date(), id, version],
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
