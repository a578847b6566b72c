import { sumOf } from '../units';
import { BIT_KINDS, type BitKind } from './bits';
import type { ShopSnapshot } from './kit';
import { machinesThat, type Work, WORKS } from './machines';
import { supplyFacts, type SupplyKind } from './supplies';

/** What a step wants to have at hand besides wood and clamps. */
export type Need =
  | { what: 'machine'; work: Work }
  /** `diameterMm` exactly, if given; a shank that fits `shankMm`, where the collet's size is known. */
  | { what: 'bit'; kind: BitKind; diameterMm?: number; shankMm?: number }
  /** `amount` in the unit of its kind; some, where nobody can say how much. */
  | { what: 'supply'; kind: SupplyKind; size?: string; amount?: number }
  | { what: 'glue'; adhesive: string; grams: number };

/** A need held against a kit: what there is of it, and what is missing. */
export interface Held {
  need: Need;
  /** On hand, in the need's unit; undefined where the kit does not say. */
  have?: number;
  /** Missing, in the need's unit; 0 where there is enough or nobody knows. */
  short: number;
  /** What a missing amount costs, where the kit has a price for it. */
  cost?: { minor: number; currency: string };
}

/** Diameters within this are one, mm. */
const SAME_MM = 0.05;

/** Holds a need against a kit. A list that was never entered is unknown, not empty. */
export function held(need: Need, shop: ShopSnapshot): Held {
  switch (need.what) {
    case 'machine': {
      const have = machinesThat(shop, need.work).length;
      return { need, have, short: have > 0 ? 0 : 1 };
    }
    case 'bit': {
      if (!shop.bits) return { need, short: 0 };
      const have = shop.bits.filter(
        ({ kind, diameter, shank }) =>
          kind === need.kind &&
          (need.diameterMm === undefined || Math.abs(diameter.mm - need.diameterMm) <= SAME_MM) &&
          (!need.shankMm || !shank || shank.mm <= need.shankMm + SAME_MM),
      ).length;
      return { need, have, short: have > 0 ? 0 : 1 };
    }
    case 'supply': {
      if (!shop.supplies) return { need, short: 0 };
      const own = shop.supplies.filter(
        ({ kind, size }) => kind === need.kind && (!need.size || !size || size === need.size),
      );
      const have = sumOf(own, ({ onHand }) => onHand);
      const short = need.amount === undefined ? (have > 0 ? 0 : 1) : Math.max(0, need.amount - have);
      const priced = own.find(({ priceMinor, currency }) => priceMinor !== undefined && currency);
      return {
        need,
        have,
        short,
        ...(short > 0 && need.amount !== undefined && priced?.priceMinor !== undefined && priced.currency
          ? { cost: { minor: Math.ceil(short) * priced.priceMinor, currency: priced.currency } }
          : {}),
      };
    }
    case 'glue': {
      const left = shop.adhesives?.find(({ id }) => id === need.adhesive)?.leftG;
      return left === undefined
        ? { need, short: 0 }
        : { need, have: left, short: Math.max(0, need.grams - left) };
    }
  }
}

/** What a need is called, without its amount: “Dowels 8 x 30”, “Brad-point drill, 8 mm”, as the trade sells them. */
export function needName(need: Need, shop: ShopSnapshot): string {
  switch (need.what) {
    case 'machine':
      return `A machine that ${WORKS[need.work]}`;
    case 'bit':
      return `${BIT_KINDS[need.kind].name}${need.diameterMm === undefined ? '' : `, ${need.diameterMm} mm`}`;
    case 'supply':
      return [supplyFacts(need.kind).name, need.size].filter(Boolean).join(' ');
    case 'glue':
      return shop.adhesives?.find(({ id }) => id === need.adhesive)?.name ?? 'Glue';
  }
}

/** A part of a sentence about a need; masses and volumes are set in the reader's units. */
type Said = string | { grams: number } | { ml: number };
const UNIT_WORDS = { piece: '', sheet: '', ml: '', m: ' m', g: '' } as const;

/** An amount in the need's unit: a count whole, a measure to one place. */
const amountSaid = (need: Need, amount: number): Said =>
  need.what === 'glue'
    ? { grams: amount }
    : needUnit(need) === 'ml'
      ? { ml: amount }
      : `${String(Math.round(amount * 10) / 10)}${UNIT_WORDS[needUnit(need)]}`;

/** A need held against the kit, in words: what is wanted, and what there is. */
export function heldWords(each: Held, shop: ShopSnapshot): Said[] {
  const { need, have, short } = each;
  if (short > 0) return missingWords(each, shop);
  const amount = needAmount(need);
  const counted = need.what === 'glue' || need.what === 'supply';
  return [
    needName(need, shop),
    ...(counted && amount !== undefined ? [': ', amountSaid(need, amount)] : []),
    have === undefined ? ', look whether it is there: the kit does not say' : ', on hand',
  ];
}

/** What is missing of a need, in words: “Dowels 8 x 30: 12 on hand, 28 missing”. */
export function missingWords({ need, have, short }: Held, shop: ShopSnapshot): Said[] {
  const name = needName(need, shop);
  if (need.what === 'machine' || need.what === 'bit') return [`${name}: none in the kit`];
  if (needAmount(need) === undefined) return [`${name}: none on hand`];
  return [`${name}: `, amountSaid(need, have ?? 0), ' on hand, ', amountSaid(need, short), ' missing'];
}

/** What a need is counted in. */
export const needUnit = (need: Need): 'piece' | 'sheet' | 'ml' | 'm' | 'g' =>
  need.what === 'supply' ? supplyFacts(need.kind).unit : need.what === 'glue' ? 'g' : 'piece';

/** How much of it is wanted, in its unit; undefined where nobody can say. */
export const needAmount = (need: Need): number | undefined =>
  need.what === 'glue' ? need.grams : need.what === 'supply' ? need.amount : 1;

/** Needs alike added up, so that a shelf is not counted twice. */
export function summed(needs: readonly Need[]): Need[] {
  const out = new Map<string, Need>();
  for (const need of needs) {
    const { amount: _amount, grams: _grams, ...own } = { amount: 0, grams: 0, ...need };
    const key = JSON.stringify(own);
    const before = out.get(key);
    if (!before) out.set(key, need);
    else if (before.what === 'glue' && need.what === 'glue')
      out.set(key, { ...before, grams: before.grams + need.grams });
    else if (before.what === 'supply' && need.what === 'supply' && need.amount !== undefined)
      out.set(key, { ...before, amount: (before.amount ?? 0) + need.amount });
  }
  return [...out.values()];
}
