import type { AllowanceName, Allowances, ShopSnapshot } from './kit';

/** What each allowance is for, in the order in which a piece meets them. */
export const ALLOWANCES: Record<
  AllowanceName,
  {
    title: string;
    about: string;
    /** It is what both sides give together; of each side, if missing. */
    together?: true;
  }
> = {
  millFace: { title: 'Milling, each face', about: 'rough strip to clean strip' },
  millEdge: { title: 'Milling, each edge', about: 'saw marks off before gluing' },
  flattenPanel: { title: 'Flattening a panel', about: 'both faces together', together: true },
  flattenBlock: { title: 'Flattening a block', about: 'both faces together, end grain', together: true },
  trimEnd: { title: 'Trimming, each end', about: 'kerf included' },
  trimEdge: { title: 'Trimming, each edge', about: 'kerf included' },
  jointEdge: { title: 'Jointing, each edge', about: 'before sections are joined' },
  sliceHead: { title: 'Cut off before the first slice', about: 'squares the end' },
  sliceTail: { title: 'Left in hand after the last slice', about: 'never slice to the end' },
};
export const ALLOWANCE_NAMES = Object.keys(ALLOWANCES) as AllowanceName[];

/** The shop by itself, as jobs take it along: what one job allows for is forgotten, and who works in the shop, what things cost it and what its log taught it stay there. */
export function shopAlone({
  shopAllowances,
  people: _people,
  learned: _learned,
  renewed: _renewed,
  rates: _rates,
  bandHeld: _held,
  ...shop
}: ShopSnapshot): ShopSnapshot {
  return shopAllowances ? { ...shop, allowances: { ...shop.allowances, ...shopAllowances } } : shop;
}

/**
 * The shop as one job plans with it: the job's own allowances in the place of the shop's, which are kept beside them to go back to.
 * Without allowances of its own, the shop by itself.
 */
export function shopForJob(shop: ShopSnapshot, own: Partial<Allowances> = {}): ShopSnapshot {
  const alone = shopAlone(shop);
  const names = ALLOWANCE_NAMES.filter((name) => own[name] !== undefined);
  if (names.length === 0) return alone;
  return {
    ...alone,
    allowances: { ...alone.allowances, ...Object.fromEntries(names.map((name) => [name, own[name]])) },
    shopAllowances: Object.fromEntries(names.map((name) => [name, alone.allowances[name]])),
  };
}
