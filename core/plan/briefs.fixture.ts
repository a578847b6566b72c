import type { Brief, BuildDocument } from '../document';
import { DEFAULT_GLUE_PRACTICE, defaultShop, type GluePractice, type ShopSnapshot, typed } from '../kit';
import { mustFit } from './fit';

/** A size as it is typed, exactly. */
export const fixed = (text: string) => ({ aim: 'fixed' as const, value: typed(text) });

/** A plain panel of cherry that passes the planer, for tests. */
export const panelBrief = (change: Partial<Brief> = {}): Brief => ({
  pattern: 'panel',
  length: fixed('36'),
  width: fixed('11'),
  thickness: fixed('7/8'),
  woods: ['cherry_black'],
  module: typed('2 1/4'),
  saw: 'table-full',
  flattenWith: 'planer',
  trimWith: { saw: 'table-full' },
  chequer: false,
  extraSlices: 0,
  sections: 0,
  ...change,
});

/** What makes of it an end-grain chequer. */
export const CHEQUER: Partial<Brief> = {
  pattern: 'endGrain',
  chequer: true,
  length: fixed('15'),
  width: fixed('10'),
  thickness: fixed('1 3/4'),
  woods: ['walnut_black', 'maple_sugar'],
  module: typed('1 1/4'),
};

/** A new shop that has said how it glues. */
export const shopWith = (
  more: Partial<ShopSnapshot> = {},
  change: Partial<GluePractice> = {},
): ShopSnapshot => ({
  ...defaultShop('s'),
  gluing: { ...DEFAULT_GLUE_PRACTICE, ...change },
  ...more,
});

/** A build planned from a brief in a shop. */
export const plannedFor = (brief: Brief, shop: ShopSnapshot): BuildDocument =>
  mustFit(brief, shop, { name: 'test', use: '' });
