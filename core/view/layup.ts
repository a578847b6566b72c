import { sumOf } from '../units';
import type { BuildDocument, DimensionName, Slot } from '../document';
import type { LayUpRule } from '../kit';
import { blankVolume, compensatedSum } from '../solid';
import { assemblyOf, type GlueStep, type Timeline } from '../steps';

/** The lay-up of a glue-up as a rule of shares, without an id; shares add up to 1. */
export function ruleOf(build: BuildDocument, step: GlueStep, name: string): Omit<LayUpRule, 'id'> {
  const slots = assemblyOf(build, step.id)?.slots ?? [];
  const order = step.parts ?? slots.map(({ id }) => ({ piece: id }));
  const laid = order.flatMap((part) => {
    const slot = slots.find(({ id }) => id === part.piece);
    return slot ? [{ ...part, slot }] : [];
  });
  const whole = sumOf(laid, ({ slot }) => slot.width.mm);
  return {
    name,
    strips: laid.map(({ slot, ...part }) => ({
      species: slot.species,
      share: slot.width.mm / whole,
      ...('endForEnd' in part && part.endForEnd ? { endForEnd: true } : {}),
      ...('rollOver' in part && part.rollOver ? { rollOver: true } : {}),
    })),
  };
}

/** Sizes that differ by less are told as one, mm. */
const ONE_SIZE_MM = 0.01;

/** The least and the greatest size of some strips, mm; one of them alone where they are alike. */
export function sizeRange(
  slots: readonly Slot[],
  dimension: DimensionName,
): { least?: number; most: number } {
  const all = slots.map((slot) => slot[dimension].mm);
  const [least, most] = [Math.min(...all), Math.max(...all)];
  return most - least > ONE_SIZE_MM ? { least, most } : { most };
}

/** Wood in the finished pieces, mm3; 0 where none is finished. */
export const finishedVolume = ({ finished }: Timeline): number =>
  finished ? compensatedSum(finished.pieces.map(({ blank }) => blankVolume(blank))) : 0;

/** In how many rounds so many glue-ups alike are clamped; 0 where not even one can be. */
export const clampRounds = (blanks: number, atOnce: number): number =>
  atOnce > 0 ? Math.ceil(blanks / atOnce) : 0;
