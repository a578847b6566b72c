import { describe, expect, it } from 'vitest';
import { defaultShop } from '../kit';
import { mustFit, PATTERNS, startingBrief } from '../plan';
import { run } from '../run';
import { glueSheets, scaleFor } from './sheet';

const shop = {
  ...defaultShop('sheets'),
  layUps: [{ id: 'r', name: 'r', strips: [{ species: 'maple_sugar', share: 1 }] }],
};

const plan = (pattern: (typeof PATTERNS)[number]) =>
  mustFit(startingBrief(pattern.id, shop), shop, { name: pattern.name, use: '' });

const area = (points: readonly (readonly [number, number])[]) =>
  Math.abs(
    points.reduce(
      (sum, p, i) =>
        sum + p[0] * points[(i + 1) % points.length][1] - points[(i + 1) % points.length][0] * p[1],
      0,
    ),
  ) / 2;

describe('sheets', () => {
  it.each(
    PATTERNS.map((pattern) => [pattern.id, pattern] as const),
  )('%s: one a glue-up, every part numbered, faces within the drawing', (_id, pattern) => {
    const build = plan(pattern);
    const sheets = glueSheets(build, run(build));
    expect(sheets.map(({ step }) => step.id)).toEqual(
      build.steps.filter(({ kind }) => kind === 'glue').map(({ id }) => id),
    );
    for (const sheet of sheets) {
      expect(sheet.parts.map(({ nth }) => nth)).toEqual(sheet.parts.map((_, i) => i + 1));
      expect(sheet.parts.every(({ species }) => species.length > 0)).toBe(true);
      const high = sheet.seen === 'face' ? sheet.size[1] : sheet.size[2];
      for (const { points } of sheet.faces)
        for (const [x, y] of points) {
          expect(x).toBeGreaterThan(-1e-6);
          expect(x).toBeLessThan(sheet.size[0] + 1e-6);
          expect(y).toBeGreaterThan(-1e-6);
          expect(y).toBeLessThan(high + 1e-6);
        }
    }
  });
  it('a full rectangle is drawn full', () => {
    const build = plan(PATTERNS.find(({ id }) => id === 'endGrain') ?? PATTERNS[0]);
    for (const { faces, size } of glueSheets(build, run(build)))
      expect(faces.reduce((sum, { points }) => sum + area(points), 0)).toBeCloseTo(size[0] * size[1], 3);
  });
  it('turns and shifts stand with their parts', () => {
    const sheetOf = (id: string, step: string) => {
      const build = plan(PATTERNS.find((pattern) => pattern.id === id) ?? PATTERNS[0]);
      return glueSheets(build, run(build)).find((sheet) => sheet.step.id === step);
    };
    expect(sheetOf('endGrain', 'glue-block')?.parts.map(({ turned }) => turned.length)).toEqual(
      Array.from({ length: 12 }, (_, i) => i % 2),
    );
    expect(sheetOf('bricks', 'glue-block')?.parts[1].shifted).toBeGreaterThan(10);
    expect(sheetOf('basket', 'glue-block')?.parts[1].turned).toEqual(['a quarter turn']);
    expect(sheetOf('lamination', 'glue')?.seen).toBe('edge');
  });
  it('is drawn at the largest usual scale that fits', () => {
    expect([
      scaleFor([180, 100], [180, 120]),
      scaleFor([181, 100], [180, 120]),
      scaleFor([1000, 300], [180, 120]),
      scaleFor([99999, 9], [180, 120]),
    ]).toEqual([1, 2, 10, 100]);
  });
});
