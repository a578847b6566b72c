import { describe, expect, it } from 'vitest';
import { run } from '../run';
import { cellCentre, grainSide, movePoint, type Vec3 } from '../solid';
import type { Reading } from '../document';
import { densityOf, massOf } from './mass';
import { toleranceOf } from './tolerance';
import { build, GLUE, last, shop, slot, three } from './steps.fixture';
import type { Step } from '../document';

const mm = (n: number) => ({ mm: n });
const machine = (id: string) => shop.machines.find((each) => each.id === id) ?? shop.machines[0];
const saw = shop.saws[0];
const MILL: Step = {
  id: 'mill',
  kind: 'mill',
  inputs: ['strips'],
  output: 'milled',
  machine: 'planer',
  face: mm(1),
  edge: mm(0.5),
};
const FLATTEN: Step = {
  id: 'flat',
  kind: 'flatten',
  inputs: ['panel'],
  output: 'flat',
  machine: 'planer',
  top: mm(1),
  bottom: mm(2),
};
const read = (step: string, dimension: Reading['dimension'], measured: number): Reading => ({
  id: `${step}.${dimension}`,
  step,
  dimension,
  measured: mm(measured),
});
/** Where the middle of a step's first cell lies in its log: what shifts when one side loses more than the other. */
const inLog = (step: ReturnType<typeof last>): Vec3 => {
  const [cell] = step.pieces[0].blank.cells;
  return movePoint(cell.toLog, cellCentre(cell));
};
const near = (a: Vec3, b: Vec3) => a.forEach((x, i) => expect(x).toBeCloseTo(b[i], 6));

describe('tolerances, in full', () => {
  it('milling both edges by one setting counts its error twice, against the rip’s own', () => {
    const { errors } = last(build(three, [MILL])).pieces[0];
    const timeline = run(build(three, [MILL]));
    const planer = machine('planer').setting;
    const got = toleranceOf(errors[1], timeline.sources);
    expect(got.worstMm).toBeCloseTo(saw.setting.worst.mm + 2 * planer.worst.mm, 9);
    expect(got.likelyMm).toBeCloseTo(Math.hypot(saw.setting.likely.mm, 2 * planer.likely.mm), 9);
  });
  it('a reading is off by 0.475 of the setting step nine times in ten, as rounding is, by half of it at worst', () => {
    const document = build(three, [GLUE, FLATTEN], { readings: [read('flat', 'thickness', 21)] });
    const [, , thickness] = last(document).tolerance;
    expect(thickness.likelyMm).toBeCloseTo(0.475 * shop.settingStep.mm, 12);
    expect(thickness.worstMm).toBeCloseTo(shop.settingStep.mm / 2, 12);
  });
});

describe('what a reading takes away', () => {
  it('comes off both faces alike where flattening explains it', () => {
    const planned = last(build(three, [GLUE, FLATTEN]));
    const measured = last(build(three, [GLUE, FLATTEN], { readings: [read('flat', 'thickness', 20)] }));
    expect(planned.greatest[2]).toBeCloseTo(22, 9);
    expect(measured.greatest[2]).toBeCloseTo(20, 9);
    // A millimetre more off each face: the middle stays where it was in the log.
    near(inLog(measured), inLog(planned));
    near(cellCentre(measured.pieces[0].blank.cells[0]), [
      250,
      cellCentre(planned.pieces[0].blank.cells[0])[1],
      10,
    ]);
  });
  it('comes off both faces of milled strips alike, and off both edges', () => {
    const planned = last(build(three, [MILL]));
    for (const [dimension, axis, size] of [
      ['thickness', 2, 21],
      ['width', 1, 57],
    ] as const) {
      const measured = last(build(three, [MILL], { readings: [read('mill', dimension, size)] }));
      expect(measured.greatest[axis]).toBeCloseTo(size, 9);
      near(inLog(measured), inLog(planned));
    }
  });
  it('comes off both faces where no setting explains it, and off the end of a length', () => {
    const rest: Step = { id: 'rest', kind: 'rest', inputs: ['panel'], output: 'rested' };
    const planned = last(build(three, [GLUE, rest]));
    const thin = last(build(three, [GLUE, rest], { readings: [read('rest', 'thickness', 24)] }));
    near(inLog(thin), inLog(planned));
    const short = last(build(three, [GLUE, rest], { readings: [read('rest', 'length', 490)] }));
    const [z0, z1] = [inLog(planned)[2], inLog(short)[2]];
    expect(z0 - z1).toBeCloseTo(5, 6);
  });
});

describe('at the boundary', () => {
  const crosscut = (length: number): Step => ({
    id: 'cut',
    kind: 'crosscut',
    inputs: ['panel'],
    output: 'cut',
    saw: saw.id,
    length: mm(length),
  });
  const stopOf = (step: Step) =>
    run(build(three, [GLUE, step])).problems.find(({ severity }) => severity === 'stop');
  it('a piece can be cut to its own length and not to a thousandth more', () => {
    expect(stopOf(crosscut(500))).toBeUndefined();
    expect(last(build(three, [GLUE, crosscut(500)])).greatest[0]).toBeCloseTo(500, 9);
    expect(stopOf(crosscut(500.001))).toMatchObject({ code: 'too-short-to-cut', numbers: { length: 500 } });
  });
  it('a mitre needs a piece longer than the cut runs', () => {
    const mitre = (wide: number): Step => ({
      id: 'cut',
      kind: 'oblique',
      inputs: ['strips'],
      output: 'cut',
      saw: saw.id,
      tilt: 'mitre',
      angleDegrees: 45,
      head: mm(0),
      thickness: mm(10),
      count: 1,
      ends: wide > 0 ? 'both' : 'end',
    });
    const strip = (length: number) => [{ ...three[0], length: mm(length), width: mm(50) }];
    const stops = (length: number) =>
      run(build(strip(length), [mitre(1)])).problems.some(({ code }) => code === 'too-short-to-mitre');
    const runs = (2 * 50 * Math.cos(Math.PI / 4)) / Math.sin(Math.PI / 4);
    expect([stops(runs - 0.1), stops(runs), stops(runs + 0.1)]).toEqual([true, true, false]);
  });
  it('fibres up to 20 degrees are long grain, from 70 end grain', () => {
    expect([0, 20, 20.01, 69.99, 70, 90].map(grainSide)).toEqual([
      'long grain',
      'long grain',
      'sloped',
      'sloped',
      'end grain',
      'end grain',
    ]);
  });
});

it('wood that is not known weighs nothing, and takes nothing from the weight of the other', () => {
  expect(densityOf('bog_oak')).toBe(0);
  const { blank } = last(build([slot('a', 500, 40, 25), slot('b', 500, 40, 25, 'bog_oak')], [GLUE]))
    .pieces[0];
  expect(massOf(blank)).toBeCloseTo((densityOf('maple_sugar') * 500 * 40 * 25) / 1e9, 9);
});
