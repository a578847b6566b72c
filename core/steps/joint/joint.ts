import { offDial } from '../operation';
import type { Rest, StepRoom } from '../room';
import type { StepBase } from '../../document';
import type { Length } from '../../units';
import { allowed, machineThat } from '../begin';
import type { Outcome, RunContext } from '../context';
import { reaching, restOptions, runSurface } from '../removal';
import type { WorkPiece } from '../timeline';
import { addErrors, settingErrors } from '../tolerance';

/** Joint the edges that will be glued: what comes off the near and the far edge. */
export interface JointStep extends StepBase {
  kind: 'joint';
  machine: string;
  near: Length;
  far: Length;
  /** The width to reach: what comes off follows from what enters. */
  to?: Length;
  rest?: Rest;
}

/** Joints edges before sections are joined: what comes off adds its own error to the width. */
export const runJoint = (step: JointStep, inputs: readonly WorkPiece[], context: RunContext): Outcome =>
  runSurface(step, inputs, context, {
    work: 'joint',
    removals: [{ dimension: 'width', min: step.near.mm, max: step.far.mm, to: step.to?.mm }],
    errorsAfter: ({ errors }, machine) => {
      if (step.to && step.near.mm + step.far.mm > 0)
        return [
          errors[0],
          settingErrors(
            context.sources,
            `${step.id}:width`,
            `width planed to on ${machine.name}`,
            machine.setting,
            machine.id,
          ),
          errors[2],
        ];
      const edges = (step.near.mm > 0 ? 1 : 0) + (step.far.mm > 0 ? 1 : 0);
      const removal = settingErrors(
        context.sources,
        `${step.id}:edge`,
        'taken off each jointed edge',
        machine.setting,
        machine.id,
      );
      return [errors[0], addErrors([errors[1], 1], [removal, -edges]), errors[2]];
    },
  });

/** The room of jointing edges. */
export const joint: StepRoom<JointStep> = {
  kind: 'joint',
  name: 'Joint edges',
  group: 'Plane',
  says: 'Planes edges straight and square for a joint.',
  subtitle: (_step, { machine }) => machine ?? '',
  fields: {
    machine: { is: 'id', of: 'machine', label: 'With', carried: true },
    to: { is: 'length', label: 'Width to reach', optional: true },
    rest: {
      is: 'choice',
      options: restOptions('edge', 'near edge', 'far edge'),
      label: 'How the edges share it',
      when: ({ to }) => (to?.mm ?? 0) > 0,
      optional: true,
    },
    near: { is: 'length', label: 'Off the near edge', fallback: { mm: 0 } },
    far: { is: 'length', label: 'Off the far edge', fallback: { mm: 0 } },
  },
  flow: {},
  begin: (at) => ({
    machine: machineThat(at, 'joint'),
    near: allowed(at, 'jointEdge'),
    far: allowed(at, 'jointEdge'),
  }),
  run: runJoint,
  takesOff: ({ near, far, to, rest }) => [
    {
      dimension: 'width',
      min: near.mm,
      max: far.mm,
      sides: 'edges',
      allowance: 'jointEdge',
      settings: ['near', 'far'],
      ...reaching(to, rest),
      reach: { to: 'to', rest: 'rest' },
    },
  ],
  machining: {
    work: 'joint',
    over: 'edges',
    any: ({ near, far }) => near.mm + far.mm !== 0,
    sides: ({ near, far }) => [near.mm, far.mm],
  },
  needsSettled: true,
  operations: (step) =>
    [
      { say: ['Joint the near edges, straight and square.'], ...offDial('take off', step.near) },
      { say: ['Joint the far edges, straight and square.'], ...offDial('take off', step.far) },
    ].filter((each, i) => 'dial' in each || (i === 0 && step.near.mm + step.far.mm === 0)),
  labour: { setUp: 5, each: 3, pass: 1 },
  caution: 'Hands stay clear of the cutter head; push blocks. The machine’s manual comes first.',
};

declare module '../../document/step' {
  interface StepKinds {
    joint: JointStep;
  }
}
