import type { DataSource, EntityManager } from 'typeorm';
import type { TimersReply } from '../contract/api';
import { timersOf } from '../core/bench';
import type { BuildDocument } from '../core/document';
import type { Caller } from './caller';
import { transact } from './database';
import { isUuid } from './ids';

/* What waits is rows: it survives reloads, restarts and a phone that goes flat, and rings on every open page. */

/** Timers that are over stay this long, so that a page opened later still rings. */
const KEPT = 'INTERVAL 1 DAY';
const MOST_TIMERS = 500;

const cut = (text: string, most: number) => text.slice(0, most);

/**
 * Writes down what of a job waits, as a version of it has it. A wait that ends at another moment than before rings anew. Gives
 * whether anything changed; nothing does where the job has moved on.
 */
export async function keepTimers(
  source: DataSource,
  { id, version, build }: { id: string; version: number; build: BuildDocument },
): Promise<boolean> {
  if (!isUuid(id)) return false;
  const timers = timersOf(build, Date.now());
  return transact(source, async (manager) => {
    const [job]: { shop: string; version: number }[] = await manager.query(
      'SELECT shop_id AS shop, version FROM job WHERE id = ? FOR UPDATE',
      [id],
    );
    if (!job || job.version > version) return false;
    return writeTimers(manager, { id, shop: job.shop }, timers);
  });
}

async function writeTimers(
  manager: EntityManager,
  job: { id: string; shop: string },
  timers: ReturnType<typeof timersOf>,
): Promise<boolean> {
  const tasks = timers.map(({ task }) => cut(task, 160));
  let changed = 0;
  const gone = await manager.query(
    tasks.length > 0
      ? 'DELETE FROM timer WHERE job_id = ? AND task NOT IN (?)'
      : 'DELETE FROM timer WHERE job_id = ?',
    tasks.length > 0 ? [job.id, tasks] : [job.id],
  );
  changed += gone.affectedRows;
  for (const { task, step, words, until } of timers) {
    const { affectedRows } = await manager.query(
      `INSERT INTO timer (job_id, task, shop_id, step, words, until) VALUES (?, ?, ?, ?, ?, ?)
        ON DUPLICATE KEY UPDATE heard_at = IF(until = VALUES(until), heard_at, NULL), step = VALUES(step), words = VALUES(words), until = VALUES(until)`,
      [job.id, cut(task, 160), job.shop, cut(step, 80), cut(words, 200), new Date(until)],
    );
    changed += affectedRows;
  }
  return changed > 0;
}

/** What waits in a shop, what ends first standing first, with what was over in the last day and nobody has heard. */
export async function listTimers(source: DataSource, { shop }: Caller): Promise<TimersReply> {
  const rows: { job: string; name: string; step: string; task: string; words: string; until: Date }[] =
    await source.query(
      `SELECT t.job_id AS job, j.name, t.step, t.task, t.words, t.until FROM timer t JOIN job j ON j.id = t.job_id
        WHERE t.shop_id = ? AND t.heard_at IS NULL AND t.until > NOW(3) - ${KEPT} AND j.deleted_at IS NULL AND j.put_away_at IS NULL
        ORDER BY t.until LIMIT ${MOST_TIMERS}`,
      [shop],
    );
  return {
    now: new Date().toISOString(),
    timers: rows.map(({ until, ...row }) => ({ ...row, until: until.toISOString() })),
  };
}

/** A wait that is over was heard. One that still runs, or is not there any more, stays as it is. */
export async function hearTimer(
  source: DataSource,
  { shop }: Caller,
  { job, task }: { job: string; task: string },
): Promise<{ heard: boolean }> {
  const { affectedRows } = isUuid(job)
    ? await source.query(
        'UPDATE timer SET heard_at = NOW(3) WHERE job_id = ? AND task = ? AND shop_id = ? AND until <= NOW(3) AND heard_at IS NULL',
        [job, task, shop],
      )
    : { affectedRows: 0 };
  return { heard: affectedRows === 1 };
}
