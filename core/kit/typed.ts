import { parseLength, type Length } from '../units';

/** A length written as a maker would, inches unless it says otherwise; values typed like this read and show as such. Throws on what is no length of zero or more. */
export function typed(text: string): Length {
  const parsed = parseLength(text, 'inch', { minMm: 0 });
  if (!parsed.ok) throw new Error(`typed: “${text}”: ${parsed.reason}`);
  return parsed.length;
}
