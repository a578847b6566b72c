import { rising, sumOf, upwards } from '../units';
import type { ShopSnapshot } from '../kit';
import { LIKELY_SD } from './bands';
import { median } from './average';
import { type Drift, driftAfter, hasDrifted, NO_DRIFT } from './drift';
import { estimate, PRACTICE_READINGS } from './estimate';
import { groups } from './groups';
import { levelsOf } from './levels';
import { type Season, SEASONS, seasonOf, type TaughtRow } from './line';
import { LOSS_KINDS, lossOf, practiceOf } from './losses';
import { freshness } from './rows';

/** A row with the job and the moment it comes from. */
export interface DatedRow extends TaughtRow {
  job: string;
  at: string;
  tool?: string | undefined;
  wood?: string | undefined;
}

/** How a loss differs by machine, wood or season: what is told of those that speak for themselves. */
export interface LossLevel {
  by: 'tool' | 'wood' | 'season';
  id: string;
  value: number;
  /** How much of it is its own word, 0 to 1; above one half it is told. */
  own: number;
  readings: number;
}

/** A blade that changed or a scale that was moved, as the readings since then have it. */
export interface Drifted {
  /** Larger than before, or smaller. */
  to: 'above' | 'below';
  /** The first of the readings that lie off, and how far those lie, mm. */
  at: string;
  by: number;
  /** What those readings say by themselves. */
  level: number;
}

/** What the shop really loses of one thing. Means in mm or as a factor; spreads as half of a band that nine in ten lie in. */
export interface Loss {
  id: string;
  is: 'mean' | 'spread';
  unit: 'mm' | 'times';
  name: string;
  how: string;
  /** What stands in the kit, and what the log says; the band that it lies in, nine times in ten. */
  was: number;
  now: number;
  from: number;
  to: number;
  readings: number;
  jobs: number;
  /** Whether it is worth taking over, or telling where it cannot be. */
  matters: boolean;
  /** It can be taken over with one press; else what is done about it is told. */
  takes: boolean;
  advice?: string;
  /** Common practice it was learned from: a mean as six readings, a spread as ten degrees of freedom. */
  practice: number;
  /** What the readings alone say; of a spread, how many degrees of freedom it is known by, practice among them. */
  alone?: number;
  nu?: number;
  levels: LossLevel[];
  drift?: Drifted;
  /** When it was last taken over, and what stood there before. */
  taken?: { at: string; was: number };
}

/** Everything that the log teaches. */
export interface Learnt {
  losses: Loss[];
  /** For each row, in their order, the chance that it is no gross error. */
  weights: number[];
}

/** An offer wants so many readings, out of so many jobs. */
const OFFER_READINGS = 6;
const OFFER_JOBS = 3;
/** And a change that is so many standard errors, and weighs so much of what the size may be off by. */
const OFFER_SE = 2.5;
const OFFER_SHARE = 1 / 4;
/** A spread is offered from this ratio on. */
const OFFER_RATIO = 1.2;
/** Drift is looked for from so many jobs on. */
const DRIFT_JOBS = 10;
/** Against an estimate where practice counts so many readings: against the shrunken one there are six times the false alarms. */
const DRIFT_PRACTICE = 0.5;
const TOLD_FROM = 0.5;

/** Common practice of a mean or spread as rows have it: a factor by its logarithm, a spread by its standard deviation. */
function priorOf(shop: ShopSnapshot, id: string): number | undefined {
  const loss = lossOf(id);
  const practice = practiceOf(shop, id);
  if (!loss || practice === undefined) return undefined;
  if (loss.room.is === 'spread') return practice / LIKELY_SD;
  return loss.room.unit === 'times' ? Math.log(Math.max(practice, 1e-6)) : practice;
}

/**
 * What the shop really loses, out of rows of all its jobs, as it stands at a moment. Rows of machines that the kit has no more are left
 * out, and so are those of a blade from before it was changed. Says nothing where there is nothing; never throws for readings.
 */
export function learn(rows: readonly DatedRow[], shop: ShopSnapshot, now: number): Learnt {
  const weights = rows.map(() => 1);
  const losses: Loss[] = [];
  for (const group of groups(rows)) {
    const kept = group.filter((i) => counts(rows[i], shop));
    if (kept.length === 0) continue;
    const own = kept.map((i) => adjusted(rows[i], shop, now));
    const all = (of: 'a' | 'b') => [...new Set(own.flatMap((row) => Object.keys(row[of])))];
    const means = all('a').map((id) => ({
      id,
      practice: priorOf(shop, id) ?? 0,
      tau: lossOf(id)?.room.tau,
    }));
    const spreads = all('b').flatMap((id) => {
      const practice = priorOf(shop, id) ?? 0;
      return practice > 0 ? [{ id, practice }] : [];
    });
    const sixth = own.map(({ at }) => Date.parse(at)).toSorted(upwards)[PRACTICE_READINGS - 1];
    const phi = sixth === undefined ? 1 : freshness(now - sixth);
    const found = estimate({
      rows: own,
      means: means.map(({ id, practice, tau }) => ({ id, practice, ...(tau === undefined ? {} : { tau }) })),
      spreads,
      phi,
    });
    kept.forEach((i, at) => (weights[i] = found.weights[at]));
    const d = new Map(found.means.map((mean, j) => [mean.id, mean.value - means[j].practice]));
    const s2 = new Map(found.spreads.map(({ id, value }) => [id, value ** 2]));
    for (const mean of found.means)
      losses.push(...meanLoss(mean, { rows: own, weights: found.weights, d, s2, shop }));
    for (const spread of found.spreads)
      losses.push(...spreadLoss(spread, { rows: own, weights: found.weights, shop }));
  }
  const order = (id: string) => LOSS_KINDS.findIndex((kind) => kind === lossOf(id)?.kind);
  losses.sort(
    (x, y) =>
      Number(y.matters) - Number(x.matters) || order(x.id) - order(y.id) || x.name.localeCompare(y.name),
  );
  return { losses, weights };
}

/** A row tells of what is in the kit, and of what has not been renewed since. */
function counts({ a, b, at }: DatedRow, shop: ShopSnapshot): boolean {
  const ids = [...Object.keys(a), ...Object.keys(b)];
  return (
    ids.length > 0 &&
    ids.every((id) => priorOf(shop, id) !== undefined) &&
    ids.every((id) => {
      const since = shop.renewed?.findLast((each) => each.id === id)?.at;
      return since === undefined || Date.parse(at) >= Date.parse(since);
    })
  );
}

/** A row as it would stand had it been predicted with common practice, with what is left of it. */
function adjusted(row: DatedRow, shop: ShopSnapshot, now: number): DatedRow {
  const more = Object.entries(row.a).reduce((sum, [id, share]) => {
    const used = row.used[id];
    return used === undefined ? sum : sum + share * (used - (priorOf(shop, id) ?? used));
  }, 0);
  return { ...row, y: row.y + (row.df ? 0 : more), f: (row.f ?? 1) * freshness(now - Date.parse(row.at)) };
}

interface Around {
  rows: readonly DatedRow[];
  weights: readonly number[];
  shop: ShopSnapshot;
}
const unlog = (unit: 'mm' | 'times', value: number): number => (unit === 'times' ? Math.exp(value) : value);
const inLog = (unit: 'mm' | 'times', value: number): number =>
  unit === 'times' ? Math.log(Math.max(value, 1e-6)) : value;
const jobsOf = (rows: readonly DatedRow[]): number => new Set(rows.map(({ job }) => job)).size;

function meanLoss(
  { id, value, se }: { id: string; value: number; se: number },
  {
    rows,
    weights,
    d,
    s2,
    shop,
  }: Around & { d: ReadonlyMap<string, number>; s2: ReadonlyMap<string, number> },
): Loss[] {
  const loss = lossOf(id);
  const standing = loss?.room.standing(shop, loss.of);
  if (!loss || !standing) return [];
  const { room } = loss;
  const telling = rows.flatMap((row, i) => ((row.a[id] ?? 0) !== 0 ? [{ row, w: weights[i] }] : []));
  const good = telling.filter(({ w }) => w >= 0.5).map(({ row }) => row);
  const was = inLog(room.unit, standing.value);
  const share = telling.length > 0 ? median(telling.map(({ row }) => Math.abs(row.a[id]))) : 0;
  const change = Math.abs(value - was);
  const matters =
    good.length >= OFFER_READINGS &&
    jobsOf(good) >= OFFER_JOBS &&
    change >= OFFER_SE * se &&
    change * share >= (room.likely ?? 0) * OFFER_SHARE;
  const parts = telling.map(({ row, w }) => ({
    row,
    w,
    // What this one alone says, with all else as it was found.
    own:
      (row.y - sumOf(Object.entries(row.a), ([each, a]) => (each === id ? 0 : a * (d.get(each) ?? 0)))) /
      row.a[id],
    v: (sumOf(Object.entries(row.b), ([each, b]) => b * (s2.get(each) ?? 0)) + row.g2) / row.a[id] ** 2,
  }));
  const taken = shop.learned?.findLast((each) => each.id === id);
  return [
    {
      id,
      is: 'mean',
      unit: room.unit,
      name: room.name(shop, loss.of),
      how: room.how,
      was: standing.value,
      now: unlog(room.unit, value),
      from: unlog(room.unit, value - LIKELY_SD * se),
      to: unlog(room.unit, value + LIKELY_SD * se),
      readings: good.length,
      jobs: jobsOf(good),
      matters,
      takes: room.put !== undefined,
      ...(room.advice === undefined ? {} : { advice: room.advice }),
      practice: practiceOf(shop, id) ?? standing.value,
      ...aloneOf(parts, { unit: room.unit, practice: inLog(room.unit, practiceOf(shop, id) ?? 0) }),
      levels: levelsIn(parts, room.unit, inLog(room.unit, practiceOf(shop, id) ?? 0)),
      ...(room.shared ? {} : driftIn(parts, room.unit, inLog(room.unit, practiceOf(shop, id) ?? 0))),
      ...(taken ? { taken: { at: taken.at, was: taken.was } } : {}),
    },
  ];
}

interface Part {
  row: DatedRow;
  w: number;
  own: number;
  v: number;
}

/** What readings say without common practice, by how finely each was read; nothing where none is believed. */
function aloneOf(
  parts: readonly Part[],
  { unit, practice }: { unit: 'mm' | 'times'; practice: number },
): { alone?: number } {
  const usable = parts.filter(({ v, row }) => v > 0 && !row.df);
  const weight = sumOf(usable, ({ w, v, row }) => (w * (row.f ?? 1)) / v);
  if (!(weight > 0)) return {};
  const mean = sumOf(usable, ({ w, v, own, row }) => (own * w * (row.f ?? 1)) / v) / weight;
  return { alone: unlog(unit, practice + mean) };
}

/** Machines, woods and seasons that differ, those that speak for themselves. */
function levelsIn(parts: readonly Part[], unit: 'mm' | 'times', practice: number): LossLevel[] {
  const good = parts.filter(({ w, row }) => w >= 0.5 && !row.df);
  if (good.length < OFFER_READINGS) return [];
  const spread = Math.sqrt(median(good.map(({ v }) => v)));
  if (!(spread > 0)) return [];
  const of: Record<LossLevel['by'], (row: DatedRow) => string | undefined> = {
    tool: ({ tool }) => tool,
    wood: ({ wood }) => wood,
    season: ({ at }): Season => seasonOf(at),
  };
  return (Object.keys(of) as LossLevel['by'][]).flatMap((by) => {
    const groups = new Map<string, number[]>();
    for (const { row, own } of good) {
      const id = of[by](row);
      if (id !== undefined) groups.set(id, [...(groups.get(id) ?? []), own]);
    }
    if (groups.size < 2) return [];
    const list = [...groups].map(([id, all]) => ({
      id,
      readings: all.length,
      mean: sumOf(all) / all.length,
    }));
    return levelsOf(list, spread)
      .levels.flatMap(({ id, value, own }) =>
        own > TOLD_FROM
          ? [{ by, id, value: unlog(unit, practice + value), own, readings: groups.get(id)?.length ?? 0 }]
          : [],
      )
      .toSorted((x, y) =>
        by === 'season'
          ? SEASONS.indexOf(x.id as Season) - SEASONS.indexOf(y.id as Season)
          : x.value - y.value,
      );
  });
}

/** Whether readings lie to one side of those before, from ten jobs on: a new blade, or a scale that was moved. */
function driftIn(parts: readonly Part[], unit: 'mm' | 'times', practice: number): { drift?: Drifted } {
  const sorted = parts.filter(({ row, v }) => !row.df && v > 0).toSorted(rising((x) => Date.parse(x.row.at)));
  const jobs = new Set<string>();
  let drift: Drift = NO_DRIFT;
  let weight = 0;
  let sum = 0;
  let begins: string | undefined;
  let since: Part[] = [];
  for (const part of sorted) {
    if (jobs.size >= DRIFT_JOBS) {
      const info = weight / Math.max(1, jobs.size);
      const prior = DRIFT_PRACTICE * (info || 1 / part.v);
      const m = sum / (weight + prior);
      const z = (part.own - m) / Math.sqrt(part.v + 1 / (weight + prior));
      const before = drift;
      drift = driftAfter(drift, z);
      if (before.above === 0 && before.below === 0) {
        begins = part.row.at;
        since = [];
      }
      since.push(part);
      const to = hasDrifted(drift);
      if (to && begins !== undefined) {
        const middle = median(since.map(({ own }) => own));
        return { drift: { to, at: begins, by: middle - m, level: unlog(unit, practice + middle) } };
      }
    }
    jobs.add(part.row.job);
    const w = part.w / part.v;
    weight += w;
    sum += w * part.own;
  }
  return {};
}

function spreadLoss(
  { id, value, nu }: { id: string; value: number; nu: number },
  { rows, weights, shop }: Around,
): Loss[] {
  const loss = lossOf(id);
  const standing = loss?.room.standing(shop, loss.of);
  if (!loss || !standing || !(standing.value > 0)) return [];
  const { room } = loss;
  const good = rows.filter((row, i) => (row.b[id] ?? 0) > 0 && weights[i] >= 0.5);
  const likely = value * LIKELY_SD;
  const off = Math.abs(Math.log(likely / standing.value));
  const se = 1 / Math.sqrt(2 * nu);
  const taken = shop.learned?.findLast((each) => each.id === id);
  return [
    {
      id,
      is: 'spread',
      unit: room.unit,
      name: room.name(shop, loss.of),
      how: room.how,
      was: standing.value,
      now: likely,
      from: likely * Math.exp(-LIKELY_SD * se),
      to: likely * Math.exp(LIKELY_SD * se),
      readings: good.length,
      jobs: jobsOf(good),
      matters:
        good.length >= OFFER_READINGS &&
        jobsOf(good) >= OFFER_JOBS &&
        off > Math.max(Math.log(OFFER_RATIO), OFFER_SE * se),
      takes: room.put !== undefined,
      ...(room.advice === undefined ? {} : { advice: room.advice }),
      practice: practiceOf(shop, id) ?? standing.value,
      nu,
      levels: [],
      ...(taken ? { taken: { at: taken.at, was: taken.was } } : {}),
    },
  ];
}
