import type { Aim } from '../document';
import { countNeeded, countObtainable, type Display, inputText, lengthUnit } from '../units';

/** A dimension made of whole modules: how many, and the finished size in mm. */
export interface Whole {
  count: number;
  sizeMm: number;
}

/**
 * Chooses a whole number of modules for an aim: fixed keeps the size and lets the module give, at least rounds up,
 * at most rounds down, free takes the usual count. With `even`, the count is even. At least one (or two) modules.
 */
export function wholeModules(aim: Aim, moduleMm: number, usual: number, even: boolean): Whole {
  const least = even ? 2 : 1;
  const value = aim.value?.mm;
  if (aim.aim === 'free' || value === undefined) return { count: usual, sizeMm: usual * moduleMm };
  const quotient = value / moduleMm;
  const pick = (n: number, up: boolean): number => Math.max(least, even && n % 2 ? n + (up ? 1 : -1) : n);
  if (aim.aim === 'fixed') {
    const nearest = even ? 2 * Math.round(quotient / 2) : Math.round(quotient);
    return { count: Math.max(least, nearest), sizeMm: value };
  }
  const count =
    aim.aim === 'atLeast' ? pick(countNeeded(quotient), true) : pick(countObtainable(quotient), false);
  return { count, sizeMm: count * moduleMm };
}

/** The size of a dimension that is not made of modules: as asked, or the usual where it is free. */
export const plainSize = (aim: Aim, usualMm: number): number =>
  aim.aim === 'free' ? usualMm : (aim.value?.mm ?? usualMm);

/** Whether a size meets an aim within a tolerance, all mm. */
export function meetsAim(aim: Aim, sizeMm: number, toleranceMm: number): boolean {
  const value = aim.value?.mm;
  if (aim.aim === 'free' || value === undefined) return true;
  if (aim.aim === 'fixed') return Math.abs(sizeMm - value) <= toleranceMm;
  return aim.aim === 'atLeast' ? sizeMm >= value - toleranceMm : sizeMm <= value + toleranceMm;
}

/** An aim in words, as in “at least 18 in”. */
export function aimText(aim: Aim, display: Display): string {
  if (aim.aim === 'free' || !aim.value) return 'free';
  const size = `${inputText(aim.value, display)} ${lengthUnit(display)}`;
  return aim.aim === 'fixed' ? size : `${aim.aim === 'atLeast' ? 'at least' : 'at most'} ${size}`;
}
