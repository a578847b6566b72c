import type { BoardStock, Fault } from '../core/document';
import {
  type Answer,
  EFFORT,
  layAnswer,
  type Problem,
  solve,
  solveNow,
  totalsOf,
  type WantedStrip,
} from '../core/stock';
import { board, dice, oneStage, problem, strip, twoStage } from '../core/stock/cases.fixture';
import { independently } from '../core/stock/milp.fixture';
import type { Row } from './timing';

/** Sixty strips and fifteen boards with one to four faults each. */
export function faultyRack(): { strips: WantedStrip[]; boards: BoardStock[] } {
  const roll = dice(77);
  const boards = Array.from({ length: 15 }, (_, b) => {
    const [l, w] = [roll(30, 60) * 50, roll(14, 24) * 10];
    const faults = Array.from(
      { length: roll(1, 4) },
      (_f, i): Fault => ({
        id: `f${i}`,
        kind: (['knot', 'split', 'check', 'stain'] as const)[roll(0, 3)],
        face: (['up', 'down', 'both'] as const)[roll(0, 2)],
        x: roll(0, l - 150),
        y: roll(0, w - 50),
        length: roll(20, 120),
        width: roll(15, 45),
      }),
    );
    return board(`b${b}`, l, w, 25, { faults, sold: 'offcut' });
  });
  const strips = Array.from({ length: 60 }, (_, i) =>
    strip(`s${i}`, roll(10, 44) * 25, roll(4, 9) * 8, 25, { milledThickness: 22 }),
  );
  return { strips, boards };
}

const woodOf = (p: Problem, answer: Answer): number => {
  const { used, reusable } = totalsOf(layAnswer(p, answer));
  return (used - reusable) / 25;
};

/** How long the first answer and the last take, and how far the last is above the wood of the strips alone. */
function bigCase(): Row[] {
  const { strips, boards } = faultyRack();
  const p = problem(strips, boards, { endTrim: 12, edgeTrim: 3 });
  const start = performance.now();
  const search = solve(p, EFFORT.normal);
  let step = search.next();
  const first = performance.now() - start;
  while (!step.done) step = search.next();
  const total = performance.now() - start;
  const answer = step.value;
  const bound = strips.reduce((sum, { length, width }) => sum + length * width, 0);
  return [
    {
      what: '60 strips on 15 faulty boards: first answer, last answer',
      measured: `${(first / 1000).toFixed(2)} s, ${(total / 1000).toFixed(1)} s, ${answer.missing.length} missing`,
      wanted: 'under 1 s, within 10 s',
      met: first < 1000 && total < 10_000 && answer.missing.length === 0,
    },
    {
      what: '  wood used above the strips’ own (a bound that no kerf can reach)',
      measured: `${((woodOf(p, answer) / bound - 1) * 100).toFixed(1)} %`,
      wanted: 'printed',
      met: true,
    },
  ];
}

/** Against HiGHS, which gets 20 s a case: gaps where the optimum is proven, times side by side. */
async function against(what: string, cases: readonly Problem[]): Promise<Row> {
  const gaps: number[] = [];
  const over: number[] = [];
  let [mine, theirs, open] = [0, 0, 0];
  for (const p of cases) {
    const start = performance.now();
    const answer = solveNow(p);
    mine += (performance.now() - start) / 1000;
    const wood = await independently(p, 'wood');
    theirs += wood.seconds;
    if (wood.proven) gaps.push(woodOf(p, answer) / wood.objective - 1);
    else open += 1;
    const boards = await independently(p, 'boards');
    const fewest = totalsOf(layAnswer(p, solveNow({ ...p, goal: 'fewestBoards' }, EFFORT.quick * 3))).boards;
    if (boards.proven) over.push(fewest - Math.round(boards.objective));
  }
  const mean = gaps.reduce((sum, gap) => sum + gap, 0) / Math.max(1, gaps.length);
  const equal = over.filter((n) => n === 0).length;
  return {
    what,
    measured: `${(mean * 100).toFixed(3)} % on ${gaps.length} proven (${open} open); boards equal in ${equal} of ${over.length}; ${mine.toFixed(0)} s against ${theirs.toFixed(0)} s`,
    wanted: 'at most 1 %, never below; nine in ten',
    met: mean <= 0.01 && Math.min(...gaps) > -1e-6 && equal >= 0.9 * over.length && Math.max(...over) <= 1,
  };
}

/** The breakdown: time to an answer, and how good it is. */
export async function breakdownRows(): Promise<Row[]> {
  return [
    ...bigCase(),
    await against(
      'lengths against an independent solver, 5 to 40 strips',
      [1, 2, 3, 4, 5, 6, 7, 8, 9, 10].map((seed) => oneStage(seed)),
    ),
    await against(
      'rectangles against it, up to 25 strips',
      [1, 2, 3, 4, 5, 6, 7, 8, 9, 10].map((seed) => twoStage(seed, 25)),
    ),
  ];
}
