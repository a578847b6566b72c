import { inBase, type Quantity } from '../../core/bench';
import { type Display, parseLength } from '../../core/units';

/** What a number stands in, beside its field. */
export const unitOf = (of: Quantity, { system }: Display): string =>
  ({
    length: system === 'inch' ? 'in' : 'mm',
    angle: '°',
    moisture: '%',
    mass: system === 'inch' ? 'lb' : 'kg',
    temperature: system === 'inch' ? '°F' : '°C',
    humidity: '%',
  })[of];

/** A number as it was typed, in the base unit of its quantity, or why it cannot be read. */
export function readQuantity(text: string, of: Quantity, display: Display): number | string {
  if (of === 'length') {
    const parsed = parseLength(text, display.system, { minMm: 0 });
    return parsed.ok ? parsed.length.mm : parsed.reason;
  }
  const value = Number(text.replace(',', '.').replace(/\s*(%|°|kg|lb|deg|pct)$/, ''));
  if (text.trim() === '' || !Number.isFinite(value) || value < 0) return 'type a number';
  return of === 'mass' ? inBase({ value, unit: display.system === 'inch' ? 'lb' : 'kg' }) : value;
}
