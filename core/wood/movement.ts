import { findSpecies } from './species';

/** By what the change of size is told: the coefficients between 6 and 14 %, or the total shrinkage of the wood. */
export type MovementRelation = 'coefficient' | 'shrinkage';

/** The relations as they are chosen, and what each rests on. */
export const MOVEMENT_RELATIONS: readonly { value: MovementRelation; label: string }[] = [
  { value: 'coefficient', label: 'Coefficients of change, 6 to 14 %' },
  { value: 'shrinkage', label: 'Total shrinkage, from green to dry' },
];

/** How much a wood grows, as a share of its size: across the rings, along them, and along the grain. */
export interface Strains {
  radial: number;
  tangential: number;
  along: number;
}

/** Fibres are full at this moisture, %: above it wood changes no more (Wood Handbook, chapter 4). */
export const FIBRE_SATURATION_PCT = 30;

/** What of a wood decides how it moves. */
export interface Moving {
  coefficientRadial: number;
  coefficientTangential: number;
  coefficientAlong?: number;
  shrinkageRadialPct?: number;
  shrinkageTangentialPct?: number;
}

/** Coefficients of a wood that Junta does not know: a middling hardwood, per 1 % (common practice). */
const UNKNOWN: Moving = { coefficientRadial: 0.0015, coefficientTangential: 0.003 };

/** Share of size by total shrinkage S, %, from one moisture to another: Wood Handbook equation 13-3. */
const byShrinkage = (shrinkagePct: number, fromPct: number, toPct: number): number =>
  (toPct - fromPct) / ((FIBRE_SATURATION_PCT * 100) / shrinkagePct - FIBRE_SATURATION_PCT + fromPct);

/**
 * How much a wood grows from one moisture to another, %; less than nothing where it dries. Between the two relations of the
 * handbook lie some 5 %: coefficients (equation 13-2, Table 13-5) hold from 6 to 14 %; the relation by total shrinkage (13-3)
 * from dry to 30 %, above which wood changes no more. A wood whose shrinkage nobody knows goes by its coefficients.
 */
export function strainsBetween(
  wood: Moving,
  fromPct: number,
  toPct: number,
  relation: MovementRelation = 'coefficient',
): Strains {
  const from = Math.min(fromPct, FIBRE_SATURATION_PCT);
  const to = Math.min(toPct, FIBRE_SATURATION_PCT);
  const { shrinkageRadialPct, shrinkageTangentialPct } = wood;
  const along = (wood.coefficientAlong ?? 0) * (to - from);
  if (relation === 'shrinkage' && shrinkageRadialPct && shrinkageTangentialPct)
    return {
      radial: byShrinkage(shrinkageRadialPct, from, to),
      tangential: byShrinkage(shrinkageTangentialPct, from, to),
      along,
    };
  return {
    radial: wood.coefficientRadial * (to - from),
    tangential: wood.coefficientTangential * (to - from),
    along,
  };
}

/** The same of a wood by its id; one that Junta does not know moves like a middling hardwood. */
export const strainsOf = (
  species: string,
  fromPct: number,
  toPct: number,
  relation?: MovementRelation,
): Strains => strainsBetween(findSpecies(species) ?? UNKNOWN, fromPct, toPct, relation);
