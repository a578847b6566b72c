import { gluingOf, sawDoes } from '../../kit';
import { emptyLedger, extents } from '../../solid';
import { counted } from '../../units';
import { sawThat } from '../begin';
import type { Outcome, RunContext } from '../context';
import type { StepRoom } from '../room';
import { runShape } from '../shape/shape';
import type { WorkPiece } from '../timeline';
import { CARRIED } from './lift';
import { installFacts, installFindings, type InstallStep, isScribed, MOST_PEOPLE } from './report';
import { scribed } from './scribe';

const MOST_READINGS = 60;
const MOST_APPLIANCES = 12;

function runInstall(step: InstallStep, inputs: readonly WorkPiece[], context: RunContext): Outcome {
  const [piece] = inputs;
  if (!piece || !step.saw || !isScribed(step)) return { pieces: [...inputs], lost: emptyLedger() };
  const [length, width] = extents(piece.blank);
  const { outline } = scribed(step, [length, width]);
  const { saw } = step;
  return runShape({ ...step, kind: 'shape', saw, seen: 'face', outline }, inputs, context);
}

const WALLS = 'The walls, as measured';
const RESTS = 'What it rests on';
const degrees = (label: string) => ({
  is: 'number' as const,
  least: 45,
  most: 135,
  usual: 90,
  label,
  group: WALLS,
  optional: true as const,
  carried: true as const,
});

/** The room of installing. */
export const install: StepRoom<InstallStep> = {
  kind: 'install',
  name: 'Take to its place',
  group: 'Assemble',
  says: 'Carried by so many, scribed to its walls, laid on its supports; distances of sink and hob.',
  subtitle: ({ people, wall }) =>
    [counted(people, 'person', 'people'), wall?.length ? 'scribed to the wall' : '']
      .filter(Boolean)
      .join(', '),
  fields: {
    people: { is: 'number', least: 1, most: MOST_PEOPLE, whole: true, label: 'People', carried: true },
    carried: {
      is: 'choice',
      label: 'Carried',
      options: CARRIED.map(({ value, label }) => ({ value, label })) as never,
      carried: true,
    },
    stairs: { is: 'flag', label: 'Up or down stairs', optional: true, carried: true },
    leftDegrees: degrees('Left corner, degrees'),
    rightDegrees: degrees('Right corner, degrees'),
    wall: {
      is: 'list',
      label: 'Reading of the wall behind',
      group: WALLS,
      most: MOST_READINGS,
      optional: true,
      carried: true,
      of: {
        is: 'group',
        fields: {
          at: { is: 'length', label: 'From the left end', most: 30_000 },
          gap: { is: 'length', label: 'Falls back by', most: 1000 },
        },
      },
    },
    saw: { is: 'id', of: 'saw', label: 'Scribed with', when: isScribed, optional: true, carried: true },
    supportLeft: {
      is: 'length',
      label: 'Left support, from the left end',
      group: RESTS,
      most: 30_000,
      optional: true,
    },
    supportRight: {
      is: 'length',
      label: 'Right support, from the left end',
      group: RESTS,
      most: 30_000,
      optional: true,
    },
    appliances: {
      is: 'list',
      label: 'Sink or hob',
      group: 'Sink and hob',
      most: MOST_APPLIANCES,
      optional: true,
      carried: true,
      of: {
        is: 'group',
        fields: {
          what: {
            is: 'choice',
            label: 'What',
            options: [
              { value: 'sink', label: 'Sink' },
              { value: 'hob', label: 'Hob' },
              { value: 'tap', label: 'Tap' },
              { value: 'other', label: 'Another appliance' },
            ],
          },
          to: {
            is: 'choice',
            label: 'Its distance to',
            options: [
              { value: 'wall', label: 'The wall behind' },
              { value: 'edge', label: 'The front edge' },
              { value: 'end', label: 'The nearest end' },
              { value: 'cupboard', label: 'The cupboard below' },
              { value: 'joint', label: 'The nearest joint' },
            ],
          },
          has: { is: 'length', label: 'There is', most: 10_000 },
          asked: { is: 'length', label: 'Asked for at least', most: 10_000 },
        },
      },
    },
  },
  flow: {},
  begin: (at) => ({
    people: gluingOf(at.build.shop).hands,
    carried: 'flat',
    ...(at.build.shop.saws.some((saw) => sawDoes(saw, 'crosscut')) ? { saw: sawThat(at, 'crosscut') } : {}),
  }),
  run: runInstall,
  facts: installFacts,
  findings: installFindings,
  took: (step, kerfMm) => (isScribed(step) && step.saw ? [{ from: 'kerf', mm: kerfMm }] : []),
  sawing: {
    work: (step) => (isScribed(step) && step.saw ? ['crosscut'] : []),
    through: () => 'thickness',
  },
  operations: (step, { entry }) => [
    ...(isScribed(step) ? [{ say: ['Scribe it to the wall and saw along the line.'] }] : []),
    {
      say: [
        `Carry ${counted(entry.pieces.length, 'piece')} to its place, ${CARRIED.find(({ value }) => value === step.carried)?.label.toLowerCase() ?? ''}.`,
      ],
      dial: { name: 'people', value: { count: step.people } },
    },
  ],
  labour: { setUp: 20, each: 30 },
  caution:
    'Lift with straight backs, agree on the way and on the word before it is moved; nobody stands below on stairs alone. The saw’s manual comes first.',
};

declare module '../../document/step' {
  interface StepKinds {
    install: InstallStep;
  }
}
