import { DEFAULT_DISPLAY, type Length } from '../units';
import type { Adhesive } from './adhesives';
import { clampKind, type ClampSet } from './clamps';
import { DEFAULT_CLIMATE, type Climate } from './climate';
import type { Allowances, Paper, Practice, ShopSnapshot } from './kit';
import { type Machine, machineFacts, type Saw, usualMachine, usualSaw } from './machines';
import { DEFAULT_GLUE_PRACTICE, type GluePractice, type PaidMachine } from './practice';
import type { Spread } from './spread';
import { typed } from './typed';

const spread = (likely: string, worst: string): Spread => ({
  likely: typed(likely),
  worst: typed(worst),
  basis: 'common practice',
});

/*
 * Limits: common practice; the machine's own manual comes first. Kerfs: full 1/8 in and thin 3/32 in blades, common
 * practice. Spreads: common practice, to be replaced by what the shop measures.
 */
const saws: Saw[] = [
  usualSaw('table saw', 'table-full', 'Table saw, full kerf'),
  {
    ...usualSaw('table saw', 'table-thin', 'Table saw, thin kerf'),
    kerf: typed('3/32'),
    setting: spread('0.01', '0.02'),
  },
  usualSaw('bandsaw', 'bandsaw'),
  usualSaw('track saw', 'track'),
];

const machines: Machine[] = [
  usualMachine('jointer', 'jointer'),
  usualMachine('planer', 'planer'),
  usualMachine('drum sander', 'drum'),
  usualMachine('router sled', 'sled'),
  usualMachine('hand planes', 'hand'),
];

const allowances: Allowances = {
  millFace: typed('1/16'),
  millEdge: typed('1/32'),
  flattenPanel: typed('1/8'),
  flattenBlock: typed('1/8'),
  trimEnd: typed('3/16'),
  trimEdge: typed('3/16'),
  jointEdge: typed('1/16'),
  sliceHead: typed('1/2'),
  sliceTail: typed('3'),
};

/** A small shop, heated to about 8 % wood moisture (common practice), with the usual machines, as a starting point. Every value can be changed in the Kit. */
export const defaultShop = (name: string): ShopSnapshot => ({
  name,
  display: DEFAULT_DISPLAY,
  settingStep: typed('1/32'),
  saws: structuredClone(saws),
  machines: structuredClone(machines),
  allowances: structuredClone(allowances),
  noticeableStep: typed('1/64'),
  woodMoisturePct: 8,
});

/** Strips narrower than this are ripped with care, until the shop says otherwise: 3/8 in (common practice). */
export const narrowRipOf = ({ narrowRip }: ShopSnapshot): Length => narrowRip ?? DEFAULT_NARROW_RIP;
const DEFAULT_NARROW_RIP = typed('3/8');

/** What a shop prints on: where it has not said, Letter where it measures in inches, else A4 (common practice). */
export const paperOf = ({ paper, display }: ShopSnapshot): Paper =>
  paper ?? (display.system === 'inch' ? 'letter' : 'a4');

/** What a shop does until it says otherwise: best faces, and figure before planing. */
export const DEFAULT_PRACTICE: Practice = { rings: 'bestFaces', first: 'figure' };

/** A shop's practice, with the defaults where it has not chosen. */
export const practiceOf = (shop: ShopSnapshot): Practice => shop.practice ?? DEFAULT_PRACTICE;

/** Clamps alike with the usual pads of their kind; the opening as it is typed. */
export const clampsAlike = (
  id: string,
  name: string,
  kind: string,
  { count, opening, forceN }: { count: number; opening: string; forceN: number },
): ClampSet => {
  const [along, across] = clampKind(kind).padMm;
  return {
    id,
    name,
    kind,
    count,
    opening: typed(opening),
    forceN,
    padLength: { mm: along },
    padWidth: { mm: across },
  };
};

/** What a small shop has on its clamp rack; forces from the middle of what a hand reaches (from memory). */
export const DEFAULT_CLAMPS: readonly ClampSet[] = [
  clampsAlike('parallel-long', 'Parallel-jaw clamps, long', 'parallel_jaw', {
    count: 6,
    opening: '40',
    forceN: 3000,
  }),
  clampsAlike('parallel-short', 'Parallel-jaw clamps, short', 'parallel_jaw', {
    count: 8,
    opening: '24',
    forceN: 3000,
  }),
  clampsAlike('pipe', 'Pipe clamps', 'pipe_three_quarter', { count: 6, opening: '50', forceN: 3500 }),
  clampsAlike('bar', 'Bar clamps', 'f_heavy', { count: 8, opening: '12', forceN: 2500 }),
];

/** What stands on a small shop's shelf. */
export const DEFAULT_ADHESIVES: readonly Adhesive[] = [
  { id: 'water-resistant', name: 'Water-resistant PVA', class: 'pva_crosslink_d3', foodOk: true },
  { id: 'yellow', name: 'Yellow PVA', class: 'pva_yellow' },
  { id: 'slow', name: 'Liquid hide glue', class: 'hide_liquid' },
  { id: 'epoxy', name: 'Epoxy, slow hardener', class: 'epoxy_rt', openMin: 30, closedMin: 60 },
];

/** What a shop glues with and how, with a small shop's where it has not said. */
export const clampsOf = (shop: ShopSnapshot): readonly ClampSet[] => shop.clamps ?? DEFAULT_CLAMPS;
/** The bottles of a shop, a small shop's where it has not said. */
export const adhesivesOf = (shop: ShopSnapshot): readonly Adhesive[] => shop.adhesives ?? DEFAULT_ADHESIVES;
/** The air of a shop, likewise. */
export const climateOf = (shop: ShopSnapshot): Climate => shop.climate ?? DEFAULT_CLIMATE;
/** Days that a piece is away in another shop where nobody said, a guess. */
export const AWAY_DAYS = 7;
const practices = new WeakMap<ShopSnapshot, GluePractice>();

/** The machine of another shop that a kit has, as its practice of wide panels knows it; undefined where it has none. */
export function paidMachineOf({ machines }: Pick<ShopSnapshot, 'machines'>): PaidMachine | undefined {
  const away = machines.find((machine) => machineFacts(machine).away);
  return away && { maxWidth: away.maxWidth, days: away.days ?? AWAY_DAYS, priceMinor: away.priceMinor ?? 0 };
}

/** What the minutes of a glue-up's acts rest on, in words. */
export function paceBasis(shop: ShopSnapshot): string {
  const { timed, ...minutes } = gluingOf(shop).pace;
  if (timed > 0) return `this shop’s own, from ${timed} dry runs`;
  const { timed: _none, ...usual } = DEFAULT_GLUE_PRACTICE.pace;
  const own = Object.entries(usual).some(([act, value]) => minutes[act as keyof typeof minutes] !== value);
  return own ? 'this shop’s own' : 'a guess until dry runs are timed';
}

/** How a shop glues, likewise; a paid machine is the one among its machines, where there is one. */
export function gluingOf(shop: ShopSnapshot): GluePractice {
  const own = shop.gluing ?? DEFAULT_GLUE_PRACTICE;
  const paid = paidMachineOf(shop);
  if (!paid) return own;
  const known = practices.get(shop);
  if (known) return known;
  const practice = { ...own, paid };
  practices.set(shop, practice);
  return practice;
}
