import { type Step, withTool } from '../document';
import { withoutReach } from '../steps';
import { type Family, ofStep } from './family';

/** What can be set of one step, whatever its kind. */
export const settings: Family<'setStep' | 'useSaw' | 'useMachine' | 'useCutter' | 'spoil'> = {
  setStep: (build, { step: id, change }) =>
    ofStep(
      build,
      id,
      (step) => ({ ...step, ...withoutReach(step, change), id: step.id, kind: step.kind }) as Step,
    ),
  useSaw: (build, { step: id, saw }) => ofStep(build, id, (step) => withTool(step, { saw })),
  useMachine: (build, { step: id, machine }) => ofStep(build, id, (step) => withTool(step, { machine })),
  useCutter: (build, { step: id, cutter }) => ofStep(build, id, (step) => withTool(step, cutter)),
  spoil: (build, { step: id, piece }) =>
    ofStep(build, id, (step) => {
      const spoilt = step.spoilt ?? [];
      const next = spoilt.includes(piece) ? spoilt.filter((each) => each !== piece) : [...spoilt, piece];
      return { ...step, spoilt: next.length > 0 ? next : undefined };
    }),
};
