import { circle, rectangle } from '../../../curve';
import type { Length } from '../../../units';
import type { FeatureBase } from '../model';
import { type Cut, type FeatureKind, lengthField, type Refused } from '../kind';

/** Wood that stays above the tip of a bolt, mm (common practice). */
const OVER_BOLT = 3;

/** A vise on an edge of a bench: the recess of its inner jaw, the holes of its screw and guide rods, its block and bolts. */
export interface ViseFeature extends FeatureBase {
  kind: 'vise';
  jawLength: Length;
  jawHeight: Length;
  /** How deep the inner jaw is let into the edge; not at all if missing. */
  jawDepth?: Length;
  screw: Length;
  rods?: Length;
  /** From one rod to the other, the screw in the middle between them. */
  apart?: Length;
  /** How deep screw and rods reach into the bench, from the edge. */
  bore: Length;
  /** The block under the top that the vise is bolted to. */
  block?: Length;
  /** Length of the bolts, through the block into the top. */
  bolt?: Length;
}

/** How far a bolt goes into the top, mm: what the block leaves of it. */
const intoTop = ({ block, bolt }: ViseFeature): number | undefined => bolt && bolt.mm - (block?.mm ?? 0);

export const vise: FeatureKind<ViseFeature> = {
  kind: 'vise',
  name: 'Vise',
  says: 'A vise on an edge: its jaw let in, holes for screw and rods, block and bolts under the top.',
  sides: ['near', 'far', 'left', 'right'],
  fields: {
    jawLength: lengthField('Jaw, length'),
    jawHeight: lengthField('Jaw, height below the top'),
    jawDepth: { ...lengthField('Jaw, let in by'), optional: true },
    screw: lengthField('Hole for the screw, diameter'),
    rods: { ...lengthField('Holes for the rods, diameter'), optional: true },
    apart: {
      ...lengthField('Rods apart'),
      optional: true,
      when: ({ rods }: ViseFeature) => rods !== undefined,
    },
    bore: lengthField('Holes, depth from the edge'),
    block: { ...lengthField('Block under the top, thickness'), optional: true },
    bolt: { ...lengthField('Bolts through the block, length'), optional: true },
  },
  begin: ({ long, wide, deep }) => ({
    jawLength: { mm: Math.min(180, long / 2) },
    jawHeight: { mm: Math.min(75, wide) },
    jawDepth: { mm: Math.min(15, deep / 4) },
    screw: { mm: Math.min(26, wide / 2) },
    bore: { mm: Math.min(250, deep / 2) },
  }),
  placed: true,
  cuts: ({ jawLength, jawHeight, jawDepth, screw, rods, apart, bore }, { u, v }, { wide, deep, trims }) => {
    const off = trims.n;
    const jaw = jawDepth ? Math.min(jawDepth.mm + off, deep) : off;
    const to = Math.min(bore.mm + off, deep);
    const high = Math.min(jawHeight.mm, wide);
    const holes = [
      circle({ x: u, y: v }, screw.mm / 2),
      ...(rods && apart
        ? [-1, 1].map((way) => circle({ x: u + (way * apart.mm) / 2, y: v }, rods.mm / 2))
        : []),
    ];
    const cuts: Cut[] = [
      ...(jawDepth
        ? [
            {
              region: [rectangle({ x: u - jawLength.mm / 2, y: wide - high }, jawLength.mm, high + 1)],
              from: 0,
              to: jaw,
            },
          ]
        : []),
      { region: holes, from: jawDepth ? jaw : 0, to },
    ];
    return cuts.filter((cut) => cut.to > cut.from);
  },
  refuses: (feature, { wide }): Refused | undefined => {
    const { rods, apart, screw, bolt, block } = feature;
    if (rods && apart && apart.mm / 2 < (rods.mm + screw.mm) / 2)
      return {
        words: ['Rods ', apart, ' apart run into the screw: ', { mm: rods.mm + screw.mm }, ' is the least.'],
        numbers: { apart: apart.mm, least: rods.mm + screw.mm },
      };
    const into = intoTop(feature);
    if (into !== undefined && bolt && into <= 0)
      return {
        words: ['Bolts of ', bolt, ' do not come through a block of ', block ?? { mm: 0 }, '.'],
        numbers: { bolt: bolt.mm, block: block?.mm ?? 0 },
      };
    return into !== undefined && bolt && into > wide - OVER_BOLT
      ? {
          words: [
            'Bolts of ',
            bolt,
            ' go ',
            { mm: into },
            ' into a top of ',
            { mm: wide },
            ': ',
            { mm: OVER_BOLT },
            ' of wood should stay over their tips.',
          ],
          numbers: { into, thickness: wide, least: OVER_BOLT },
        }
      : undefined;
  },
  makes: (feature, { wide }) => {
    const { jawHeight, block } = feature;
    const into = intoTop(feature);
    const below = jawHeight.mm - wide;
    return [
      ...(below > 0 ? ['The jaw hangs ', { mm: below }, ' below the top. '] : []),
      ...(block ? ['Block of ', block, ' under the top. '] : []),
      ...(into === undefined
        ? []
        : ['Bolts go ', { mm: into }, ' into it; ', { mm: wide - into }, ' stays over them.']),
    ];
  },
  narrowest: ({ screw, rods }) => Math.min(screw.mm, rods?.mm ?? Infinity),
  bits: ['forstner', 'bradPoint', 'spiral'],
  by: 'drill',
  order: 25,
  crosses: true,
  runsOut: true,
  caution:
    'A vise is heavy: hold it up with a jack or a helper while it is bolted. Its maker’s manual gives the holes.',
};

declare module '../model' {
  interface FeatureKinds {
    vise: ViseFeature;
  }
}
