import { describe, expect, it } from 'vitest';
import { demoBoards } from '../../demo/boards';
import type { BuildDocument, Edit, Finding, Severity, Step } from '../document';
import { mustEdit } from '../edit';
import { typed } from '../kit';
import { panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import { asFeatures, type Feature } from '../steps';
import { EFFORT, problemFor, shortageFixes, solveNow } from '../stock';
import { lengthText } from '../units';
import { findingsOf, review, withoutNewWarnings } from '.';
import { sameFinding } from './offers';
import { type Scenario, scenarios } from './scenarios.fixture';

const RANK: Record<Severity, number> = { note: 0, warning: 1, stop: 2 };
const TODAY = '2027-01-01';
const find = (build: BuildDocument): Finding[] => findingsOf(build, run(build), TODAY);

const all = (edit: Edit): Edit[] => (edit.do === 'many' ? edit.edits.flatMap(all) : [edit]);
const lengths = ({ assemblies }: BuildDocument) =>
  assemblies.flatMap(({ slots }) => slots.map(({ length }) => length.mm));
const slices = ({ steps }: BuildDocument) =>
  steps.flatMap((step) => (step.kind === 'slice' ? [step.count] : []));
const rows = (build: BuildDocument) => {
  const glue = build.steps.findLast((step) => step.kind === 'glue' && step.along === 'length');
  return run(build).steps.find(({ id }) => id === glue?.id)?.laid?.length ?? 0;
};
const changedSteps = (before: BuildDocument, after: BuildDocument, edit: Edit): Step[] =>
  all(edit).flatMap((each) =>
    'step' in each && after !== before ? after.steps.filter(({ id }) => id === each.step) : [],
  );
const nameIn = (build: BuildDocument, step: Step): string => {
  const id =
    'machine' in step
      ? step.machine
      : 'saw' in step
        ? step.saw
        : step.kind === 'trim'
          ? Object.values(step.cutter)[0]
          : '';
  return [...build.shop.machines, ...build.shop.saws].find((each) => each.id === id)?.name ?? '';
};
/** The features of the step that an offer changes. */
const featuresOf = (build: BuildDocument, edit: Edit): Feature[] => {
  const [own] = all(edit).filter((each) => each.do === 'setStep');
  return asFeatures(build.steps.find(({ id }) => id === own?.step))?.features ?? [];
};
type Check = (before: BuildDocument, after: BuildDocument, edit: Edit, words: RegExpExecArray) => void;

/** What the words of an offer promise, in full: an offer with other words fails the test until its promise is here. */
const PROMISES: readonly (readonly [RegExp, Check])[] = [
  [
    /^Lay in (\d+) more slices?$/,
    (before, after, _edit, [, n]) => expect(rows(after) - rows(before)).toBe(Number(n)),
  ],
  [
    /^Longer strips and (\d+) more slices?$/,
    (before, after, _edit, [, n]) => {
      expect(rows(after) - rows(before)).toBe(Number(n));
      expect(Math.max(...lengths(after))).toBeGreaterThan(Math.max(...lengths(before)));
    },
  ],
  [
    /^(Make the strips long enough|Lengthen the strips)$/,
    (before, after) => {
      expect(Math.max(...lengths(after))).toBeGreaterThan(Math.max(...lengths(before)));
      // No slicing lacks more slices than before; that the one it is offered for has all of them is what took its finding away.
      const lacks = (build: BuildDocument) => {
        const timeline = run(build);
        return new Map(
          build.steps.flatMap((step) => {
            const seen = timeline.steps.find(({ id }) => id === step.id);
            if (step.kind !== 'slice' || !seen) return [];
            return [[step.id, (seen.wanted ?? 0) - seen.pieces.length - (step.spoilt?.length ?? 0)]] as const;
          }),
        );
      };
      const was = lacks(before);
      for (const [id, lack] of lacks(after)) expect(lack, id).toBeLessThanOrEqual(was.get(id) ?? 0);
    },
  ],
  [
    /^Cut (\d+) slices?(?: from each)?$/,
    (_before, after, _edit, [, n]) => expect(slices(after)).toContain(Number(n)),
  ],
  [
    /^Leave (.+) in hand$/,
    (_before, after, edit, [, words]) => {
      const [step] = changedSteps(_before, after, edit);
      expect(step?.kind === 'slice' && lengthText(step.hold?.mm ?? 0, after.shop.display)).toBe(words);
    },
  ],
  [
    /^Accept (.+)$/,
    (_before, after, edit, [, words]) => {
      const aim = all(edit).find((each) => each.do === 'setAim');
      expect(aim?.do === 'setAim' && lengthText(aim.aim.value?.mm ?? 0, after.shop.display)).toBe(words);
    },
  ],
  [
    /^An accent strip of (.+) in the middle$/,
    (before, after, edit, [, words]) => {
      const accent = all(edit).find((each) => each.do === 'addAccent');
      expect(accent?.do === 'addAccent' && lengthText(accent.accent.mm, after.shop.display)).toBe(words);
      expect(lengths(after).length).toBe(lengths(before).length + 1);
    },
  ],
  [
    /^Plan (the strips again|again with (the shop’s|this job’s) allowances)$/,
    (before, after) => expect(after).not.toEqual(before),
  ],
  [
    /^Trim (less|more), the same off both sides$/,
    (before, after, edit, [, words]) => {
      const [trim] = changedSteps(before, after, edit);
      const was = before.steps.find(({ id }) => id === trim?.id);
      if (trim?.kind !== 'trim' || was?.kind !== 'trim') throw new Error('no trim');
      const total = (step: typeof trim) => step.near.mm + step.far.mm + step.start.mm + step.end.mm;
      expect(Math.sign(total(trim) - total(was))).toBe(words === 'less' ? -1 : 1);
    },
  ],
  [
    /^Take (less|more) off: /,
    (before, after, edit, [, words]) => {
      const [step] = changedSteps(before, after, edit);
      const was = before.steps.find(({ id }) => id === step?.id);
      if (step?.kind !== 'flatten' || was?.kind !== 'flatten') throw new Error('no flattening');
      const more = step.top.mm + step.bottom.mm - was.top.mm - was.bottom.mm;
      expect(Math.sign(more)).toBe(words === 'less' ? -1 : 1);
    },
  ],
  [
    /^Take more off the (upper|lower) face(, less off the other)?$/,
    (before, after) => expect(after.steps).not.toEqual(before.steps),
  ],
  [
    /^Move .+ towards the (left end|right end|near edge|far edge|lower face|upper face)$/,
    (before, after, edit, [, where]) => {
      const [was, is] = [before, after].map((build) => featuresOf(build, edit));
      const moved = is.filter(
        (each, i) => each.u.by.mm !== was[i].u.by.mm || each.v.by.mm !== was[i].v.by.mm,
      );
      expect(moved).toHaveLength(1);
      const [own] = moved;
      const old = was.find(({ id }) => id === own.id) as Feature;
      const along = own.u.by.mm !== old.u.by.mm ? 'u' : 'v';
      const sign = own[along].from === 'high' ? -1 : 1;
      expect(Math.sign(own[along].by.mm - old[along].by.mm) * sign).toBe(
        /right|far|upper/.test(where) ? 1 : -1,
      );
    },
  ],
  [
    /^Cut .+ less deep$/,
    (before, after, edit) => {
      const depth = (build: BuildDocument) =>
        featuresOf(build, edit).reduce((sum, each) => sum + ('depth' in each ? (each.depth?.mm ?? 0) : 0), 0);
      expect(depth(after)).toBeLessThan(depth(before));
    },
  ],
  [
    /^Put .+ in the middle$/,
    (_before, after, edit) =>
      expect(featuresOf(after, edit).some(({ u, v }) => u.from === 'middle' && v.from === 'middle')).toBe(
        true,
      ),
  ],
  [
    /^Take any cutter that fits .+$/,
    (before, after, edit) => {
      const named = (build: BuildDocument) => featuresOf(build, edit).filter(({ bit }) => bit).length;
      expect(named(after)).toBe(named(before) - 1);
    },
  ],
  [
    /^Put them in the usual order$/,
    (before, after, edit) => {
      const ids = (build: BuildDocument) => featuresOf(build, edit).map(({ id }) => id);
      expect(ids(after)).not.toEqual(ids(before));
      expect(ids(after).toSorted()).toEqual(ids(before).toSorted());
    },
  ],
  [/^Take it off/, (before, after) => expect(after.steps).not.toEqual(before.steps)],
  [
    /^Rip the strips wider$/,
    (before, after) =>
      after.assemblies.forEach(({ slots }, a) =>
        slots.forEach(({ width }, i) =>
          expect(width.mm).toBeGreaterThanOrEqual(before.assemblies[a].slots[i].width.mm),
        ),
      ),
  ],
  [
    /^(Plane it: |Use )([^:]+)(: \d+ % of the time)?$/,
    (before, after, edit, [, , name]) => {
      const bottle = all(edit).find((each) => each.do === 'planGlue');
      if (bottle) expect(name.length).toBeGreaterThan(0);
      else for (const step of changedSteps(before, after, edit)) expect(nameIn(after, step)).toBe(name);
    },
  ],
  [
    /^On a carrier board of (.+)$/,
    (before, after, edit, [, words]) => {
      const [step] = changedSteps(before, after, edit);
      expect(step?.kind === 'flatten' && lengthText(step.carrier?.mm ?? 0, after.shop.display)).toBe(words);
    },
  ],
  [
    /^(Trim both alike|Half off each face)$/,
    (before, after) => expect(after.steps).not.toEqual(before.steps),
  ],
  [
    /^Take the readings? back$/,
    (before, after) => expect(after.readings.length).toBeLessThan(before.readings.length),
  ],
  [
    /^(Saw all strips as thick as the thickest|Bring all strips to the thinnest)$/,
    (_before, after) =>
      expect(
        after.assemblies.some(({ slots }) => new Set(slots.map(({ thickness }) => thickness.mm)).size === 1),
      ).toBe(true),
  ],
  [
    /^Cut all strips (as long as the longest|to the shortest)$/,
    (_before, after) =>
      expect(
        after.assemblies.some(({ slots }) => new Set(slots.map(({ length }) => length.mm)).size === 1),
      ).toBe(true),
  ],
  [
    /^(Add a strip|Remove the last): (\d+)$/,
    (_before, after, _edit, [, , n]) =>
      expect(after.assemblies.some(({ slots }) => slots.length === Number(n))).toBe(true),
  ],
  [
    /^Split into ([\d +]+) and flatten each$/,
    (before, after, _edit, [, words]) => {
      const old = new Set(before.steps.map(({ id }) => id));
      const sections = after.steps.flatMap((step) =>
        step.kind === 'glue' && !old.has(step.id) ? [step.parts?.length] : [],
      );
      expect(sections).toEqual(
        words
          .split(' + ')
          .map(Number)
          .filter((count) => count > 1),
      );
    },
  ],
  [
    /^Glue runners to both edges, (.+) past each end$/,
    (before, after, edit, [, words]) => {
      const [step] = changedSteps(before, after, edit);
      expect(step?.kind === 'flatten' && lengthText(step.ends?.mm ?? 0, after.shop.display)).toBe(words);
      expect(step?.kind === 'flatten' && (step.runners?.mm ?? 0)).toBeGreaterThan(0);
    },
  ],
  [
    /^Sacrificial pieces of (.+) at both ends$/,
    (before, after, edit, [, words]) => {
      const [step] = changedSteps(before, after, edit);
      expect(step?.kind === 'flatten' && lengthText(step.ends?.mm ?? 0, after.shop.display)).toBe(words);
    },
  ],
  [
    /^(Chamfer .+|Carrier and wedges under it|Plane each pair folded: errors cancel|Take .+ a pass)$/,
    (before, after) => expect(after.steps).not.toEqual(before.steps),
  ],
  [
    /^(From both faces.*|In one cut)$/,
    (before, after, edit) => {
      const [step] = changedSteps(before, after, edit);
      expect((step as { way?: string } | undefined)?.way).toBeDefined();
    },
  ],
  [
    /^Bring (?:all|the .+) to (.+)$/,
    (before, after, edit, [, words]) => {
      const [step] = changedSteps(before, after, edit);
      const entry = run(after).steps.find(({ id }) => id === step?.id);
      expect(entry?.greatest.map((mm) => lengthText(mm, after.shop.display))).toContain(words);
    },
  ],
  [
    /^Saw (\d+) leaves$/,
    (before, after, edit, [, n]) => {
      const [step] = changedSteps(before, after, edit);
      expect(step?.kind === 'resaw' && step.leaves).toBe(Number(n));
    },
  ],
  [
    /^Glue as (\d+) sections$/,
    (_before, after, _edit, [, n]) => expect(after.assemblies).toHaveLength(Number(n)),
  ],
  [
    /^(A second pair of hands|.+ instead|Cauls on the edges|This shop’s cauls on the edges|Without cauls on the edges|Cauls across|Let Junta place (them|the clamps)|Every other one to the other face|Space the clamps by 45 degrees|Plane the edges as this shop does|Joint \d+ is .+)(: \d+ % of the time)?$/,
    (before, after) => expect(after.steps).not.toEqual(before.steps),
  ],
];

/** Every part of an offer made of two keeps its own promise; the second is carried out on what the first leaves. */
function expectWords(build: BuildDocument, label: string, edit: Edit): void {
  const [first, second] = label.split(', and: ');
  if (second !== undefined && edit.do === 'many') {
    const between = mustEdit(build, edit.edits[0]);
    expectWords(build, first, edit.edits[0]);
    const words = second.charAt(0).toUpperCase() + second.slice(1);
    expectWords(between, words, edit.edits[1]);
    return;
  }
  const promise = PROMISES.find(([pattern]) => pattern.test(first));
  expect(promise, `an offer in words this test does not know: ${first}`).toBeDefined();
  if (!promise) return;
  try {
    promise[1](build, mustEdit(build, edit), edit, promise[0].exec(first) as RegExpExecArray);
  } catch (error) {
    throw new Error(`“${first}”: ${(error as Error).message}`, { cause: error });
  }
}

/** Carries out every offer of every finding of a job in trouble. Gives how many there were. */
function expectKept({ name, build }: Scenario): number {
  const before = find(build);
  const known = new Set(before.map(sameFinding));
  let offers = 0;
  for (const finding of review(build, run(build), TODAY)) {
    for (const { label, edit } of finding.fixes) {
      offers += 1;
      const where = `${name}: ${finding.code} on ${finding.step}: ${label}`;
      const after = mustEdit(build, edit);
      expect(after, where).not.toBe(build);
      const found = find(after);
      expect(found.map(sameFinding), where).not.toContain(sameFinding(finding));
      const steps = new Set(build.steps.map(({ id }) => id));
      const worse = found.filter(
        (each) =>
          RANK[each.severity] >= RANK[finding.severity] &&
          !known.has(sameFinding(each)) &&
          steps.has(each.step),
      );
      expect(
        worse.map(({ code, step }) => `${code} on ${step}`),
        where,
      ).toEqual([]);
      try {
        expectWords(build, label, edit);
      } catch (error) {
        throw new Error(`${where}: ${(error as Error).message}`, { cause: error });
      }
    }
    // Where nothing mends it, what was tried is said.
    if (finding.fixes.length === 0 && finding.tried) expect(finding.tried.length).toBeGreaterThan(0);
  }
  return offers;
}

describe('every offer of every finding does what its words say', () => {
  // One in so many of the troubles of every pattern, both systems; which ones follows from the seed.
  const EVERY = 71;
  it('over all patterns, readings and shortages, at random sizes', { timeout: 600_000 }, () => {
    let [offers, jobs, nth] = [0, 0, 0];
    for (const scenario of scenarios(10)) {
      nth += 1;
      if (nth % EVERY !== 0) continue;
      jobs += 1;
      offers += expectKept(scenario);
    }
    expect(jobs).toBeGreaterThan(40);
    expect(offers).toBeGreaterThan(80);
  });
});

describe('ways out of wood that is short', () => {
  const rack = [
    { ...demoBoards[0], species: 'cherry_black', id: 'short', width: typed('9'), length: typed('40') },
  ];
  it('are those that raise no other warning, or say how many they raise', () => {
    const build = plannedFor(panelBrief(), shopWith({}, { hands: 2 }));
    const { problem } = problemFor([build], rack);
    const answer = solveNow(problem, EFFORT.quick);
    expect(answer.missing.length).toBeGreaterThan(0);
    const tried = shortageFixes(build, rack, answer);
    expect(tried.length).toBeGreaterThan(0);
    const known = new Set(find(build).map(sameFinding));
    const offered = withoutNewWarnings(build, tried, find);
    expect(offered.length).toBeGreaterThan(0);
    for (const { label, edit } of offered) {
      const raised = find(mustEdit(build, edit)).filter(
        (each) => RANK[each.severity] >= RANK.warning && !known.has(sameFinding(each)),
      );
      expect(/raises (\d+) other warnings?$/.exec(label)?.[1] ?? '0').toBe(String(raised.length));
    }
  });
});
