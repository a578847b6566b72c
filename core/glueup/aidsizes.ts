import { sumOf } from '../units';
import type { AidKind, BitKind, Need, SupplyKind, Work } from '../kit';

/** The hole an aid needs, mm: along the joint, into each strip, and through the thickness. Usual sizes (common practice). */
export interface AidSize {
  name: string;
  /** As it is sold. */
  trade: string;
  along: number;
  into: number;
  thick: number;
  /** From one to the next along a joint. */
  pitch: number;
}

/** Sizes by kind; a smaller one is taken where the joint is thin. */
export const SIZES: Record<Exclude<AidKind, 'none' | 'cauls'>, readonly AidSize[]> = {
  biscuits: [
    { name: 'biscuit 56 x 23', trade: '56 x 23', along: 62, into: 12, thick: 4, pitch: 200 },
    { name: 'biscuit 47 x 15', trade: '47 x 15', along: 53, into: 8.5, thick: 4, pitch: 180 },
  ],
  dowels: [
    { name: 'dowel 10 x 40', trade: '10 x 40', along: 10, into: 21, thick: 10, pitch: 150 },
    { name: 'dowel 8 x 30', trade: '8 x 30', along: 8, into: 16, thick: 8, pitch: 130 },
    { name: 'dowel 6 x 30', trade: '6 x 30', along: 6, into: 16, thick: 6, pitch: 110 },
  ],
  looseTenons: [
    { name: 'loose tenon 8 x 40', trade: '8 x 40', along: 24, into: 21, thick: 8, pitch: 220 },
    { name: 'loose tenon 5 x 30', trade: '5 x 30', along: 20, into: 16, thick: 5, pitch: 180 },
  ],
  splines: [{ name: 'spline 6 x 16', trade: '6 x 16', along: 0, into: 8.5, thick: 6, pitch: 0 }],
};

/** What an aid is sold as, and the work that makes room for it; dowels are drilled with any drill that runs true. */
const AID_SUPPLY: Record<keyof typeof SIZES, { kind: SupplyKind; work?: Work; drill?: BitKind }> = {
  biscuits: { kind: 'biscuit', work: 'slot' },
  dowels: { kind: 'dowel', drill: 'bradPoint' },
  looseTenons: { kind: 'looseTenon', work: 'mortise' },
  splines: { kind: 'spline', work: 'rout' },
};

/** What the aids of a glue-up want at hand: themselves, and what cuts their holes. Splines are counted in metres. */
export function aidNeeds({
  kind,
  aids,
  size,
}: {
  kind: AidKind;
  aids: readonly { along: number }[];
  size?: AidSize;
}): Need[] {
  if (kind === 'none' || kind === 'cauls' || !size || aids.length === 0) return [];
  const { kind: supply, work, drill } = AID_SUPPLY[kind];
  const amount = kind === 'splines' ? sumOf(aids, ({ along }) => along) / 1000 : aids.length;
  return [
    { what: 'supply', kind: supply, size: size.trade, amount },
    ...(work ? [{ what: 'machine' as const, work }] : []),
    ...(drill ? [{ what: 'bit' as const, kind: drill, diameterMm: size.thick }] : []),
  ];
}
