import { configureStore } from '@reduxjs/toolkit';
import { renderToStaticMarkup } from 'react-dom/server';
import { Provider } from 'react-redux';
import { describe, expect, it, vi } from 'vitest';
import type { BuildDocument, Step } from '../../../core/document';
import { STEP_ROOMS } from '../../../core/steps';
import { demoJobs } from '../../../demo/jobs';

for (const name of ['addEventListener', 'removeEventListener']) vi.stubGlobal(name, () => {});
const { api } = await import('../../app/api');
const { jobReducer } = await import('../../app/job');
const { StepSettings } = await import('./StepSettings');

const store = configureStore({
  reducer: { job: jobReducer, [api.reducerPath]: api.reducer },
  middleware: (usual) => usual().concat(api.middleware),
});
const build: BuildDocument = demoJobs[0];
const card = (step: object): string =>
  renderToStaticMarkup(
    <Provider store={store}>
      <StepSettings build={build} step={step as Step} />
    </Provider>,
  );
const mm = (n: number) => ({ mm: n });
const own = (kind: string, more: object) => ({ id: 's', kind, inputs: [], output: 'o', ...more });
const [saw, other] = build.shop.saws;
const [machine] = build.shop.machines;

/** One of every kind, with the words a maker must find on its card, and words that must not be there. */
const CARDS: Record<string, { step: object; labels: string[]; not?: string[] }> = {
  rip: {
    step: own('rip', { assembly: 'a', saw: saw.id, fence: 'shared' }),
    labels: ['Saw', saw.name, 'Fence', 'One setting a width', 'Set for each'],
  },
  have: {
    step: own('have', {
      species: 'walnut_black',
      count: 3,
      length: mm(600),
      width: mm(200),
      thickness: mm(40),
    }),
    labels: ['Wood', 'Black walnut', 'How many', 'value="3"', 'Grain runs', 'Rings on its end'],
  },
  assemble: {
    step: own('assemble', {
      what: 'Top on its base',
      fixings: [{ kind: 'screw', size: '4 x 40', amount: 8 }],
    }),
    labels: [
      'What is put together',
      'Held by glue too',
      'People',
      'Minutes',
      'Hardware 1',
      'Screws',
      '4 x 40',
    ],
  },
  mill: {
    step: own('mill', { machine: machine.id, face: mm(1.5), edge: mm(0.5) }),
    labels: ['With', machine.name, 'Off each face', 'Off each edge'],
  },
  glue: {
    step: own('glue', { along: 'width', turns: { turn: 'endForEnd', every: 2, first: 2, except: [] } }),
    labels: ['Pencilled across', 'A triangle', 'Numbers'],
  },
  flatten: {
    step: own('flatten', { machine: machine.id, top: mm(1), bottom: mm(1) }),
    labels: ['Flatten with', 'Off the upper face', 'Off the lower face', 'Carrier board under it'],
  },
  joint: {
    step: own('joint', { machine: machine.id, near: mm(1), far: mm(0) }),
    labels: ['With', 'Off the near edge', 'Off the far edge'],
  },
  slice: {
    step: own('slice', { saw: saw.id, head: mm(12), thickness: mm(40), count: 9 }),
    labels: ['Saw', 'Slice thickness', 'Slices', 'Cut off first', 'Left in hand after the last'],
  },
  cutApart: {
    step: own('cutApart', { saw: saw.id, along: 'width', first: mm(120), out: mm(14) }),
    labels: ['Saw', 'How it is cut', 'Part at the near edge', 'Band taken out'],
    not: ['Part at the left end'],
  },
  turn: { step: own('turn', { turn: 'standOnEnd' }), labels: ['Turn', 'Stand on end: length and thickness'] },
  trim: {
    step: own('trim', { cutter: { saw: other.id }, start: mm(3), end: mm(3), near: mm(2), far: mm(2) }),
    labels: [
      'Trim with',
      other.name,
      'Off the left end',
      'Off the right end',
      'Off the near edge',
      'Off the far edge',
    ],
  },
  crosscut: { step: own('crosscut', { saw: saw.id, length: mm(300) }), labels: ['Saw', 'Length'] },
  rest: { step: own('rest', {}), labels: ['Hours of rest', 'value="12"'] },
  finish: {
    step: own('finish', { finish: 'polyOil', coats: 3 }),
    labels: [
      'Polyurethane, oil-based',
      'It must stand',
      'Hours each coat dries',
      'Coats',
      'value="3"',
      'Lost on rag or brush',
      'Coats place by place',
    ],
  },
  fill: {
    step: own('fill', {
      with: 'epoxy',
      voids: [{ shape: 'round', length: mm(20), width: mm(10), depth: mm(8), count: 3 }],
    }),
    labels: ['Filled with', 'Colour', 'Void 1', 'Shape', 'Depth', 'How many alike', 'Add: void'],
  },
  fit: { step: own('fit', { fittings: [] }), labels: ['What is fitted'] },
  install: {
    step: own('install', {
      people: 2,
      carried: 'flat',
      leftDegrees: 91,
      wall: [{ at: mm(0), gap: mm(3) }],
    }),
    labels: [
      'People',
      'Carried',
      'Up or down stairs',
      'Left corner, degrees',
      'Reading of the wall behind 1',
      'Falls back by',
      'What it rests on',
      'Sink and hob',
    ],
  },
  resaw: { step: own('resaw', { saw: saw.id, leaves: 4 }), labels: ['Saw', 'Leaves', 'value="4"'] },
  oblique: {
    step: own('oblique', {
      saw: saw.id,
      tilt: 'mitre',
      angleDegrees: 45,
      head: mm(0),
      thickness: mm(30),
      count: 4,
    }),
    labels: ['Cut to the length, degrees', 'Width across the cut', 'Pieces', 'Cut off first'],
    not: ['Blade to the face'],
  },
  shape: {
    step: own('shape', { saw: saw.id, outline: [{ x: mm(0), y: mm(0) }] }),
    labels: [
      'Saw',
      'Outline seen from',
      'Above',
      'Its line',
      '1 corner, all sides straight',
      'Draw the outline',
    ],
  },
  feature: {
    step: own('feature', { features: [], edges: 'finished' }),
    labels: ['Places are measured from', 'Finished edges', 'What is cut'],
  },
  surface: {
    step: own('surface', { by: 'sand', grits: [120, 180] }),
    labels: [
      'With',
      'The faces are',
      'Grits, coarse to fine',
      'value="120, 180"',
      'Edges and ends too',
      'Raise the grain',
    ],
  },
  outside: { step: own('outside', { days: 5 }), labels: ['Days until it is back', 'value="5"'] },
};

describe('the card of a step', () => {
  it.each(STEP_ROOMS.map(({ kind }) => kind))('%s shows its settings by their names', (kind) => {
    const { step, labels, not = [] } = CARDS[kind];
    const html = card(step);
    for (const label of labels) expect(html, label).toContain(label);
    for (const label of not) expect(html, label).not.toContain(label);
    // Every labelled setting of the room that matters here stands on the card, and none twice.
    for (const { label, when } of Object.values(STEP_ROOMS.find((room) => room.kind === kind)?.fields ?? {}))
      if (typeof label === 'string' && (when?.(step as never) ?? true)) expect(html).toContain(label);
  });
  it('asks only for what matters: mitred ends have no pieces to count, a leaning blade another angle', () => {
    const ends = card({ ...(CARDS.oblique.step as object), ends: 'both' });
    for (const label of ['Pieces', 'Width across', 'Cut off first']) expect(ends).not.toContain(label);
    expect(card({ ...(CARDS.oblique.step as object), tilt: 'ripBevel' })).toContain(
      'Blade to the face, degrees',
    );
  });
  it('offers to draw an outline where a shape has none', () =>
    expect(card(own('shape', {}))).toContain('Nothing is drawn yet'));
});
