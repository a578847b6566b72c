import { Plus, X } from 'lucide-react';
import type { MeasureValue } from '../../../core/document';
import { doesWork, type ShopSnapshot } from '../../../core/kit';
import { type MeasureField, measureOf, patternOf } from '../../../core/plan';
import { type Display, type Length, lengthText } from '../../../core/units';
import { Choice } from '../../parts/Choice';
import { Toggle } from '../../parts/Toggle';
import { CountField } from '../../parts/CountField';
import { LengthField } from '../../parts/LengthField';
import { NumberField } from '../../parts/NumberField';
import { AimFields } from './AimFields';
import { JobAllowances } from './JobAllowances';
import type { BriefPart } from './part';
import { StockFields } from './StockFields';
import { MILLED_WOODS } from '../../parts/woods';

const MOST_WOODS = 8;
/** Options of fewer letters stand beside another field. */
const SHORT = 12;

/** Sizes, woods and the pattern's own measures; drawn from the pattern's description. */
export function BriefFields({ brief, shop, display, onChange }: BriefPart) {
  const pattern = patternOf(brief.pattern);
  const measure = (key: string, value: MeasureValue) =>
    onChange({ measures: { ...brief.measures, [key]: value } });
  return (
    <>
      {(['length', 'width', 'thickness'] as const).map((name) => (
        <AimFields
          key={name}
          title={pattern.sizeLabels?.[name] ?? `${name[0].toUpperCase()}${name.slice(1)}`}
          aim={brief[name]}
          display={display}
          onChange={(aim) => onChange({ [name]: aim })}
        />
      ))}
      <div className="grid grid-cols-2 items-end gap-x-3 gap-y-2.5">
        <LengthField
          label={pattern.moduleLabel}
          value={brief.module}
          display={display}
          rule={{ minMm: 3, maxMm: 2000 }}
          onChange={(module) => onChange({ module })}
        />
        {pattern.measures.map((field) => (
          <MeasureInput
            key={field.key}
            field={field}
            value={measureOf(brief, field)}
            shop={shop}
            display={display}
            onChange={(value) => measure(field.key, value)}
          />
        ))}
        {pattern.spares && (
          <CountField
            label="Spare slices"
            value={brief.extraSlices}
            least={0}
            most={20}
            onChange={(extraSlices) => onChange({ extraSlices })}
          />
        )}
        {pattern.batch && (
          <CountField
            label="How many alike"
            value={brief.quantity ?? 1}
            most={100}
            onChange={(quantity) => onChange({ quantity })}
          />
        )}
      </div>
      <Woods brief={brief} onChange={onChange} />
      <StockFields brief={brief} shop={shop} display={display} onChange={onChange} />
      {brief.pattern === 'endGrain' && (
        <Toggle
          label="Slices"
          value={brief.chequer ? 'yes' : 'no'}
          onChange={(chequer) => onChange({ chequer: chequer === 'yes' })}
          options={[
            { value: 'yes', label: 'Every other end for end' },
            { value: 'no', label: 'All alike' },
          ]}
        />
      )}
      <div className="grid grid-cols-2 gap-3">
        <Choice
          label="Saw, and its kerf"
          value={brief.saw}
          onChange={(saw) => onChange({ saw, trimWith: 'saw' in brief.trimWith ? { saw } : brief.trimWith })}
          options={shop.saws.map(({ id, name, kerf }) => ({
            value: id,
            label: `${name}, ${lengthText(kerf.mm, display)}`,
          }))}
        />
        <Choice
          label="Flatten the panel with"
          value={brief.flattenWith}
          onChange={(flattenWith) => onChange({ flattenWith })}
          options={shop.machines
            .filter((machine) => doesWork(machine, 'flatten') || machine.id === brief.flattenWith)
            .map(({ id, name }) => ({ value: id, label: name }))}
        />
      </div>
      <JobAllowances brief={brief} shop={shop} display={display} onChange={onChange} />
    </>
  );
}

function Woods({ brief, onChange }: Pick<BriefPart, 'brief' | 'onChange'>) {
  const { woods } = brief;
  return (
    <fieldset className="flex flex-col gap-1.5">
      <legend className="label pb-0.5">Woods, in turn</legend>
      {woods.map((wood, i) => (
        // Woods may repeat, so that their place is all that tells them apart.
        <div key={`${i + 1}`} className="flex gap-2">
          <Choice
            label={`Wood ${i + 1}`}
            hideLabel
            value={wood}
            options={MILLED_WOODS}
            onChange={(next) => onChange({ woods: woods.map((w, k) => (k === i ? next : w)) })}
            className="flex-1"
          />
          {woods.length > 1 && (
            <button
              type="button"
              className="action px-2"
              aria-label={`Remove wood ${i + 1}`}
              onClick={() => onChange({ woods: woods.filter((_, k) => k !== i) })}
            >
              <X size={15} />
            </button>
          )}
        </div>
      ))}
      {woods.length < MOST_WOODS && (
        <button
          type="button"
          className="action self-start"
          onClick={() => onChange({ woods: [...woods, 'maple_sugar'] })}
        >
          <Plus size={15} aria-hidden /> Another wood
        </button>
      )}
    </fieldset>
  );
}

function MeasureInput({
  field,
  value,
  shop,
  display,
  onChange,
}: {
  field: MeasureField;
  value: MeasureValue;
  shop: ShopSnapshot;
  display: Display;
  onChange: (value: MeasureValue) => void;
}) {
  const { label, kind, key } = field;
  if (key === 'rule')
    return (
      <Choice
        label={label}
        className="col-span-2"
        value={String(value) || (shop.layUps?.[0]?.id ?? '')}
        options={(shop.layUps ?? []).map(({ id, name }) => ({ value: id, label: name }))}
        onChange={onChange}
      />
    );
  if (kind === 'choice')
    return (
      <Choice
        label={label}
        value={String(value)}
        options={field.options ?? []}
        onChange={onChange}
        className={field.options?.every(({ label: words }) => words.length < SHORT) ? '' : 'col-span-2'}
      />
    );
  if (kind === 'words')
    return (
      <label className="label col-span-2 block">
        {label}
        <textarea
          className="field mt-0.5 h-20! w-full py-1"
          value={String(value)}
          maxLength={1200}
          onChange={(event) => onChange(event.target.value)}
        />
      </label>
    );
  if (kind === 'length')
    return (
      <LengthField
        label={label}
        value={value as Length}
        display={display}
        rule={{ minMm: field.least ?? 0, maxMm: 10_000 }}
        onChange={onChange}
      />
    );
  const { least = 0, most = 1000 } = field;
  return kind === 'count' ? (
    <CountField label={label} value={Number(value)} least={least} most={most} onChange={onChange} />
  ) : (
    <NumberField label={label} value={Number(value)} least={least} most={most} onChange={onChange} />
  );
}
