import { Plus, X } from 'lucide-react';
import type { AnyField } from '../../../core/steps';
import { type Described, DescribedField } from './DescribedField';

type Row = Record<string, unknown>;

/** A row as one begins: the first word of a choice, the least of a number, a length that can be seen. */
const begun = (fields: Record<string, AnyField>): Row =>
  Object.fromEntries(
    Object.entries(fields).flatMap(([name, field]): [string, unknown][] => {
      switch (field.is) {
        case 'choice':
          return [[name, field.options[0].value]];
        case 'number':
          return [[name, field.least ?? 0]];
        case 'length':
          return [[name, { mm: Math.max(field.least ?? 0, 10) }]];
        default:
          return [];
      }
    }),
  );

/** A list of settings that belong together, row by row: voids to be filled, readings of a wall. */
export function GroupList({
  label,
  fields,
  most,
  rows,
  onChange,
}: {
  /** What one of them is called. */
  label: string;
  fields: Record<string, AnyField & { label?: string }>;
  most: number;
  rows: readonly Row[];
  onChange: (rows: Row[], mark?: string) => void;
}) {
  const one = label.toLowerCase();
  return (
    <section className="col-span-2 flex flex-col gap-2" aria-label={label}>
      {rows.map((row, i) => (
        <fieldset
          key={`${i + 1}`}
          className="border-line grid grid-cols-[1fr_1fr_auto] items-end gap-2 border-b border-dotted pb-2"
        >
          <legend className="label pb-0.5">
            {label} {i + 1}
          </legend>
          <div className="col-span-2 grid grid-cols-2 items-end gap-2">
            {Object.entries(fields).map(([name, field]) => (
              <DescribedField
                key={name}
                name={name}
                field={{ ...field, label: field.label ?? name } as Described<Row>}
                whole={row}
                onChange={(next, mark) =>
                  onChange(
                    rows.map((each, k) => (k === i ? { ...each, ...next } : each)),
                    `${i}.${mark}`,
                  )
                }
              />
            ))}
          </div>
          <button
            type="button"
            className="action px-2"
            aria-label={`Remove ${one} ${i + 1}`}
            onClick={() => onChange(rows.filter((_, k) => k !== i))}
          >
            <X size={15} aria-hidden />
          </button>
        </fieldset>
      ))}
      {rows.length < most && (
        <button
          type="button"
          className="action self-start"
          onClick={() => onChange([...rows, { ...(rows.at(-1) ?? begun(fields)) }])}
        >
          <Plus size={15} aria-hidden /> Add: {one}
        </button>
      )}
    </section>
  );
}
