/*
 * What Junta says of kept jobs is what it said when the answers beside this test were written: sizes, times, findings, plans of
 * cuts, breakdowns. None of it is held against anything outside here (other tests do that): it is what holds the house still while
 * something is moved in it. An answer that is meant to change is written anew with `npx vitest run core/worked/answers -u`, and
 * the lines that differ are read before they are committed.
 */
import { describe, expect, it } from 'vitest';
import { demo } from '../../demo';
import { schedule, tasksOf, todayOf, type ShopRoom } from '../bench';
import { type BoardStock, type BuildDocument, GOALS, isRefused } from '../document';
import { mustEdit } from '../edit';
import { clampsOf } from '../kit';
import { fit, PATTERNS, startingBrief } from '../plan';
import { panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { findingsOf, outlook } from '../review';
import { scenarios, SHOPS } from '../review/scenarios.fixture';
import { run } from '../run';
import { beginFeature, FEATURE_LIST } from '../steps/feature/kinds';
import {
  layAnswer,
  type Problem,
  problemFor,
  purchaseList,
  RACK_ORDERS,
  rackSums,
  searchRack,
  settingsOf,
  setUpList,
  shortages,
  solveNow,
  totalsOf,
} from '../stock';
import { oneStage, twoStage } from '../stock/cases.fixture';

/** Steps of a search: enough to come to every part of it. */
const EFFORT = 60;
/** Of so many jobs in trouble one is kept. */
const ONE_OF = 61;
/** So many digits of a number are kept: what a hair of arithmetic changes stays the same. */
const DIGITS = 6;
const short = (n: number): number => (Math.abs(n) < 1e-9 ? 0 : Number(n.toPrecision(DIGITS)));

/** A value in one line, its numbers shortened, without what is empty. */
const said = (value: unknown): string =>
  JSON.stringify(value, (name, each: unknown) => {
    if (Array.isArray(each) && each.length === 0 && name) return undefined;
    return typeof each === 'number' ? short(each) : each;
  });

const TODAY = '2027-01-04';

/** All that the screen of a job shows, step by step. */
function answerOf(build: BuildDocument): string[] {
  const { steps, findings, scene, seams, ...rest } = outlook(build, undefined, TODAY);
  return [
    ...steps.map(({ id, kind: _kind, name: _name, lost, ...each }) =>
      said({
        step: id,
        ...each,
        lost: Object.fromEntries(Object.entries(lost).filter(([, mm3]) => mm3 > 1e-6)),
      }),
    ),
    ...findings.map(({ code, step, numbers }) => said({ code, step, numbers })),
    ...Object.entries({ ...rest, box: scene?.box, seams: seams?.length }).map(([part, each]) =>
      said({ [part]: each }),
    ),
  ];
}

const NOW = Date.parse(`${TODAY}T09:00:00Z`);
/** The boards of the demo as a rack holds them. */
const RACK = demo.boards.map((board, i): BoardStock => ({ ...board, id: `b${i + 1}` }));
/** Jobs of the demo whose boards are broken down from them: the searches of the others take long. */
const FROM_RACK = demo.jobs.filter(({ name }) => /lid|counter|tray|top$/.test(name)).slice(0, 3);
/** A shop of one that works by day. */
const ROOM: ShopRoom = {
  hours: { days: [1, 2, 3, 4, 5], from: 8, to: 17 },
  zone: 'Europe/Berlin',
  clamps: Object.fromEntries(clampsOf(demo.shop).map(({ id, count }) => [id, count])),
  benches: 1,
};

const text = (lines: readonly string[]) => `\n${lines.join('\n')}\n`;
const SYSTEMS = ['inch', 'mm'] as const;

describe('what is said of kept jobs is what was said before', () => {
  it.each(demo.jobs.map((job) => [job.name, job] as const))('of a job of the demo: %s', (_, job) => {
    expect(text(answerOf(job))).toMatchSnapshot();
  });

  it.each(
    PATTERNS.map(({ id }, i) => [id, SYSTEMS[i % 2]] as const),
  )('of a plan of every pattern: %s, %s', (pattern, system) => {
    const shop = SHOPS[system];
    const plan = fit(startingBrief(pattern, shop), shop, { name: pattern, use: '' });
    expect(text(isRefused(plan) ? [said(plan)] : answerOf(plan))).toMatchSnapshot();
  });

  const troubles = [...scenarios(11)].filter((_, i) => i % ONE_OF === 0);
  it.each(PATTERNS.map(({ id }) => id))('of jobs in trouble, what is found: %s', (pattern) => {
    const troubled = troubles.filter(({ name }) => name.startsWith(`${pattern},`));
    const lines = troubled.flatMap(({ name, build }) => [
      `# ${name}`,
      ...findingsOf(build, run(build), TODAY).map(({ code, step, numbers, dimension }) =>
        said({ code, step, numbers, dimension }),
      ),
    ]);
    expect(text(lines)).toMatchSnapshot();
  });

  it.each(
    SYSTEMS.flatMap((system) => FEATURE_LIST.map((kind) => [kind.kind, system, kind] as const)),
  )('of every feature on the sides it can lie on: %s, %s', (_, system, kind) => {
    const shop = { ...shopWith(), ...SHOPS[system] };
    const plain = plannedFor(panelBrief(), shop);
    const [length, width, thickness] = run(plain).finished?.greatest ?? [0, 0, 0];
    const after = plain.steps[plain.steps.length - 1].id;
    const trims = { u: [0, 0], v: [0, 0], n: 0 } as const;
    const lines = (
      [
        ['upper', length, width, thickness],
        ['near', length, thickness, width],
        ['left', width, thickness, length],
      ] as const
    ).flatMap(([side, long, wide, deep]) => {
      const feature = beginFeature(
        kind,
        { side, long, wide, deep, trims },
        { id: 'a', system, bits: shop.bits },
      );
      const settings = { edges: 'finished', features: [feature] };
      const build = mustEdit(plain, { do: 'addStep', kind: 'feature', after, settings });
      const { steps, findings } = outlook(build, undefined, TODAY);
      const { id: _id, ...step } = steps.find((each) => each.kind === 'feature') ?? { id: '' };
      return [
        `# ${side}: ${said(feature)}`,
        said(step),
        ...findings.map(({ code, numbers }) => said({ code, numbers })),
      ];
    });
    expect(text(lines)).toMatchSnapshot();
  });

  const JOBS = demo.jobs.map((build) => ({ id: build.name, build }));
  it.each(JOBS.map((job) => [job.id, job] as const))('of when each act is done: %s', (_, { id, build }) => {
    const acts = schedule(tasksOf(id, build, run(build)), NOW, ROOM);
    expect(text(acts.map(({ job: _job, ...act }) => said(act)))).toMatchSnapshot();
  });
  it('of the morning', () => {
    const { waiting, next, ...rest } = todayOf(JOBS, NOW, ROOM);
    const acts = [...waiting, ...next].map(({ job, step, from, to }) => said({ job, step, from, to }));
    expect(text([...acts, said(rest)])).toMatchSnapshot();
  });

  const settings = settingsOf(plannedFor(panelBrief(), shopWith()));
  it.each([
    ...GOALS.flatMap((goal, i): [string, () => Problem][] => [
      [`ends only, ${goal}`, () => ({ ...oneStage(i + 1, 14), goal })],
      [`widths too, ${goal}`, () => ({ ...twoStage(i + 1, 12), goal })],
      [
        `too little wood, ${goal}`,
        () => {
          const { boards, ...scarce } = twoStage(i + 20, 16);
          return { ...scarce, boards: boards.slice(1), goal };
        },
      ],
    ]),
    ...FROM_RACK.map((job): [string, () => Problem] => [job.name, () => problemFor([job], RACK).problem]),
  ])('of boards, how they are broken down, what is short and bought: %s', (_, made) => {
    const problem = made();
    const answer = solveNow(problem, EFFORT);
    const layouts = layAnswer(problem, answer);
    const lines = [
      said({ ...answer, places: undefined }),
      ...answer.places.map((place) => said(Object.values(place))),
      said(totalsOf(layouts)),
      ...layouts.map(({ offcuts }) => said(offcuts)),
      ...setUpList(layouts, settings, problem.shop, (id) => id).map(({ kind, distance, bladeHeight }) =>
        said([kind, distance, bladeHeight]),
      ),
      ...shortages(problem, answer).map(({ code, numbers }) => said({ code, numbers })),
      ...purchaseList(problem, answer.missing, problem.boards).map(said),
    ];
    expect(text(lines)).toMatchSnapshot();
  });

  it.each(RACK_ORDERS)('of the rack by %s', (order) => {
    const asked = { text: '', species: '', sold: '', onlyFree: false, downwards: false } as const;
    const lines = searchRack(RACK, { ...asked, order, grouped: order === 'thickness' }).map((line) =>
      'board' in line
        ? said({ ...line, board: line.board.label })
        : said({ ...line, sums: Object.values(line.sums) }),
    );
    expect(text([said(rackSums(RACK)), ...lines])).toMatchSnapshot();
  });
});
