import Module, { type Manifold } from 'manifold-3d';
import type { BuildDocument, Step } from '../core/document';
import { defaultShop, typed } from '../core/kit';
import { mustFit, startingBrief } from '../core/plan';
import { mustEdit } from '../core/edit';
import { run } from '../core/run';
import { quietMs, type Row } from './timing';

/** An end-grain block of n columns and m rows, as the shop would plan it. */
export function block(columns: number, rows: number): BuildDocument {
  const shop = defaultShop('benchmark');
  shop.machines = shop.machines.map((machine) => ({
    ...machine,
    maxWidth: { mm: 0 },
    maxThickness: { mm: 0 },
  }));
  const side = 30;
  return mustFit(
    {
      pattern: 'endGrain',
      length: { aim: 'fixed', value: { mm: rows * side } },
      width: { aim: 'fixed', value: { mm: columns * side } },
      thickness: { aim: 'fixed', value: { mm: 40 } },
      woods: ['walnut_black', 'maple_sugar'],
      module: { mm: side },
      saw: 'table-full',
      flattenWith: 'planer',
      trimWith: { saw: 'table-full' },
      chequer: true,
      extraSlices: 0,
      sections: 0,
    },
    { ...shop, settingStep: typed('1/64') },
    { name: 'block', use: '' },
  );
}

/**
 * The very same cuts and moves on a general solid library: one solid a cell, every cut a split by a plane, every turn
 * and glue-up a transform. Neither side draws. The library's solids are freed as they are replaced.
 */
function replayWith(api: Awaited<ReturnType<typeof Module>>, build: BuildDocument): number {
  const { Manifold } = api;
  type Box = { min: readonly number[]; max: readonly number[] };
  const boxOf = (cells: Manifold[]): Box => {
    const boxes = cells.map((cell) => cell.boundingBox());
    return {
      min: [0, 1, 2].map((a) => Math.min(...boxes.map((b) => b.min[a]))),
      max: [0, 1, 2].map((a) => Math.max(...boxes.map((b) => b.max[a]))),
    };
  };
  const split = (cells: Manifold[], axis: number, at: number): [Manifold[], Manifold[]] => {
    const [below, above]: [Manifold[], Manifold[]] = [[], []];
    for (const cell of cells) {
      const { min, max } = cell.boundingBox();
      if (max[axis] <= at + 1e-4) below.push(cell);
      else if (min[axis] >= at - 1e-4) above.push(cell);
      else {
        const normal: [number, number, number] = [axis === 0 ? 1 : 0, axis === 1 ? 1 : 0, axis === 2 ? 1 : 0];
        const [a, b] = cell.splitByPlane(normal, at);
        above.push(a);
        below.push(b);
        cell.delete();
      }
    }
    return [below, above];
  };
  let lost = 0;
  const lose = (cells: Manifold[]) => {
    for (const cell of cells) {
      lost += cell.volume();
      cell.delete();
    }
  };
  const trim = (cells: Manifold[], axis: number, low: number, high: number): Manifold[] => {
    const { min, max } = boxOf(cells);
    const [under, rest] = split(cells, axis, min[axis] + low);
    const [kept, over] = split(rest, axis, max[axis] - high);
    lose(under);
    lose(over);
    return kept;
  };
  const moved = (cells: Manifold[], change: (cell: Manifold) => Manifold): Manifold[] =>
    cells.map((cell) => {
      const next = change(cell);
      cell.delete();
      return next;
    });
  const toOrigin = (cells: Manifold[]) => {
    const { min } = boxOf(cells);
    return moved(cells, (cell) => cell.translate([-min[0], -min[1], -min[2]]));
  };
  const of = <K extends Step['kind']>(kind: K, nth = 0) =>
    build.steps.filter((s) => s.kind === kind)[nth] as Extract<Step, { kind: K }>;
  const mill = of('mill');
  let pieces = build.assemblies[0].slots.map(({ length, width, thickness }) => [
    Manifold.cube([length.mm, width.mm, thickness.mm]),
  ]);
  pieces = pieces.map((piece) =>
    toOrigin(trim(trim(piece, 1, mill.edge.mm, mill.edge.mm), 2, mill.face.mm, mill.face.mm)),
  );
  const butt = (parts: Manifold[][], axis: number) => {
    let at = 0;
    return parts.flatMap((part) => {
      const { min, max } = boxOf(part);
      const shift: [number, number, number] = [-min[0], -min[1], -min[2]];
      shift[axis] += at;
      at += max[axis] - min[axis];
      return moved(part, (cell) => cell.translate(shift));
    });
  };
  const flatten = of('flatten');
  let panel = trim(butt(pieces, 1), 2, flatten.bottom.mm, flatten.top.mm);
  const slice = of('slice');
  const kerf = build.shop.saws.find(({ id }) => id === slice.saw)?.kerf.mm ?? 0;
  const slices: Manifold[][] = [];
  let at = slice.head.mm;
  for (let i = 0; i <= slice.count; i++) {
    const [before, after] = split(panel, 0, at);
    const [dust, rest] = split(after, 0, at + kerf);
    if (i === 0) lose(before);
    else slices.push(before);
    lose(dust);
    panel = rest;
    at += kerf + slice.thickness.mm;
  }
  lose(panel);
  const standing = slices.map((part, i) =>
    toOrigin(
      moved(part, (cell) => {
        const up = cell.rotate([0, -90, 0]);
        if (i % 2 === 0) return up;
        const turned = up.rotate([0, 0, 180]);
        up.delete();
        return turned;
      }),
    ),
  );
  const second = of('flatten', 1);
  const last = of('trim');
  const block2 = trim(butt(standing, 0), 2, second.bottom.mm, second.top.mm);
  const finished = trim(trim(block2, 1, last.near.mm, last.far.mm), 0, last.start.mm, last.end.mm);
  const volume = finished.reduce((sum, cell) => sum + cell.volume(), 0);
  for (const cell of finished) cell.delete();
  return volume + lost;
}

/** An edit of the last step of a large block, played on from the run before, against playing all of it. */
function lastStepRow(): Row {
  const build = block(40, 50);
  const before = run(build);
  const last = build.steps.at(-1)?.id ?? '';
  let n = 0;
  const edited = () =>
    mustEdit(build, { do: 'setStep', step: last, change: { near: { mm: 1 + (n++ % 50) / 100 } } });
  const whole = quietMs(() => run(edited()), 2500);
  const kept = quietMs(() => run(edited(), before), 2500);
  return {
    what: 'an edit of the last step of 2,000 cells, against a full replay',
    measured: `${((100 * kept) / whole).toFixed(1)} % of it (${kept.toFixed(1)} ms, ${whole.toFixed(1)} ms)`,
    wanted: 'at most 10 %',
    met: kept / whole <= 0.1,
  };
}

/** A document of 120 steps: an edit in its middle with the replay from there on, against a full replay of the same. */
function longChainRow(): Row {
  const STEPS = 120;
  let build = mustFit(
    startingBrief('panel', defaultShop('long chain'), { sections: 1 }),
    defaultShop('long chain'),
    { name: 'long chain', use: '' },
  );
  for (let n = build.steps.length; n < STEPS; n++)
    build = mustEdit(build, {
      do: 'addStep',
      kind: n % 2 ? 'rest' : 'flatten',
      after: 'glue',
      ...(n % 2 ? {} : { settings: { machine: 'planer', top: { mm: 0.01 }, bottom: { mm: 0.01 } } }),
    });
  const middle = build.steps[STEPS / 2].id;
  const before = run(build);
  let n = 0;
  const edited = () =>
    mustEdit(build, {
      do: 'setStep',
      step: middle,
      change: { note: `${n++}`, top: { mm: 0.01 + (n % 50) / 1e4 } },
    });
  const kept = quietMs(() => run(edited(), before), 1500);
  const whole = quietMs(() => run(edited()), 1500);
  return {
    what: 'an edit in the middle of 120 steps and its replay, against a full replay',
    measured: `${((100 * kept) / whole).toFixed(0)} % of it (${kept.toFixed(1)} ms, ${whole.toFixed(1)} ms)`,
    wanted: 'under a frame',
    met: kept < 1000 / 60,
  };
}

/** Replaying a build against the same cuts in a general solid library, in this run. */
export async function solidRows(): Promise<Row[]> {
  const api = await Module();
  api.setup();
  const rows: Row[] = [];
  for (const [columns, count, least] of [
    [8, 12, 40],
    [40, 50, 15],
  ] as const) {
    const build = block(columns, count);
    const woodIn = run(build).woodInMm3;
    const theirs = replayWith(api, build);
    if (Math.abs(theirs - woodIn) / woodIn > 1e-3)
      throw new Error(`the two replays differ: ${theirs} and ${woodIn} mm3`);
    const ours = quietMs(() => run(build), 2500);
    const other = quietMs(() => replayWith(api, build), 2500);
    rows.push({
      what: `replaying ${columns * count} cells, against a general solid library`,
      measured: `${(other / ours).toFixed(1)} times faster (${ours.toFixed(1)} ms, ${other.toFixed(1)} ms)`,
      wanted: `at least ${least}`,
      met: other / ours >= least,
    });
  }
  rows.push(lastStepRow(), longChainRow());
  return rows;
}
