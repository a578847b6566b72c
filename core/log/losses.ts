import type { PaceAct } from '../document';
import {
  type Adhesive,
  adhesiveFacts,
  type AllowanceName,
  ALLOWANCES,
  DEFAULT_GLUE_PRACTICE,
  gluingOf,
  type Pace,
  PACE_LIMITS,
  paceOf,
  type Saw,
  type ShopSnapshot,
  type Spread,
} from '../kit';
import { STEP_ROOMS } from '../steps';
import { LIKELY_SD } from './bands';

/* What a shop can learn of itself: one descriptor a kind, and the kit's own fields behind it. */

/** A value as the log found it: in mm, or as a factor; `likely` is how surely, nine times in ten. */
export interface FoundValue {
  value: number;
  likely: number;
}
/** What stands in the kit. */
export interface Standing {
  value: number;
  spread?: Spread;
}

/** A kind of loss: a mean, or a spread. */
export interface LossRoom {
  is: 'mean' | 'spread';
  /** Lengths are told in the shop's units; a factor is told as such. A factor is learned in its logarithm. */
  unit: 'mm' | 'times';
  /** How far a mean is known by common practice, nine times in ten: a change is weighed against it. */
  likely?: number;
  /** Keeps poor gauges from teaching a mean: mm, or of the logarithm. Measured by simulation. */
  tau?: number;
  /** What it is called, of one saw, machine or kind of step. */
  name: (shop: ShopSnapshot, of: string) => string;
  /** What teaches it, for those who ask. */
  how: string;
  /** What stands in the kit; undefined where the kit has it no more: a machine that was sold. */
  standing: (shop: ShopSnapshot, of: string) => Standing | undefined;
  /** The kit with it. Missing where it can only be told: what a scale is off by is dialled by hand. */
  put?: (shop: ShopSnapshot, of: string, found: { value: number; spread?: Spread }) => ShopSnapshot;
  /** Readings of one day go together: nothing that changed is looked for in them. */
  shared?: true;
  /** What is done about it where it can only be told. */
  advice?: string;
}

const SHOPS_LOG = "this shop's log";
/** How far pieces of one setting scatter, nine times in ten, mm; from memory of common practice. */
export const PIECE_LIKELY_MM = 0.08;
/** How far minutes of a step scatter: the standard deviation of their logarithm, act and day together. */
export const PACE_SD = 0.4;
/** The same of one act of a glue-up, and of the day that its acts share; guesses that make PACE_SD together. */
export const ACT_SD = 0.37;
export const DAY_SD = 0.15;
/** How far glue scatters from one glue-up to the next: the standard deviation of its logarithm; a guess. */
export const GLUE_SD = 0.2;
/** Factors nearer than this are one. */
const SAME_FACTOR = 1e-9;
/** What a bottle's class is spread at, g/m2. */
const usualSpread = ({ gPerM2: _own, ...bottle }: Adhesive): number => adhesiveFacts(bottle).typicalGPerM2;
/** Joints and scales are not off by common practice. */
const NOT_OFF: Standing = { value: 0 };
const sawOfKit = ({ saws }: ShopSnapshot, of: string): Saw | undefined => saws.find(({ id }) => id === of);
const toolOfKit = (shop: ShopSnapshot, of: string) =>
  sawOfKit(shop, of) ?? shop.machines.find(({ id }) => id === of);
const toolName = (shop: ShopSnapshot, of: string): string => toolOfKit(shop, of)?.name ?? of;
const withTool = (shop: ShopSnapshot, of: string, setting: Spread): ShopSnapshot => ({
  ...shop,
  saws: shop.saws.map((saw) => (saw.id === of ? { ...saw, setting } : saw)),
  machines: shop.machines.map((machine) => (machine.id === of ? { ...machine, setting } : machine)),
});
const isAllowance = (name: string): name is AllowanceName => name in ALLOWANCES;
const of2 = (of: string): [string, string] => {
  const at = of.lastIndexOf(':');
  return [of.slice(0, at), of.slice(at + 1)];
};
const USES: Readonly<Record<string, string>> = {
  fence: 'the fence',
  stop: 'the stop',
  trim: 'what it is trimmed by',
  scale: 'the scale',
};
/** Minutes of an act: what it is called, and where they stand in the kit's pace. */
const ACTS: Record<PaceAct, { name: string; fields: readonly (keyof Pace)[] }> = {
  spread: { name: 'spreading a joint', fields: ['spreading', 'jointMin'] },
  place: { name: 'laying a part', fields: ['placeMin'] },
  align: { name: 'bringing a joint flush', fields: ['alignMin'] },
  aid: { name: 'setting an aid', fields: ['aidMin'] },
  clamp: { name: 'setting a clamp', fields: ['clampMin'] },
  caul: { name: 'setting a pair of cauls', fields: ['caulMin'] },
};
/** What an act of a glue-up is called. */
export const actWords = (act: PaceAct): string => ACTS[act].name;
const isAct = (act: string): act is PaceAct => act in ACTS;
/** Minutes of an act are held within these, as the kit can hold them. */
const ACT_LIMITS = { least: 0.01, most: 50 } as const;
const SCATTERS: Readonly<Record<string, { name: string; sd: number }>> = {
  minutes: { name: 'How far minutes scatter', sd: PACE_SD },
  act: { name: 'How far minutes of an act scatter', sd: ACT_SD },
  glue: { name: 'How far glue scatters', sd: GLUE_SD },
};
const stepWords = (kind: string): string => STEP_ROOMS.find((room) => room.kind === kind)?.name ?? kind;

/** Every kind of loss. */
export const LOSSES = {
  kerf: {
    is: 'mean',
    unit: 'mm',
    likely: 0.1,
    tau: 0.25,
    name: (shop, of) => `Kerf of ${toolName(shop, of)}`,
    how: 'The slot of a test cut; what is left of a blank after its slices; leaves that were resawn.',
    standing: (shop, of) => {
      const saw = sawOfKit(shop, of);
      return saw && { value: saw.kerf.mm, ...(saw.kerfOff ? { spread: saw.kerfOff } : {}) };
    },
    put: (shop, of, { value, spread }) => ({
      ...shop,
      saws: shop.saws.map(({ kerfOff: _before, ...saw }) =>
        saw.id === of
          ? { ...saw, kerf: { mm: value }, ...(spread ? { kerfOff: spread } : {}) }
          : { ...saw, ...(_before ? { kerfOff: _before } : {}) },
      ),
    }),
  },
  takeOff: {
    is: 'mean',
    unit: 'mm',
    likely: 0.25,
    tau: 1,
    name: (_shop, of) => (isAllowance(of) ? ALLOWANCES[of].title : of),
    how: 'A size before and after: what came off between the two readings.',
    standing: ({ allowances }, of) => (isAllowance(of) ? { value: allowances[of].mm } : undefined),
    put: (shop, of, { value }) => ({ ...shop, allowances: { ...shop.allowances, [of]: { mm: value } } }),
  },
  bias: {
    is: 'mean',
    unit: 'mm',
    likely: 0.2,
    tau: 0.3,
    name: (shop, of) => {
      const [tool, use] = of2(of);
      return `${toolName(shop, tool)}: ${USES[use] ?? use} is off by`;
    },
    how: 'Pieces of one setting, against what was set.',
    standing: (shop, of) => (toolOfKit(shop, of2(of)[0]) ? NOT_OFF : undefined),
    advice: 'More than nothing: pieces come out larger than set. Move the scale, or set so much less.',
  },
  joint: {
    is: 'mean',
    unit: 'mm',
    likely: 0.05,
    tau: 0.06,
    name: () => 'Gain of width at each glued joint',
    how: 'The width of a panel against the sum of its strips.',
    standing: () => NOT_OFF,
    advice: 'More than nothing: joints add width, by glue or by strips that stand out of line.',
  },
  pace: {
    is: 'mean',
    unit: 'times',
    likely: 0.4,
    name: (_shop, of) => `Minutes: ${stepWords(of)}`,
    how: 'Minutes that hands were on a step, against those planned.',
    standing: (shop, of) => ({ value: paceOf(shop, of) }),
    put: (shop, of, { value }) => {
      const factor = Math.min(PACE_LIMITS.most, Math.max(PACE_LIMITS.least, value));
      const others = (shop.paces ?? []).filter(({ kind }) => kind !== of);
      const paces = factor === 1 ? others : [...others, { kind: of, factor }];
      const { paces: _before, ...rest } = shop;
      return paces.length > 0 ? { ...rest, paces } : rest;
    },
  },
  act: {
    is: 'mean',
    unit: 'times',
    likely: 0.4,
    name: (_shop, of) => `Minutes of a glue-up: ${isAct(of) ? ACTS[of].name : of}`,
    how: 'Acts of dry runs that were timed, against those planned.',
    shared: true,
    standing: (shop, of) => {
      const [field] = isAct(of) ? ACTS[of].fields : [];
      const value = field ? gluingOf(shop).pace[field] / DEFAULT_GLUE_PRACTICE.pace[field] : 0;
      // Nobody takes so many times as long as no time at all.
      return value > 0 ? { value } : undefined;
    },
    put: (shop, of, { value }) => {
      if (!isAct(of)) return shop;
      const gluing = gluingOf(shop);
      const [first] = ACTS[of].fields;
      if (!(gluing.pace[first] > 0)) return shop;
      const times = (value * DEFAULT_GLUE_PRACTICE.pace[first]) / gluing.pace[first];
      const held = (minutes: number) => Math.min(ACT_LIMITS.most, Math.max(ACT_LIMITS.least, minutes));
      const moved = ACTS[of].fields.map((field) => [field, held(gluing.pace[field] * times)] as const);
      return { ...shop, gluing: { ...gluing, pace: { ...gluing.pace, ...Object.fromEntries(moved) } } };
    },
  },
  glue: {
    is: 'mean',
    unit: 'times',
    likely: 0.2,
    name: (shop, of) => `Glue taken: ${shop.adhesives?.find(({ id }) => id === of)?.name ?? of}`,
    how: 'Glue that was weighed at glue-ups, against what was planned.',
    standing: (shop, of) => {
      const bottle = shop.adhesives?.find(({ id }) => id === of);
      return bottle && { value: (bottle.gPerM2 ?? usualSpread(bottle)) / usualSpread(bottle) };
    },
    put: (shop, of, { value }) => ({
      ...shop,
      adhesives: (shop.adhesives ?? []).map(({ gPerM2: before, ...bottle }) => {
        if (bottle.id !== of) return before === undefined ? bottle : { ...bottle, gPerM2: before };
        // As its class has it, it says nothing of its own.
        return Math.abs(value - 1) < SAME_FACTOR
          ? bottle
          : { ...bottle, gPerM2: Math.min(1000, Math.max(10, usualSpread(bottle) * value)) };
      }),
    }),
  },
  setting: {
    is: 'spread',
    unit: 'mm',
    name: (shop, of) => `${toolName(shop, of)}: how far settings are off`,
    how: 'How far each setting was off the one before, nine times in ten.',
    standing: (shop, of) => {
      const tool = toolOfKit(shop, of);
      return tool && { value: tool.setting.likely.mm, spread: tool.setting };
    },
    put: (shop, of, { value, spread }) => {
      const before = toolOfKit(shop, of)?.setting;
      const times = before && before.likely.mm > 0 ? before.worst.mm / before.likely.mm : 2;
      return withTool(
        shop,
        of,
        spread ?? { likely: { mm: value }, worst: { mm: value * times }, basis: SHOPS_LOG },
      );
    },
  },
  piece: {
    is: 'spread',
    unit: 'mm',
    name: () => 'How far pieces of one setting lie apart',
    how: 'Pieces of one setting, against their mean.',
    standing: () => ({ value: PIECE_LIKELY_MM }),
    advice: 'How straight and steady pieces pass the blade: featherboards and a clean fence bring it down.',
  },
  scatter: {
    is: 'spread',
    unit: 'times',
    name: (_shop, of) => SCATTERS[of]?.name ?? of,
    how: 'Each one against what this shop takes on average.',
    standing: (_shop, of) => ({ value: (SCATTERS[of]?.sd ?? PACE_SD) * LIKELY_SD }),
    advice: 'Pauses that nobody pressed make minutes scatter: press “Pause” when you leave the step.',
  },
} satisfies Record<string, LossRoom>;
export type LossKind = keyof typeof LOSSES;
export const LOSS_KINDS = Object.keys(LOSSES) as LossKind[];
/** A loss by its kind and whose it is. */
export type LossId = `${LossKind}:${string}`;

/** The kind of a loss, its descriptor, and whose it is; undefined where it is none. */
export function lossOf(id: string): { kind: LossKind; room: LossRoom; of: string } | undefined {
  const at = id.indexOf(':');
  const kind = id.slice(0, at);
  return at > 0 && Object.hasOwn(LOSSES, kind)
    ? { kind: kind as LossKind, room: LOSSES[kind as LossKind], of: id.slice(at + 1) }
    : undefined;
}

/** A loss taken over into the kit, with what stood there before. The kit as it is where it cannot be. */
export function takeOver(
  shop: ShopSnapshot,
  id: string,
  found: FoundValue & { readings: number },
  at: string,
): ShopSnapshot {
  const loss = lossOf(id);
  const before = loss?.room.standing(shop, loss.of);
  if (!loss?.room.put || !before) return shop;
  const spread: Spread | undefined =
    loss.kind === 'kerf'
      ? { likely: { mm: found.likely }, worst: { mm: 2.5 * found.likely }, basis: SHOPS_LOG }
      : undefined;
  const put = loss.room.put(shop, loss.of, { value: found.value, ...(spread ? { spread } : {}) });
  const entry = {
    id,
    at,
    was: before.value,
    is: found.value,
    readings: found.readings,
    ...(before.spread ? { spreadWas: before.spread } : {}),
  };
  return { ...put, learned: [...(shop.learned ?? []), entry] };
}

/** The last time it was taken over is taken back: what stood in the kit before stands there again. */
export function takeBack(shop: ShopSnapshot, id: string): ShopSnapshot {
  const last = shop.learned?.findLast((each) => each.id === id);
  const loss = lossOf(id);
  if (!last || !loss?.room.put) return shop;
  const put = loss.room.put(shop, loss.of, {
    value: last.was,
    ...(last.spreadWas ? { spread: last.spreadWas } : {}),
  });
  const rest = (shop.learned ?? []).filter((each) => each !== last);
  const { learned: _learned, ...others } = put;
  return rest.length > 0 ? { ...others, learned: rest } : others;
}

/** What a mean is by common practice, or by what was entered first: it counts as six readings, whatever was taken over since. */
export function practiceOf(shop: ShopSnapshot, id: string): number | undefined {
  const loss = lossOf(id);
  const now = loss?.room.standing(shop, loss.of)?.value;
  if (now === undefined) return undefined;
  const renewed = shop.renewed?.findLast((each) => each.id === id);
  if (renewed) return renewed.from;
  return shop.learned?.find((each) => each.id === id)?.was ?? now;
}
