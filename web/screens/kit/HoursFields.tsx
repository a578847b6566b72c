import { DAY_NAMES } from '../../../core/bench';
import type { WorkHours } from '../../../core/kit';
import { NumberField } from '../../parts/NumberField';
import { Tick } from '../../parts/Tick';

type Hours = Pick<WorkHours, 'days' | 'from' | 'to'>;

/** On which days of the week, and from when to when. One day is left ticked: hours without a day are no hours. */
export function HoursFields({ hours, onChange }: { hours: Hours; onChange: (hours: Hours) => void }) {
  const { days, from, to } = hours;
  return (
    <>
      <div className="flex flex-wrap gap-x-3">
        {DAY_NAMES.map((name, i) => (
          <Tick
            key={name}
            label={name}
            checked={days.includes(i + 1)}
            onChange={(on) => {
              const next = on
                ? [...days, i + 1].toSorted((a, b) => a - b)
                : days.filter((day) => day !== i + 1);
              if (next.length > 0) onChange({ days: next, from, to });
            }}
          />
        ))}
      </div>
      <div className="grid max-w-md grid-cols-2 gap-3">
        <NumberField
          label="From, o’clock"
          value={from}
          least={0}
          most={to - 0.5}
          onChange={(next) => onChange({ days, from: next, to })}
        />
        <NumberField
          label="To, o’clock"
          value={to}
          least={from + 0.5}
          most={24}
          onChange={(next) => onChange({ days, from, to: next })}
        />
      </div>
    </>
  );
}
