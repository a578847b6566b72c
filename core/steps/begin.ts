import { greatestSize } from './sizes';
import { type BuildDocument, Refusal, type StepBase } from '../document';
import { limitOf, machinesThat, sawDoes, type Work, WORKS } from '../kit';
import { type Length, roundDownToStep } from '../units';
import type { WorkPiece } from './timeline';

/** The place of a chain where a step is put in, and what lies there. */
export interface Place {
  build: BuildDocument;
  pieces: readonly WorkPiece[];
  /** The output they come from. */
  from?: string;
}

/** The settings a kind of step has of its own. */
export type Own<S extends StepBase> = Omit<S, keyof StepBase | 'kind'>;

/** A size as it can be set in this shop, rounded down: nothing is cut longer than it is. */
export const setDown = ({ build }: Place, mm: number): Length => ({
  mm: roundDownToStep(mm, build.shop.settingStep.mm),
});

/** A length of the shop's allowances, as entered. */
export const allowed = ({ build }: Place, name: keyof BuildDocument['shop']['allowances']): Length => ({
  ...build.shop.allowances[name],
});

/** Half of an allowance, for each of two sides. */
export const halfOf = ({ build }: Place, name: keyof BuildDocument['shop']['allowances']): Length => ({
  mm: build.shop.allowances[name].mm / 2,
});

/** The saw of the kit that does a work: the one that the job uses for it most, else the first. Refused where none does. */
export function sawThat({ build }: Place, work: Work): string {
  const able = build.shop.saws.filter((saw) => sawDoes(saw, work));
  if (able.length === 0) throw new Refusal([`The kit has no saw that ${WORKS[work]}.`]);
  const uses = (id: string) => build.steps.filter((step) => (step as { saw?: string }).saw === id).length;
  return able.reduce((best, saw) => (uses(saw.id) > uses(best.id) ? saw : best)).id;
}

/** The machine of the kit that does a work and takes the pieces' width, else the widest that does. Refused where none does. */
export function machineThat(at: Place, work: Work): string {
  const able = machinesThat(at.build.shop, work);
  if (able.length === 0) throw new Refusal([`The kit has no machine that ${WORKS[work]}.`]);
  const room = (machine: (typeof able)[number]) => limitOf(machine, 'maxWidth') || Infinity;
  const width = greatestSize(at.pieces, 'width');
  return (
    able.find((machine) => room(machine) >= width) ??
    able.reduce((best, machine) => (room(machine) > room(best) ? machine : best))
  ).id;
}
