import { type Machine, machineFacts, machinesThat, type ShopSnapshot, takesEndGrain } from '../kit';
import type { Vec3 } from '../solid';

/** Whether a piece is within a machine's limits; unrounded sizes, a limit of zero means none. */
export const machineTakes = (machine: Machine, [length, width, thickness]: Vec3): boolean =>
  (machine.maxWidth.mm === 0 || width <= machine.maxWidth.mm) &&
  (machine.maxThickness.mm === 0 || thickness <= machine.maxThickness.mm) &&
  (!machine.maxLength?.mm || length <= machine.maxLength.mm) &&
  length >= machine.minLength.mm &&
  thickness >= machine.minThickness.mm;

/** Machines that can flatten a piece, in the order a shop would reach for them; end grain never meets knives, and nothing goes away unasked. */
export const flatteners = (shop: ShopSnapshot, size: Vec3, endGrain: boolean): Machine[] =>
  machinesThat(shop, 'flatten').filter(
    (machine) =>
      !machineFacts(machine).away && (!endGrain || takesEndGrain(machine)) && machineTakes(machine, size),
  );
