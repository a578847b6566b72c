import type { BenchStep } from '../../../core/bench';
import type { BuildDocument } from '../../../core/document';
import { benchStepOf } from '../../app/predicting';
import { usePlayed } from '../job/use-played';

/** A step as it is worked on, or why that cannot be told; the last one stays while a change of it is played. */
export const useBenchStep = (
  build: BuildDocument,
  step: string,
): { sheet?: BenchStep; why?: string } | undefined =>
  usePlayed(
    build,
    step,
    benchStepOf,
    'This step cannot be played yet: mend what comes before it, in the job.',
  );
