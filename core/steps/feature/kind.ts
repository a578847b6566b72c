import type { Region } from '../../curve';
import type { Phrase } from '../../document';
import type { BitKind } from '../../kit';
import type { Length } from '../../units';
import type { ChoiceField, Field, LengthField, NumberField } from '../field';
import type { FeatureBase, PieceSide } from './model';

/** A side of a piece as it is cut into: how long, how wide, and how deep the wood behind it is. mm. */
export interface SideSize {
  side: PieceSide;
  long: number;
  wide: number;
  deep: number;
  /** What later trims take off before it is finished: off the low and high ends along it, across, and off itself. */
  trims: { u: readonly [number, number]; v: readonly [number, number]; n: number };
  /** Openings right through that were cut before, in the side’s own coordinates. */
  openings?: Region;
  /** The outline of the piece seen on this side, where one was sawn: in the side’s own coordinates. */
  outline?: Region;
}

/** One cut of a feature at its place: what of the side is open, how deep, and how its section changes with depth. */
export interface Cut {
  /** In coordinates of the side, u along and v across, mm. */
  region: Region;
  /** Below the side where it begins and where it ends, mm. */
  from: number;
  to: number;
  /** The region at a depth, where it is not the same all through. */
  at?: (depth: number) => Region;
  /** What of it comes away in one piece: an offcut and no chips. */
  plug?: Region;
}

/** Why a feature cannot be, with the numbers that say so. */
export interface Refused {
  words: (string | Length)[];
  numbers: Record<string, number>;
}

/** A field of a feature: what a step’s field is, with its words. */
export type FeatureField<T> = Field<T> & {
  label: string;
  optional?: true;
  /** Asked for only where it matters. */
  when?: (feature: never) => boolean;
};
type OwnName<F extends FeatureBase> = Exclude<keyof F, keyof FeatureBase | 'kind'>;
/** One field for each setting of a kind: one that is missing, superfluous or of another type does not compile. */
export type FeatureFields<F extends FeatureBase> = {
  [K in OwnName<F>]-?: FeatureField<NonNullable<F[K]>> &
    (Record<never, never> extends Pick<F, K> ? { optional: true } : { optional?: never });
};

/** All that Junta knows of one kind of feature. */
export interface FeatureKind<F extends FeatureBase & { kind: string }> {
  kind: F['kind'];
  /** The trade’s name for it. */
  name: string;
  /** What it is, in one sentence. */
  says: string;
  /** Where it can be cut; anywhere if missing. */
  sides?: readonly PieceSide[];
  fields: FeatureFields<F>;
  /** Settings it begins with, on a side of this size. */
  begin: (side: SideSize) => Omit<F, keyof FeatureBase | 'kind'>;
  /** Its place is a point that it is set at; one that follows an outline has none of its own. */
  placed: boolean;
  /** What is cut, with its middle at a place. Throws nothing: sizes that cannot be give no cut. */
  cuts: (feature: F, at: { u: number; v: number }, side: SideSize) => Cut[];
  /** Why it cannot be as it stands, whatever lies around it; with the numbers. */
  refuses?: (feature: F, side: SideSize) => Refused | undefined;
  /** What is made besides for it, or set beside it, in words. */
  makes?: (feature: F, side: SideSize, places: number) => Phrase[];
  /** Others may be shaped round its edge: it opens the piece right through. */
  opens?: true;
  /** The least width that a cutter must pass, mm; undefined where none does it. */
  narrowest?: (feature: F) => number | undefined;
  /** Cutters and drills that make it, the usual one first. */
  bits: readonly BitKind[];
  /** The one kind of cutter that makes it as it is set, where its settings decide that. */
  only?: (feature: F) => BitKind;
  /** What the usual one measures, where the feature says so. */
  bitMm?: (feature: F) => number | undefined;
  /** It is bored in one go with a drill, or cut in passes; sawn if neither. */
  by: 'drill' | 'cutter' | 'saw';
  /** Where it stands in the order of work. */
  order: number;
  /** It is meant to cross joints: no finding says so. */
  crosses?: true;
  /** It is meant to run out of the piece. */
  runsOut?: true;
  /** The usual caution. */
  caution: string;
}

/** Fields that many kinds share. */
export const lengthField = (label: string, least = 0.1, most = 5000): LengthField & { label: string } => ({
  is: 'length',
  least,
  most,
  label,
});
/** Why corners of a radius do not fit a rectangle; undefined where they do. */
export const tooRound = ({
  radius,
  length,
  width,
}: Record<'radius' | 'length' | 'width', Length>): Refused | undefined => {
  const narrow = Math.min(length.mm, width.mm);
  return 2 * radius.mm > narrow + 1e-9
    ? {
        words: ['Corners of radius ', radius, ' do not fit a width of ', { mm: narrow }, '.'],
        numbers: { radius: radius.mm, width: narrow },
      }
    : undefined;
};
/** A count. */
export const countField = (label: string, least: number, most: number): NumberField & { label: string } => ({
  is: 'number',
  least,
  most,
  whole: true,
  label,
});
/** Along its side, or across it. */
export type Runs = 'along' | 'across';
export const RUNS: ChoiceField<Runs> & { label: string } = {
  is: 'choice',
  label: 'It runs',
  options: [
    { value: 'along', label: 'Along' },
    { value: 'across', label: 'Across' },
  ],
};
