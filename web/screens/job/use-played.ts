import { useEffect, useState } from 'react';
import type { BuildDocument } from '../../../core/document';

/**
 * What is played of a step beside the screen, or why it cannot be told; the last answer stays while a new one is played.
 * `ask` must be one function, not made anew each time.
 */
export function usePlayed<T>(
  build: BuildDocument,
  step: string,
  ask: (build: BuildDocument, step: string) => Promise<T | undefined>,
  whyNot: string,
): { sheet?: T; why?: string } | undefined {
  const [known, setKnown] = useState<{ step: string; sheet?: T; why?: string }>();
  useEffect(() => {
    let here = true;
    ask(build, step).then(
      (sheet) => here && setKnown(sheet ? { step, sheet } : { step, why: whyNot }),
      (error: unknown) =>
        here && setKnown({ step, why: `This could not be computed: ${(error as Error).message}` }),
    );
    return () => {
      here = false;
    };
  }, [build, step, ask, whyNot]);
  return known?.step === step ? known : undefined;
}
