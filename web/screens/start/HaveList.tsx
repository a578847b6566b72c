import { type ReactNode } from 'react';
import type { Usual } from '../../../core/kit';
import type { Length } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { LengthField } from '../../parts/LengthField';
import { Tick } from '../../parts/Tick';

/** What a shop has of usual things: each ticked or not; of what is ticked the values, to be corrected. */
export function HaveList<T extends { id: string }>({
  label,
  usual,
  have,
  onChange,
  fields,
}: {
  label: string;
  usual: readonly Usual<T>[];
  have: readonly T[];
  onChange: (have: T[]) => void;
  fields: (item: T, usual: T, change: (part: Partial<T>) => void) => ReactNode;
}) {
  return (
    <ul aria-label={label} className="border-line border-b">
      {usual.map(({ kind, name, item }) => {
        const own = have.find(({ id }) => id === item.id);
        const change = (part: Partial<T>) =>
          onChange(have.map((each) => (each.id === item.id ? { ...each, ...part } : each)));
        return (
          <li
            key={kind}
            className="border-line flex min-h-11 flex-wrap items-center gap-x-4 gap-y-1 border-t py-1"
          >
            <span className="w-56">
              <Tick
                label={name}
                checked={own !== undefined}
                onChange={(on) =>
                  // In the order of the list, however they were ticked.
                  onChange(
                    usual.flatMap((each) =>
                      each.item.id === item.id
                        ? on
                          ? [item]
                          : []
                        : (have.find(({ id }) => id === each.item.id) ?? []),
                    ),
                  )
                }
              />
            </span>
            {own && (
              <span className="flex flex-wrap items-end gap-x-3 gap-y-1 pb-1">
                {fields(own, item, change)}
              </span>
            )}
          </li>
        );
      })}
    </ul>
  );
}

/** A size with its name, marked as long as it is the usual one. */
export function UsualSize({
  label,
  name,
  value,
  usual,
  onChange,
}: {
  label: string;
  name: string;
  value: Length;
  usual: Length;
  onChange: (value: Length) => void;
}) {
  const display = useDisplay();
  return (
    <span className="flex w-24 flex-col">
      <span aria-hidden className="label leading-tight">
        {name}
      </span>
      <LengthField
        label={label}
        hideLabel
        value={value}
        display={display}
        rule={{ minMm: 0, maxMm: 20_000 }}
        onChange={onChange}
      />
      <Typical is={value.mm === usual.mm} />
    </span>
  );
}

/** Says of a value that nobody has corrected it yet. */
export const Typical = ({ is }: { is: boolean }) => (
  <span className="text-graphite text-[12px]">{is ? 'typical' : 'yours'}</span>
);
