import { sumOf } from '../units';
import type { BuildDocument } from '../document';
import type { ShopSnapshot } from '../kit';
import { run } from '../run';
import { COST_GROUP_NAMES, type CostGroup, costOf } from './cost';

/** Planned and real, in whole minor units. */
export interface Against {
  plannedMinor: number;
  realMinor: number;
}

/** What a job that was made cost, by kind; its sums are those of the kinds. */
export interface MadeCost extends Against {
  job: string;
  name: string;
  /** When its last step was done, as an ISO time; nothing where nobody wrote it down. */
  at?: string;
  pieces: number;
  groups: Partial<Record<CostGroup, Against>>;
  /** How many things have no price, and so are in no sum. */
  unpriced: number;
  /** At how many steps nobody timed the hands: they are planned, and in nothing that is real. */
  untimed: number;
}

/** What a job that was made cost, at the prices of a kit. Undefined where the kit has no currency, or a step is still to do. */
export function madeCost(
  { job, name, build }: { job: string; name: string; build: BuildDocument },
  kit: ShopSnapshot,
): MadeCost | undefined {
  const active = build.steps.filter(({ off }) => !off);
  if (active.length === 0 || !active.every(({ done }) => done)) return undefined;
  const cost = costOf(build, run(build), kit);
  if (!cost) return undefined;
  const groups: MadeCost['groups'] = {};
  for (const { group, plannedMinor, realMinor } of cost.lines) {
    const sum = groups[group] ?? { plannedMinor: 0, realMinor: 0 };
    groups[group] = {
      plannedMinor: sum.plannedMinor + plannedMinor,
      realMinor: sum.realMinor + realMinor,
    };
  }
  const at = active
    .flatMap(({ doneAt }) => doneAt ?? [])
    .toSorted()
    .at(-1);
  return {
    job,
    name,
    ...(at === undefined ? {} : { at }),
    pieces: cost.pieces,
    groups,
    plannedMinor: cost.plannedMinor,
    realMinor: cost.realMinor,
    unpriced: cost.unpriced.length,
    untimed: cost.lines.filter(({ group, amount }) => group === 'hands' && amount?.real === undefined).length,
  };
}

/** What all of them cost together, by kind, in the order of kinds; kinds that cost nothing are left out. */
export function groupSums(made: readonly MadeCost[]): ({ group: CostGroup } & Against)[] {
  return COST_GROUP_NAMES.flatMap((group) => {
    const own = made.flatMap(({ groups }) => groups[group] ?? []);
    return own.length === 0
      ? []
      : [
          {
            group,
            plannedMinor: sumOf(own, (each) => each.plannedMinor),
            realMinor: sumOf(own, (each) => each.realMinor),
          },
        ];
  });
}
