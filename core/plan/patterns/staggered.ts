import { Refusal } from '../../document';
import { roundToStep } from '../../units';
import { chance } from '../../wood';

/** What rows of random pieces must keep to, mm. */
export interface StaggerRules {
  rows: number;
  total: number;
  shortest: number;
  longest: number;
  apart: number;
  /** Pieces are whole multiples of this, but for the last of a row. */
  step: number;
  seed: number;
}

/** Tries at one row before the row above is laid anew, and rows laid anew before it is given up. */
const TRIES = 160;

const MOST_BACK = 60;

/**
 * Rows of pieces of random lengths whose end joints keep a least distance from those of the row before. The same seed
 * gives the same rows. Throws Refusal with the numbers where the rules leave no room.
 */
export function staggeredRows(rules: StaggerRules): number[][] {
  const { rows, total, shortest, longest, apart } = rules;
  const most = Math.floor(total / shortest + 1e-9);
  const least = Math.ceil(total / longest - 1e-9);
  if (!(shortest > 0) || longest < shortest || most < least || most < 1)
    throw new Refusal([
      'No whole number of pieces from ',
      { mm: shortest },
      ' to ',
      { mm: longest },
      ' makes ',
      { mm: total },
      '.',
    ]);
  if (2 * apart > longest && least > 1)
    throw new Refusal([
      'End joints cannot keep ',
      { mm: apart },
      ' apart when no piece is longer than ',
      { mm: longest },
      ': each row needs room for two such distances, ',
      { mm: 2 * apart },
      '.',
    ]);
  const out: number[][] = [];
  let tries = 0;
  let back = 0;
  while (out.length < rows) {
    const row =
      tries < TRIES ? randomRow(rules, out.at(-1) ?? [], out.length, tries + back * TRIES) : undefined;
    if (row) {
      out.push(row);
      tries = 0;
      continue;
    }
    tries += 1;
    if (tries < TRIES) continue;
    back += 1;
    if (back > MOST_BACK)
      throw new Refusal([
        'End joints ',
        { mm: apart },
        ' apart could not be kept with pieces from ',
        { mm: shortest },
        ' to ',
        { mm: longest },
        ': allow shorter or longer pieces, or joints nearer to each other.',
      ]);
    out.pop();
    tries = 0;
  }
  return out;
}

/** Where a row's joints lie, from its start, mm. */
export const jointsOf = (row: readonly number[]): number[] => {
  let at = 0;
  return row.slice(0, -1).map((mm) => (at += mm));
};

function randomRow(
  rules: StaggerRules,
  before: readonly number[],
  nth: number,
  turn: number,
): number[] | undefined {
  const { total, shortest, longest, apart, step, seed } = rules;
  const taken = jointsOf(before);
  const row: number[] = [];
  let at = 0;
  for (let i = 0; i < 400; i++) {
    const left = total - at;
    const spread = chance(seed * 7919 + nth * 613 + turn * 31 + i, seed + i);
    const drawn = shortest + spread * (longest - shortest);
    const piece = roundToStep(drawn, step);
    if (left <= longest + 1e-9 && (left - piece < shortest || spread > 0.6)) {
      if (left < shortest - 1e-9) return undefined;
      row.push(left);
      return row;
    }
    const next = at + Math.min(longest, Math.max(shortest, piece));
    if (total - next < shortest - 1e-9) return undefined;
    if (taken.some((joint) => Math.abs(joint - next) < apart - 1e-9)) return undefined;
    row.push(next - at);
    at = next;
  }
  return undefined;
}
