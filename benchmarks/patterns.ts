import type { Brief, BuildDocument } from '../core/document';
import { mustEdit } from '../core/edit';
import { defaultShop, typed } from '../core/kit';
import { layUpOf, propose } from '../core/layup';
import { mustFit, PATTERNS, startingBrief } from '../core/plan';
import { findingsOf, review } from '../core/review';
import { run } from '../core/run';
import { quietMs, type Row } from './timing';

const shop = {
  ...defaultShop('benchmark'),
  layUps: [{ id: 'own', name: 'own', strips: [{ species: 'maple_sugar', share: 1 }] }],
};

const plan = (pattern: (typeof PATTERNS)[number], change: Partial<Brief> = {}): BuildDocument =>
  mustFit(startingBrief(pattern.id, shop, change), shop, { name: pattern.id, use: '' });

/** Finished pieces of wood. */
const cells = (build: BuildDocument): number =>
  run(build).finished?.pieces.reduce((sum, { blank }) => sum + blank.cells.length, 0) ?? 0;

/** A plan of a pattern with about 150 pieces of wood: the module shrinks until it has them. */
function about150(pattern: (typeof PATTERNS)[number]): BuildDocument {
  let best = plan(pattern);
  for (const k of [0.85, 0.7, 0.6, 0.5, 0.42, 0.36, 0.3]) {
    if (cells(best) >= 150) break;
    try {
      best = plan(pattern, { module: { mm: typed(pattern.start.module).mm * k } });
    } catch {
      break;
    }
  }
  return best;
}

/** Replaying the patterns against the chequer in this run, for 150 pieces each; and proposing an order. */
export function patternRows(): Row[] {
  const of = (id: string) => PATTERNS.find((pattern) => pattern.id === id) ?? PATTERNS[0];
  const each = (build: BuildDocument) => quietMs(() => run(build), 700) / cells(build);
  const chequer = each(about150(of('endGrain')));
  const dear: string[] = [];
  let worst = 0;
  for (const id of ['stagger', 'bricks', 'basket', 'stepped', 'mosaic', 'chevron', 'cubes', 'blocks']) {
    const times = each(about150(of(id))) / chequer;
    dear.push(`${id} ${times.toFixed(1)}`);
    worst = Math.max(worst, times);
  }
  const thinner = mustEdit(plan(of('endGrain')), {
    do: 'measure',
    step: 'flatten',
    dimension: 'thickness',
    measured: typed('1 3/16'),
  });
  const found = quietMs(() => findingsOf(thinner, run(thinner)), 1500);
  const offered = quietMs(() => review(thinner, run(thinner)), 1500) / found;
  const rows: Row[] = [
    {
      what: 'ways out of a panel that came out thinner, all played, in units of finding what is wrong',
      measured: offered.toFixed(1),
      wanted: 'at most 25',
      met: offered <= 25,
    },
    {
      what: 'replaying a pattern of 150 pieces, in units of the chequer',
      measured: dear.join(', '),
      wanted: 'at most 3',
      met: worst <= 3,
    },
  ];
  const woods = ['maple_sugar', 'walnut_black', 'cherry_black', 'oak_white', 'ash_white'];
  const forty = plan(of('panel'), {
    width: { aim: 'fixed', value: typed('60') },
    module: typed('1 1/2'),
    sections: 1,
    woods,
  });
  const timeline = run(forty);
  const begun = performance.now();
  const layUp = layUpOf(forty, timeline, 'glue');
  if (!layUp) throw new Error('no lay-up to propose an order for');
  const search = propose(layUp, 'vanish');
  search.next();
  const first = performance.now() - begun;
  for (let step = search.next(); !step.done; ) step = search.next();
  const last = performance.now() - begun;
  rows.push({
    what: `an order for ${layUp.looks.length} strips: first answer, last answer`,
    measured: `${(first / 1000).toFixed(2)} s, ${(last / 1000).toFixed(2)} s`,
    wanted: '0.2 s, 2 s',
    met: first <= 200 && last <= 2000,
  });
  return rows;
}
