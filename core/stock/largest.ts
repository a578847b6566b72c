import { type BoardStock, type BuildDocument, isRefused, attempt } from '../document';
import { applyEdit } from '../edit';
import { roundDownToStep } from '../units';
import { problemFor } from './shortage';
import { EFFORT, solveNow } from './solve';

/** The largest piece a rack gives along one dimension, all else as planned. */
export interface Largest {
  /** Missing where not even a fifth of the planned size can be cut. */
  sizeMm?: number;
  build?: BuildDocument;
  /** The stock is not the limit: it gives the largest size that was tried. */
  more: boolean;
  tried: number;
}

/** Sizes are tried from a fifth of the plan to three times of it. */
const LEAST = 0.2;
const MOST = 3;
const TRIES = 9;

/**
 * The largest length or width for which every strip of the pattern still finds its place on the boards: halved again
 * and again, on the shop's step of whole settings; the answer was broken down whole, so that it can be cut. What
 * cannot be planned counts as too large.
 */
export function largestFrom(
  build: BuildDocument,
  boards: readonly BoardStock[],
  name: 'length' | 'width',
): Largest {
  const planned = build.brief?.[name].value?.mm;
  if (!build.brief || planned === undefined) return { more: false, tried: 0 };
  const step = Math.max(build.shop.settingStep.mm, planned / 200);
  let tried = 0;
  const at = (size: number): BuildDocument | undefined => {
    tried += 1;
    const next = applyEdit(build, {
      do: 'replan',
      change: { [name]: { aim: 'fixed', value: { mm: size } } },
    });
    if (isRefused(next)) return undefined;
    const answer = attempt(() => solveNow(problemFor([next], [...boards]).problem, EFFORT.quick));
    return !isRefused(answer) && answer.missing.length === 0 ? next : undefined;
  };
  const whole = (mm: number) => roundDownToStep(mm, step);
  const top = at(whole(planned * MOST));
  if (top) return { sizeMm: whole(planned * MOST), build: top, more: true, tried };
  let low = whole(planned * LEAST);
  let best = at(low);
  if (!best) return { more: false, tried };
  let high = planned * MOST;
  for (let i = 0; i < TRIES && high - low > step * 1.5; i++) {
    const middle = whole((low + high) / 2);
    const found = at(middle);
    if (found) [low, best] = [middle, found];
    else high = middle;
  }
  return { sizeMm: low, build: best, more: false, tried };
}
