import { COMMON_NAMES } from './common';
import { LOOKS, type Look, type LookName } from './looks';
import { MATERIAL_KINDS, type MaterialFacts } from './materials';
import type { Species } from './properties';
import { MADE_MATERIALS } from './sheets';
import data from './species.data.json';

/** Where the values come from, by the handbook's table. */
export const speciesSources: Record<string, string> = data.sources;

/** All woods Junta knows, in alphabetical order of their common names; sheets and metals after them. */
export const SPECIES: readonly Species[] = [
  ...(data.species as (Omit<Species, 'common'> & { id: keyof typeof COMMON_NAMES })[])
    .map((facts): Species => ({ ...facts, common: COMMON_NAMES[facts.id] }))
    .toSorted((a, b) => a.common.localeCompare(b.common)),
  ...MADE_MATERIALS,
];

const byId = new Map(SPECIES.map((species) => [species.id, species]));

/** A wood by its id, or undefined. */
export const findSpecies = (id: string): Species | undefined => byId.get(id);

/** What a wood is made as; a wood Junta does not know counts as solid. */
export const materialOf = (id: string): MaterialFacts => MATERIAL_KINDS[byId.get(id)?.material ?? 'solid'];

/** Whether a wood grew: not a sheet, nor a metal. */
export const isSolid = (id: string): boolean => (byId.get(id)?.material ?? 'solid') === 'solid';

const LOOK_OF: Record<string, LookName> = {
  alder_red: 'cherry',
  ash_white: 'ash',
  ash_black: 'ash',
  aspen_quaking: 'pale',
  basswood: 'pale',
  beech_american: 'beech',
  beech_european: 'beech',
  birch_yellow: 'birch',
  birch_paper: 'birch',
  butternut: 'butternut',
  cherry_black: 'cherry',
  chestnut_american: 'hickory',
  elm_american: 'elm',
  hackberry: 'hickory',
  hickory_shagbark: 'hickory',
  hickory_pecan: 'hickory',
  holly_american: 'pale',
  locust_black: 'locust',
  maple_sugar: 'maple',
  maple_red: 'softMaple',
  maple_silver: 'softMaple',
  oak_northern_red: 'redOak',
  oak_white: 'whiteOak',
  oak_european: 'whiteOak',
  sycamore_american: 'sycamore',
  sweetgum: 'softMaple',
  walnut_black: 'walnut',
  yellow_poplar: 'poplar',
  cedar_eastern_red: 'redwood',
  cedar_western_red: 'cedar',
  baldcypress: 'fir',
  douglas_fir_coast: 'fir',
  hemlock_western: 'spruce',
  larch_western: 'fir',
  pine_eastern_white: 'pine',
  pine_ponderosa: 'pine',
  pine_longleaf: 'fir',
  redwood_old: 'redwood',
  spruce_sitka: 'spruce',
  mahogany_swietenia: 'mahogany',
  mahogany_african: 'mahogany',
  sapele: 'mahogany',
  teak: 'teak',
  purpleheart: 'purpleheart',
  padauk_african: 'padauk',
  wenge: 'wenge',
  bubinga: 'bubinga',
  jatoba: 'jatoba',
  ipe: 'ipe',
  zebrawood: 'zebra',
  olive: 'olive',
  plywood_birch: 'birchPlywood',
  plywood_softwood: 'softPlywood',
  veneer_lumber: 'veneerLumber',
  fibreboard: 'fibreboard',
  brass: 'brass',
  aluminium: 'aluminium',
  steel: 'steel',
};

/** What a wood is drawn like; an unknown wood is drawn as plain maple. */
export const lookOf = (id: string): Look => LOOKS[Object.hasOwn(LOOK_OF, id) ? LOOK_OF[id] : 'maple'];

/** Density in kg/m3 at a moisture in %: 1000 G (1 + M/100), Wood Handbook chapter 4, from memory; of sheets and metals as sold. */
export const density = (species: Species, moisturePct = 8): number =>
  species.densityKgM3 ?? 1000 * species.specificGravity12 * (1 + moisturePct / 100);

/** Change of a size across the grain: size x coefficient x change in moisture %. Any unit of length. */
export const seasonalChange = (size: number, coefficient: number, moistureChangePct: number): number =>
  size * coefficient * moistureChangePct;

/** Whether a wood counts as soft where a rule asks: conifers, by the handbook's groups. */
export const isSoftwood = (species: string): boolean => findSpecies(species)?.group === 'softwood';
