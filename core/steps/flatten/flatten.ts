import type { StepRoom } from '../room';
import type { StepBase } from '../../document';
import type { Length } from '../../units';
import { halfOf, machineThat } from '../begin';
import type { Outcome, RunContext } from '../context';
import { runSurface } from '../removal';
import type { WorkPiece } from '../timeline';
import { settingErrors } from '../tolerance';

/** Flatten both faces: what comes off the upper and the lower one. */
export interface FlattenStep extends StepBase {
  kind: 'flatten';
  machine: string;
  top: Length;
  bottom: Length;
  carrier?: Length;
}

/** Flattens both faces. The thickness is then what the machine was set to, however rough the piece was. */
export const runFlatten = (step: FlattenStep, inputs: readonly WorkPiece[], context: RunContext): Outcome =>
  runSurface(step, inputs, context, {
    work: 'flatten',
    removals: [{ dimension: 'thickness', min: step.bottom.mm, max: step.top.mm }],
    errorsAfter: ({ errors }, machine) => [
      errors[0],
      errors[1],
      step.top.mm + step.bottom.mm > 0
        ? settingErrors(
            context.sources,
            `${step.id}:thickness`,
            `thickness set on ${machine.name}`,
            machine.setting,
          )
        : errors[2],
    ],
  });

/** The room of flattening. */
export const flatten: StepRoom<FlattenStep> = {
  kind: 'flatten',
  name: 'Flatten',
  group: 'Plane',
  says: 'Planes or sands both faces flat and parallel.',
  subtitle: (_step, { machine }) => machine ?? '',
  fields: {
    machine: { is: 'id', of: 'machine', label: 'Flatten with', carried: true },
    top: { is: 'length', label: 'Off the upper face', fallback: { mm: 0 } },
    bottom: { is: 'length', label: 'Off the lower face', fallback: { mm: 0 } },
    carrier: { is: 'length', label: 'Carrier board under it', optional: true, carried: true },
  },
  flow: {},
  begin: (at) => ({
    machine: machineThat(at, 'flatten'),
    top: halfOf(at, 'flattenPanel'),
    bottom: halfOf(at, 'flattenPanel'),
  }),
  run: runFlatten,
  takesOff: ({ top, bottom }) => [
    {
      dimension: 'thickness',
      min: bottom.mm,
      max: top.mm,
      sides: 'faces',
      margin: 'Flattening',
      settings: ['bottom', 'top'],
    },
  ],
  machining: {
    work: 'flatten',
    over: 'faces',
    any: () => true,
    sides: ({ top, bottom }) => [top.mm, bottom.mm],
  },
  needsSettled: true,
  labour: { setUp: 10, each: 5, pass: 5 },
  caution: 'End grain never goes under knives. The machine’s manual comes first.',
};

declare module '../../document/step' {
  interface StepKinds {
    flatten: FlattenStep;
  }
}
