import type { FittingKind } from './kind';
import { against } from './kinds/against';
import { breadboard } from './kinds/breadboard';
import { fixing } from './kinds/fixing';
import { frame } from './kinds/frame';
import { gap } from './kinds/gap';
import { mitre } from './kinds/mitre';
import { rigid } from './kinds/rigid';
import { shoulders } from './kinds/shoulders';
import { waited } from './kinds/waited';
import type { Fitting, FittingKindName, FittingKinds } from './model';

/** Every kind of fitting, one line each, in the order they are offered. A kind without an entry does not compile. */
export const FITTING_KINDS: { [K in FittingKindName]: FittingKind<FittingKinds[K]> } = {
  breadboard,
  frame,
  fixing,
  gap,
  against,
  mitre,
  rigid,
  shoulders,
  waited,
};

/** A kind as those see it who walk over all of them. */
export type AnyFittingKind = FittingKind<Fitting>;

/** All kinds, in the order they are offered. */
export const FITTING_LIST = Object.values(FITTING_KINDS) as unknown as readonly AnyFittingKind[];

/** What is known of a fitting’s kind. */
export const fittingKindOf = ({ kind }: Pick<Fitting, 'kind'>): AnyFittingKind =>
  FITTING_KINDS[kind] as unknown as AnyFittingKind;

/** What a fitting is called: its own name, or its kind’s. */
export const fittingName = (fitting: Fitting): string => fitting.name ?? fittingKindOf(fitting).name;
