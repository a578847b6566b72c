import type { StepBase } from '../document';
import type { Length } from '../units';
import { machineThat } from './begin';
import { passThrough, type StepRoom } from './room';

/* A kind of step that Junta does not have: one file. The test beside it adds it by one line. */
export interface DrillStep extends StepBase {
  kind: 'drill';
  machine: string;
  depth: Length;
  holes: number;
}

export const drill: StepRoom<DrillStep> = {
  kind: 'drill',
  name: 'Drill',
  group: 'Surface',
  says: 'Drills holes that nobody needs.',
  subtitle: ({ holes }) => `${holes} holes`,
  fields: {
    machine: { is: 'id', of: 'machine', label: 'Drill with', carried: true },
    depth: { is: 'length', label: 'How deep', fallback: { mm: 5 } },
    holes: { is: 'number', least: 0, most: 90, label: 'Holes', card: { least: 1, most: 90, whole: true } },
  },
  begin: (at) => ({ machine: machineThat(at, 'bore'), depth: { mm: 10 }, holes: 1 }),
  flow: {},
  run: passThrough,
  machining: { work: 'bore', over: 'faces', any: () => true, sides: ({ depth }) => [depth.mm] },
  operations: ({ holes }) => [{ say: [`Drill ${holes}.`] }],
  labour: { setUp: 7, each: 3 },
  caution: 'Clamp it down.',
};
