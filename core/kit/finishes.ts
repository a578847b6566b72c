/** What a finished piece must stand. */
export type FinishUse = 'cut' | 'served' | 'wet' | 'outdoors' | 'worn' | 'dry';
export const FINISH_USES: readonly { value: FinishUse; label: string; food?: true }[] = [
  { value: 'dry', label: 'Looked at, kept dry' },
  { value: 'worn', label: 'Worn: a table, a tread' },
  { value: 'served', label: 'Food is served on it', food: true },
  { value: 'cut', label: 'Food is cut on it', food: true },
  { value: 'wet', label: 'Gets wet' },
  { value: 'outdoors', label: 'Outdoors' },
];

/** What is known of one kind of finish. */
export interface FinishFacts {
  name: string;
  /** It goes into the wood, stands on it as a thin or a full film, or is poured. */
  goes: 'soaks' | 'thin' | 'film' | 'poured';
  /** Square metres that a litre covers in one coat, least and most. */
  m2PerL: readonly [number, number];
  /** Hours from one coat to the next, and days until it has hardened right through; 0 where it never does. */
  recoatH: readonly [number, number];
  cureDays: readonly [number, number];
  /** Food may touch it as it is, once it has hardened, or not. */
  food: 'yes' | 'cured' | 'no';
  /** Rags soaked with it heat by themselves; its solvent is breathed; it brings water. */
  heats?: true;
  solvent?: true;
  water?: true;
  uses: readonly FinishUse[];
  /** Coats as they are usual. */
  coats: number;
  /** What is lost on rag, brush or gun, %: a guess (common practice). */
  lossPct: number;
  certainty: 'likely' | 'unsure';
}

/*
 * Coverage, waits and food as recalled from memory (docs/sources.md): trade practice, no label of any maker. What the label of the
 * can says comes first. Which finish suits which use, usual coats and losses: common practice.
 */
const KINDS = {
  mineralOil: {
    name: 'Mineral oil, food grade',
    goes: 'soaks',
    m2PerL: [4.9, 9.8],
    recoatH: [1, 24],
    cureDays: [0, 0],
    food: 'yes',
    uses: ['cut', 'served'],
    coats: 4,
    lossPct: 10,
    certainty: 'unsure',
  },
  boardWax: {
    name: 'Oil and wax for boards',
    goes: 'soaks',
    m2PerL: [9.8, 19.6],
    recoatH: [1, 12],
    cureDays: [0, 0],
    food: 'yes',
    uses: ['cut', 'served'],
    coats: 2,
    lossPct: 10,
    certainty: 'unsure',
  },
  linseed: {
    name: 'Linseed oil, boiled',
    goes: 'soaks',
    m2PerL: [9.8, 14.7],
    recoatH: [24, 72],
    cureDays: [14, 28],
    food: 'no',
    heats: true,
    uses: ['dry'],
    coats: 3,
    lossPct: 10,
    certainty: 'likely',
  },
  tung: {
    name: 'Tung oil, pure',
    goes: 'soaks',
    m2PerL: [7.4, 14.7],
    recoatH: [24, 48],
    cureDays: [14, 28],
    food: 'cured',
    heats: true,
    uses: ['served', 'dry', 'wet'],
    coats: 4,
    lossPct: 10,
    certainty: 'likely',
  },
  oilVarnish: {
    name: 'Oil and varnish, wiped',
    goes: 'thin',
    m2PerL: [7.4, 14.7],
    recoatH: [6, 24],
    cureDays: [7, 28],
    food: 'cured',
    heats: true,
    solvent: true,
    uses: ['dry', 'served'],
    coats: 3,
    lossPct: 10,
    certainty: 'likely',
  },
  wipingVarnish: {
    name: 'Varnish, thinned and wiped',
    goes: 'thin',
    m2PerL: [9.8, 14.7],
    recoatH: [4, 24],
    cureDays: [7, 28],
    food: 'cured',
    heats: true,
    solvent: true,
    uses: ['dry', 'served', 'worn', 'wet'],
    coats: 4,
    lossPct: 10,
    certainty: 'likely',
  },
  hardwaxOil: {
    name: 'Hardwax oil',
    goes: 'thin',
    m2PerL: [12.3, 36.8],
    recoatH: [12, 24],
    cureDays: [7, 30],
    food: 'cured',
    heats: true,
    solvent: true,
    uses: ['worn', 'served', 'dry'],
    coats: 2,
    lossPct: 10,
    certainty: 'likely',
  },
  polyOil: {
    name: 'Polyurethane, oil-based',
    goes: 'film',
    m2PerL: [9.8, 14.7],
    recoatH: [4, 24],
    cureDays: [7, 30],
    food: 'cured',
    heats: true,
    solvent: true,
    uses: ['worn', 'wet', 'dry', 'served'],
    coats: 3,
    lossPct: 15,
    certainty: 'likely',
  },
  polyWater: {
    name: 'Polyurethane, water-based',
    goes: 'film',
    m2PerL: [8.6, 14.7],
    recoatH: [2, 4],
    cureDays: [7, 30],
    food: 'cured',
    water: true,
    uses: ['worn', 'dry', 'served'],
    coats: 4,
    lossPct: 15,
    certainty: 'likely',
  },
  bowlVarnish: {
    name: 'Varnish for bowls',
    goes: 'film',
    m2PerL: [7.4, 12.3],
    recoatH: [6, 24],
    cureDays: [3, 30],
    food: 'cured',
    heats: true,
    solvent: true,
    uses: ['served', 'dry'],
    coats: 3,
    lossPct: 15,
    certainty: 'likely',
  },
  outdoorVarnish: {
    name: 'Varnish for outdoors',
    goes: 'film',
    m2PerL: [9.8, 14.7],
    recoatH: [12, 24],
    cureDays: [7, 30],
    food: 'no',
    heats: true,
    solvent: true,
    uses: ['outdoors', 'wet', 'dry'],
    coats: 5,
    lossPct: 15,
    certainty: 'unsure',
  },
  shellac: {
    name: 'Shellac',
    goes: 'film',
    m2PerL: [7.4, 12.3],
    recoatH: [0.5, 2],
    cureDays: [1, 7],
    food: 'cured',
    solvent: true,
    uses: ['dry'],
    coats: 4,
    lossPct: 15,
    certainty: 'likely',
  },
  lacquer: {
    name: 'Lacquer, sprayed',
    goes: 'film',
    m2PerL: [3.7, 8.6],
    recoatH: [0.5, 1],
    cureDays: [7, 30],
    food: 'no',
    solvent: true,
    uses: ['dry'],
    coats: 3,
    lossPct: 40,
    certainty: 'likely',
  },
  epoxy: {
    name: 'Epoxy, poured',
    goes: 'poured',
    m2PerL: [0.31, 0.31],
    recoatH: [4, 12],
    cureDays: [3, 30],
    food: 'cured',
    uses: ['wet', 'served', 'worn', 'dry'],
    coats: 1,
    lossPct: 15,
    certainty: 'likely',
  },
} as const satisfies Record<string, FinishFacts>;

export type FinishKind = keyof typeof KINDS;
/** The kinds of finish, the mildest first. */
export const FINISH_KINDS: Readonly<Record<FinishKind, FinishFacts>> = KINDS;
export const FINISH_LIST = Object.entries(FINISH_KINDS) as [FinishKind, FinishFacts][];

/** The middle of what is usual. */
export const middleOf = ([a, b]: readonly [number, number]): number => (a + b) / 2;

/** End grain drinks this many times as much as a face: of what soaks in; of a film in its first coat (common practice). */
export const END_GRAIN_DRINKS: Record<FinishFacts['goes'], { times: number; every: boolean }> = {
  soaks: { times: 2.5, every: true },
  thin: { times: 2, every: true },
  film: { times: 1.5, every: false },
  poured: { times: 1, every: false },
};
