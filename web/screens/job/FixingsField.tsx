import { Plus, X } from 'lucide-react';
import { supplyFacts, type SupplyKind } from '../../../core/kit';
import type { Fixing } from '../../../core/steps';
import { Choice } from '../../parts/Choice';
import type { Option } from '../../parts/choice-face';
import { NumberField } from '../../parts/NumberField';

/** The hardware a step takes: what, of which size, how much. */
export function FixingsField({
  label,
  kinds,
  most,
  fixings,
  onChange,
}: {
  label: string;
  kinds: readonly Option[];
  most: number;
  fixings: readonly Fixing[];
  onChange: (fixings: Fixing[]) => void;
}) {
  const change = (at: number, part: Partial<Fixing>) =>
    onChange(fixings.map((each, i) => (i === at ? { ...each, ...part } : each)));
  return (
    <fieldset className="col-span-2 flex flex-col gap-2">
      <legend className="label pb-0.5">{label}</legend>
      {fixings.map(({ kind, size, amount }, i) => (
        <div
          key={`${i + 1}`}
          className="border-line grid grid-cols-2 items-end gap-2 border-b border-dotted pb-2"
        >
          <Choice
            label={`Hardware ${i + 1}`}
            value={kind}
            options={kinds}
            onChange={(next) => change(i, { kind: next as SupplyKind })}
          />
          <NumberField
            label={`How much${supplyFacts(kind).unit === 'piece' ? '' : `, ${supplyFacts(kind).unit}`}`}
            value={amount}
            least={0}
            most={10_000}
            onChange={(next) => change(i, { amount: next })}
          />
          <label className="label block">
            Size
            <input
              className="field mt-0.5 w-full font-sans!"
              value={size ?? ''}
              maxLength={40}
              onChange={({ target }) => change(i, { size: target.value || undefined })}
            />
          </label>
          <button
            type="button"
            className="action justify-self-end px-2"
            aria-label={`Remove hardware ${i + 1}`}
            onClick={() => onChange(fixings.filter((_, k) => k !== i))}
          >
            <X size={15} />
          </button>
        </div>
      ))}
      {fixings.length < most && (
        <button
          type="button"
          className="action self-start"
          onClick={() => onChange([...fixings, { kind: 'screw', amount: 4 }])}
        >
          <Plus size={15} aria-hidden /> Hardware
        </button>
      )}
    </fieldset>
  );
}
