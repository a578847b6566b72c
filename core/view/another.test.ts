import { describe, expect, it } from 'vitest';
import { type BuildDocument, duplicateOf, isRefused, phraseText, pieceNumber } from '../document';
import { mustEdit } from '../edit';
import { takeOver } from '../log';
import { CHEQUER, fixed, panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import { type Another, another, careOf, changesBetween, onePart } from '.';

const shop = shopWith();
const made = (): BuildDocument => {
  const build = plannedFor(panelBrief({ ...CHEQUER }), shop);
  const turned = mustEdit(build, {
    do: 'setSlots',
    strips: [build.assemblies[0].slots[1].id],
    change: { grain: 'rift' },
  });
  return {
    ...turned,
    name: 'Block',
    readings: [{ id: 'r', step: turned.steps[0].id, dimension: 'thickness', measured: { mm: 30 } }],
    steps: turned.steps.map((step, i) =>
      i === 0 ? { ...step, done: true, doneAt: '2026-03-02T10:00:00Z' } : step,
    ),
  };
};
const ok = (result: Another | { refused: unknown } | undefined): Another => {
  if (result === undefined || isRefused(result)) throw new Error('refused');
  return result as Another;
};
const said = ({ differences }: Another) => differences.map((line) => phraseText(line, shop.display));

describe('a piece made again', () => {
  it('in the same size in the same shop is the same work, from its beginning', () => {
    const again = ok(another(made(), shop, { name: 'Block, again' }));
    expect(said(again)).toEqual([]);
    expect(again.build).toMatchObject({ name: 'Block, again', readings: [], boards: [] });
    expect(again.build.steps.some(({ done }) => done)).toBe(false);
    expect(again.build.assemblies[0].slots[1].grain).toBe('rift');
  });
  it('in another size keeps pattern, order and judgement, and lists exactly what differs', () => {
    const first = made();
    const again = ok(another(first, shop, { name: 'Longer', sizes: { length: fixed('20') } }));
    expect(run(again.build).finished?.greatest[0]).toBeCloseTo(20 * 25.4, 6);
    expect(again.build.brief?.pattern).toBe(first.brief?.pattern);
    expect(again.build.assemblies[0].slots.map(({ species }) => species)).toEqual(
      first.assemblies[0].slots.map(({ species }) => species),
    );
    expect(again.build.assemblies[0].slots[1].grain).toBe('rift');
    expect(said(again).some((line) => /length 20 in, was 15 in/i.test(line))).toBe(true);
    // What is listed is what a comparison of the two finds: no more, no less.
    const { build } = ok(another(first, shop, { name: 'Longer' }));
    expect(changesBetween(build, again.build)).toEqual(again.differences);
  });
  it('takes no dry run, no clamping and nothing that its joints showed from the first one', () => {
    const plan = {
      adhesive: 'water-resistant',
      rehearsal: { at: '2026-03-02T10:00:00Z', whole: false, laps: [{ act: 'clamp' as const, seconds: 20 }] },
      clamped: '2026-03-02T11:00:00Z',
      joints: [{ joint: 1, squeezeOut: 'lean' as const }],
      hollow: { mm: 0.2 },
    };
    const first = made();
    const steps = first.steps.map((step) => (step.kind === 'glue' ? { ...step, plan } : step));
    const again = duplicateOf({ ...first, steps }, 'Copy').steps.filter(({ kind }) => kind === 'glue');
    expect(again.length).toBeGreaterThan(0);
    for (const step of again) expect(step).toMatchObject({ plan: { adhesive: 'water-resistant' } });
    for (const step of again)
      for (const record of ['rehearsal', 'clamped', 'joints', 'hollow'])
        expect((step as { plan: object }).plan).not.toHaveProperty(record);
  });
  it('knows from which one it comes, which is no difference; a copy of it does not', () => {
    const named = { ...made(), name: 'Block' };
    const again = ok(another(named, shop, { name: 'Block, again', job: 'j1' }));
    expect(again.build.earlier).toEqual({ job: 'j1', name: 'Block' });
    expect(said(again)).toEqual([]);
    const [strip] = named.assemblies[0].slots;
    expect(ok(onePart(named, shop, { strip: strip.id, name: 'x', job: 'j1' })).build.earlier?.job).toBe('j1');
    expect(duplicateOf(again.build, 'Copy').earlier).toBeUndefined();
    expect(changesBetween(named, again.build).map((line) => phraseText(line, shop.display))).toContain(
      'made again from “Block”',
    );
  });
  it('takes along what the shop learned meanwhile, and says so', () => {
    const learned = takeOver(shop, 'kerf:table-full', { value: 2.9, likely: 0.02, readings: 20 }, 'now');
    const again = ok(another(made(), learned, { name: 'Block, again' }));
    expect(again.build.shop.saws[0].kerf.mm).toBe(2.9);
    expect(again.build.shop).not.toHaveProperty('learned');
    expect(said(again).length).toBeGreaterThan(0);
  });
  it('is refused in words where a size cannot be planned, or there is no plan to make anew', () => {
    const small = another(made(), shop, { name: 'x', sizes: { length: fixed('0') } });
    expect(isRefused(small)).toBe(true);
    const { brief: _brief, ...byHand } = made();
    const refused = another(byHand, shop, { name: 'x', sizes: { length: fixed('20') } });
    expect(isRefused(refused) && phraseText(refused.refused, shop.display)).toMatch(/put together by hand/);
    expect(said(ok(another(byHand, shop, { name: 'x' })))).toEqual([]);
  });
  it('one part of it is one strip, ripped and milled, and nothing else', () => {
    const first = made();
    const [strip] = first.assemblies[0].slots;
    const part = ok(onePart(first, shop, { strip: strip.id, name: 'Block, part' })).build;
    expect(part.steps.map(({ kind }) => kind)).toEqual(['rip', 'mill']);
    expect(part.assemblies.flatMap(({ slots }) => slots)).toHaveLength(1);
    const played = run(part);
    expect(played.finished?.pieces).toHaveLength(1);
    const mill = run(first).steps.find(({ kind }) => kind === 'mill');
    expect(played.finished?.greatest[1]).toBeCloseTo(mill?.greatest[1] ?? 0, 9);
    expect(played.problems.filter(({ severity }) => severity === 'stop')).toEqual([]);
    expect(onePart(first, shop, { strip: 'gone', name: 'x' })).toBeUndefined();
  });
});

describe('the record of a piece', () => {
  it('has a number that is always the same, and another one for another job', () => {
    const id = '0990f963-208f-4c3d-86af-bc13bd17e74c';
    expect(pieceNumber(id)).toMatch(/^[A-HJ-NP-Z2-9]{3}-[A-HJ-NP-Z2-9]{3}$/);
    expect(pieceNumber(id)).toBe(pieceNumber(id));
    expect(pieceNumber(id, 2)).toBe(`${pieceNumber(id)}-2`);
    const many = new Set(Array.from({ length: 2000 }, (_, i) => pieceNumber(`${id}${i}`)));
    expect(many.size).toBeGreaterThan(1995);
  });
  it('says how it is looked after, by use, grain and finish', () => {
    const block = made();
    const care = (build: BuildDocument) => careOf(build, run(build)).join(' ');
    expect(care({ ...block, uses: ['food'] })).toMatch(/not go into a dishwasher.*End grain drinks/);
    expect(care({ ...block, uses: [] })).not.toMatch(/dishwasher/);
    const oiled = mustEdit(block, {
      do: 'addStep',
      kind: 'finish',
      after: block.steps.at(-1)?.id ?? '',
    } as never);
    expect(care(oiled)).toMatch(/finish/i);
  });
});
