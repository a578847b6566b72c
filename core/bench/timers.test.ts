import { describe, expect, it } from 'vitest';
import type { BuildDocument } from '../document';
import { gluingOf, type ShopSnapshot } from '../kit';
import { panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { timersOf } from '.';

const DONE = Date.parse('2026-03-02T09:00:00Z');
const H = 3_600_000;
const usual = shopWith({}, { hands: 2 });
const practising = (squeezeOut: 'wet' | 'rubbery' | 'hard'): ShopSnapshot => ({
  ...usual,
  gluing: { ...gluingOf(usual), squeezeOut },
});
const glued = (shop: ShopSnapshot): BuildDocument => {
  const plan = plannedFor(panelBrief({}), shop);
  const at = plan.steps.findIndex(({ kind }) => kind === 'glue');
  return {
    ...plan,
    steps: plan.steps.map((step, i) =>
      i <= at ? { ...step, done: true, doneAt: new Date(DONE).toISOString() } : step,
    ),
  };
};
const scrapes = (build: BuildDocument, now = DONE) =>
  timersOf(build, now).filter(({ task }) => task.endsWith(':scrape'));

describe('timers of a job', () => {
  it('ring when squeeze-out is rubbery, half an hour after the last clamp (common practice), beside the wait in clamps', () => {
    const build = glued(practising('rubbery'));
    const all = timersOf(build, DONE);
    expect(scrapes(build)).toEqual([
      {
        task: 'glue:scrape',
        step: 'glue',
        words: expect.stringContaining('before it is scraped'),
        until: DONE + H / 2,
      },
    ]);
    const clamps = all.find(({ task }) => task === 'glue:clamps');
    expect(clamps?.until).toBeGreaterThan(DONE + H / 2);
    // Scraping moves nothing: what waits after the clamps ends when it would have.
    expect(timersOf(glued(practising('wet')), DONE).filter(({ task }) => task === 'glue:settle')).toEqual(
      all.filter(({ task }) => task === 'glue:settle'),
    );
  });
  it('do not where it is wiped wet, or scraped when the clamps are off; nor before the glue-up is done, nor a day after', () => {
    for (const way of ['wet', 'hard'] as const) expect(scrapes(glued(practising(way)))).toEqual([]);
    const build = glued(practising('rubbery'));
    const open = {
      ...build,
      steps: build.steps.map((step) => (step.kind === 'glue' ? { ...step, done: false } : step)),
    };
    expect(scrapes(open)).toEqual([]);
    expect(scrapes(build, DONE + H / 2 + 24 * H - 1)).toHaveLength(1);
    expect(scrapes(build, DONE + H / 2 + 24 * H)).toEqual([]);
  });
});
