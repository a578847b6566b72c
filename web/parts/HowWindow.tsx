import { useMemo } from 'react';
import * as worked from '../../core/worked';
import { amountText, namesOf, workedText } from '../../core/worked';
import { useDisplay } from '../app/display';
import type { HowOf } from './how-of';
import { Window } from './Window';

/** Numbers with how they came about, to be checked by hand. */
export function HowWindow({ of, onClose }: { of: HowOf; onClose: () => void }) {
  const display = useDisplay();
  const list = useMemo(() => of(worked).flatMap((each) => each ?? []), [of]);
  return (
    <Window
      title="How is this computed?"
      wide
      open
      description="The sums with their numbers, in decimals, so that they can be done again by hand. ⌈ ⌉ is rounded up."
      onClose={onClose}
    >
      {list.length === 0 && (
        <p>
          This number comes from curved or oblique cuts, from pressure curves, or from several losses that
          were found together: it is no plain sum.
        </p>
      )}
      <ul className="flex flex-col gap-5">
        {list.map((each) => (
          <li key={each.title}>
            <h3 className="font-semibold">{each.title}</h3>
            <p className="rule py-1 text-[15px] break-words" data-worked={each.title}>
              {workedText(each, display)}
            </p>
            <dl className="grid grid-cols-[auto_1fr] gap-x-3 text-[14px]">
              {namesOf(each.sum).map(({ value, unit, name }) => (
                <div key={`${name} ${value}`} className="contents">
                  <dt className="rule text-right">{amountText(value, unit, display)}</dt>
                  <dd className="text-graphite">{name}</dd>
                </div>
              ))}
            </dl>
            <p className="text-graphite pt-1 text-[13.5px]">{each.source}</p>
          </li>
        ))}
      </ul>
    </Window>
  );
}
