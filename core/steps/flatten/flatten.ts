import type { Rest, StepRoom } from '../room';
import type { StepBase } from '../../document';
import type { Length } from '../../units';
import { halfOf, machineThat } from '../begin';
import type { Outcome, RunContext } from '../context';
import { reaching, restOptions, runSurface } from '../removal';
import type { WorkPiece } from '../timeline';
import { settingErrors } from '../tolerance';
import { helperMinutes, type Hold, HOLDS } from './helpers';

/** Flatten both faces: what comes off the upper and the lower one. */
export interface FlattenStep extends StepBase {
  kind: 'flatten';
  machine: string;
  top: Length;
  bottom: Length;
  carrier?: Length;
  /** The thickness to reach: what comes off follows from what enters. */
  to?: Length;
  rest?: Rest;
  /** The first pass only touches. */
  touch?: boolean;
  /** Most a pass here, instead of the machine's own. */
  bite?: Length;
  /** What was measured before: how deep each face is hollow, and how far the fourth corner stands off where three touch. */
  hollowTop?: Length;
  hollowBottom?: Length;
  wind?: Length;
  /** Wedges lie under the corners that stand off. */
  wedges?: boolean;
  /** How wide a runner is glued along each edge, and how far they, or pieces without them, stand past each end; cut off again. */
  runners?: Length;
  ends?: Length;
  /** Chamfer on every edge against breakout; or the edges where cutters leave are backed. */
  chamfer?: Length;
  backed?: boolean;
  /** How it is held, and how high what holds it stands. */
  hold?: Hold;
  holdHeight?: Length;
}

/** Flattens both faces. The thickness is then what the machine was set to, however rough the piece was. */
export const runFlatten = (step: FlattenStep, inputs: readonly WorkPiece[], context: RunContext): Outcome =>
  runSurface(step, inputs, context, {
    work: 'flatten',
    removals: [{ dimension: 'thickness', min: step.bottom.mm, max: step.top.mm, to: step.to?.mm }],
    errorsAfter: ({ errors }, machine) => [
      errors[0],
      errors[1],
      step.top.mm + step.bottom.mm > 0
        ? settingErrors(
            context.sources,
            `${step.id}:thickness`,
            `thickness set on ${machine.name}`,
            machine.setting,
            machine.id,
          )
        : errors[2],
    ],
  });

const MEASURED = 'Measured before';
const RIDES = 'Put on it, and how it is held';
const PASSES = 'Passes';

/** The room of flattening. */
export const flatten: StepRoom<FlattenStep> = {
  kind: 'flatten',
  name: 'Flatten',
  group: 'Plane',
  says: 'Planes or sands both faces flat and parallel.',
  subtitle: (_step, { machine }) => machine ?? '',
  fields: {
    machine: { is: 'id', of: 'machine', label: 'Flatten with', carried: true },
    to: { is: 'length', label: 'Thickness to reach', optional: true },
    rest: {
      is: 'choice',
      options: restOptions('face', 'lower face', 'upper face'),
      label: 'How the faces share it',
      when: ({ to }) => (to?.mm ?? 0) > 0,
      optional: true,
    },
    top: { is: 'length', label: 'Off the upper face', fallback: { mm: 0 } },
    bottom: { is: 'length', label: 'Off the lower face', fallback: { mm: 0 } },
    carrier: { is: 'length', label: 'Carrier board under it', optional: true, carried: true },
    bite: { is: 'length', label: 'Most a pass here', group: PASSES, optional: true, carried: true },
    hollowTop: {
      is: 'length',
      label: 'Hollow in the upper face',
      group: MEASURED,
      optional: true,
      most: 200,
      carried: true,
    },
    hollowBottom: {
      is: 'length',
      label: 'Hollow in the lower face',
      group: MEASURED,
      optional: true,
      most: 200,
      carried: true,
    },
    wind: {
      is: 'length',
      label: 'Twist at the fourth corner',
      group: MEASURED,
      optional: true,
      most: 200,
      carried: true,
    },
    wedges: {
      is: 'flag',
      label: 'Wedges under the corners that stand off',
      when: ({ wind }) => (wind?.mm ?? 0) > 0,
      group: MEASURED,
      optional: true,
      carried: true,
    },
    runners: {
      is: 'length',
      label: 'Runners along both edges, wide',
      group: RIDES,
      optional: true,
      most: 300,
      carried: true,
    },
    ends: {
      is: 'length',
      label: 'Past each end, runners or pieces',
      group: RIDES,
      optional: true,
      most: 600,
      carried: true,
    },
    chamfer: {
      is: 'length',
      label: 'Chamfer on every edge',
      group: RIDES,
      optional: true,
      most: 50,
      carried: true,
    },
    backed: {
      is: 'flag',
      label: 'Edges backed where the cutter leaves',
      group: RIDES,
      optional: true,
      carried: true,
    },
    hold: {
      is: 'choice',
      options: HOLDS,
      label: 'How it is held',
      group: RIDES,
      optional: true,
      carried: true,
    },
    holdHeight: {
      is: 'length',
      label: 'What holds it stands, high',
      when: ({ hold }) => hold !== undefined && hold !== 'none' && hold !== 'vacuum',
      group: RIDES,
      optional: true,
      most: 300,
      carried: true,
    },
    touch: { is: 'flag', label: 'The first pass only touches', group: PASSES, optional: true, carried: true },
  },
  flow: {},
  begin: (at) => ({
    machine: machineThat(at, 'flatten'),
    top: halfOf(at, 'flattenPanel'),
    bottom: halfOf(at, 'flattenPanel'),
  }),
  run: runFlatten,
  takesOff: ({ top, bottom, to, rest }) => [
    {
      dimension: 'thickness',
      min: bottom.mm,
      max: top.mm,
      sides: 'faces',
      allowance: 'flattenPanel',
      ofEndGrain: 'flattenBlock',
      margin: 'Flattening',
      settings: ['bottom', 'top'],
      ...reaching(to, rest),
      reach: { to: 'to', rest: 'rest' },
    },
  ],
  machining: {
    work: 'flatten',
    over: 'faces',
    any: () => true,
    sides: ({ top, bottom }) => [top.mm, bottom.mm],
  },
  needsSettled: true,
  keepsOutline: true,
  operations: (_step, { entry }) => [
    {
      instead: 'passes',
      say: ['Flatten one face, then the other down to thickness.'],
      dial: { name: 'down to', value: { mm: entry.greatest[2] } },
    },
  ],
  labour: { setUp: 10, each: 5, pass: 5, more: helperMinutes },
  caution: 'End grain never goes under knives. The machine’s manual comes first.',
};

declare module '../../document/step' {
  interface StepKinds {
    flatten: FlattenStep;
  }
}
