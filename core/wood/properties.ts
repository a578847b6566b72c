import type { MaterialKind } from './materials';

/** How well a recalled value is known. */
export type Certainty = 'sure' | 'likely' | 'unsure' | 'derived';

/** Reference values of a wood, recalled from memory from the handbooks named in `speciesSources`. */
export interface Species {
  id: string;
  common: string;
  latin: string;
  group: string;
  porosity?: string;
  /** Ovendry mass over volume at 12 % moisture. */
  specificGravity12: number;
  shrinkageRadialPct?: number;
  shrinkageTangentialPct?: number;
  /** Change of size per 1 % of moisture between 6 and 14 %. */
  coefficientRadial: number;
  coefficientTangential: number;
  jankaLbf?: number;
  moeGPa?: number;
  easeOfBonding?: string;
  /** Solid wood if missing. */
  material?: MaterialKind;
  /** Change along the grain per 1 % of moisture; next to nothing in solid wood. */
  coefficientAlong?: number;
  /** As it is sold, where that does not follow from its specific gravity: sheets and metals. */
  densityKgM3?: number;
  /** Stiffness beside that along the grain, where the wood's tables have no row for it. */
  ratios?: { ET: number; ER: number; GLR: number; GLT: number; GRT: number; nuLR: number; nuLT: number };
  compressionMPa?: number;
  /** Thickness of the veneers of a sheet, and of the face that may not be cut through, mm; common practice. */
  layerMm?: number;
  faceMm?: number;
  certainty: Record<string, string>;
}
