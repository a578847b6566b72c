import { rising, sumOf } from '../units';
import {
  type BoardStock,
  type BuildDocument,
  Refusal,
  sawIdOf,
  type Step,
  targetOfStep,
  timesMade,
} from '../document';
import { handsOn, needsOf, tasksOf, toolOf } from '../bench';
import { hourOf, machineFacts, needName, type Rates, type ShopSnapshot } from '../kit';
import { blankVolumes, extents, lostTo } from '../solid';
import {
  greatestSize,
  machineOfStep,
  passCount,
  stepTitle,
  type Timeline,
  type TimelineStep,
} from '../steps';
import { boardCost, boardVolume, offcutBoards } from '../stock';
import { findSpecies } from '../wood';

/** What a piece costs, by kind. */
export const COST_GROUPS = {
  wood: 'Wood, with its waste',
  offcuts: 'Offcuts that are kept',
  glue: 'Glue',
  abrasives: 'Abrasives',
  finish: 'Finish',
  hardware: 'Hardware',
  edges: 'Blades and knives',
  outside: 'Outside work',
  hands: 'Hands',
  machines: 'Machines',
} as const;
export type CostGroup = keyof typeof COST_GROUPS;
export const COST_GROUP_NAMES = Object.keys(COST_GROUPS) as CostGroup[];

/** One thing that costs something, in whole minor units: as planned, and so far. Offcuts are less than nothing. */
export interface CostLine {
  group: CostGroup;
  words: string;
  /** The step it belongs to; wood belongs to none. */
  step?: string;
  /** How much of it, for the reader: minutes, grams, metres, pieces. */
  amount?: {
    is: 'minutes' | 'grams' | 'metres' | 'ml' | 'sheets' | 'pieces';
    planned: number;
    real?: number;
  };
  plannedMinor: number;
  realMinor: number;
}

/** What a job costs. The sums are those of its lines, to the minor unit. */
export interface Cost {
  currency: string;
  lines: CostLine[];
  plannedMinor: number;
  realMinor: number;
  /** What has no price, in words: it is not in the sums. */
  unpriced: string[];
  /** Pieces that the job makes. */
  pieces: number;
}

const MINUTES_PER_HOUR = 60;
const MM_PER_M = 1000;
const MM3_PER_M3 = 1e9;

/**
 * What a job costs, planned and so far: wood with its waste less the offcuts that are kept, glue, abrasives, finish, hardware, blades and
 * knives by the metre, outside work, hands and machines by the hour. Everything that is made several times counts as often. So far counts
 * the steps that are done, hands and machines by the time they took. `kit` is the shop as it is now, with its people and prices.
 */
export function costOf(build: BuildDocument, timeline: Timeline, kit: ShopSnapshot): Cost | undefined {
  const { currency } = kit;
  if (currency === undefined) return undefined;
  const rates: Rates = kit.rates ?? {};
  const lines: CostLine[] = [];
  const unpriced = new Set<string>();
  const add = (line: Omit<CostLine, 'plannedMinor' | 'realMinor'>, planned: number, real: number) => {
    const [plannedMinor, realMinor] = [Math.round(planned), Math.round(real)];
    // Nothing costs less than nothing but what is kept.
    if (plannedMinor !== 0 || realMinor !== 0)
      lines.push({ ...line, plannedMinor: plannedMinor + 0, realMinor: realMinor + 0 });
  };
  woodLines(build, timeline, { kit, currency, add, unpriced });
  const planned = workMinutes(build, timeline);
  for (const step of build.steps) {
    const entry = timeline.steps.find(({ id }) => id === step.id);
    if (!entry || step.off) continue;
    const times = timesMade(build, targetOfStep(build, step));
    needLines(step, { build, timeline, kit, currency, rates, add, unpriced, times });
    edgeLine(step, entry, { build, rates, add, times });
    handLines(step, { build, kit, rates, add, unpriced, minutes: planned.get(step.id) ?? 0 });
    outsideLine(step, entry, { build, add, unpriced, times });
  }
  const order = (line: CostLine) => COST_GROUP_NAMES.indexOf(line.group);
  lines.sort(rising(order));
  const sum = (of: 'plannedMinor' | 'realMinor') => sumOf(lines, (line) => line[of]);
  const [target] = build.targets;
  return {
    currency,
    lines,
    plannedMinor: sum('plannedMinor'),
    realMinor: sum('realMinor'),
    unpriced: [...unpriced],
    pieces: Math.max(1, target?.quantity ?? 1),
  };
}

type Add = (line: Omit<CostLine, 'plannedMinor' | 'realMinor'>, planned: number, real: number) => void;

/** Minutes of hands by step, as planned from nothing: what is done counts as if it were not. */
export function workMinutes(build: BuildDocument, timeline: Timeline): ReadonlyMap<string, number> {
  const fresh: BuildDocument = {
    ...build,
    steps: build.steps.map((step) => {
      const { work: _work, operations: _operations, done: _done, doneAt: _doneAt, ...rest } = step;
      return rest as Step;
    }),
  };
  const minutes = new Map<string, number>();
  for (const task of tasksOf('', fresh, timeline))
    if (task.kind === 'work') minutes.set(task.step, (minutes.get(task.step) ?? 0) + task.minutes);
  return minutes;
}

/** The wood of a job: whole boards less what is kept of them; strips of no board by the price of their wood. */
function woodLines(
  build: BuildDocument,
  timeline: Timeline,
  { kit, currency, add, unpriced }: { kit: ShopSnapshot; currency: string; add: Add; unpriced: Set<string> },
): void {
  const cut = build.steps.some(({ kind, done }) => kind === 'rip' && done === true);
  const name = (species: string) => findSpecies(species)?.common ?? species;
  for (const board of build.boards) {
    const cost = boardCost(board);
    if (!cost || cost.currency !== currency) {
      unpriced.add(cost ? `board ${board.label}: priced in ${cost.currency}` : `board ${board.label}`);
      continue;
    }
    const words = `Board ${board.label}, ${name(board.species)}`;
    add({ group: 'wood', words }, cost.minor, cut ? cost.minor : 0);
    const kept = keptShare(build, board);
    if (kept > 0) add({ group: 'offcuts', words }, -cost.minor * kept, cut ? -cost.minor * kept : 0);
  }
  const loose: Record<string, { planned: number; real: number }> = {};
  const onBoard = new Set(
    build.assemblies.flatMap(({ slots }) => slots.flatMap((slot) => (slot.strip?.board ? [slot.id] : []))),
  );
  for (const step of build.steps) {
    if (step.kind !== 'rip' && step.kind !== 'have') continue;
    const entry = timeline.steps.find(({ id }) => id === step.id);
    const times = timesMade(build, targetOfStep(build, step));
    for (const piece of entry?.pieces ?? []) {
      if (onBoard.has(piece.id)) continue;
      for (const [species, mm3] of Object.entries(blankVolumes(piece.blank))) {
        loose[species] ??= { planned: 0, real: 0 };
        loose[species].planned += mm3 * times;
        if (step.done) loose[species].real += mm3 * times;
      }
    }
  }
  for (const [species, { planned, real }] of Object.entries(loose)) {
    const rate = kit.rates?.wood?.find((each) => each.species === species)?.minor;
    if (rate === undefined) {
      unpriced.add(`${name(species)} of no priced board`);
      continue;
    }
    add(
      { group: 'wood', words: `${name(species)}, at the price of its wood` },
      (planned / MM3_PER_M3) * rate,
      (real / MM3_PER_M3) * rate,
    );
  }
}

/** The share of a board that comes back onto the rack as offcuts worth keeping; none where its strips cannot lie as they do. */
function keptShare(build: BuildDocument, board: BoardStock): number {
  const whole = boardVolume(board);
  if (!(whole > 0)) return 0;
  try {
    return sumOf(offcutBoards(board, build), (offcut) => boardVolume(offcut)) / whole;
  } catch (error) {
    if (error instanceof Refusal) return 0;
    throw error;
  }
}

/** Glue, abrasives, finish and hardware that a step wants. */
function needLines(
  step: Step,
  {
    build,
    timeline,
    kit,
    currency,
    rates,
    add,
    unpriced,
    times,
  }: {
    build: BuildDocument;
    timeline: Timeline;
    kit: ShopSnapshot;
    currency: string;
    rates: Rates;
    add: Add;
    unpriced: Set<string>;
    times: number;
  },
): void {
  for (const need of needsOf(step, build, timeline)) {
    if (need.what === 'glue') {
      const rate = rates.glue?.find(({ adhesive }) => adhesive === need.adhesive)?.minor;
      const name = needName(need, build.shop);
      if (rate === undefined) {
        unpriced.add(name);
        continue;
      }
      const grams = need.grams * times;
      const cost = (grams / 1000) * rate;
      // What was weighed is what it took.
      const weighed = build.checks?.findLast(({ step: at, kind }) => at === step.id && kind === 'glueUsed');
      const real = weighed ? 1000 * weighed.values[0] : step.done ? grams : 0;
      add(
        {
          group: 'glue',
          words: `${name}: ${stepTitle(build, step)}`,
          step: step.id,
          amount: { is: 'grams', planned: grams, ...(real > 0 ? { real } : {}) },
        },
        cost,
        (real / 1000) * rate,
      );
    } else if (need.what === 'supply' && need.amount !== undefined) {
      const name = needName(need, kit);
      const priced = kit.supplies?.find(
        ({ kind, size, priceMinor, currency: own }) =>
          kind === need.kind &&
          (!need.size || !size || size === need.size) &&
          priceMinor !== undefined &&
          (own ?? currency) === currency,
      );
      if (priced?.priceMinor === undefined) {
        unpriced.add(name);
        continue;
      }
      const amount = need.amount * times;
      const group: CostGroup =
        need.kind === 'abrasive' ? 'abrasives' : need.kind === 'finish' ? 'finish' : 'hardware';
      add(
        {
          group,
          words: `${name}: ${stepTitle(build, step)}`,
          step: step.id,
          amount: {
            is: group === 'abrasives' ? 'sheets' : group === 'finish' ? 'ml' : 'pieces',
            planned: amount,
            ...(step.done ? { real: amount } : {}),
          },
        },
        amount * priced.priceMinor,
        step.done ? amount * priced.priceMinor : 0,
      );
    }
  }
}

/** Metres that a blade or knives cut at a step: of a saw by the wood its kerf took, of a machine by what goes through it. */
export function metresOf(
  step: Step,
  entry: TimelineStep,
  build: BuildDocument,
): { tool: string; metres: number } | undefined {
  const saw = build.shop.saws.find(({ id }) => id === sawIdOf(step));
  if (saw) {
    const high = greatestSize([...entry.entered, ...entry.pieces], 'thickness');
    const kerf = lostTo(entry.lost, 'kerf');
    return saw.kerf.mm > 0 && high > 0 && kerf > 0
      ? { tool: saw.id, metres: kerf / (saw.kerf.mm * high) / MM_PER_M }
      : undefined;
  }
  const machine = machineOfStep(step, build);
  const passes = machine && passCount(step, entry, build);
  if (!machine || !passes || machineFacts(machine).away) return undefined;
  const length = sumOf(entry.entered, ({ blank }) => extents(blank)[0]);
  return { tool: machine.id, metres: (passes * length) / MM_PER_M };
}

function edgeLine(
  step: Step,
  entry: TimelineStep,
  { build, rates, add, times }: { build: BuildDocument; rates: Rates; add: Add; times: number },
): void {
  const run = metresOf(step, entry, build);
  const rate = run && rates.edges?.find(({ tool }) => tool === run.tool);
  if (!run || !rate || !(rate.metres > 0)) return;
  const metres = run.metres * times;
  const cost = (metres / rate.metres) * rate.minor;
  add(
    {
      group: 'edges',
      words: `${toolOf(step, build)?.name ?? run.tool}: ${stepTitle(build, step)}`,
      step: step.id,
      amount: { is: 'metres', planned: metres, ...(step.done ? { real: metres } : {}) },
    },
    cost,
    step.done ? cost : 0,
  );
}

/** Hands by the hour and by whose they were; the machine by the same time. */
function handLines(
  step: Step,
  {
    build,
    kit,
    rates,
    add,
    unpriced,
    minutes,
  }: {
    build: BuildDocument;
    kit: ShopSnapshot;
    rates: Rates;
    add: Add;
    unpriced: Set<string>;
    minutes: number;
  },
): void {
  const spells = (step.work ?? []).map((spell) => ({
    ...spell,
    minutes: handsOn({ work: [spell] }, Date.parse(spell.to ?? spell.from) || 0) / 60_000,
  }));
  const real = sumOf(spells, (spell) => spell.minutes);
  if (minutes <= 0 && real <= 0) return;
  const words = stepTitle(build, step);
  const amount = { is: 'minutes' as const, planned: minutes, ...(real > 0 ? { real } : {}) };
  const hour = rates.handMinor;
  if (hour === undefined && spells.every(({ who }) => personHour(kit, rates, who) === undefined))
    unpriced.add('hands by the hour');
  else {
    const paid = sumOf(
      spells,
      (spell) => (spell.minutes / MINUTES_PER_HOUR) * (personHour(kit, rates, spell.who) ?? 0),
    );
    add({ group: 'hands', words, step: step.id, amount }, (minutes / MINUTES_PER_HOUR) * (hour ?? 0), paid);
  }
  const tool = toolOf(step, build);
  const machine = tool && rates.machines?.find((each) => each.tool === tool.id)?.minor;
  if (tool && machine !== undefined)
    add(
      { group: 'machines', words: `${tool.name}: ${words}`, step: step.id, amount },
      (minutes / MINUTES_PER_HOUR) * machine,
      (real / MINUTES_PER_HOUR) * machine,
    );
}

/** People are named where they worked: their rate stands by their id. */
const personHour = (
  { people = [] }: ShopSnapshot,
  rates: Rates,
  who: string | undefined,
): number | undefined => hourOf(rates, people.find(({ name }) => name === who)?.id);

function outsideLine(
  step: Step,
  entry: TimelineStep,
  { build, add, unpriced, times }: { build: BuildDocument; add: Add; unpriced: Set<string>; times: number },
): void {
  const machine = machineOfStep(step, build);
  if (!machine || !machineFacts(machine).away) return;
  if (machine.priceMinor === undefined) unpriced.add(machine.name);
  const pieces = entry.pieces.length * times;
  const cost = pieces * (machine.priceMinor ?? 0) + (machine.transportMinor ?? 0);
  add(
    {
      group: 'outside',
      words: `${machine.name}: ${stepTitle(build, step)}`,
      step: step.id,
      amount: { is: 'pieces', planned: pieces, ...(step.done ? { real: pieces } : {}) },
    },
    cost,
    step.done ? cost : 0,
  );
}
