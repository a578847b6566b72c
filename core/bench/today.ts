import { inTurn, rising } from '../units';
import { type BuildDocument, gistOf, jobState, type Phrase } from '../document';
import {
  climateOf,
  clampsOf,
  equilibriumMoisture,
  gluingOf,
  isClimateKnown,
  missingWords,
  type ShopSnapshot,
} from '../kit';
import { run } from '../run';
import { stepTitle, type Timeline } from '../steps';
import { toBuy } from './needs';
import { promisedOf, type PromisedJob } from './promised';
import { schedule, type ScheduledTask, type ShopRoom } from './schedule';
import { tasksOf } from './tasks';

/** A job as the calendar takes it. */
export interface CalendarJob {
  id: string;
  build: BuildDocument;
}

/** Ideas that stand on the calendar beside what was begun: the newest of them. */
const NEWEST_IDEAS = 2;

/**
 * The jobs that stand on the calendar without being asked for: those begun, promised, with boards chosen or a time set, and the
 * two newest of the others, since nine ideas at once are no plan. `jobs` are in their order, the oldest first.
 */
export function onCalendar<J extends { build: BuildDocument }>(jobs: readonly J[], now: number): J[] {
  const isIdea = ({ build }: J) =>
    build.promised === undefined && jobState(gistOf(build), false, now) === 'idea';
  const newest = new Set(jobs.filter(isIdea).slice(-NEWEST_IDEAS));
  return jobs.filter((job) => !isIdea(job) || newest.has(job));
}

/** What a shop needs to know this morning. */
export interface Today {
  /** What waits by itself just now: in clamps, drying, away. What ends first stands first. */
  waiting: ScheduledTask[];
  /** The next work on each job, in the order of the calendar. */
  next: ScheduledTask[];
  /** What the open steps of a job want and its kit has not. */
  short: { job: string; what: Phrase[] }[];
  /** Steps whose wished beginning has passed while they are not done. */
  late: { job: string; step: string; name: string; begin: number }[];
  /** The jobs that are promised for a day, the latest first. */
  promised: PromisedJob[];
}

/** A job with its open steps as tasks, played once. */
interface Played extends CalendarJob {
  timeline: Timeline;
}

const lateIn = ({ id, build }: CalendarJob, now: number): Today['late'] =>
  build.steps.flatMap((step) => {
    const begin = step.begin && !step.done && !step.off ? Date.parse(step.begin) : Number.NaN;
    return begin < now ? [{ job: id, step: step.id, name: stepTitle(build, step), begin }] : [];
  });

/** What is in clamps, what comes next, what is short and what is late, of the jobs on the calendar at a moment (ms). */
export function todayOf(jobs: readonly CalendarJob[], now: number, room: ShopRoom): Today {
  const played: Played[] = jobs.map(({ id, build }) => ({ id, build, timeline: run(build) }));
  const tasks = schedule(
    played.flatMap(({ id, build, timeline }) => tasksOf(id, build, timeline)),
    now,
    room,
  );
  const inOrder = tasks.toSorted(
    inTurn(
      rising(({ from }) => from),
      rising(({ to }) => to),
    ),
  );
  const seen = new Set<string>();
  return {
    waiting: tasks.filter(({ began }) => began !== undefined).toSorted(rising((a) => a.to)),
    next: inOrder.filter(({ job, kind }) => {
      if (kind !== 'work' || seen.has(job)) return false;
      seen.add(job);
      return true;
    }),
    short: played.flatMap(({ id, build, timeline }) =>
      toBuy(build, timeline).map((held) => ({ job: id, what: missingWords(held, build.shop) })),
    ),
    promised: promisedOf(jobs, tasks, room.zone),
    late: played.flatMap((job) => lateIn(job, now)).toSorted(rising((a) => a.begin)),
  };
}

/** Bottles of the shop whose last good day lies before `today`, as YYYY-MM-DD. */
export const pastBottles = ({ adhesives = [] }: ShopSnapshot, today: string) =>
  adhesives.filter(({ expires }) => expires !== undefined && expires < today);

/** What the shop has for its days: hours, benches and clamps. `zone` is the clock it goes by. */
export function roomOfShop(shop: ShopSnapshot, zone: string): ShopRoom {
  const { hours, benches } = gluingOf(shop);
  return {
    hours,
    zone,
    benches,
    people: shop.people ?? [],
    clamps: Object.fromEntries(clampsOf(shop).map(({ id, count }) => [id, count])),
  };
}

/** The clock a shop goes by; `local`, the machine's own, where it has not said. */
export const zoneOf = (shop: ShopSnapshot, local: string): string => gluingOf(shop).hours.zone ?? local;

/** The shop's air: as it was entered, or a heated shop's usual one, and the moisture in % that wood comes to in it, where it is known. */
export interface ShopAir {
  temperatureC: number;
  humidityPct: number;
  isEntered: boolean;
  moisturePct?: number;
}
/** All that stands on the first screen in the morning. */
export interface Morning extends Today {
  zone: string;
  air: ShopAir;
  /** Bottles whose last good day has passed. */
  bottles: { id: string; name: string; expires?: string }[];
  /** Ideas that are not on the calendar. */
  ideas: number;
}

/** What a shop needs to know at a moment (ms) on the day `today` (YYYY-MM-DD) of its jobs, its shelf and its air. */
export function morningOf(
  jobs: readonly CalendarJob[],
  shop: ShopSnapshot,
  { now, today, local }: { now: number; today: string; local: string },
): Morning {
  const zone = zoneOf(shop, local);
  const shown = onCalendar(jobs, now);
  const climate = climateOf(shop);
  return {
    ...todayOf(shown, now, roomOfShop(shop, zone)),
    zone,
    air: {
      temperatureC: climate.temperatureC,
      humidityPct: climate.humidityPct,
      isEntered: shop.climate !== undefined,
      ...(isClimateKnown(climate) ? { moisturePct: equilibriumMoisture(climate) } : {}),
    },
    bottles: pastBottles(shop, today),
    ideas: jobs.length - shown.length,
  };
}
