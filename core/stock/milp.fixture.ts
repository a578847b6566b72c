/* The breakdown as a mixed-integer program, for an independent solver. Shared by the tests and the benchmark. */
import highsLoader from 'highs';
import type { Problem } from './problem';

/** What the independent solver found: the optimum if it was proven in time, else its bound. */
export interface Independent {
  proven: boolean;
  objective: number;
  bound: number;
  seconds: number;
}

const terms = (list: readonly (readonly [number, string])[]): string =>
  list.map(([c, name]) => `${c < 0 ? '-' : '+'} ${Math.abs(c)} ${name}`).join(' ') || '0 u0';

/**
 * Two-stage cutting with trimming as level packing: the longest strip of a section opens it. The objective is the
 * area of boards used less reusable offcuts (tails of boards, sides of sections, ends cut off shorter strips), or the
 * number of boards. One thickness, no faults, no margins.
 */
export function levelModel(problem: Problem, goal: 'wood' | 'boards'): string {
  const { rules, boards } = problem;
  const items = problem.strips.toSorted((a, b) => b.length - a.length);
  const [kx, ky] = [rules.crosscutKerf, rules.ripKerf];
  const { leastOffcutLength: leastL, leastOffcutWidth: leastW } = rules;
  const objective: [number, string][] = [];
  const rows: string[] = [];
  const binaries: string[] = [];
  const bounds: string[] = [];
  const row = (list: [number, string][], sense: string, right: number) =>
    void rows.push(` r${rows.length}: ${terms(list)} ${sense} ${right}`);
  boards.forEach((b, n) => {
    binaries.push(`u${n}`);
    objective.push([goal === 'boards' ? 1 : b.length.mm * b.width.mm, `u${n}`]);
    row(
      [
        ...items.map((item, i): [number, string] => [item.length + kx, `z${i}_${n}`]),
        [-(b.length.mm + kx), `u${n}`],
      ],
      '<=',
      0,
    );
    if (goal === 'boards' || b.width.mm < leastW) return;
    // The tail behind the last section: kept if long enough.
    const big = 2 * (b.length.mm + kx);
    binaries.push(`k${n}`);
    objective.push([-b.width.mm, `t${n}`]);
    bounds.push(` 0 <= t${n} <= ${b.length.mm}`);
    const used = items.map((item, i): [number, string] => [item.length + kx, `z${i}_${n}`]);
    row([[1, `t${n}`], ...used, [-b.length.mm, `u${n}`], [big, `k${n}`]], '<=', big);
    row(
      [
        [1, `t${n}`],
        [-b.length.mm, `k${n}`],
      ],
      '<=',
      0,
    );
    row([...used, [-b.length.mm, `u${n}`], [leastL + big, `k${n}`]], '<=', big);
  });
  items.forEach((item, i) => {
    binaries.push(`y${i}`);
    const one: [number, string][] = [[1, `y${i}`]];
    const on: [number, string][] = [];
    const inside: [number, string][] = [[item.width + ky, `y${i}`]];
    boards.forEach((_, n) => {
      binaries.push(`z${i}_${n}`);
      on.push([1, `z${i}_${n}`]);
    });
    row([...on, [-1, `y${i}`]], '=', 0);
    for (let j = 0; j < i; j++) one.push([1, `x${j}_${i}`]);
    row(one, '=', 1);
    for (let j = i + 1; j < items.length; j++) {
      const other = items[j];
      binaries.push(`x${i}_${j}`);
      inside.push([other.width + ky, `x${i}_${j}`]);
      row(
        [
          [1, `x${i}_${j}`],
          [-1, `y${i}`],
        ],
        '<=',
        0,
      );
      const end = item.length - other.length - kx;
      if (goal === 'wood' && end >= leastL && other.width >= leastW)
        objective.push([-end * other.width, `x${i}_${j}`]);
    }
    row([...inside, ...boards.map((b, n): [number, string] => [-(b.width.mm + ky), `z${i}_${n}`])], '<=', 0);
    if (goal === 'boards' || item.length < leastL) return;
    // The side of the section beyond its last strip: kept if wide enough.
    const widest = Math.max(...boards.map((b) => b.width.mm));
    const big = 3 * widest;
    binaries.push(`q${i}`);
    objective.push([-item.length, `s${i}`]);
    bounds.push(` 0 <= s${i} <= ${widest}`);
    const room = boards.map((b, n): [number, string] => [-b.width.mm, `z${i}_${n}`]);
    row([[1, `s${i}`], ...inside, ...room, [big, `q${i}`]], '<=', big);
    row(
      [
        [1, `s${i}`],
        [-widest, `q${i}`],
      ],
      '<=',
      0,
    );
    row([...inside, ...room, [leastW + big, `q${i}`]], '<=', big);
    row(
      [
        [1, `q${i}`],
        [-1, `y${i}`],
      ],
      '<=',
      0,
    );
  });
  return `Minimize\n obj: ${terms(objective)}\nSubject To\n${rows.join('\n')}\nBounds\n${bounds.join('\n')}\nBinary\n ${binaries.join('\n ')}\nEnd\n`;
}

/** Solves the model with HiGHS within a time; says whether the optimum is proven. */
export async function independently(
  problem: Problem,
  goal: 'wood' | 'boards',
  seconds = 20,
): Promise<Independent> {
  const highs = await highsLoader();
  const started = performance.now();
  const solution = highs.solve(levelModel(problem, goal), {
    time_limit: seconds,
    mip_rel_gap: 0,
    output_flag: false,
  });
  const took = (performance.now() - started) / 1000;
  const proven = solution.Status === 'Optimal';
  return {
    proven,
    objective: solution.ObjectiveValue,
    bound: proven ? solution.ObjectiveValue : 0,
    seconds: took,
  };
}
