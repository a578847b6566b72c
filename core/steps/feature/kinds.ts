import type { FeatureKindName, FeatureKinds, Feature } from './model';
import type { FeatureKind } from './kind';
import { dovetails } from './kinds/dovetails';
import { edge } from './kinds/edge';
import { groove } from './kinds/groove';
import { handHold } from './kinds/handhold';
import { hole } from './kinds/hole';
import { juice } from './kinds/juice';
import { mortise } from './kinds/mortise';
import { opening } from './kinds/opening';
import { pocket } from './kinds/pocket';
import { tenon } from './kinds/tenon';

/** Every kind of feature, one line each, in the order they are offered. A kind without an entry does not compile. */
export const FEATURE_KINDS: { [K in FeatureKindName]: FeatureKind<FeatureKinds[K]> } = {
  hole,
  groove,
  pocket,
  mortise,
  opening,
  juice,
  handHold,
  edge,
  tenon,
  dovetails,
};

/** A kind as those see it who walk over all of them. */
export type AnyFeatureKind = FeatureKind<Feature>;

/** All kinds, in the order they are offered. */
export const FEATURE_LIST = Object.values(FEATURE_KINDS) as unknown as readonly AnyFeatureKind[];

/** What is known of a feature’s kind. */
export const kindOf = ({ kind }: Pick<Feature, 'kind'>): AnyFeatureKind =>
  FEATURE_KINDS[kind] as unknown as AnyFeatureKind;
