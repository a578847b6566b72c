import { describe, expect, it } from 'vitest';
import { type BuildDocument, type Finding, phraseText } from '../document';
import { mustEdit } from '../edit';
import { type ShopSnapshot, typed, usualMachine, usualSaw } from '../kit';
import { panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { mustFit, startingBrief } from '../plan';
import { run } from '../run';
import { review } from '.';

const shop: ShopSnapshot = {
  ...shopWith(),
  machines: [...shopWith().machines, usualMachine('drill press', 'drill')],
  saws: [...shopWith().saws, usualSaw('mitre saw', 'mitre')],
};
const one = (kit: ShopSnapshot = shop) => plannedFor(panelBrief({ sections: 1 }), kit);
const of = (build: BuildDocument, code: string): Finding | undefined =>
  review(build, run(build)).find((finding) => finding.code === code);
const text = (finding: Finding | undefined, build: BuildDocument) =>
  finding ? phraseText(finding.message, build.shop.display) : '';

describe('a tool that does other work', () => {
  it('a drill press named to flatten: said, and every way out does the work', () => {
    expect(of(one(), 'machine-does-not')).toBeUndefined();
    const build = mustEdit(one(), { do: 'useMachine', step: 'flatten', machine: 'drill' });
    const finding = of(build, 'machine-does-not');
    expect(text(finding, build)).toBe('Drill press bores holes; this step flattens faces.');
    expect(finding?.fixes.length).toBeGreaterThan(0);
    for (const { edit } of finding?.fixes ?? [])
      expect(of(mustEdit(build, edit), 'machine-does-not')).toBeUndefined();
  });
  it('a mitre saw named to rip', () => {
    const build = mustEdit(one(), { do: 'useSaw', step: 'rip', saw: 'mitre' });
    const finding = of(build, 'saw-does-not');
    expect(text(finding, build)).toBe('Mitre saw crosscuts; this step rips.');
    for (const { edit } of finding?.fixes ?? [])
      expect(of(mustEdit(build, edit), 'saw-does-not')).toBeUndefined();
  });
  it('a drill press asked to flatten a panel with is said; for a butcher block another is planned, and a note says why', () => {
    expect(
      of(plannedFor(panelBrief({ sections: 1, flattenWith: 'drill' }), shop), 'machine-does-not'),
    ).toBeDefined();
    const block = mustFit(startingBrief('butcher', shop, { flattenWith: 'drill' }), shop, {
      name: 'b',
      use: '',
    });
    expect(of(block, 'machine-does-not')).toBeUndefined();
    expect(text(of(block, 'other-machine'), block)).toContain('Drill press bores holes');
  });
  it('a kit with nothing that flattens refuses to mill with a drill', () => {
    expect(() =>
      plannedFor(panelBrief({ sections: 1 }), { ...shop, machines: [usualMachine('drill press', 'd')] }),
    ).toThrow(/no machine to mill/);
  });
});

describe('a machine that reaches over so much', () => {
  const router = (long: string) => ({
    ...usualMachine('computer-guided router', 'guided'),
    maxWidth: { mm: 0 },
    maxLength: typed(long),
  });
  it('a piece longer than its work area is told, with both numbers; one just as long is not', () => {
    const at = (long: string) =>
      mustEdit(one({ ...shop, machines: [...shop.machines, router(long)] }), {
        do: 'useMachine',
        step: 'flatten',
        machine: 'guided',
      });
    const long = run(at('20')).steps.find(({ id }) => id === 'flatten')?.greatest[0] ?? 0;
    const finding = of(at('20'), 'longer-than-machine');
    expect(finding?.numbers).toMatchObject({ length: long, most: 20 * 25.4 });
    expect(of(at(`${Math.ceil(long / 25.4)}`), 'longer-than-machine')).toBeUndefined();
  });
});

describe('a dial that moves in steps', () => {
  const dialled = (text: string) =>
    one({
      ...shop,
      machines: shop.machines.map((each) => (each.id === 'planer' ? { ...each, dial: typed(text) } : each)),
    });
  it('7/8 lies on steps of 1/16 and between steps of 1/10; without a dial nothing is said', () => {
    expect(of(one(), 'between-dial-steps')).toBeUndefined();
    expect(of(dialled('1/16'), 'between-dial-steps')?.step).not.toBe('flatten');
    const finding = review(dialled('1/10'), run(dialled('1/10'))).find(
      ({ code, step }) => code === 'between-dial-steps' && step === 'flatten',
    );
    expect(finding?.numbers.off).toBeCloseTo(0.025 * 25.4, 6);
  });
});

describe('what a step wants and the kit has not', () => {
  const glued = (kit: Partial<ShopSnapshot>) =>
    mustEdit(one({ ...shop, ...kit }), {
      do: 'planGlue',
      step: 'glue',
      change: { aids: { kind: 'biscuits' } },
    });
  const biscuits = (onHand: number) => ({
    supplies: [{ id: 'b', name: 'Biscuits', kind: 'biscuit' as const, size: '56 x 23', onHand }],
  });
  it('biscuits: as many as lie in the joints less what is there', () => {
    expect(of(glued({}), 'not-on-hand')).toBeUndefined();
    expect(of(glued(biscuits(1000)), 'not-on-hand')).toBeUndefined();
    const finding = of(glued(biscuits(3)), 'not-on-hand');
    const { wanted = 0, onHand, short } = finding?.numbers ?? {};
    expect(wanted).toBeGreaterThan(3);
    expect([onHand, short]).toEqual([3, wanted - 3]);
    expect(text(finding, glued(biscuits(3)))).toContain(`3 on hand, ${wanted - 3} missing`);
    expect(of(glued(biscuits(wanted)), 'not-on-hand')).toBeUndefined();
  });
  it('a surfacing bit for the sled, whose shank its collet holds', () => {
    const sled = (bits: ShopSnapshot['bits']) =>
      mustEdit(one({ ...shop, ...(bits ? { bits } : {}) }), {
        do: 'useMachine',
        step: 'flatten',
        machine: 'sled',
      });
    const bit = (shank: string) => ({
      id: 's',
      name: 'Surfacing bit',
      kind: 'surfacing' as const,
      diameter: typed('2'),
      shank: typed(shank),
    });
    expect(of(sled(undefined), 'not-on-hand')).toBeUndefined();
    expect(text(of(sled([]), 'not-on-hand'), sled([]))).toContain('Surfacing bit: none in the kit');
    expect(of(sled([bit('1/2')]), 'not-on-hand')).toBeUndefined();
    expect(of(sled([bit('3/4')]), 'not-on-hand')).toBeDefined();
  });
  it('a step that is done wants nothing any more', () => {
    const done = mustEdit(glued(biscuits(3)), { do: 'setStep', step: 'glue', change: { done: true } });
    expect(of(done, 'not-on-hand')).toBeUndefined();
  });
});
