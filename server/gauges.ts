import type { DataSource } from 'typeorm';
import { type GaugeReading, notOfGauge } from '../core/bench';
import type { Caller } from './caller';
import { tell } from './events';
import { badFields, problem } from './problems';

/** A hand takes no more readings than this, in a second; a gauge that sends more floods. */
const MOST_A_SECOND = 10;
/** So many gauges are counted at once; the one that was silent longest is forgotten first. */
const MOST_GAUGES = 500;

const lately = new Map<string, number[]>();

/** Counts a reading of a gauge; refused where it floods. */
function count(key: string, now: number): void {
  const before = (lately.get(key) ?? []).filter((at) => at > now - 1000);
  if (before.length >= MOST_A_SECOND) {
    lately.set(key, before);
    throw problem(
      429,
      'Too many readings',
      `This gauge sends more than ${MOST_A_SECOND} readings in a second. Those beyond were not taken.`,
    );
  }
  lately.delete(key);
  lately.set(key, [...before, now]);
  if (lately.size > MOST_GAUGES)
    for (const [oldest] of lately) {
      lately.delete(oldest);
      break;
    }
}

/** Tells the open pages of a shop what a gauge read; refused where such a gauge cannot have read it, or where it floods. */
export async function takeReading(
  source: DataSource,
  { shop }: Caller,
  reading: GaugeReading,
): Promise<{ told: true }> {
  const reason = notOfGauge(reading);
  if (reason) throw badFields([{ path: 'value', reason }]);
  count(`${shop} ${reading.gauge}`, Date.now());
  await tell(source, { shop, kind: 'reading', data: reading });
  return { told: true };
}
