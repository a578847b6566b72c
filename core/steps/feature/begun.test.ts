import { expect, it } from 'vitest';
import { INCH } from '../../units';
import { feature as room, type FeatureStep } from './feature';
import { beginFeature, FEATURE_LIST } from './kinds';

it('minutes of features: six to set one up, one for each hole drilled, four for each cut; a row without a count has four', () => {
  const minutes = (...features: object[]) => room.labour.more?.({ features } as unknown as FeatureStep);
  const drilled = { kind: 'hole' };
  const cut = { kind: 'groove' };
  expect(minutes(drilled)).toBe(6 + 1);
  expect(minutes({ ...drilled, row: { count: 5 } })).toBe(6 + 5);
  expect(minutes({ ...drilled, row: { pitch: { mm: 32 } } })).toBe(6 + 4);
  expect(minutes(cut)).toBe(6 + 4);
  expect(minutes({ ...cut, row: { count: 3 } }, drilled)).toBe(6 + 12 + 7);
});

it('sizes begin on marks that are read at a glance, finer where they are small', () => {
  const sizes = (system: 'inch' | 'mm') =>
    [8, 20, 60, 400].flatMap((deep) =>
      FEATURE_LIST.flatMap((kind) =>
        Object.values(
          beginFeature(
            kind,
            { side: 'upper', long: 17 * deep, wide: 9 * deep, deep, trims: { u: [0, 0], v: [0, 0], n: 0 } },
            { id: 'f', system },
          ),
        ).flatMap((value) => (typeof value === 'object' && 'mm' in value ? [Number(value.mm)] : [])),
      ),
    );
  const isOn = (value: number, step: number) => Math.abs(value / step - Math.round(value / step)) < 1e-6;
  const inches = sizes('inch').map((size) => size / INCH);
  for (const size of inches)
    expect(isOn(size, size <= 0.5 ? 1 / 16 : size <= 2 ? 1 / 8 : 1 / 4), `${size} in`).toBe(true);
  // Sixteenths are used below half an inch, eighths up to two.
  expect(inches.some((size) => size < 0.5 && !isOn(size, 1 / 8))).toBe(true);
  expect(inches.some((size) => size > 0.5 && size < 2 && !isOn(size, 1 / 4))).toBe(true);
  for (const size of sizes('mm'))
    expect(isOn(size, size <= 20 ? 0.5 : size <= 50 ? 1 : 5), `${size} mm`).toBe(true);
});
