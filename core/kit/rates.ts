/** What a saw blade or a set of knives costs, new or sharpened, and how many metres it cuts until then. */
export interface EdgeRate {
  tool: string;
  minor: number;
  metres: number;
}

/** From so many pieces on, so much less for each, %. */
export interface QuantityBreak {
  from: number;
  pct: number;
}

/** What things cost this shop, in minor units of its currency; what is missing is not counted, and said. */
export interface Rates {
  /** An hour of hands, of whoever has no rate of their own; and theirs, by the ids of people. */
  handMinor?: number;
  people?: { person: string; minor: number }[];
  /** An hour of a saw or machine. */
  machines?: { tool: string; minor: number }[];
  edges?: EdgeRate[];
  /** A kilogram of glue, by its bottle. */
  glue?: { adhesive: string; minor: number }[];
  /** A cubic metre of a wood that comes from no priced board. */
  wood?: { species: string; minor: number }[];
  /** On top of what it costs, %; and tax on top of that. Which tax, and whether any, is the shop's to know. */
  markupPct?: number;
  taxPct?: number;
  breaks?: QuantityBreak[];
}

/** What an hour of somebody costs; undefined where nobody said. */
export const hourOf = ({ handMinor, people = [] }: Rates, person?: string): number | undefined =>
  people.find((each) => each.person === person)?.minor ?? handMinor;

/** The most of each, and the largest price. */
export const MOST_RATES = 300;
export const MOST_MINOR = 1_000_000_000;
