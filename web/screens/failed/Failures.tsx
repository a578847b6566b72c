import { type BuildDocument, failureWords } from '../../../core/document';
import { localZone } from '../calendar/calendar-worker';
import { when } from '../today/moment';

/** What failed at a step, and what was done about it: it stays in the record. */
export function Failures({ build, step, now }: { build: BuildDocument; step: string; now: number }) {
  const own = (build.failures ?? []).filter((each) => each.step === step);
  if (own.length === 0) return null;
  return (
    <ul aria-label="What failed here" className="text-red">
      {own.map((failure) => (
        <li key={failure.id}>
          ✕ Failed{failure.at && ` ${when(Date.parse(failure.at), now, localZone())}`}
          {failure.who && ` (${failure.who})`}: {failureWords(failure)}
        </li>
      ))}
    </ul>
  );
}
