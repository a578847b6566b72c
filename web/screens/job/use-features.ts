import type { BuildDocument } from '../../../core/document';
import type { FeatureSheet } from '../../../core/view';
import { featuresOf } from '../../app/predicting';
import { usePlayed } from './use-played';

/** The features of a step as they lie, or why they cannot be told; the last ones stay while new ones are computed. */
export const useFeatures = (
  build: BuildDocument,
  step: string,
): { sheet?: FeatureSheet; why?: string } | undefined =>
  usePlayed(build, step, featuresOf, 'This step cannot be played yet: mend what comes before it first.');
