import { RotateCcw } from 'lucide-react';
import { useState } from 'react';
import { ALLOWANCE_NAMES, type AllowanceName, ALLOWANCES, shopAlone } from '../../../core/kit';
import { type Length, lengthText } from '../../../core/units';
import { LengthField } from '../../parts/LengthField';
import type { BriefPart } from './part';

/** An allowance over this is a slip of the hand, mm. */
const MOST_MM = 1000;

/** What this one job allows for; what is not set here is the shop's, which is named beside each that is. */
export function JobAllowances({ brief, shop, display, onChange }: BriefPart) {
  const own = brief.allowances ?? {};
  const shops = shopAlone(shop).allowances;
  const set = (name: AllowanceName, value: Length | undefined) => {
    const { [name]: _, ...rest } = own;
    const next = value === undefined ? rest : { ...rest, [name]: value };
    onChange({ allowances: Object.keys(next).length > 0 ? next : undefined });
  };
  const count = Object.keys(own).length;
  // Open where there are some to begin with; from then on it is the maker's to open and close.
  const [begun] = useState(count > 0);
  return (
    <details className="text-[14px]" open={begun}>
      <summary className="text-chalk cursor-pointer py-1 font-medium">
        Allowances of this job{count > 0 ? `, ${count} of its own` : ', as in the shop'}
      </summary>
      <div className="grid grid-cols-2 items-start gap-x-3 gap-y-2.5 pt-1.5">
        {ALLOWANCE_NAMES.map((name) => {
          const { title, about } = ALLOWANCES[name];
          const value = own[name];
          return (
            <div key={name} className="flex flex-col gap-0.5">
              <LengthField
                label={title}
                value={value ?? shops[name]}
                display={display}
                rule={{ minMm: 0, maxMm: MOST_MM }}
                onChange={(length) => set(name, length.mm === shops[name].mm ? undefined : length)}
              />
              {value === undefined ? (
                <span className="text-graphite text-[12.5px]">{about}</span>
              ) : (
                <button
                  type="button"
                  className="text-chalk inline-flex min-h-6 items-center gap-1 self-start text-[13px] underline max-desk:min-h-11"
                  aria-label={`${title}: back to the shop’s ${lengthText(shops[name].mm, display)}`}
                  onClick={({ currentTarget }) => {
                    // The button goes: the focus stays at the allowance.
                    currentTarget.parentElement?.querySelector('input')?.focus();
                    set(name, undefined);
                  }}
                >
                  <RotateCcw size={13} aria-hidden /> the shop’s {lengthText(shops[name].mm, display)}
                </button>
              )}
            </div>
          );
        })}
      </div>
    </details>
  );
}
