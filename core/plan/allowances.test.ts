import { describe, expect, it } from 'vitest';
import { type BuildDocument, type Edit, isRefused, phraseText } from '../document';
import { applyEdit } from '../edit';
import { ALLOWANCE_NAMES, defaultShop, shopAlone, shopForJob } from '../kit';
import { run } from '../run';
import { changesBetween } from '../view/changes';
import { mustFit, startingBrief } from './index';

const shop = defaultShop('a shop');
const about = { name: 'a', use: '' };
const brief = startingBrief('panel', shop);
const edited = (build: BuildDocument, edit: Edit): BuildDocument => {
  const next = applyEdit(build, edit);
  if (isRefused(next)) throw new Error(phraseText(next.refused, shop.display));
  return next;
};
const stripLengths = ({ assemblies }: BuildDocument) =>
  assemblies.flatMap(({ slots }) => slots.map(({ length }) => length.mm));

describe('allowances of a job', () => {
  it('make the strips longer by both ends and leave the finished size and the shop as they are', () => {
    const usual = mustFit(brief, shop, about);
    const own = mustFit(
      { ...brief, allowances: { trimEnd: { mm: shop.allowances.trimEnd.mm + 50.8 } } },
      shop,
      about,
    );
    const longer = stripLengths(own).map((mm, i) => mm - stripLengths(usual)[i]);
    for (const mm of longer) expect(mm).toBeCloseTo(101.6, 6);
    expect(run(own).finished?.greatest).toEqual(run(usual).finished?.greatest);
    expect(shopAlone(own.shop)).toEqual(usual.shop);
  });

  it('stay where the shop’s present kit is taken, and follow it where the job has none', () => {
    const own = mustFit({ ...brief, allowances: { trimEnd: { mm: 33 } } }, shop, about);
    const other = { ...shop, allowances: { ...shop.allowances, trimEnd: { mm: 9 }, jointEdge: { mm: 2 } } };
    const moved = edited(own, { do: 'useShop', shop: other });
    expect(moved.shop.allowances).toMatchObject({ trimEnd: { mm: 33 }, jointEdge: { mm: 2 } });
    expect(shopAlone(moved.shop)).toEqual(other);
  });

  it('given up again, the job is planned as the shop does, and both are said', () => {
    const usual = mustFit(brief, shop, about);
    const own = edited(usual, { do: 'replan', change: { allowances: { trimEnd: { mm: 33 } } } });
    expect(own.shop.allowances.trimEnd.mm).toBe(33);
    const back = edited(own, { do: 'replan', change: { allowances: undefined } });
    expect(back.shop).toEqual(usual.shop);
    expect(stripLengths(back)).toEqual(stripLengths(usual));
    const said = (a: BuildDocument, b: BuildDocument) =>
      changesBetween(a, b).map((line) => phraseText(line, { ...shop.display, system: 'mm' }));
    expect(said(usual, own)).toContainEqual(
      expect.stringMatching(/^Trimming, each end: 33 mm, was .* \(the shop’s\)$/),
    );
    expect(said(own, back)).toContainEqual(
      expect.stringMatching(/^Trimming, each end: .* \(the shop’s\), was 33 mm$/),
    );
    expect(said(usual, own).some((line) => line.startsWith('planned with another kit'))).toBe(false);
  });

  it('of every name go into the job’s shop and out again', () => {
    for (const name of ALLOWANCE_NAMES) {
      const planned = shopForJob(shop, { [name]: { mm: 7.25 } });
      expect(planned.allowances[name]).toEqual({ mm: 7.25 });
      expect(shopAlone(planned)).toEqual(shop);
      expect(shopForJob(planned, {})).toEqual(shop);
    }
  });
});
