/* Strips and steps that the tests of single steps share. */
import { expect } from 'vitest';
import { type BuildDocument, FORMAT_VERSION, type Slot, type Step } from '../document';
import { defaultShop } from '../kit';
import { run } from '../run';
import { blankVolume, CAUSES, lostTo, type Vec3 } from '../solid';
import type { GlueStep } from './glue/step';
import type { ObliqueStep } from './oblique/oblique';
import type { TimelineStep } from './timeline';

export const shop = defaultShop('steps');

export const slot = (
  id: string,
  length: number,
  width: number,
  thickness: number,
  species = 'maple_sugar',
): Slot => ({ id, species, length: { mm: length }, width: { mm: width }, thickness: { mm: thickness } });

export const RIP: Step = {
  id: 'rip',
  kind: 'rip',
  inputs: [],
  output: 'strips',
  assembly: 'a',
  saw: 'table-full',
  fence: 'shared',
};

export const GLUE: GlueStep = {
  id: 'glue',
  kind: 'glue',
  inputs: ['strips'],
  output: 'panel',
  along: 'width',
};

/** A build of some strips and steps; the rip step comes first by itself. */
export const build = (slots: Slot[], steps: Step[], change: Partial<BuildDocument> = {}): BuildDocument => ({
  format: 'junta-build',
  version: FORMAT_VERSION,
  name: 'steps',
  use: '',
  targets: [],
  boards: [],
  assemblies: [{ id: 'a', name: 'Lay-up', repeat: 1, slots }],
  steps: [RIP, ...steps],
  readings: [],
  shop,
  ...change,
});

export const three = [
  slot('s1', 500, 40, 25),
  slot('s2', 500, 50, 25, 'walnut_black'),
  slot('s3', 500, 60, 25),
];

export const last = (document: BuildDocument): TimelineStep => {
  const timeline = run(document);
  expect(timeline.problems.filter(({ severity }) => severity === 'stop')).toEqual([]);
  return timeline.steps[timeline.steps.length - 1];
};

export const size = (step: TimelineStep): Vec3 => step.greatest;

export const lost = (step: TimelineStep) =>
  Object.fromEntries(CAUSES.map((cause) => [cause, Math.round(lostTo(step.lost, cause))]));

/** Wood in is accounted for to the last billionth. */
export const closes = (document: BuildDocument) => {
  const timeline = run(document);
  const kept = (timeline.finished?.pieces ?? []).reduce((sum, { blank }) => sum + blankVolume(blank), 0);
  const gone = CAUSES.reduce((sum, cause) => sum + lostTo(timeline.ledger, cause), 0);
  expect(Math.abs(timeline.woodInMm3 - kept - gone - timeline.leftOverMm3) / timeline.woodInMm3).toBeLessThan(
    1e-9,
  );
};

/** Wood in is kept, lost or left over, to the last billionth; whatever the shape. */
export function balanced(document: BuildDocument): void {
  const timeline = run(document);
  const kept = (timeline.finished?.pieces ?? []).reduce((sum, { blank }) => sum + blankVolume(blank), 0);
  const gone = CAUSES.reduce((sum, cause) => sum + lostTo(timeline.ledger, cause), 0);
  const off = timeline.woodInMm3 - kept - gone - timeline.leftOverMm3;
  expect(Math.abs(off) / timeline.woodInMm3).toBeLessThan(1e-9);
}

/** Slices at 45 degrees from the panel, until told otherwise. */
export const cut = (change: Partial<ObliqueStep> = {}): ObliqueStep => ({
  id: 'cut',
  kind: 'oblique',
  inputs: ['panel'],
  output: 'pieces',
  saw: 'table-full',
  tilt: 'mitre',
  angleDegrees: 45,
  head: { mm: 0 },
  thickness: { mm: 40 },
  count: 3,
  ...change,
});
