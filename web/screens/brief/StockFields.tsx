import { useMemo } from 'react';
import { isRefused } from '../../../core/document';
import { fit, stockGives, stripsOfStock, largestSawn, thinnerForStock } from '../../../core/plan';
import { inputText, lengthText, lengthUnit } from '../../../core/units';
import { Toggle } from '../../parts/Toggle';
import type { BriefPart } from './part';

const STRIPS = [
  { value: 'milled', label: 'Milled' },
  { value: 'asTheyAre', label: 'As they are' },
] as const;

/** What the wood is sold as, what that really is, whether this plan comes out of it, and what can be taken over from it. */
export function StockFields({ brief, shop, display, onChange }: BriefPart) {
  const text = brief.stock ?? '';
  const gives = useMemo(() => stockGives(text, shop, brief.asTheyAre), [text, shop, brief.asTheyAre]);
  const sawn = useMemo(() => {
    const planned = gives && fit(brief, shop, { name: 'plan', use: '' });
    return planned && !isRefused(planned) ? largestSawn(planned) : undefined;
  }, [gives, brief, shop]);
  const thinner = useMemo(() => gives && thinnerForStock(brief, shop, gives), [gives, brief, shop]);
  const strips = gives && stripsOfStock(brief, gives);
  const size = (mm: number) => `${inputText({ mm }, display)} ${lengthUnit(display)}`;
  const over = gives && sawn ? sawn.thicknessMm - gives.thicknessMm : 0;
  const wide = gives?.widthMm !== undefined && sawn ? sawn.widthMm - gives.widthMm : 0;
  return (
    <fieldset className="flex flex-col gap-1.5">
      <legend className="sr-only">Stock</legend>
      <div className="grid grid-cols-2 items-end gap-3">
        <label className="label block">
          Wood sold as
          <input
            className="field mt-0.5 w-full"
            value={text}
            maxLength={40}
            placeholder={display.system === 'mm' ? '45 x 95' : '2x8, 8/4'}
            aria-describedby="stock-says"
            onChange={(event) => onChange({ stock: event.target.value || undefined })}
          />
        </label>
        <Toggle
          label="Strips"
          value={brief.asTheyAre ? 'asTheyAre' : 'milled'}
          options={STRIPS}
          onChange={(value) => onChange({ asTheyAre: value === 'asTheyAre' ? true : undefined })}
        />
      </div>
      <div id="stock-says" className="text-graphite text-[13px]" aria-live="polite">
        {text !== '' && !gives && (
          <p className="text-red">
            “{text}” is no size that wood is sold by: a name such as 2x8, quarters such as 8/4, or 45 x 95.
          </p>
        )}
        {gives && (
          <p>
            {gives.by === 'nominal' && 'A nominal name (PS 20): really '}
            {gives.by === 'quarters' && 'Rough: '}
            {size(gives.thicknessMm)}
            {gives.widthMm !== undefined && ` × ${size(gives.widthMm)}`}.
            {gives.stripMm !== undefined &&
              (brief.asTheyAre
                ? ` Strips stay ${size(gives.stripMm)} wide.`
                : ` Without its rounded corners, milled: strips up to ${size(gives.stripMm)} wide.`)}
          </p>
        )}
        {gives && sawn && (
          <p className={over > 1e-6 || wide > 1e-6 ? 'text-red' : 'text-green'}>
            {over > 1e-6
              ? `✕ This plan saws strips ${size(sawn.thicknessMm)} thick: ${lengthText(over, display)} more than that.`
              : wide > 1e-6
                ? `✕ This plan saws strips ${size(sawn.widthMm)} wide: ${lengthText(wide, display)} more than that.`
                : `✓ This plan comes out of it: strips sawn ${size(sawn.widthMm)} × ${size(sawn.thicknessMm)}.`}
          </p>
        )}
      </div>
      {(strips || thinner) && (
        <span className="flex flex-wrap gap-1.5">
          {strips && (
            <button type="button" className="action" onClick={() => onChange(strips)}>
              Strips of that width
            </button>
          )}
          {thinner?.thickness?.value && (
            <button type="button" className="action" onClick={() => onChange(thinner)}>
              Make it {size(thinner.thickness.value.mm)} thick
            </button>
          )}
        </span>
      )}
    </fieldset>
  );
}
