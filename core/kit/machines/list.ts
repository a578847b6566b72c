import type { Basis } from '../spread';
import { typed } from '../typed';
import type { MachineKindFacts } from './kind';
import { MACHINE_KINDS, type MachineKind } from './kinds';
import type { LimitName } from './limits';
import type { Machine, Saw } from './machine';
import { SAW_KINDS, type SawKind, type SawKindFacts } from './saws';
import type { Work } from './works';

/** The names of the kinds, in the order in which a shop reaches for them. */
export const MACHINE_KIND_NAMES = Object.keys(MACHINE_KINDS) as readonly MachineKind[];

/** What Junta knows of a kind of machine. */
export const machineFacts = ({ kind }: { kind: MachineKind }): MachineKindFacts => MACHINE_KINDS[kind];

/** Whether a machine does a work at all, whatever the size. */
export const doesWork = (machine: { kind: MachineKind }, work: Work): boolean =>
  machineFacts(machine).does.includes(work);

/** Whether a saw does a work; one whose kind nobody said is taken at its sizes and does what saws do. */
export const sawDoes = ({ kind }: Saw, work: Work): boolean =>
  kind === undefined || (SAW_KINDS[kind].does as readonly Work[]).includes(work);

/** The machines of a shop that do a work, in the order in which a shop reaches for them, alike ones in the kit's own. */
export const machinesThat = ({ machines }: { machines: readonly Machine[] }, work: Work): Machine[] =>
  MACHINE_KIND_NAMES.flatMap((kind) => machines.filter((each) => each.kind === kind && doesWork(each, work)));

/** Widest piece that a shop's thickness planers take, mm: Infinity where one of them has no limit, 0 where there is none. */
export const widestMilled = (shop: { machines: readonly Machine[] }): number =>
  Math.max(0, ...machinesThat(shop, 'mill').map(({ maxWidth }) => maxWidth.mm || Infinity));

/** Whether a machine turns what it takes off into dust or into shavings. */
export const removalCause = (machine: Machine): 'dust' | 'shaving' =>
  machineFacts(machine).cuts === 'abrasive' ? 'dust' : 'shaving';

/** Whether end grain may go through: knives that meet standing fibres tear, and can throw the piece back. */
export const takesEndGrain = (machine: Machine): boolean => machineFacts(machine).cuts !== 'knives';

/** Whether knives draw the wood through with rollers: then fibres across the feed are torn out too. */
export const tearsAcross = (machine: Machine): boolean => {
  const { cuts, feeds } = machineFacts(machine);
  return cuts === 'knives' && feeds === true;
};

const NOTHING = { mm: 0 };
const PRACTICE: Basis = 'common practice';

/** A machine of a kind as a small shop would have it; limits that its kind does not have are none. */
export function usualMachine(
  kind: MachineKind,
  id: string,
  name: string = MACHINE_KINDS[kind].name,
): Machine {
  const { limits, setting }: MachineKindFacts = MACHINE_KINDS[kind];
  const own = Object.fromEntries(
    (Object.entries(limits) as [LimitName, string][]).map(([limit, text]) => [limit, typed(text)]),
  );
  return {
    id,
    name,
    kind,
    maxWidth: NOTHING,
    maxThickness: NOTHING,
    minLength: NOTHING,
    minThickness: NOTHING,
    bite: NOTHING,
    ...own,
    setting: { likely: typed(setting[0]), worst: typed(setting[1]), basis: PRACTICE },
  };
}

/** A saw of a kind as a small shop would have it. */
export function usualSaw(kind: SawKind, id: string, name: string = SAW_KINDS[kind].name): Saw {
  const { kerf, depth, crosscut, rip, setting }: SawKindFacts = SAW_KINDS[kind];
  return {
    id,
    name,
    kind,
    kerf: typed(kerf),
    depth: typed(depth),
    crosscut: typed(crosscut),
    rip: typed(rip),
    setting: { likely: typed(setting[0]), worst: typed(setting[1]), basis: PRACTICE },
  };
}

/** The machine as one of another kind: limits that both have stay as they were entered, the others begin as usual. */
export function asKind(machine: Machine, kind: MachineKind): Machine {
  const usual = usualMachine(kind, machine.id, machine.name);
  const [had, has] = [machineFacts(machine).limits, machineFacts(usual).limits];
  const kept = Object.fromEntries(
    (Object.keys(has) as LimitName[])
      .filter((limit) => limit in had && machine[limit] !== undefined)
      .map((limit) => [limit, machine[limit]]),
  );
  const { offSquare, knivesRanM, knivesLastM, reads } = machine;
  const knives = machineFacts(usual).cuts === 'knives';
  return {
    ...usual,
    ...kept,
    setting: machine.setting,
    ...(offSquare === undefined ? {} : { offSquare }),
    ...(reads === undefined || !('dial' in has) ? {} : { reads }),
    ...(knives && knivesRanM !== undefined ? { knivesRanM } : {}),
    ...(knives && knivesLastM !== undefined ? { knivesLastM } : {}),
  };
}
