import { useEffect, useState } from 'react';
import type { BenchStep } from '../../../core/bench';
import type { BuildDocument } from '../../../core/document';
import { benchStepOf } from '../../app/predicting';

/** A step as it is worked on, or why that cannot be told; the last one stays while a change of it is played. */
export function useBenchStep(
  build: BuildDocument,
  step: string,
): { sheet?: BenchStep; why?: string } | undefined {
  const [known, setKnown] = useState<{ step: string; sheet?: BenchStep; why?: string }>();
  useEffect(() => {
    let here = true;
    benchStepOf(build, step).then(
      (sheet) =>
        here &&
        setKnown(
          sheet
            ? { step, sheet }
            : { step, why: 'This step cannot be played yet: mend what comes before it, in the job.' },
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
