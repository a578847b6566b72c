import { sumOf } from './series';
import { counted } from './words';
import { inputText, lengthText, type Display } from './display';
import type { Length } from './length';
import { type LengthRule, parseLength } from './parse';

/** The most lengths one list may name: more is a slip. */
const MOST_LENGTHS = 500;

/** A list of lengths, or why it cannot be read: the part at fault is named. */
export type ParsedList = { ok: true; lengths: Length[] } | { ok: false; reason: string };

const TIMES = /^(\d+)\s*[x×*]\s*(.+)$/i;
/** A set that comes several times: `2 x (45, 38, 30)`. */
const SET = /(\d+)\s*[x×*]\s*\(([^()]*)\)/gi;

/** A list without sets: each is written out as often as it comes. Undefined where that is too much, or a bracket has no other. */
function writtenOut(text: string): string | undefined {
  let most = false;
  const out = text.replace(SET, (_, times: string, inner: string) => {
    most ||= Number(times) > MOST_LENGTHS;
    return most ? '' : Array.from({ length: Number(times) }, () => inner.trim()).join('; ');
  });
  return most || /[()]/.test(out) ? undefined : out;
}

/**
 * Reads lengths one after the other as a maker writes them down: `1 1/2, 3 x 1 3/8, 2`. A comma, a semicolon or a new line
 * parts them; a comma between two digits of a metric shop is a decimal one. `3 x` says three alike. Never throws.
 */
export function parseLengths(text: string, { system }: Display, rule: LengthRule = {}): ParsedList {
  const plain = writtenOut(text);
  if (plain === undefined)
    return { ok: false, reason: 'a set is written as 2 x (45, 38, 30), with both brackets' };
  const parts = plain
    .split(system === 'mm' ? /;|\n|,(?!\d)/ : /[;,\n]/)
    .map((part) => part.trim())
    .filter((part) => part !== '');
  if (parts.length === 0) return { ok: false, reason: 'type widths, such as 1 1/2, 3 x 1 3/8, 2' };
  const lengths: Length[] = [];
  for (const part of parts) {
    const times = TIMES.exec(part);
    const count = times ? Number(times[1]) : 1;
    const parsed = parseLength(times ? times[2] : part, system, rule);
    if (!parsed.ok) return { ok: false, reason: `“${part}”: ${parsed.reason}` };
    if (count < 1) return { ok: false, reason: `“${part}”: none of it is nothing` };
    if (lengths.length + count > MOST_LENGTHS)
      return { ok: false, reason: `“${part}”: at most ${MOST_LENGTHS} in all` };
    for (let i = 0; i < count; i++) lengths.push(parsed.length);
  }
  return { ok: true, lengths };
}

/** Lengths as they are typed, those alike in a row counted: `1 1/2, 3 x 1 3/8, 2`. Reads back as the same. */
export function lengthsText(lengths: readonly Length[], display: Display): string {
  const runs: { text: string; count: number }[] = [];
  for (const length of lengths) {
    const text = inputText(length, display);
    const last = runs.at(-1);
    if (last?.text === text) last.count += 1;
    else runs.push({ text, count: 1 });
  }
  return runs.map(({ text, count }) => (count > 1 ? `${count} x ${text}` : text)).join(', ');
}

/** What a list of widths comes to: how many strips, and how wide they lie side by side. */
export const stripsInAll = (widths: readonly Length[], display: Display): string =>
  `${counted(widths.length, 'strip')}, together ${lengthText(
    sumOf(widths, ({ mm }) => mm),
    display,
  )}`;
