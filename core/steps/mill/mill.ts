import { offDial } from '../operation';
import type { StepRoom } from '../room';
import type { StepBase } from '../../document';
import type { Length } from '../../units';
import { allowed, machineThat } from '../begin';
import type { Outcome, RunContext } from '../context';
import { reaching, runSurface } from '../removal';
import type { WorkPiece } from '../timeline';
import { addErrors, settingErrors } from '../tolerance';

/** Faces and edges of strips cleaned; amounts are per face and per edge. */
export interface MillStep extends StepBase {
  kind: 'mill';
  machine: string;
  face: Length;
  edge: Length;
  /** Thickness and width to reach, the same off both faces or edges. */
  toThickness?: Length;
  toWidth?: Length;
  /** The first pass only touches. */
  touch?: boolean;
  /** Most a pass here, instead of the machine's own. */
  bite?: Length;
}

/** Cleans faces and edges of strips. Thickness is then one setting of the machine, for all strips alike. */
export const runMill = (step: MillStep, inputs: readonly WorkPiece[], context: RunContext): Outcome =>
  runSurface(step, inputs, context, {
    work: 'mill',
    removals: [
      { dimension: 'width', min: step.edge.mm, max: step.edge.mm, to: step.toWidth?.mm },
      { dimension: 'thickness', min: step.face.mm, max: step.face.mm, to: step.toThickness?.mm },
    ],
    errorsAfter: ({ errors }, machine) => [
      errors[0],
      step.toWidth && step.edge.mm > 0
        ? settingErrors(
            context.sources,
            `${step.id}:width`,
            `width set on ${machine.name}`,
            machine.setting,
            machine.id,
          )
        : step.edge.mm > 0
          ? addErrors(
              [errors[1], 1],
              [
                settingErrors(
                  context.sources,
                  `${step.id}:edge`,
                  'taken off each edge',
                  machine.setting,
                  machine.id,
                ),
                -2,
              ],
            )
          : errors[1],
      step.face.mm > 0
        ? settingErrors(
            context.sources,
            `${step.id}:face`,
            `thickness set on ${machine.name}`,
            machine.setting,
            machine.id,
          )
        : errors[2],
    ],
  });

/** The room of milling. */
export const mill: StepRoom<MillStep> = {
  kind: 'mill',
  name: 'Mill',
  group: 'Plane',
  says: 'Planes the faces and edges of strips clean and parallel.',
  subtitle: (_step, { machine }) => machine ?? '',
  fields: {
    machine: { is: 'id', of: 'machine', label: 'With', carried: true },
    toThickness: { is: 'length', label: 'Thickness to reach', optional: true },
    toWidth: { is: 'length', label: 'Width to reach', optional: true },
    face: { is: 'length', label: 'Off each face', fallback: { mm: 0 } },
    edge: { is: 'length', label: 'Off each edge', fallback: { mm: 0 } },
    bite: { is: 'length', label: 'Most a pass here', group: 'Passes', optional: true, carried: true },
    touch: {
      is: 'flag',
      label: 'The first pass only touches',
      group: 'Passes',
      optional: true,
      carried: true,
    },
  },
  flow: {},
  begin: (at) => ({
    machine: machineThat(at, 'mill'),
    face: allowed(at, 'millFace'),
    edge: allowed(at, 'millEdge'),
  }),
  run: runMill,
  takesOff: ({ face, edge, toThickness, toWidth }) => [
    {
      dimension: 'thickness',
      min: face.mm,
      max: face.mm,
      sides: 'faces',
      allowance: 'millFace',
      settings: ['face', 'face'],
      ...reaching(toThickness),
      reach: { to: 'toThickness' },
    },
    {
      dimension: 'width',
      min: edge.mm,
      max: edge.mm,
      sides: 'edges',
      allowance: 'millEdge',
      settings: ['edge', 'edge'],
      ...reaching(toWidth),
      reach: { to: 'toWidth' },
    },
  ],
  machining: {
    work: 'mill',
    over: 'both',
    any: ({ face, edge }) => face.mm + edge.mm !== 0,
    sides: ({ face }) => [face.mm, face.mm],
  },
  operations: (step) => [
    ...(step.edge.mm > 0 ? [{ say: ['Plane both edges.'], ...offDial('off each edge', step.edge) }] : []),
    { instead: 'passes', say: ['Plane both faces.'], ...offDial('off each face', step.face) },
  ],
  labour: { setUp: 10, each: 2, pass: 1 },
  caution: 'Short and thin strips need a carrier or a push block. The machine’s manual comes first.',
};

declare module '../../document/step' {
  interface StepKinds {
    mill: MillStep;
  }
}
