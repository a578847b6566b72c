import type { PromisedJob } from '../../../core/bench';
import { counted } from '../../../core/units';
import { inZone } from './moment';

const DAY = { weekday: 'short', day: 'numeric', month: 'short' } as const;

/** For which day a job is promised, when it will be ready as things stand, and what lies between. */
export function PromiseLine({ promise, zone }: { promise: PromisedJob; zone: string }) {
  const { promised, ready, spareDays } = promise;
  const late = spareDays < 0;
  const between = late
    ? `${counted(-spareDays, 'day')} late`
    : spareDays === 0
      ? 'no day to spare'
      : `${counted(spareDays, 'day')} to spare`;
  return (
    <span className={`block text-[14px] ${late ? 'text-red' : ''}`}>
      {late && <span aria-hidden>✕ </span>}
      promised for {inZone(Date.parse(promised), 'UTC', DAY)}; ready {inZone(ready, zone, DAY)}, {between}
    </span>
  );
}
