import type { Display, Length } from '../../units';
import type { Spread } from '../spread';
import type { MachineKind } from './kinds';
import type { LimitName } from './limits';
import type { SawKind } from './saws';

/** A saw with the width its blade takes. */
export interface Saw {
  id: string;
  name: string;
  /** What it does goes by its kind; not said if missing, then by its sizes alone. */
  kind?: SawKind;
  kerf: Length;
  /** Deepest cut in one pass. */
  depth: Length;
  /** Widest piece that can be crosscut on it, and widest that passes between blade and fence; no limit at zero or if missing. */
  crosscut?: Length;
  rip?: Length;
  /** How far a fence or stop set on it may be off. */
  setting: Spread;
  /** How surely the kerf is known; as common practice has it, if missing. */
  kerfOff?: Spread;
  /** How far its cut may be off a right angle, degrees; nobody said if missing. */
  offSquare?: number;
  /** How deep it still cuts where nothing guides it, as with its rail taken away; as guided if missing. */
  freeDepth?: Length;
}

/** Limits that every machine has, if only as zero; the others go with its kind. */
type EveryLimit = 'maxWidth' | 'maxThickness' | 'minLength' | 'minThickness' | 'bite';

/** How the scale of a machine reads: fractions or decimals of an inch, or millimetres. */
export type DialReads = 'fractions' | 'inches' | 'mm';
export const DIAL_READS: readonly { id: DialReads; name: string; display: Display }[] = [
  { id: 'fractions', name: 'Fractions of an inch', display: { system: 'inch', fraction: 64 } },
  { id: 'inches', name: 'Decimals of an inch', display: { system: 'inch', fraction: 0 } },
  { id: 'mm', name: 'Millimetres', display: { system: 'mm', fraction: 0, digits: 2 } },
];

/** A machine and what it can take. A limit of zero means none. */
export interface Machine
  extends Record<EveryLimit, Length>,
    Partial<Record<Exclude<LimitName, EveryLimit>, Length>> {
  id: string;
  name: string;
  kind: MachineKind;
  setting: Spread;
  /** How its scale reads; as the shop does if missing. */
  reads?: DialReads;
  /** How much wood its knives have met since they were fresh, and how much a set meets before it is worn, m; nobody said if missing. */
  knivesRanM?: number;
  knivesLastM?: number;
  /** Of a machine of another shop: days there and back, its price, and what the way costs, in the shop's currency. */
  days?: number;
  priceMinor?: number;
  transportMinor?: number;
  /** How far its fence may be off a right angle, degrees; nobody said if missing. */
  offSquare?: number;
}

/** A limit of a machine in mm; 0 where there is none. */
export const limitOf = (machine: Machine, name: LimitName): number => machine[name]?.mm ?? 0;
