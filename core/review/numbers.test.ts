import { describe, expect, it } from 'vitest';
import { demoJobs } from '../../demo/jobs';
import { type BuildDocument, type Finding, phraseText } from '../document';
import { predict } from '../exchange';
import { glueUpsOf, plannedGlueUp } from '../glueup';
import type { ShopSnapshot } from '../kit';
import { glueSheets } from '../layup';
import { PATTERNS } from '../plan';
import { run } from '../run';
import { extents } from '../solid';
import { noiseOf, type Timeline } from '../steps';
import { type Display, lengthText } from '../units';
import { outlook, review } from '.';
import { planned, randomFrom, scenarios, SHOPS } from './scenarios.fixture';

const TODAY = '2027-01-01';
const SYSTEMS: Record<string, Pick<ShopSnapshot, 'display' | 'settingStep'>> = {
  'inches to 1/32': { display: { system: 'inch', fraction: 32 }, settingStep: { mm: 25.4 / 32 } },
  'inches to 1/16': { display: { system: 'inch', fraction: 16 }, settingStep: { mm: 25.4 / 16 } },
  millimetres: { display: { system: 'mm', fraction: 0 }, settingStep: { mm: 0.1 } },
};
const shownIn = (
  build: BuildDocument,
  system: Pick<ShopSnapshot, 'display' | 'settingStep'>,
): BuildDocument => ({
  ...build,
  shop: { ...build.shop, ...system },
});

/** Numbers of a finding that say by how much something is off: each must be worth saying. */
const MARGINS = ['short', 'difference', 'over', 'drift', 'step', 'margin', 'ragged', 'more', 'cut'] as const;
/** Words for several things; a one before them is a slip. */
const SEVERAL =
  /(^|[^\d./–,])1 (slices|strips|pieces|parts|joints|rows|clamps|panels|boards|steps|blanks|coats|legs|leaves|sections|glue-ups|sheets|pairs|passes)\b/;
const NOTHING = /(^|[^\d./])0 (in|mm|lb|kg|oz|g)\b/;

/** What every text must keep to, whatever it says. */
function expectWords(text: string, where: string): void {
  expect(text, where).not.toMatch(NOTHING);
  expect(text, where).not.toMatch(SEVERAL);
  expect(text, where).not.toMatch(/NaN|undefined|Infinity|\[object/);
}

function expectFinding(finding: Finding, { shop }: BuildDocument, where: string): void {
  const text = phraseText(finding.message, shop.display);
  expectWords(text, `${where}: ${finding.code}: ${text}`);
  if (finding.severity === 'warning')
    expect(Object.keys(finding.numbers).length, `${where}: ${finding.code}`).toBeGreaterThan(0);
  for (const name of MARGINS) {
    const value = finding.numbers[name];
    // Nothing at all is a case of its own, said in words.
    if (value !== undefined && value !== 0)
      expect(Math.abs(value), `${where}: ${finding.code}, ${name}`).toBeGreaterThanOrEqual(
        noiseOf(shop) * (1 - 1e-9),
      );
  }
  // Two sizes that differ are never shown as one.
  const sizes = finding.message.flatMap((part) => (typeof part === 'object' && 'mm' in part ? [part] : []));
  for (const a of sizes)
    for (const b of sizes)
      if (Math.abs(a.mm - b.mm) > noiseOf(shop))
        expect(phraseText([a, ' ', b], shop.display), `${where}: ${text}`).not.toMatch(/^(.+) \1$/);
  for (const { label } of finding.fixes) expectWords(label, `${where}: ${finding.code}: ${label}`);
}

/** Every size a screen or a sheet shows is the timeline's own, to the last digit shown. */
function expectSizes(build: BuildDocument, timeline: Timeline): void {
  const { display } = build.shop;
  const shown = (size: readonly number[], to: Display = display) => size.map((mm) => lengthText(mm, to));
  const view = outlook(build, undefined, TODAY);
  expect(view.steps.map(({ greatest }) => shown(greatest))).toEqual(
    timeline.steps.map(({ pieces }) =>
      shown([0, 1, 2].map((a) => Math.max(...pieces.map(({ blank }) => extents(blank)[a])))),
    ),
  );
  if (timeline.finished)
    view.comparison?.forEach((row, a) =>
      expect(
        [timeline.finished?.least[a], timeline.finished?.greatest[a]].map((mm) =>
          lengthText(mm ?? 0, display),
        ),
      ).toContain(lengthText(row.predictedMm, display)),
    );
  const predicted = predict(build);
  expect(JSON.stringify(predicted)).not.toContain('null,null');
  for (const sheet of glueSheets(build, timeline)) {
    const entry = timeline.steps.find(({ id }) => id === sheet.step.id);
    expect(shown(sheet.size)).toEqual(shown(entry ? extents(entry.pieces[0].blank) : []));
  }
  for (const glueUp of glueUpsOf(build, timeline)) {
    const size = extents(
      timeline.steps.find(({ id }) => id === glueUp.step.id)?.pieces[0].blank ?? { cells: [] },
    );
    expect(shown([glueUp.lengthMm, glueUp.widthMm, glueUp.heightMm])).toEqual(
      shown([size[glueUp.axes.run], size[glueUp.axes.press], size[glueUp.axes.depth]]),
    );
    const plan = plannedGlueUp(build, timeline, glueUp.step.id, TODAY);
    for (const { words } of plan?.ready ?? []) expectWords(phraseText(words, display), glueUp.name);
    for (const words of plan?.staging?.reasons ?? [])
      expectWords(phraseText(words.words, display), glueUp.name);
    for (const way of plan?.staging?.ways ?? [])
      for (const words of way.walls) expectWords(phraseText(words, display), `${glueUp.name}: ${way.name}`);
  }
}

describe.each(Object.entries(SYSTEMS))('what is shown in %s', (_name, system) => {
  it.each(
    demoJobs.map((build) => [build.name, build] as const),
  )('of the demo’s %s is the timeline’s', (name, job) => {
    const build = shownIn(job, system);
    const timeline = run(build);
    expectSizes(build, timeline);
    for (const finding of review(build, timeline, TODAY)) expectFinding(finding, build, name);
  });
});

describe.each(PATTERNS.map(({ id }) => [id] as const))('what is shown of %s', (id) => {
  it.each(['inch', 'mm'] as const)('in %s is the timeline’s', (system) => {
    const random = randomFrom(7);
    const build = planned(id, SHOPS[system], random) ?? planned(id, SHOPS[system], random);
    if (!build) throw new Error(`${id} cannot be planned`);
    const timeline = run(build);
    expectSizes(build, timeline);
    for (const finding of review(build, timeline, TODAY)) expectFinding(finding, build, id);
  });
});

describe('what is found in jobs in trouble', () => {
  it('says no nothing, no plural of one, and no margin that is not worth saying', {
    timeout: 600_000,
  }, () => {
    let seen = 0;
    let nth = 0;
    for (const scenario of scenarios(3)) {
      nth += 1;
      if (nth % 11 !== 0) continue;
      const { name, build } = scenario;
      // Without their ways out, which offers.test.ts plays: the words of findings cost a fraction.
      for (const finding of outlook(build, undefined, TODAY).findings) {
        seen += 1;
        expectFinding(finding, build, name);
      }
    }
    expect(seen).toBeGreaterThan(500);
  });
});
