/* Generated breakdowns and an independent model of them, shared by the tests and the benchmark. */
import type { BoardStock, Goal } from '../document';
import { defaultShop } from '../kit';
import { chance } from '../wood';
import type { CuttingRules, Problem, WantedStrip } from './problem';

export const PLAIN: CuttingRules = {
  crosscutKerf: 3,
  ripKerf: 3,
  resawKerf: 2,
  resaw: false,
  resawReach: 0,
  endTrim: 0,
  edgeTrim: 0,
  remnant: 0,
  leastOffcutLength: 300,
  leastOffcutWidth: 60,
  offcutWorth: 1,
};

const shop = defaultShop('cases');
shop.allowances = { ...shop.allowances, millFace: { mm: 0 } };

export const board = (
  id: string,
  length: number,
  width: number,
  thickness = 25,
  more: Partial<BoardStock> = {},
): BoardStock => ({
  id,
  label: id,
  species: 'maple_sugar',
  length: { mm: length },
  width: { mm: width },
  thickness: { mm: thickness },
  ...more,
});
export const strip = (
  id: string,
  length: number,
  width: number,
  thickness = 25,
  more: Partial<WantedStrip> = {},
): WantedStrip => ({
  id,
  species: 'maple_sugar',
  length,
  width,
  thickness,
  milledThickness: thickness,
  grades: { up: 'show', down: 'hidden' },
  ...more,
});
export const problem = (
  strips: WantedStrip[],
  boards: BoardStock[],
  rules: Partial<CuttingRules> = {},
  goal: Goal = 'leastWaste',
): Problem => ({ strips, boards, rules: { ...PLAIN, ...rules }, goal, shop });

/** A reproducible source of whole numbers from `a` to `b`. */
export function dice(seed: number) {
  let n = 0;
  return (a: number, b: number) => a + Math.floor(chance(seed, n++) * (b - a + 1));
}

/** Strips as wide as their boards: only lengths count. */
export function oneStage(seed: number, most = 40): Problem {
  const roll = dice(seed);
  const strips = Array.from({ length: roll(5, most) }, (_, i) => strip(`s${i}`, roll(8, 60) * 20, 100));
  const need = strips.reduce((total, { length }) => total + length, 0);
  const count = roll(3, 12);
  const boards = Array.from({ length: count }, (_, i) =>
    board(`b${i}`, Math.max(1300, Math.round((need * 1.35) / count / 50) * 50 + roll(-4, 8) * 50), 100),
  );
  return problem(strips, boards);
}

/** Rectangles on boards of one thickness, cut in two stages. */
export function twoStage(seed: number, most = 25): Problem {
  const roll = dice(seed + 5000);
  const strips = Array.from({ length: roll(4, most) }, (_, i) =>
    strip(`s${i}`, roll(8, 40) * 25, roll(3, 12) * 8),
  );
  const need = strips.reduce((total, { length, width }) => total + length * (width + 3), 0);
  const boards: BoardStock[] = [];
  let area = 0;
  while (area < need * 1.6 || boards.length < 2) {
    const next = board(`b${boards.length}`, roll(22, 48) * 50, roll(11, 25) * 10);
    boards.push(next);
    area += next.length.mm * next.width.mm;
  }
  return problem(strips, boards);
}
