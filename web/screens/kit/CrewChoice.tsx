import type { ReactNode } from 'react';
import type { GluePractice, Pace } from '../../../core/kit';
import { Toggle } from '../../parts/Toggle';
import { CountField } from '../../parts/CountField';
import { NumberField } from '../../parts/NumberField';
import { dialled } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { HoursFields } from './HoursFields';

/** A choice with its reason under it. */
export const Item = ({ why, children }: { why: ReactNode; children: ReactNode }) => (
  <div className="flex flex-col gap-1.5">
    {children}
    <p className="text-graphite text-[13.5px] first-letter:uppercase">{why}</p>
  </div>
);

/** Who glues, how fast, and when the shop works. */
export function CrewChoice({
  practice,
  basis,
  onChange: set,
}: {
  practice: GluePractice;
  /** What its minutes rest on. */
  basis: string;
  onChange: (change: Partial<GluePractice>) => void;
}) {
  const mass = dialled('mass', useDisplay());
  const pace = (change: Partial<Pace>) => set({ pace: { ...practice.pace, ...change } });
  return (
    <>
      <Item why="Who is there, what one pair of hands lifts alone, and how many glue-ups find room at once.">
        <div className="grid grid-cols-3 items-end gap-3 max-desk:grid-cols-2">
          <Toggle
            label="Hands"
            value={String(practice.hands)}
            options={[
              { value: '1', label: 'One pair' },
              { value: '2', label: 'Two' },
            ]}
            onChange={(v) => set({ hands: v === '2' ? 2 : 1 })}
          />
          <NumberField
            label={`Lifts, ${mass.unit} a pair`}
            value={mass.shown(practice.liftKg)}
            least={1}
            most={mass.shown(1000)}
            onChange={(lifted) => set({ liftKg: mass.stored(lifted) })}
          />
          <CountField
            label="Benches"
            value={practice.benches}
            most={50}
            onChange={(benches) => set({ benches })}
          />
        </div>
      </Item>
      <Item why={<>These are {basis}: Rehearse, on a glue-up. What they teach is offered in the log.</>}>
        <span className="label">Pace, minutes of one pair of hands</span>
        <div className="grid grid-cols-4 gap-3 max-desk:grid-cols-2">
          {(
            [
              ['jointMin', 'Turn to a joint'],
              ['placeMin', 'Lay a part'],
              ['alignMin', 'Bring flush'],
              ['clampMin', 'A clamp'],
              ['caulMin', 'Pair of cauls'],
              ['aidMin', 'An aid'],
            ] as const
          ).map(([name, label]) => (
            <NumberField
              key={name}
              label={label}
              value={Math.round(practice.pace[name] * 100) / 100}
              least={0}
              most={120}
              onChange={(value) => pace({ [name]: value })}
            />
          ))}
          <NumberField
            label="Spreading, times"
            value={Math.round(practice.pace.spreading * 100) / 100}
            least={0.01}
            most={50}
            onChange={(spreading) => pace({ spreading })}
          />
        </div>
      </Item>
      <Item why="The calendar plans work in these hours; glue sets and finish dries at night too. The clock runs in the reader’s own zone if none is named.">
        <HoursFields
          hours={practice.hours}
          onChange={(hours) => set({ hours: { ...practice.hours, ...hours } })}
        />
      </Item>
    </>
  );
}
