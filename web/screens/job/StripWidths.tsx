import { useState } from 'react';
import type { Slot, Step } from '../../../core/document';
import { matchedSets, type WidthCount } from '../../../core/plan';
import { counted, type Display, type Length, lengthText, stripsInAll } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { LengthsField } from '../../parts/LengthsField';
import { useEdit } from './use-edit';

const LIMITS = { minMm: 0.5, maxMm: 2000 };
const NONE: readonly Length[] = [];

const listed = (counts: readonly WidthCount[], display: Display): string =>
  counts.map(({ mm, count }) => `${count} of ${lengthText(mm, display)}`).join(', ');

/** The widths of many strips at once, in one line; and how many matched sets there are, with what the next one lacks. */
export function StripWidths({ step, slots }: { step: Step; slots: readonly Slot[] }) {
  const display = useDisplay();
  const edit = useEdit();
  const now = slots.map(({ width }) => width);
  const [typed, setTyped] = useState<Length[]>();
  const [set, setSet] = useState<readonly Length[]>(NONE);
  const widths = typed ?? now;
  const more = widths.length - slots.length;
  const changed = typed !== undefined && (more !== 0 || typed.some(({ mm }, i) => mm !== now[i].mm));
  const sets =
    set.length > 0 &&
    matchedSets(
      now.map(({ mm }) => mm),
      set.map(({ mm }) => mm),
    );
  return (
    <details className="text-[14px]">
      <summary className="cursor-pointer font-medium">Widths in one line, and matched sets</summary>
      <div className="flex flex-col gap-2 pt-1.5">
        <LengthsField
          // Once they are set, the strips themselves say what stands here.
          key={now.map(({ mm }) => mm).join()}
          label="Ripped widths, from the first strip on"
          value={widths}
          display={display}
          rule={LIMITS}
          says={(lengths) => stripsInAll(lengths, display)}
          onChange={setTyped}
        />
        <span className="flex items-center gap-2">
          <button
            type="button"
            className="action"
            disabled={!changed}
            onClick={() => {
              edit({ do: 'setWidths', step: step.id, strips: slots.map(({ id }) => id), widths });
              setTyped(undefined);
            }}
          >
            Set these widths
          </button>
          {changed && more !== 0 && (
            <span className="text-graphite text-[13px]">
              {more > 0
                ? `adds ${counted(more, 'strip')} like the last`
                : `takes the last ${counted(-more, 'strip')} out`}
            </span>
          )}
        </span>
        <LengthsField
          label="One matched set"
          value={set}
          display={display}
          rule={LIMITS}
          empty="so many of each width that belong together"
          says={(lengths) => stripsInAll(lengths, display)}
          onChange={setSet}
        />
        {sets && (
          <p className="text-[13.5px]" aria-live="polite">
            {counted(sets.sets, 'whole set')}.
            {sets.over.length > 0 && ` Over: ${listed(sets.over, display)}.`}{' '}
            {sets.missing.length > 0 && `For one more set, missing: ${listed(sets.missing, display)}.`}
          </p>
        )}
      </div>
    </details>
  );
}
