import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { BuildDocument, Step } from '../document';
import { mustEdit } from '../edit';
import { run } from '../run';
import { CAUSES, extents, lostTo } from '../solid';
import { asPlayed, isNoPasses, passPlan, roomOf, sharedOff } from '.';
import { balanced, build, GLUE, last, shop, size, slot, three } from './steps.fixture';

const FLAT: Step = {
  id: 'f',
  kind: 'flatten',
  inputs: ['panel'],
  output: 'flat',
  machine: 'planer',
  top: { mm: 0.5 },
  bottom: { mm: 0.3 },
};
const flat = (change: object): BuildDocument => build(three, [GLUE, { ...FLAT, ...change } as Step]);
const amounts = (document: BuildDocument, id = 'f') => {
  const step = asPlayed(document, run(document)).steps.find((each) => each.id === id);
  return roomOf(step as Step).takesOff?.(step as Step)[0];
};

describe('a size to reach', () => {
  it('decides what comes off each face: half each, or the rest of one where the other is set', () => {
    expect(size(last(flat({ to: { mm: 22 } })))[2]).toBe(22);
    expect(amounts(flat({ to: { mm: 22 } }))).toMatchObject({ min: 1.5, max: 1.5 });
    expect(amounts(flat({ to: { mm: 22 }, rest: 'max' }))).toMatchObject({ min: 0.3, max: 2.7 });
    expect(amounts(flat({ to: { mm: 22 }, rest: 'min' }))).toMatchObject({ min: 2.5, max: 0.5 });
  });

  it('takes as much as there is where the set side asks for more', () => {
    expect(sharedOff(0.2, 'max', { min: 0.3, max: 9 })).toEqual([0.2, 0]);
    expect(amounts(flat({ to: { mm: 24.9 }, rest: 'min' }))).toMatchObject({
      max: expect.closeTo(0.1, 9),
      min: 0,
    });
  });

  it('above what enters takes nothing, and every piece keeps its wood', () => {
    const document = flat({ to: { mm: 26 } });
    expect(size(last(document))[2]).toBe(25);
    balanced(document);
  });

  it('brings strips of several thicknesses to one, each by its own amount; a thin one keeps what it has', () => {
    const uneven = [slot('a', 500, 40, 30), slot('b', 500, 40, 27), slot('c', 500, 40, 24)];
    const document = build(uneven, [
      {
        id: 'm',
        kind: 'mill',
        inputs: ['strips'],
        output: 'milled',
        machine: 'planer',
        face: { mm: 1 },
        edge: { mm: 0 },
        toThickness: { mm: 25 },
        toWidth: { mm: 38 },
      },
    ]);
    const { pieces } = last(document);
    expect(pieces.map(({ blank }) => extents(blank)[2])).toEqual([25, 25, 24]);
    expect(pieces.map(({ blank }) => extents(blank)[1])).toEqual([38, 38, 38]);
    balanced(document);
  });

  it('of a trim squares panels of different length to one, and of a jointing to one width', () => {
    const trim: Step = {
      id: 't',
      kind: 'trim',
      inputs: ['panel'],
      output: 'done',
      cutter: { saw: 'table-full' },
      near: { mm: 4 },
      far: { mm: 4 },
      start: { mm: 5 },
      end: { mm: 5 },
      toLength: { mm: 480 },
      toWidth: { mm: 140 },
      lengthRest: 'max',
    };
    const done = last(build(three, [GLUE, trim]));
    expect(size(done).slice(0, 2)).toEqual([480, 140]);
    expect(done.as).toMatchObject({ start: { mm: 5 }, end: { mm: 15 }, near: { mm: 5 }, far: { mm: 5 } });
    const joint: Step = {
      id: 'j',
      kind: 'joint',
      inputs: ['panel'],
      output: 'jointed',
      machine: 'jointer',
      near: { mm: 1 },
      far: { mm: 1 },
      to: { mm: 146 },
      rest: 'max',
    };
    const jointed = last(build(three, [GLUE, joint]));
    expect(size(jointed)[1]).toBe(146);
    expect(jointed.as).toMatchObject({ near: { mm: 1 }, far: { mm: 3 } });
  });

  it('follows a reading of what enters, and gives way to a reading of its own', () => {
    const thinner = { id: 'r', step: 'glue', dimension: 'thickness' as const, measured: { mm: 24 } };
    const before: BuildDocument = { ...flat({ to: { mm: 22 } }), readings: [thinner] };
    expect(size(last(before))[2]).toBe(22);
    expect(amounts(before)).toMatchObject({ min: 1, max: 1 });
    const after = { ...before, readings: [{ ...thinner, step: 'f', measured: { mm: 21.5 } }] };
    expect(size(last(after))[2]).toBe(21.5);
    balanced(after);
  });

  it('is gone once an amount is typed, and stays where its share is changed', () => {
    const step = (document: BuildDocument) => document.steps.find(({ id }) => id === 'f');
    const typed = mustEdit(flat({ to: { mm: 22 } }), {
      do: 'setStep',
      step: 'f',
      change: { top: { mm: 1 }, bottom: { mm: 1 } },
    });
    expect(step(typed)).toMatchObject({ to: undefined, top: { mm: 1 } });
    const shared = mustEdit(flat({ to: { mm: 22 } }), { do: 'setStep', step: 'f', change: { rest: 'max' } });
    expect(step(shared)).toMatchObject({ to: { mm: 22 } });
  });

  it('is reached within half a step of the dial, its faces in balance, and the ledger has what the step says', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 18, max: 80, noNaN: true }),
        fc.double({ min: 0.02, max: 9, noNaN: true }),
        fc.constantFrom(0, 0.05, 25.4 / 64),
        fc.constantFrom('both' as const, 'max' as const, 'min' as const),
        fc.double({ min: 0.3, max: 2, noNaN: true }),
        (thick, off, dial, rest, bite) => {
          fc.pre(dial === 0 || bite >= 2 * dial);
          const machines = shop.machines.map((machine) =>
            machine.id === 'planer' ? { ...machine, dial: { mm: dial }, bite: { mm: bite } } : machine,
          );
          const strips = [slot('a', 400, 40, thick), slot('b', 400, 50, thick)];
          const document = build(
            strips,
            [GLUE, { ...FLAT, to: { mm: thick - off }, rest, touch: true } as Step],
            {
              shop: { ...shop, machines },
            },
          );
          const timeline = run(document);
          const entry = timeline.steps.at(-1);
          if (!entry?.as) throw new Error('not played');
          const taken = roomOf(entry.as).takesOff?.(entry.as)[0] ?? { min: 0, max: 0 };
          expect(taken.min + taken.max).toBeCloseTo(off, 6);
          if (rest === 'both') expect(taken.min).toBeCloseTo(taken.max, 9);
          const booked = CAUSES.reduce((sum, cause) => sum + lostTo(entry.lost, cause), 0);
          expect(booked / (400 * 90)).toBeCloseTo(taken.min + taken.max, 6);
          const plan = passPlan(entry.as, entry, document);
          if (!plan || isNoPasses(plan)) throw new Error('no plan');
          const passes = plan.faces.flatMap((face) => face.passes);
          expect(Math.abs((passes.at(-1)?.settingMm ?? 0) - (thick - off))).toBeLessThanOrEqual(
            dial / 2 + 1e-6,
          );
          passes.reduce((at, { settingMm, takesMm }) => {
            expect(settingMm).toBeLessThanOrEqual(at + 1e-9);
            expect(takesMm).toBeLessThanOrEqual(bite + 1e-6);
            return settingMm;
          }, thick + dial);
          // One pass first that only touches, and no other that takes nothing.
          expect(passes.filter(({ takesMm }) => takesMm === 0)).toHaveLength(1);
        },
      ),
      { numRuns: 60, seed: 20261130 },
    );
  });
});
