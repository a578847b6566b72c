import { type GaugeUnit, inBase, type Quantity } from '../../core/bench';
import { type Display, type LengthSystem, parseLength } from '../../core/units';

/** The unit that a shop reads a quantity in, and how it is written beside a field. */
const UNITS: Record<Quantity, Record<LengthSystem, readonly [unit: GaugeUnit, sign: string]>> = {
  length: { inch: ['in', 'in'], mm: ['mm', 'mm'] },
  angle: { inch: ['deg', '°'], mm: ['deg', '°'] },
  moisture: { inch: ['pct', '%'], mm: ['pct', '%'] },
  mass: { inch: ['lb', 'lb'], mm: ['kg', 'kg'] },
  temperature: { inch: ['F', '°F'], mm: ['C', '°C'] },
  humidity: { inch: ['rh', '%'], mm: ['rh', '%'] },
};

/** What a number stands in, beside its field. */
export const unitOf = (of: Quantity, { system }: Display): string => UNITS[of][system][1];

/** A number as it was typed, in the base unit of its quantity, or why it cannot be read. */
export function readQuantity(text: string, of: Quantity, display: Display): number | string {
  if (of === 'length') {
    const parsed = parseLength(text, display.system, { minMm: 0 });
    return parsed.ok ? parsed.length.mm : parsed.reason;
  }
  const value = Number(text.replace(',', '.').replace(/\s*(%|°|kg|lb|deg|pct)$/, ''));
  if (text.trim() === '' || !Number.isFinite(value) || value < 0) return 'type a number';
  return inBase({ value, unit: UNITS[of][display.system][0] });
}
