import { COMMON_NAMES } from './common';
import type { Species } from './properties';

/** Where the values of sheets and metals come from. */
export const MATERIAL_SOURCE =
  'Wood Handbook (FPL-GTR-282), chapter 12, for plywood, laminated veneer lumber and fibreboard; densities and stiffness of birch plywood and fibreboard: means that makers publish by EN 323 and EN 310; metals: room-temperature handbook values; all unverified';

/** Stiffness of metal: the same every way; shear by E / 2 (1 + nu) at nu = 0.33. */
const METAL_RATIOS = { ET: 1, ER: 1, GLR: 0.376, GLT: 0.376, GRT: 0.376, nuLR: 0.33, nuLT: 0.33 };
/** Stiffness of crosswise veneers: in the sheet nearly alike both ways, through it soft (rolling shear); unsure. */
const CROSSWISE = { ET: 0.75, ER: 0.06, GLR: 0.02, GLT: 0.065, GRT: 0.02, nuLR: 0.4, nuLT: 0.1 };

/**
 * Sheets and metals, as woods of their own: `radial` is through the sheet, `tangential` across it and `along` along its
 * face grain. Change per 1 % of its own moisture.
 */
export const MADE_MATERIALS: readonly Species[] = [
  {
    id: 'plywood_birch',
    common: COMMON_NAMES.plywood_birch,
    latin: '',
    group: 'hardwood',
    material: 'plywood',
    specificGravity12: 0.61,
    densityKgM3: 680,
    coefficientRadial: 0.003,
    coefficientTangential: 0.00015,
    coefficientAlong: 0.00015,
    moeGPa: 10,
    ratios: CROSSWISE,
    compressionMPa: 8,
    layerMm: 1.4,
    faceMm: 1.2,
    certainty: {
      specificGravity12: 'sure',
      coefficientRadial: 'likely',
      coefficientTangential: 'likely',
      coefficientAlong: 'likely',
      moeGPa: 'likely',
    },
  },
  {
    id: 'plywood_softwood',
    common: COMMON_NAMES.plywood_softwood,
    latin: '',
    group: 'softwood',
    material: 'plywood',
    specificGravity12: 0.45,
    densityKgM3: 500,
    coefficientRadial: 0.003,
    coefficientTangential: 0.00015,
    coefficientAlong: 0.00015,
    moeGPa: 8,
    ratios: CROSSWISE,
    compressionMPa: 5,
    layerMm: 2.8,
    faceMm: 2.2,
    certainty: {
      specificGravity12: 'likely',
      coefficientRadial: 'likely',
      coefficientTangential: 'likely',
      coefficientAlong: 'likely',
      moeGPa: 'likely',
    },
  },
  {
    id: 'veneer_lumber',
    common: COMMON_NAMES.veneer_lumber,
    latin: '',
    group: 'softwood',
    material: 'parallelVeneer',
    specificGravity12: 0.5,
    densityKgM3: 550,
    coefficientRadial: 0.0024,
    coefficientTangential: 0.0032,
    coefficientAlong: 0.0001,
    moeGPa: 13.8,
    layerMm: 3.2,
    certainty: {
      specificGravity12: 'likely',
      coefficientRadial: 'likely',
      coefficientTangential: 'likely',
      coefficientAlong: 'likely',
      moeGPa: 'likely',
    },
  },
  {
    id: 'fibreboard',
    common: COMMON_NAMES.fibreboard,
    latin: '',
    group: 'hardwood',
    material: 'fibreboard',
    specificGravity12: 0.68,
    densityKgM3: 750,
    coefficientRadial: 0.004,
    coefficientTangential: 0.00045,
    coefficientAlong: 0.00045,
    moeGPa: 2.8,
    ratios: { ET: 1, ER: 0.3, GLR: 0.1, GLT: 0.4, GRT: 0.1, nuLR: 0.3, nuLT: 0.25 },
    compressionMPa: 8,
    faceMm: 2,
    certainty: {
      specificGravity12: 'sure',
      coefficientRadial: 'unsure',
      coefficientTangential: 'likely',
      coefficientAlong: 'likely',
      moeGPa: 'likely',
    },
  },
  ...(
    [
      ['brass', 8450, 100],
      ['aluminium', 2700, 69],
      ['steel', 7850, 205],
    ] as const
  ).map(
    ([id, densityKgM3, moeGPa]): Species => ({
      id,
      common: COMMON_NAMES[id],
      latin: '',
      group: 'metal',
      material: 'metal',
      specificGravity12: densityKgM3 / 1000,
      densityKgM3,
      coefficientRadial: 0,
      coefficientTangential: 0,
      coefficientAlong: 0,
      moeGPa,
      ratios: METAL_RATIOS,
      compressionMPa: 100,
      certainty: { specificGravity12: 'sure', coefficientAlong: 'sure', moeGPa: 'sure' },
    }),
  ),
];
