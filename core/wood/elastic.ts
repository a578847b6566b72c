import data from './elastic.data.json';
import { findSpecies } from './species';

/** How the rings of a board lie in its width. */
export type Sawn = 'flat' | 'quarter';

/** A wood as the plane a glue line lies in sees it: x along the line, y across the boards. Megapascals. */
export interface PlaneElastic {
  Ex: number;
  Ey: number;
  G: number;
  /** Contraction across y for a pull along x. */
  nu: number;
}

/** What is known of a wood's stiffness. */
export interface Elastic {
  /** Whose row of the table is used; another wood's where this one has none. */
  from: string;
  own: boolean;
  /** Along the grain, MPa: 1.10 times the bending modulus, which holds shear deflection. */
  EL: number;
  ratios: { ET: number; ER: number; GLR: number; GLT: number; GRT: number; nuLR: number; nuLT: number };
  /** Compression strength across the grain, MPa, and whether it is the table's or a regression's. */
  compressionMPa: number;
  compressionFrom: 'table' | 'regression';
}

/** Where the values come from; recalled from memory, and said so wherever they are shown. */
export const ELASTIC_SOURCE = `${data.source}; unverified`;

/** Woods without a row of their own that stand close to one that has: the handbook's own groups, or the same genus. */
const NEAREST: Record<string, string> = {
  oak_northern_red: 'oak_red',
  oak_southern_red: 'oak_red',
  oak_black: 'oak_red',
  oak_bur: 'oak_white',
  oak_live: 'oak_white',
  oak_european: 'oak_white',
  ash_black: 'ash_white',
  ash_green: 'ash_white',
  maple_black: 'maple_sugar',
  maple_silver: 'maple_red',
  maple_bigleaf: 'maple_red',
  birch_sweet: 'birch_yellow',
  birch_paper: 'birch_yellow',
  beech_american: 'maple_sugar',
  beech_european: 'maple_sugar',
  butternut: 'yellow_poplar',
  alder_red: 'yellow_poplar',
  sapele: 'mahogany_african',
  teak: 'mahogany_swietenia',
  spanish_cedar: 'mahogany_swietenia',
  pine_eastern_white: 'pine_western_white',
  pine_shortleaf: 'pine_loblolly',
  pine_virginia: 'pine_loblolly',
  douglas_fir_interior_north: 'douglas_fir_coast',
  douglas_fir_interior_west: 'douglas_fir_coast',
  redwood_young: 'redwood_old',
  veneer_lumber: 'douglas_fir_coast',
};
/** The handbook's mean rows, by group, where nothing nearer is known. */
const GROUP_ROW: Record<string, string> = { hardwood: 'maple_sugar', softwood: 'pine_ponderosa' };

type Row = (typeof data.rows)[number];
const rows = new Map<string, Row>(data.rows.map((row) => [row.id, row]));

/**
 * Compression strength across the grain at 12 % moisture from the specific gravity, MPa: 21.6 G^2.09 in hardwoods and
 * 16.5 G^1.57 in softwoods (Wood Handbook, Table 5-11a, from memory).
 */
export const compressionFromGravity = (gravity: number, group: string): number =>
  group === 'softwood' ? 16.5 * gravity ** 1.57 : 21.6 * gravity ** 2.09;

/** Elastic values of a wood; a wood without a row takes its nearest one, and says whose. */
export function elasticOf(species: string): Elastic {
  const known = findSpecies(species);
  if (known?.ratios)
    return {
      from: species,
      own: true,
      EL: 1000 * (known.moeGPa ?? 11),
      ratios: known.ratios,
      compressionMPa: known.compressionMPa ?? compressionFromGravity(known.specificGravity12, known.group),
      compressionFrom: known.compressionMPa === undefined ? 'regression' : 'table',
    };
  const group = known?.group ?? 'hardwood';
  const own = rows.has(species);
  const from = own
    ? species
    : (Object.hasOwn(NEAREST, species) && NEAREST[species]) || GROUP_ROW[group] || 'maple_sugar';
  const row = rows.get(from) as Row;
  const mean = data.averages[group === 'softwood' ? 'softwood' : 'hardwood'];
  const compression = 'compressionMPa' in row && own ? row.compressionMPa : undefined;
  return {
    from,
    own,
    EL: 1100 * (known?.moeGPa ?? 11),
    ratios: {
      ET: row.ETEL,
      ER: row.EREL,
      GLR: row.GLREL,
      GLT: row.GLTEL ?? mean.GLT_EL,
      GRT: row.GRTEL ?? mean.GRT_EL,
      nuLR: row.nuLR ?? 0.37,
      nuLT: row.nuLT ?? 0.42,
    },
    compressionMPa: compression ?? compressionFromGravity(known?.specificGravity12 ?? 0.6, group),
    compressionFrom: compression === undefined ? 'regression' : 'table',
  };
}

/**
 * The plane a glue line lies in. `along`: the grain runs with the line, and the boards are flat- or quarter-sawn in
 * their width. `upright`: the grain stands, as between slices of an end-grain block. `across`: it runs through the line.
 */
export function planeOf(
  species: string,
  sawn: Sawn = 'flat',
  grain: 'along' | 'upright' | 'across' = 'along',
): PlaneElastic {
  const { EL, ratios } = elasticOf(species);
  // No table gives the ratio in the plane of the rings; a third is the middle of what is measured (unsure).
  if (grain === 'upright') return { Ex: ratios.ET * EL, Ey: ratios.ER * EL, G: ratios.GRT * EL, nu: 0.35 };
  const flat = { Ex: EL, Ey: ratios.ET * EL, G: ratios.GLT * EL, nu: ratios.nuLT };
  const { Ex, Ey, G, nu } =
    sawn === 'flat' ? flat : { Ex: EL, Ey: ratios.ER * EL, G: ratios.GLR * EL, nu: ratios.nuLR };
  return grain === 'along' ? { Ex, Ey, G, nu } : { Ex: Ey, Ey: Ex, G, nu: (nu * Ey) / Ex };
}
