import { describe, expect, it } from 'vitest';
import { type BuildDocument, type Edit, phraseText } from '../document';
import { mustEdit } from '../edit';
import { glueUpOf } from '../glueup';
import { usualMachine } from '../kit';
import { fit, freeJob, startingBrief } from '../plan';
import { shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import { movePoint } from '../solid';
import { findSpecies, MADE_MATERIALS, materialOf, SHEET_RADIUS_MM } from '../wood';
import { review } from '.';

const shop = shopWith({ display: { system: 'mm', fraction: 0 } });
const mm = (value: number) => ({ mm: value });

/** Slabs that are there, one lying on the other. */
function stack(
  slabs: readonly { species: string; size: readonly [number, number, number]; cut?: string }[],
  along: 'thickness' | 'width' = 'thickness',
): BuildDocument {
  let build: BuildDocument = freeJob(shop, { name: 'stack', use: '' });
  for (const { species, size, cut } of slabs)
    build = mustEdit(build, {
      do: 'addLine',
      kind: 'have',
      settings: {
        species,
        count: 1,
        length: mm(size[0]),
        width: mm(size[1]),
        thickness: mm(size[2]),
        ...(cut ? { cut } : {}),
      },
    } as Edit);
  const outputs = build.steps.map(({ output }) => output);
  build = mustEdit(build, {
    do: 'addStep',
    kind: 'glue',
    after: build.steps[0].id,
    settings: { along },
  });
  const glue = build.steps.find(({ kind }) => kind === 'glue');
  if (!glue) throw new Error('no glue-up');
  for (const output of outputs.slice(1))
    build = mustEdit(build, { do: 'takeIn', step: glue.id, output } as Edit);
  return build;
}
const found = (build: BuildDocument, code: string) =>
  review(build, run(build)).find((finding) => finding.code === code);
const glueOf = (build: BuildDocument) => build.steps.find(({ kind }) => kind === 'glue')?.id ?? '';
const after = (build: BuildDocument, kind: string, settings: object): BuildDocument =>
  mustEdit(build, { do: 'addStep', kind, after: glueOf(build), settings } as Edit);

describe('wood on a sheet', () => {
  it('an oak board over birch plywood moves by its width times the difference, by hand', () => {
    const oak = findSpecies('oak_white');
    const build = stack([
      { species: 'plywood_birch', size: [600, 300, 18] },
      { species: 'oak_white', size: [600, 300, 20], cut: 'flat' },
    ]);
    const finding = found(build, 'wood-on-sheet');
    // 300 mm, tangential less the sheet's own, 4 % over a year: rings that stand aslant take a little of it.
    const flat = 300 * ((oak?.coefficientTangential ?? 0) - 0.00015) * 4;
    const upright = 300 * ((oak?.coefficientRadial ?? 0) - 0.00015) * 4;
    expect(flat).toBeCloseTo(4.2, 1);
    expect(finding?.numbers.moves).toBeLessThanOrEqual(flat + 1e-9);
    expect(finding?.numbers.moves).toBeGreaterThan(upright);
    expect(finding?.numbers.length).toBeCloseTo(300, 6);
    expect(phraseText(finding?.message ?? [], shop.display)).toMatch(/birch plywood over 300 mm: .*4 %/);
  });
  it('a narrow edging along the grain, or plywood on plywood, is no finding', () => {
    for (const slabs of [
      [
        { species: 'plywood_birch', size: [600, 300, 18] as const },
        { species: 'plywood_birch', size: [600, 300, 18] as const },
      ],
      [
        { species: 'oak_white', size: [600, 60, 18] as const },
        { species: 'plywood_birch', size: [600, 60, 18] as const },
      ],
    ]) {
      const build = stack(slabs);
      expect(found(build, 'wood-on-sheet')).toBeUndefined();
      expect(found(build, 'cross-grain-joint')).toBeUndefined();
    }
  });
  it('veneer lumber moves across as wood does: with it, along its grain, nothing is said', () => {
    const build = stack([
      { species: 'veneer_lumber', size: [600, 200, 40] },
      { species: 'douglas_fir_coast', size: [600, 200, 20], cut: 'flat' },
    ]);
    expect(found(build, 'wood-on-sheet')).toBeUndefined();
  });
});

describe('metal', () => {
  const inlaid = stack(
    [
      { species: 'walnut_black', size: [600, 60, 20] },
      { species: 'brass', size: [600, 3, 20] },
      { species: 'walnut_black', size: [600, 60, 20] },
    ],
    'width',
  );
  it('under the knives is said with a caution, and every way out is free of it', () => {
    const build = after(
      { ...inlaid, shop: { ...shop, machines: [...shop.machines, usualMachine('drum sander', 'drum')] } },
      'flatten',
      { machine: shop.machines.find(({ kind }) => kind === 'planer')?.id, top: mm(0.5), bottom: mm(0) },
    );
    const finding = found(build, 'metal-under-knives');
    expect(finding?.numbers.off).toBe(0.5);
    expect(finding?.caution).toMatch(/eye protection/);
    expect(finding?.fixes.length).toBeGreaterThan(0);
    for (const { edit } of finding?.fixes ?? [])
      expect(found(mustEdit(build, edit), 'metal-under-knives')).toBeUndefined();
  });
  it('that the knives do not reach is no finding', () => {
    const low = stack(
      [
        { species: 'walnut_black', size: [600, 60, 20] },
        { species: 'brass', size: [600, 3, 12] },
        { species: 'walnut_black', size: [600, 60, 20] },
      ],
      'width',
    );
    const settings = {
      machine: shop.machines.find(({ kind }) => kind === 'planer')?.id,
      top: mm(0.5),
      bottom: mm(0),
    };
    expect(found(after(low, 'flatten', settings), 'metal-under-knives')).toBeUndefined();
  });
  it('is not held by glue for wood, and epoxy is', () => {
    const finding = found(inlaid, 'adhesive-unsuited');
    expect(phraseText(finding?.message ?? [], shop.display)).toMatch(/brass/);
    const epoxy = {
      ...inlaid,
      shop: {
        ...shop,
        adhesives: [{ id: 'e', name: 'Epoxy', class: 'epoxy_rt' }],
      },
    } as BuildDocument;
    const still = review(epoxy, run(epoxy)).filter(({ code }) => code === 'adhesive-unsuited');
    expect(still.map(({ message }) => phraseText(message, shop.display)).join()).not.toMatch(/brass/);
  });
  it('weighs what a box of it weighs', () => {
    const timeline = run(inlaid);
    const brass = (600 * 3 * 20 * 8450) / 1e9;
    const wood = ((2 * 600 * 60 * 20) / 1e9) * 1000 * (findSpecies('walnut_black')?.specificGravity12 ?? 0);
    const glueUp = glueUpOf(inlaid, timeline, glueOf(inlaid));
    // Wood at the shop's moisture weighs a few percent more than at none.
    expect(glueUp?.massKg).toBeGreaterThan(brass + wood);
    expect(glueUp?.massKg).toBeLessThan(brass + 1.12 * wood);
  });
  it('is not planned from rough boards, nor is plywood: refused with what to do', () => {
    for (const wood of ['brass', 'plywood_birch']) {
      const made = fit(startingBrief('lamination', shop, { woods: [wood] }), shop, { name: 'l', use: '' });
      expect('refused' in made && phraseText(made.refused, shop.display)).toMatch(/What I have/);
    }
    expect(
      'refused' in
        fit(startingBrief('lamination', shop, { woods: ['veneer_lumber'] }), shop, { name: 'l', use: '' }),
    ).toBe(false);
  });
});

describe('the face of a sheet', () => {
  const panel = stack(
    [
      { species: 'plywood_birch', size: [600, 200, 18] },
      { species: 'plywood_birch', size: [600, 200, 18] },
    ],
    'width',
  );
  const machine = shop.machines.find(({ kind }) => kind === 'planer')?.id;
  it('taken through is said with both numbers; less than it is not', () => {
    const finding = found(after(panel, 'flatten', { machine, top: mm(1.2), bottom: mm(0) }), 'through-face');
    expect(finding?.numbers).toEqual({ off: 1.2, face: 1.2 });
    expect(found(after(panel, 'flatten', { machine, top: mm(1.1), bottom: mm(0) }), 'through-face')).toBe(
      undefined,
    );
  });
  it('its edges may be trimmed', () => {
    expect(
      found(
        after(panel, 'trim', {
          cutter: { saw: shop.saws[0].id },
          start: mm(5),
          end: mm(5),
          near: mm(5),
          far: mm(5),
        }),
        'through-face',
      ),
    ).toBeUndefined();
  });
});

it('every sheet and metal has its values, and nothing that is not milled may be planned from boards', () => {
  for (const made of MADE_MATERIALS) {
    expect(made.coefficientAlong).toBeGreaterThanOrEqual(0);
    expect(made.densityKgM3).toBeGreaterThan(0);
    const { milled, instead } = materialOf(made.id);
    expect(milled || instead !== undefined).toBe(true);
  }
});

it('both faces of plywood run along the sheet, whatever its thickness', () => {
  for (const { id, layerMm } of MADE_MATERIALS.filter(({ material }) => material === 'plywood'))
    for (const thickness of [3, 6, 6.5, 9, 12, 12.7, 15, 18, 19.05, 21, 24, 30]) {
      const build = mustEdit(freeJob(shop, { name: 'sheet', use: '' }), {
        do: 'addLine',
        kind: 'have',
        settings: { species: id, count: 1, length: mm(400), width: mm(200), thickness: mm(thickness) },
      } as Edit);
      const [cell] = run(build).steps[0].pieces[0].blank.cells;
      // Just inside each face: the layer it lies in, counted from the beginning of one.
      const layers = [0.01, thickness - 0.01].map((z) =>
        Math.round((movePoint(cell.toLog, [100, 50, z])[1] - SHEET_RADIUS_MM) / (layerMm ?? 1)),
      );
      expect(
        layers.map((layer) => Math.abs(layer % 2)),
        `${id} ${thickness}`,
      ).toEqual([0, 0]);
    }
});
