import { Plus } from 'lucide-react';
import type { ReactNode } from 'react';
import type { Spread } from '../../../core/kit';
import type { Length } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { Choice } from '../../parts/Choice';
import { LengthField } from '../../parts/LengthField';

const LONGEST_MM = 20_000;

/** A part of the kit under its heading. */
export const Section = ({ title, says, children }: { title: string; says?: string; children: ReactNode }) => (
  <section aria-label={title} className="sheet p-4">
    <h2 className="pb-2 text-[17px] font-semibold">{title}</h2>
    {says && <p className="text-graphite pb-2 text-[13.5px]">{says}</p>}
    {children}
  </section>
);

/** A length of the kit, named by what it belongs to. */
export function Size({
  label,
  value,
  onChange,
}: {
  label: string;
  value: Length;
  onChange: (value: Length) => void;
}) {
  const display = useDisplay();
  return (
    <LengthField
      label={label}
      hideLabel
      value={value}
      display={display}
      rule={{ minMm: 0, maxMm: LONGEST_MM }}
      onChange={onChange}
      className="w-[80px]"
    />
  );
}

/** How far a setting may be off: likely, and at worst. */
export const spreadFields = (spread: Spread, onChange: (spread: Spread) => void) =>
  [
    {
      key: 'likely',
      name: 'Usual error',
      label: 'usual error',
      value: spread.likely,
      set: (likely: Length) => onChange({ ...spread, likely }),
    },
    {
      key: 'worst',
      name: 'Worst error',
      label: 'worst error',
      value: spread.worst,
      set: (worst: Length) => onChange({ ...spread, worst }),
    },
  ] as const;

/** A field under its name, as the cards of the kit stand them side by side. */
export const Under = ({ name, title, children }: { name: string; title?: string; children: ReactNode }) => (
  <span className="flex flex-col justify-end gap-0.5" title={title}>
    <span aria-hidden className="label max-w-[88px] leading-tight">
      {name}
    </span>
    {children}
  </span>
);

/** Adds an entry of one of several kinds; while there is none, says what one is for and puts the first in with one press. */
export const AddKind = ({
  label,
  kinds,
  first,
  onAdd,
}: {
  label: string;
  kinds: readonly { value: string; label: string }[];
  /** While the list is empty: what an entry is for, and the kind that most begin with. */
  first: { says: string; kind: string; button: string } | undefined;
  onAdd: (kind: string) => void;
}) => (
  <>
    {first && (
      <p className="flex flex-wrap items-center gap-x-3 gap-y-1.5 pt-1 text-[14px]">
        {first.says}
        <button type="button" className="action" onClick={() => onAdd(first.kind)}>
          <Plus size={15} aria-hidden /> {first.button}
        </button>
      </p>
    )}
    <Choice label={label} className="mt-2 w-72" value="" options={kinds} onChange={onAdd} />
  </>
);
