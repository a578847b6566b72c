import { useState } from 'react';
import { countsFor } from '../../../../core/plan';
import { type Display, type Length, lengthsText, lengthText } from '../../../../core/units';
import { LengthField } from '../../../parts/LengthField';

/** Which counts of the widths there are make a width: each answer is one press away. */
export function WidthHelp({
  widths,
  display,
  onUse,
}: {
  widths: readonly Length[];
  display: Display;
  onUse: (widths: Length[]) => void;
}) {
  const once = [...new Map(widths.map((width) => [width.mm.toFixed(6), width])).values()];
  const [wanted, setWanted] = useState<Length>({ mm: widths.reduce((sum, { mm }) => sum + mm, 0) });
  const ways = countsFor(
    wanted.mm,
    once.map(({ mm }) => mm),
    4,
  );
  const listed = (counts: readonly number[]) =>
    once.flatMap((width, i) => Array.from({ length: counts[i] }, () => width));
  return (
    <details className="text-[14px]">
      <summary className="cursor-pointer font-medium">Which numbers of these make a width</summary>
      <div className="flex flex-col gap-2 pt-2">
        <LengthField
          label="Width to make"
          value={wanted}
          display={display}
          rule={{ minMm: 1, maxMm: 5000 }}
          onChange={setWanted}
        />
        <ul className="flex flex-col gap-1">
          {ways.map(({ counts, sumMm, offMm }) => (
            <li key={counts.join('-')} className="flex items-center justify-between gap-3">
              <span className="rule">{lengthsText(listed(counts), display)}</span>
              <span className="text-graphite text-[13px]">
                {offMm === 0
                  ? 'exactly'
                  : `${lengthText(sumMm, display)}, ${lengthText(Math.abs(offMm), display)} too ${offMm > 0 ? 'wide' : 'narrow'}`}
              </span>
              <button type="button" className="action h-7!" onClick={() => onUse(listed(counts))}>
                Use
              </button>
            </li>
          ))}
        </ul>
      </div>
    </details>
  );
}
