import { setImmediate } from 'node:timers/promises';
import type { DataSource } from 'typeorm';
import { type CostsReply, MOST_COSTED } from '../contract/log';
import { type MadeCost, madeCost } from '../core/cost';
import type { BuildDocument } from '../core/document';
import type { Caller } from './caller';
import { type JobColumns, NEWEST, readable, type Text } from './jobs';
import { readKit } from './kit';

/** Costs as they were worked out, by job and version of job and kit: most jobs that were made change no more. */
const known = new Map<string, MadeCost | undefined>();
const MOST_KNOWN = 2000;

/** An answer takes no longer than this, ms: what is not added up by then is for the next one. */
const LONGEST_MS = 2000;

/**
 * What the jobs of the shop cost that were made, the last changed first, at the prices of today. Each is played forward once; where
 * there are many, an answer gives those that were added up in `longestMs`, at least one more than the one before.
 */
export async function listCosts(
  source: DataSource,
  caller: Caller,
  longestMs = LONGEST_MS,
): Promise<CostsReply> {
  const begun = Date.now();
  const { shop: kit, version } = await readKit(source.manager, caller);
  if (kit.currency === undefined) return { made: [], pending: 0, older: 0, unread: [] };
  const rows: { id: string; version: number }[] = await source.query(
    `SELECT j.id, j.version FROM job j WHERE j.shop_id = ? AND j.deleted_at IS NULL AND JSON_VALID(j.gist)
        AND JSON_VALUE(j.gist, '$.steps') > 0 AND JSON_VALUE(j.gist, '$.done') >= JSON_VALUE(j.gist, '$.steps')
      ORDER BY j.changed_at DESC, j.id`,
    [caller.shop],
  );
  const made: MadeCost[] = [];
  const unread: string[] = [];
  let [added, pending] = [0, 0];
  for (const { id, version: of } of rows.slice(0, MOST_COSTED)) {
    const key = `${caller.shop} ${id} ${of} ${version}`;
    if (!known.has(key)) {
      if (added > 0 && Date.now() - begun > longestMs) {
        pending += 1;
        continue;
      }
      const [job]: (JobColumns & Text)[] = await source.query(`${NEWEST} AND j.id = ?`, [caller.shop, id]);
      const text = job && readable(job);
      if (text === undefined) {
        if (job) unread.push(job.name);
        continue;
      }
      const build = JSON.parse(text) as BuildDocument;
      if (known.size >= MOST_KNOWN) known.clear();
      known.set(key, madeCost({ job: id, name: job.name, build }, kit));
      added += 1;
      // Others are answered in between.
      await setImmediate();
    }
    const cost = known.get(key);
    if (cost) made.push(cost);
  }
  return { currency: kit.currency, made, pending, older: Math.max(0, rows.length - MOST_COSTED), unread };
}
