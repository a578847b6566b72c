import { clamped, type Length } from '../units';
import data from './adhesives.data.json';
import { vapourDeficitKPa, type Climate } from './climate';

/** Least and most. */
export type Range = [number, number];

/** How a glue sets: what slows or hurries it. */
export type Curing = 'drying' | 'gelling' | 'moisture' | 'reaction';

/** Resistance to water: none, EN 204's classes, or fully outdoors. */
export type WaterClass = 'none' | 'D1' | 'D2' | 'D3' | 'D4' | 'full';
export const WATER_CLASSES: readonly WaterClass[] = ['none', 'D1', 'D2', 'D3', 'D4', 'full'];

/** What is known of a class of adhesives, at about 21 C and 50 % humidity; from memory. */
export interface AdhesiveClass {
  id: string;
  name: string;
  chemistry: string;
  /** From spreading to bringing the faces together; and to the last clamp. Minutes. */
  openMin: Range;
  closedMin: Range;
  /** In clamps: an unstressed joint; and before it may be stressed. Minutes. */
  clampMin: Range;
  stressedMin: number;
  /** Do not use below; the products of the class differ. */
  leastC: Range;
  gPerM2: Range;
  typicalGPerM2: number;
  kgPerL: number;
  cures: Curing;
  water: WaterClass;
  waterWords: string;
  /** Whether some of its products are sold for contact with food. */
  food: 'label' | 'no';
  colour: string;
  gapMm: number;
  /** Only held together: squeezing starves the joint. */
  contactOnly?: boolean;
  /** Holds on roughened, degreased metal (common practice). */
  holdsMetal?: boolean;
  leastMoisturePct?: number;
  cleaning: string;
  hazard?: string;
  note?: string;
  certainty: Record<string, string>;
}

/** All classes Junta knows, and where they come from. */
export const ADHESIVE_CLASSES = data.classes as unknown as readonly AdhesiveClass[];
export const ADHESIVE_SOURCE = data.source;
export const ADHESIVE_CONDITIONS = data.conditions;

const byId = new Map(ADHESIVE_CLASSES.map((entry) => [entry.id, entry]));
/** A bottle on the shop's shelf. What its label says goes before what is known of the class. */
export interface Adhesive {
  id: string;
  name: string;
  class: string;
  /** What is left, grams; unknown if missing. */
  leftG?: number;
  /** Last good day, as YYYY-MM-DD. */
  expires?: string;
  /** What stands on the bottle of the batch it was made in. */
  batch?: string;
  /** The label says that it may be used where food is cut. */
  foodOk?: boolean;
  /** From its label, where that is narrower than the class. */
  openMin?: number;
  closedMin?: number;
  clampMin?: number;
  leastC?: number;
  gPerM2?: number;
}

/** What holds for one bottle: its label where it says something, else the class. */
export interface AdhesiveFacts extends Omit<AdhesiveClass, 'id' | 'name' | 'leastC'> {
  name: string;
  className: string;
  leastC: number;
  /** Which of these are from its label. */
  fromLabel: string[];
}

/** Facts of a bottle. A class Junta does not know counts as yellow PVA, the least that can be said. */
export function adhesiveFacts(bottle: Adhesive): AdhesiveFacts {
  const known = byId.get(bottle.class) ?? (byId.get('pva_yellow') as AdhesiveClass);
  const { openMin, closedMin, clampMin, leastC, gPerM2 } = bottle;
  const label = { openMin, closedMin, clampMin, leastC, gPerM2 };
  const one = (value: number | undefined, range: Range): Range =>
    value === undefined ? range : [value, value];
  return {
    ...known,
    name: bottle.name,
    className: known.name,
    openMin: one(openMin, known.openMin),
    closedMin: one(closedMin, known.closedMin),
    clampMin: one(clampMin, known.clampMin),
    leastC: leastC ?? known.leastC[1],
    gPerM2: one(gPerM2, known.gPerM2),
    typicalGPerM2: gPerM2 ?? known.typicalGPerM2,
    fromLabel: Object.entries(label).flatMap(([name, value]) => (value === undefined ? [] : [name])),
  };
}

const REFERENCE: Climate = { temperatureC: 21, humidityPct: 50 };

/**
 * How much longer or shorter a glue stays open in an air than at 21 C and 50 %, 0.4 to 2.5 times. What dries follows
 * the air's vapour deficit (Dalton's law); what reacts halves for every 10 C more (common practice); what draws
 * moisture does so faster in damp air. Junta's estimate: no label gives it.
 */
export function openFactor(cures: Curing, climate: Climate): number {
  const warm = 2 ** ((REFERENCE.temperatureC - climate.temperatureC) / 10);
  if (cures === 'drying')
    return clamped(vapourDeficitKPa(REFERENCE) / Math.max(1e-3, vapourDeficitKPa(climate)), 0.4, 2.5);
  if (cures === 'moisture')
    return clamped(warm * (REFERENCE.humidityPct / Math.max(5, climate.humidityPct)), 0.4, 2.5);
  // A gelling glue sets the faster the colder the wood is.
  return clamped(cures === 'gelling' ? 1 / warm : warm, 0.4, 2.5);
}

/** How much longer it stays in clamps than at 21 C: doubled for every 10 C less, never less than at 21 C (common practice). */
export const clampFactor = ({ temperatureC }: Climate): number =>
  clamped(2 ** ((REFERENCE.temperatureC - temperatureC) / 10), 1, 4);

/** Times of a bottle in the shop's air, minutes: the cautious end of each range. */
export interface GlueTimes {
  openMin: number;
  closedMin: number;
  clampMin: number;
  stressedMin: number;
  /** By how much the air stretches or shortens the open time. */
  factor: number;
}

/** Open and closed time and time in clamps at the shop's air, minutes. */
export function glueTimes(facts: AdhesiveFacts, climate: Climate): GlueTimes {
  const factor = openFactor(facts.cures, climate);
  return {
    openMin: facts.openMin[0] * factor,
    closedMin: facts.closedMin[0] * factor,
    clampMin: facts.clampMin[1] * clampFactor(climate),
    stressedMin: facts.stressedMin * clampFactor(climate),
    factor,
  };
}

/** How glue is put on. Minutes are for a metre of joint 20 mm high on one face; shares are what stays in the tool. */
export type Applicator = 'bottle' | 'brush' | 'roller' | 'notched';
export const APPLICATORS: readonly {
  id: Applicator;
  name: string;
  minPerM: number;
  waste: number;
  why: string;
}[] = [
  {
    id: 'bottle',
    name: 'Nozzle and finger',
    minPerM: 0.5,
    waste: 0.05,
    why: 'fast on one edge; the film is uneven',
  },
  { id: 'brush', name: 'Brush', minPerM: 0.7, waste: 0.1, why: 'slow and sure; wets both faces' },
  { id: 'roller', name: 'Roller', minPerM: 0.3, waste: 0.15, why: 'fastest; rubber soaks up less than foam' },
  { id: 'notched', name: 'Notched spreader', minPerM: 0.4, waste: 0.08, why: 'an even film on wide faces' },
];

/** Glue for an area, grams: spread rate times area; a second face takes two fifths more (a third to a half, common practice). */
export interface GlueAmount {
  leastG: number;
  mostG: number;
  typicalG: number;
  /** With what stays in the tool. */
  toTakeG: number;
  toTakeMl: number;
}
const SECOND_FACE = 0.4;

/** How much glue an area takes; mm2 of joint, counted once. */
export function glueAmount(
  facts: AdhesiveFacts,
  areaMm2: number,
  { faces, applicator }: { faces: 1 | 2; applicator: Applicator },
): GlueAmount {
  const m2 = areaMm2 / 1e6;
  const share = faces === 2 ? 1 + SECOND_FACE : 1;
  const waste = APPLICATORS.find(({ id }) => id === applicator)?.waste ?? 0.1;
  const typicalG = m2 * share * facts.typicalGPerM2;
  return {
    leastG: m2 * share * facts.gPerM2[0],
    mostG: m2 * share * facts.gPerM2[1],
    typicalG,
    toTakeG: typicalG * (1 + waste),
    toTakeMl: (typicalG * (1 + waste)) / facts.kgPerL,
  };
}

/** Cauls the shop has, along the pressed edges and across the faces. */
export interface CaulStock {
  /** Height in the direction of the clamps, and the number at hand; zero height for none. */
  height: Length;
  width: Length;
  count: number;
  species: string;
  protection: 'tape' | 'wax' | 'paper';
}
