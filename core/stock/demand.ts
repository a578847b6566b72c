import { falling } from '../units';
import {
  type Assembly,
  type BreakdownSettings,
  type BuildDocument,
  copiesOf,
  type Slot,
  type TakenPlace,
} from '../document';
import { namedStock, type ShopSnapshot, type StockKind, stockKind, typed } from '../kit';
import { milledAfter, rips } from '../steps';
import type { CuttingRules, WantedStrip } from './problem';

/** Which strip of which job a wanted strip is. `copy` counts from 0 where a job is made several times. */
export interface Wanted {
  /** Which of the jobs asked about; -1 for a place that a job not asked about takes. */
  job: number;
  slot: string;
  copy: number;
  /** What is pencilled on it: the job's letter where there are several, and the strip's number in its lay-up. */
  label: string;
  /** Name of the job, where it is none of those asked about. */
  of?: string;
}

/** What some jobs need from the rack. */
export interface Demand {
  strips: WantedStrip[];
  of: Map<string, Wanted>;
}

/** How a shop breaks boards down until told otherwise: with the job's own saw, one inch in hand (common practice). */
export function defaultBreakdown(build: BuildDocument): BreakdownSettings {
  const { saws } = build.shop;
  const rip = rips(build)[0];
  const own = rip?.saw ?? saws[0]?.id ?? '';
  const resaw = saws.toSorted(falling((a) => a.depth.mm))[0]?.id ?? own;
  return {
    goal: 'leastWaste',
    crosscutSaw: own,
    ripSaw: own,
    resawSaw: resaw,
    resaw: true,
    extraLength: { mm: 0 },
    extraWidth: { mm: 0 },
    endTrim: typed('1/2'),
    edgeTrim: typed('1/8'),
    remnant: typed('1'),
    leastOffcutLength: typed('12'),
    leastOffcutWidth: typed('1 1/2'),
    // An offcut is wood somebody has to find a use for; how much less it is worth is the shop's own judgement.
    offcutWorthPct: 75,
    ...boughtAs(build),
  };
}

/** What the brief says its wood is sold as, as the kind of stock to buy; nothing where one of its woods is not sold so. */
function boughtAs({ brief }: BuildDocument): Pick<BreakdownSettings, 'buyAs'> {
  const stock = brief?.stock ? namedStock(brief.stock) : undefined;
  if (!brief || !stock) return {};
  const buyAs: StockKind = stock.by === 'quarters' ? 'rough' : 'construction';
  return brief.woods.every(stockKind(buyAs).sells) ? { buyAs } : {};
}

/** A job's breakdown settings, or the shop's usual ones. */
export const settingsOf = (build: BuildDocument): BreakdownSettings =>
  build.breakdown ?? defaultBreakdown(build);

/** Settings as the solver needs them: saws by their kerfs. A saw that is gone counts with the first one's kerf. */
export function rulesOf(settings: BreakdownSettings, shop: ShopSnapshot): CuttingRules {
  const saw = (id: string) => shop.saws.find((candidate) => candidate.id === id) ?? shop.saws[0];
  return {
    crosscutKerf: saw(settings.crosscutSaw)?.kerf.mm ?? 0,
    ripKerf: saw(settings.ripSaw)?.kerf.mm ?? 0,
    resawKerf: saw(settings.resawSaw)?.kerf.mm ?? 0,
    resaw: settings.resaw,
    resawReach: saw(settings.resawSaw)?.depth.mm ?? 0,
    endTrim: settings.endTrim.mm,
    edgeTrim: settings.edgeTrim.mm,
    remnant: settings.remnant.mm,
    leastOffcutLength: settings.leastOffcutLength.mm,
    leastOffcutWidth: settings.leastOffcutWidth.mm,
    offcutWorth: settings.offcutWorthPct / 100,
  };
}

/** What comes off a strip's thickness when it is milled, mm. */
function milledOff(build: BuildDocument, assembly: Assembly): number {
  const rip = rips(build).find((step) => step.assembly === assembly.id);
  return rip ? 2 * milledAfter(build, rip) : 0;
}

/** The number pencilled on each strip: counted through all lay-ups of a job in their order. */
export function stripNumbers(build: BuildDocument): Map<string, number> {
  const slots = build.assemblies.flatMap((assembly) => assembly.slots);
  return new Map(slots.map(({ id }, i) => [id, i + 1]));
}

const gradesOf = ({ grade, gradeBelow }: Slot): WantedStrip['grades'] => ({
  up: grade ?? 'show',
  down: gradeBelow ?? 'hidden',
});

/** Every strip that some jobs need, as the breakdown takes them. Strips left out by hand are not asked for. */
export function demandOf(builds: readonly BuildDocument[]): Demand {
  const strips: WantedStrip[] = [];
  const of: Demand['of'] = new Map();
  builds.forEach((build, job) => {
    const numbers = stripNumbers(build);
    const letter = builds.length > 1 ? String.fromCharCode(65 + (job % 26)) : '';
    const { extraLength, extraWidth } = settingsOf(build);
    for (const assembly of build.assemblies) {
      const off = milledOff(build, assembly);
      for (let copy = 0; copy < copiesOf(build, assembly); copy++)
        for (const slot of assembly.slots) {
          if (slot.strip?.excluded) continue;
          const id = `${job}/${slot.id}${copy ? `/${copy + 1}` : ''}`;
          const { board, at, locked, leaf = 0, leaves = 1, faceDown = false } = slot.strip ?? {};
          strips.push({
            id,
            species: slot.species,
            length: slot.length.mm + extraLength.mm,
            width: slot.width.mm + extraWidth.mm,
            thickness: slot.thickness.mm,
            milledThickness: slot.thickness.mm - off,
            grades: gradesOf(slot),
            grain: slot.grain,
            // Each copy of a set may come from a board of its own.
            set: slot.set === undefined ? undefined : `${job}/${slot.set}/${copy}`,
            locked:
              locked && board !== undefined && at && copy === 0
                ? { board, ...at, leaf, leaves, faceDown }
                : undefined,
          });
          of.set(id, {
            job,
            slot: slot.id,
            copy,
            label: `${letter}${numbers.get(slot.id)}${copy ? `·${copy + 1}` : ''}`,
          });
        }
    }
  });
  return { strips, of };
}

/** Which wanted strip a taken place is for, seen from one of the jobs asked about; undefined for one of another job. */
export function wantedByTaken(
  builds: readonly BuildDocument[],
  demand: Demand,
): (taken: TakenPlace, job: number) => string | undefined {
  const ids = new Map([...demand.of].map(([id, { job, slot, copy }]) => [`${job}|${slot}|${copy}`, id]));
  return ({ of, slot, copy }, job) => {
    const at = of === undefined ? job : builds.findIndex(({ name }) => name === of);
    return ids.get(`${at}|${slot}|${copy}`);
  };
}

/**
 * Places on the jobs' boards that jobs not asked about take, as locked strips: the breakdown leaves them alone. Their
 * labels join the demand, so that they can be drawn and kept.
 */
export function takenByOthers(builds: readonly BuildDocument[], demand: Demand): WantedStrip[] {
  const own = wantedByTaken(builds, demand);
  const seen = new Set<string>();
  return builds.flatMap(({ boards }, job) =>
    boards.flatMap((board) =>
      (board.taken ?? []).flatMap((taken): WantedStrip[] => {
        const id = `taken/${board.id}/${taken.x}/${taken.y}/${taken.leaf ?? 0}`;
        if (own(taken, job) !== undefined || seen.has(id)) return [];
        seen.add(id);
        const { slot = '', copy = 0, label, of } = taken;
        demand.of.set(id, { job: -1, slot, copy, label, of });
        const { x, y, length, width, thickness, leaf = 0, leaves = 1 } = taken;
        return [
          {
            id,
            species: board.species,
            length,
            width,
            thickness,
            milledThickness: thickness,
            grades: { up: 'hidden', down: 'hidden' },
            locked: { board: board.id, x, y, leaf, leaves, faceDown: false },
          },
        ];
      }),
    ),
  );
}
