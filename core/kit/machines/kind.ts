import type { BitKind } from '../bits';
import type { LimitName } from './limits';
import type { Work } from './works';

/** All that Junta knows of one kind of machine. Limits and settings are only what a new one begins with; each shop enters its own. */
export interface MachineKindFacts {
  name: string;
  /** What it is, in one sentence. */
  says: string;
  does: readonly Work[];
  /** What meets the wood. Knives never meet end grain; abrasive leaves dust, all else shavings. */
  cuts: 'knives' | 'plane' | 'abrasive' | 'bit';
  /** Rollers or a belt draw the whole width through. */
  feeds?: true;
  /** Each pass is led by hand: over whole faces, or only where something stands over. */
  byHand?: 'faces' | 'places';
  /** Thin pieces may ride through on a carrier board. */
  carrier?: true;
  /** The bit that must be in its collet for a work. */
  bits?: Partial<Record<Work, BitKind>>;
  /** How it goes over a face: how wide each track is (`bit`: as its bit, less what overlaps), and mm a minute; a guess until it is timed. */
  travel?: { wideMm: number | 'bit' | 'all'; mmPerMin: number };
  /** What goes wrong with it most, for who compares. */
  risk?: string;
  /** It stands in another shop: pieces go there and come back, and that has a price. */
  away?: true;
  /** Limits that such a machine has, as a new one of a small shop begins, typed. */
  limits: Partial<Record<LimitName, string>>;
  /** How far its setting may be off, likely and at worst, typed; common practice. */
  setting: readonly [likely: string, worst: string];
  /** The usual caution. */
  caution: string;
}
