import { useEffect, useState } from 'react';
import type { BuildDocument } from '../../../core/document';
import type { FeatureSheet } from '../../../core/view';
import { featuresOf } from '../../app/predicting';

/** The features of a step as they lie, or why they cannot be told; the last ones stay while new ones are computed. */
export function useFeatures(
  build: BuildDocument,
  step: string,
): { sheet?: FeatureSheet; why?: string } | undefined {
  const [known, setKnown] = useState<{ step: string; sheet?: FeatureSheet; why?: string }>();
  useEffect(() => {
    let here = true;
    featuresOf(build, step).then(
      (sheet) =>
        here &&
        setKnown(
          sheet
            ? { step, sheet }
            : { step, why: 'This step cannot be played yet: mend what comes before it first.' },
        ),
      (error: unknown) =>
        here && setKnown({ step, why: `This could not be computed: ${(error as Error).message}` }),
    );
    return () => {
      here = false;
    };
  }, [build, step]);
  return known?.step === step ? known : undefined;
}
