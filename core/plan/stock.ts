import { type Brief, type BuildDocument, isRefused } from '../document';
import { FACTORY_CORNER_MM, type NamedStock, namedStock, type ShopSnapshot } from '../kit';
import { roundDownToStep } from '../units';
import { fit } from './fit';
import { patternOf } from './patterns';

/** What strips a stock gives, mm. */
export interface StockGives extends NamedStock {
  /** The widest milled strip that one gives, its rounded corners ripped off; missing where it comes in any width. */
  stripMm?: number;
}

/**
 * What wood sold as `2x8`, `45 x 95` or `8/4` gives in this shop: planed lumber loses its rounded corners and what the
 * shop mills off each edge, down to the shop's step. With `asTheyAre` nothing comes off. Undefined where it cannot be read.
 */
export function stockGives(text: string, shop: ShopSnapshot, asTheyAre = false): StockGives | undefined {
  const stock = namedStock(text);
  if (!stock || stock.widthMm === undefined) return stock;
  const off = asTheyAre ? 0 : 2 * (FACTORY_CORNER_MM + shop.allowances.millEdge.mm);
  return {
    ...stock,
    stripMm: asTheyAre ? stock.widthMm : roundDownToStep(stock.widthMm - off, shop.settingStep.mm),
  };
}

/** The brief with strips exactly as wide as its stock gives; undefined where the pattern cannot hold a width, or the stock has none. */
export const stripsOfStock = (brief: Brief, { stripMm }: StockGives): Partial<Brief> | undefined =>
  stripMm !== undefined && patternOf(brief.pattern).measures.some(({ key }) => key === 'moduleAs')
    ? { module: { mm: stripMm }, measures: { ...brief.measures, moduleAs: 'exactly' } }
    : undefined;

/** The thickest and the widest strip that a plan saws, mm. */
export const largestSawn = ({ assemblies }: BuildDocument): { thicknessMm: number; widthMm: number } => {
  const slots = assemblies.flatMap((assembly) => assembly.slots);
  return {
    thicknessMm: Math.max(0, ...slots.map(({ thickness }) => thickness.mm)),
    widthMm: Math.max(0, ...slots.map(({ width }) => width.mm)),
  };
};

/**
 * The brief with a piece so much thinner that its strips come out of the stock; planned and looked at before it is
 * returned. Undefined where it comes out already, or no thinner piece does.
 */
export function thinnerForStock(
  brief: Brief,
  shop: ShopSnapshot,
  stock: NamedStock,
): Partial<Brief> | undefined {
  const over = (of: Brief): number | undefined => {
    const planned = fit(of, shop, { name: 'plan', use: '' });
    return isRefused(planned) ? undefined : largestSawn(planned).thicknessMm - stock.thicknessMm;
  };
  const now = over(brief);
  const thickness = brief.thickness.value?.mm;
  if (now === undefined || now <= 1e-6 || thickness === undefined) return undefined;
  const value = roundDownToStep(thickness - now, shop.settingStep.mm);
  if (value <= 0) return undefined;
  const change = { thickness: { ...brief.thickness, value: { mm: value } } };
  const then = over({ ...brief, ...change });
  return then !== undefined && then <= 1e-6 ? change : undefined;
}
