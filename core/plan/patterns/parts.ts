import {
  type Brief,
  type BuildDocument,
  FORMAT_VERSION,
  type Slot,
  type Target,
  Refusal,
} from '../../document';
import { doesWork, type Machine, machinesThat, type ShopSnapshot } from '../../kit';
import { type Length, roundUpToStep } from '../../units';

/** Half of an amount, for each of two sides. */
export const half = (mm: number): Length => ({ mm: mm / 2 });

/** Rounds a setting up to the shop's step. */
export const settable = (shop: ShopSnapshot, mm: number): number => roundUpToStep(mm, shop.settingStep.mm);

/** How thick strips are sawn to come out so thick once milled, rounded up to the shop's step; as they are where milling takes nothing. */
export const roughFor = (shop: ShopSnapshot, milledMm: number): number =>
  shop.allowances.millFace.mm > 0 ? settable(shop, milledMm + 2 * shop.allowances.millFace.mm) : milledMm;

/** The planned sizes must be real ones before anything is built on them. */
export function requirePositive(what: string, mm: number): number {
  if (!(Number.isFinite(mm) && mm > 0)) throw new Refusal([`${what} must be more than zero.`]);
  return mm;
}

/** The machine that mills strips: the first that does, else the kit's first that flattens or joints; the review then says so. */
export function millMachine(shop: ShopSnapshot): Machine {
  const machine =
    machinesThat(shop, 'mill')[0] ??
    shop.machines.find((each) => doesWork(each, 'flatten') || doesWork(each, 'joint'));
  if (!machine) throw new Refusal(['The kit has no machine to mill strips with.']);
  return machine;
}

/** The one piece wanted. */
export const targetOf = (
  brief: Brief,
  output: string,
  sizes: [number, number, number],
  purpose: string,
): Target => {
  const resolved = (aim: Brief['length'], mm: number) =>
    aim.aim === 'fixed' ? aim : { ...aim, value: aim.value ?? (aim.aim === 'free' ? undefined : { mm }) };
  return {
    id: 'piece',
    purpose,
    quantity: brief.quantity ?? 1,
    output,
    length: resolved(brief.length, sizes[0]),
    width: resolved(brief.width, sizes[1]),
    thickness: resolved(brief.thickness, sizes[2]),
  };
};

/** A strip's place in a lay-up. Equal sizes share one object shape, not one object. */
export const slot = (
  id: string,
  species: string,
  { length, width, thickness }: { length: number; width: number; thickness: number },
): Slot => ({
  id,
  species,
  length: { mm: length },
  width: { mm: width },
  thickness: { mm: thickness },
});

/** An empty build around a brief. */
export const emptyBuild = (brief: Brief, shop: ShopSnapshot, name: string, use: string): BuildDocument => ({
  format: 'junta-build',
  version: FORMAT_VERSION,
  name,
  use,
  targets: [],
  boards: [],
  assemblies: [],
  steps: [],
  readings: [],
  shop,
  brief,
});
