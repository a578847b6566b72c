import { describe, expect, it } from 'vitest';
import { defaultShop } from '../core/kit';
import { checkWith } from './check';
import { display, length } from './lengths';
import { kitBody, shopSnapshot } from './shop';

const reasons = (schema: Parameters<typeof checkWith>[0], value: unknown): string[] => {
  const checked = checkWith(schema, value);
  return checked.ok ? [] : checked.problems.map(({ path, reason }) => `${path}: ${reason}`);
};

describe('lengths on the wire', () => {
  it('are millimetres, with what was typed or without', () => {
    expect(reasons(length(), { mm: 12.5 })).toEqual([]);
    expect(reasons(length(), { mm: 12.7, typed: { text: '1/2', system: 'inch' } })).toEqual([]);
    expect(reasons(length(), { mm: -3 })).toEqual([]); // a wrong length may be stored: it is a finding, not a lost edit
  });
  it.each([
    ['no number', { mm: '12' }, 'mm'],
    ['not finite', { mm: Number.NaN }, 'mm'],
    ['absurd', { mm: 1e9 }, '100000'],
    ['another unit', { mm: 1, typed: { text: '1', system: 'ell' } }, 'system'],
    ['a novel typed', { mm: 1, typed: { text: 'x'.repeat(99), system: 'mm' } }, '40'],
    ['a field too many', { mm: 1, inch: 2 }, 'inch'],
    ['nothing', undefined, 'required'],
  ])('%s is refused', (_name, value, words) => expect(reasons(length(), value).join()).toContain(words));
});

describe('the kit on the wire', () => {
  const shop = () => JSON.parse(JSON.stringify(defaultShop('wire')));
  it('takes rules of a size and of a check, and none of both or of half', () => {
    const rule = { id: 'r', words: 'x', step: 'rip', side: 'above' };
    const ruled = (more: object) => reasons(shopSnapshot(), { ...shop(), rules: [{ ...rule, ...more }] });
    expect(ruled({ dimension: 'width', size: { mm: 10 } })).toEqual([]);
    expect(ruled({ check: 'moisture', value: 10 })).toEqual([]);
    for (const half of [
      {},
      { dimension: 'width' },
      { check: 'moisture' },
      { value: 10 },
      { dimension: 'width', size: { mm: 10 }, check: 'moisture', value: 10 },
      { dimension: 'width', value: 10 },
    ])
      expect(ruled(half).join()).toContain('a dimension with a size, or a check with a value');
    expect(ruled({ dimension: 'width', size: { mm: -1 } }).join()).toContain('size');
    expect(ruled({ check: 'smell', value: 1 }).join()).toContain('check');
    expect(ruled({ check: 'moisture', value: -1 }).join()).toContain('value');
  });
  it('takes the shop it starts with', () => expect(reasons(shopSnapshot(), shop())).toEqual([]));
  it.each([
    [
      'somebody who lifts half a tonne',
      (s: any) => {
        s.people = [{ id: 'person', name: 'Alder', liftKg: 500 }];
      },
      'people[0].liftKg',
    ],
    [
      'somebody without a name',
      (s: any) => {
        s.people = [{ id: 'person', name: '' }];
      },
      'people[0].name',
    ],
    [
      'a negative kerf',
      (s: any) => {
        s.saws[0].kerf.mm = -1;
      },
      'saws[0].kerf',
    ],
    [
      'a bit of a kind nobody has',
      (s: any) => {
        s.bits = [{ id: 'b', name: 'b', kind: 'laser', diameter: { mm: 1 } }];
      },
      'bits[0].kind',
    ],
    [
      'less than nothing on the shelf',
      (s: any) => {
        s.supplies = [{ id: 'd', name: 'd', kind: 'dowel', onHand: -1 }];
      },
      'supplies[0].onHand',
    ],
    [
      'a currency that is none',
      (s: any) => {
        s.supplies = [{ id: 'd', name: 'd', kind: 'dowel', onHand: 1, priceMinor: 5, currency: 'euro' }];
      },
      'supplies[0].currency',
    ],
    [
      'a saw of a kind nobody has',
      (s: any) => {
        s.saws[0].kind = 'laser';
      },
      'saws[0].kind',
    ],
    [
      'a reach below nothing',
      (s: any) => {
        s.machines[0].reach = { mm: -2 };
      },
      'machines[0].reach',
    ],
    [
      'a kind nobody has',
      (s: any) => {
        s.machines[0].kind = 'laser';
      },
      'machines[0].kind',
    ],
    [
      'a missing allowance',
      (s: any) => {
        delete s.allowances.trimEnd;
      },
      'allowances.trimEnd',
    ],
    [
      'no name',
      (s: any) => {
        s.name = '';
      },
      'name',
    ],
    [
      'forty-one saws',
      (s: any) => {
        s.saws = Array.from({ length: 41 }, (_, i) => ({ ...s.saws[0], id: `s${i}` }));
      },
      'saws',
    ],
    [
      'an id with a path in it',
      (s: any) => {
        s.saws[0].id = '../x';
      },
      'saws[0].id',
    ],
    [
      'a basis of its own',
      (s: any) => {
        s.saws[0].setting.basis = 'hearsay';
      },
      'basis',
    ],
    [
      'a fraction no rule has',
      (s: any) => {
        s.display.fraction = 7;
      },
      'display.fraction',
    ],
  ])('%s is refused at its place', (_name, breakIt, path) => {
    const broken = shop();
    breakIt(broken);
    expect(reasons(shopSnapshot(), broken).join()).toContain(path);
  });
  it('goes with the version it was read at', () => {
    expect(reasons(kitBody, { version: 1, shop: shop() })).toEqual([]);
    expect(reasons(kitBody, { version: 0, shop: shop() }).join()).toContain('version');
    expect(reasons(kitBody, { shop: shop() }).join()).toContain('version');
    expect(reasons(display(), { system: 'mm', fraction: 0 })).toEqual([]);
  });
});
