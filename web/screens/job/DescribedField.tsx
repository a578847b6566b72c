import type { AnyField } from '../../../core/steps';
import type { Length } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { Choice } from '../../parts/Choice';
import { CountField } from '../../parts/CountField';
import { LengthField } from '../../parts/LengthField';
import { NumberField } from '../../parts/NumberField';
import { Tick } from '../../parts/Tick';
import { useSettle } from './use-edit';

const NOTHING: Length = { mm: 0 };

/** A setting with its words: what a feature, a fitting or a row of a list has. */
export type Described<T> = AnyField & { label: string; optional?: true; when?: (whole: T) => boolean };

/** One setting of a whole, drawn by what it is. */
export function DescribedField<T extends object>({
  name,
  field,
  whole,
  spoken = '',
  onChange,
}: {
  name: string;
  field: Described<T>;
  whole: T;
  /** Said before its label, where several alike stand under one another. */
  spoken?: string;
  onChange: (next: Partial<T>, mark?: string) => void;
}) {
  const display = useDisplay();
  const settle = useSettle();
  if (field.when && !field.when(whole)) return null;
  const value = (whole as unknown as Record<string, unknown>)[name];
  const set = (next: unknown) => onChange({ [name]: next } as Partial<T>, name);
  const label = `${spoken}${field.label}`;
  switch (field.is) {
    case 'length':
      return (
        <LengthField
          label={label}
          value={(value as Length | undefined) ?? NOTHING}
          unset={field.optional === true}
          display={display}
          rule={{ minMm: field.least ?? 0, maxMm: field.most ?? 5000 }}
          onChange={(length) => set(field.optional && length.mm === 0 ? undefined : length)}
          onSettled={settle}
        />
      );
    case 'number': {
      const Field = field.whole ? CountField : NumberField;
      return (
        <Field
          label={label}
          value={value as number}
          least={field.least ?? 0}
          most={field.most ?? 1000}
          onChange={set}
          onSettled={settle}
        />
      );
    }
    case 'choice':
      return <Choice label={label} value={value as string} options={[...field.options]} onChange={set} />;
    case 'flag':
      return (
        <div className="self-end">
          <Tick label={label} checked={value === true} onChange={(on) => set(on || undefined)} />
        </div>
      );
    default:
      return null;
  }
}
