import { useEffect, useState } from 'react';
import type { BuildDocument } from '../../../core/document';
import type { FeatureSheet } from '../../../core/view';
import { featuresOf } from '../../app/predicting';

/** The features of a step as they lie, kept up to date; the last ones stay while new ones are computed. */
export function useFeatures(build: BuildDocument, step: string): FeatureSheet | undefined {
  const [sheet, setSheet] = useState<FeatureSheet>();
  useEffect(() => {
    let here = true;
    featuresOf(build, step).then(
      (next) => here && setSheet(next),
      // What cannot be computed is told by the job's own findings.
      () => here && setSheet(undefined),
    );
    return () => {
      here = false;
    };
  }, [build, step]);
  return sheet?.step === step ? sheet : undefined;
}
