import { useState } from 'react';
import type { BenchStep } from '../../../core/bench';
import { phraseText } from '../../../core/document';
import { mayRun, type Person } from '../../../core/kit';
import { useKitQuery } from '../../app/api';
import { useDisplay } from '../../app/display';
import { Choice } from '../../parts/Choice';

const KEY = 'junta-who';
const NOBODY = 'nobody';

/** Who stands at this device: remembered in this browser, asked of nobody. */
export function useWho(): { people: readonly Person[]; who: Person | undefined; be: (id: string) => void } {
  const { data: kit } = useKitQuery();
  const [id, setId] = useState(() => {
    try {
      return localStorage.getItem(KEY) ?? NOBODY;
    } catch {
      // A browser that keeps nothing: whoever it is says so again.
      return NOBODY;
    }
  });
  const people = kit?.shop.people ?? [];
  return {
    people,
    who: people.find((each) => each.id === id),
    be: (next) => {
      setId(next);
      try {
        localStorage.setItem(KEY, next);
      } catch {
        // As above.
      }
    },
  };
}

/** Who does the step, and what stands against it: a machine they may not run, a piece heavier than they lift. */
export function WhoChoice({ people, who, be, sheet }: ReturnType<typeof useWho> & { sheet: BenchStep }) {
  const display = useDisplay();
  if (people.length === 0) return null;
  const barred = who && sheet.tool && !mayRun(who, sheet.tool.id) ? sheet.tool.name : undefined;
  const heavy = who?.liftKg !== undefined && sheet.heaviestKg > who.liftKg + 1e-9 ? who.liftKg : undefined;
  return (
    <div className="flex flex-col gap-1 text-[19px] max-desk:text-[17px]">
      <Choice
        label="Who does it"
        className="h-12! w-56"
        value={who?.id ?? NOBODY}
        options={[
          { value: NOBODY, label: 'not said' },
          ...people.map(({ id, name }) => ({ value: id, label: name })),
        ]}
        onChange={be}
      />
      {barred && (
        <p role="status" className="text-red font-medium">
          {who?.name} may not run {barred}: ask somebody who may.
        </p>
      )}
      {heavy !== undefined && (
        <p role="status" className="text-red font-medium">
          {phraseText(
            [
              'The heaviest piece weighs ',
              { kg: sheet.heaviestKg },
              `; ${who?.name} lifts `,
              { kg: heavy },
              ' alone: lift it with somebody.',
            ],
            display,
          )}
        </p>
      )}
    </div>
  );
}
