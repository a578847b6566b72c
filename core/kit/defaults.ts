import { DEFAULT_DISPLAY, parseLength, type Length } from '../units';
import type { Adhesive } from './adhesives';
import { clampKind, type ClampSet } from './clamps';
import { DEFAULT_CLIMATE, type Climate } from './climate';
import type { Allowances, Machine, Practice, Saw, ShopSnapshot, Spread } from './kit';
import { DEFAULT_GLUE_PRACTICE, type GluePractice } from './practice';

/** A length written as a maker would; the defaults below are typed like this so that they read and show as such. */
export function typed(text: string): Length {
  const parsed = parseLength(text, 'inch', { minMm: 0 });
  if (!parsed.ok) throw new Error(`typed: “${text}”: ${parsed.reason}`);
  return parsed.length;
}

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
  {
    id: 'table-full',
    name: 'Table saw, full kerf',
    kerf: typed('1/8'),
    depth: typed('3'),
    crosscut: typed('24'),
    rip: typed('24'),
    setting: spread('0.008', '0.016'),
  },
  {
    id: 'table-thin',
    name: 'Table saw, thin kerf',
    kerf: typed('3/32'),
    depth: typed('3'),
    crosscut: typed('24'),
    rip: typed('24'),
    setting: spread('0.01', '0.02'),
  },
  {
    id: 'bandsaw',
    name: 'Bandsaw',
    kerf: typed('1/16'),
    depth: typed('9'),
    crosscut: typed('12'),
    rip: typed('13'),
    setting: spread('0.015', '0.03'),
  },
  {
    id: 'track',
    name: 'Track saw',
    kerf: typed('3/32'),
    depth: typed('2'),
    setting: spread('0.012', '0.025'),
  },
];

const machines: Machine[] = [
  {
    id: 'jointer',
    name: 'Jointer',
    kind: 'jointer',
    maxWidth: typed('8'),
    maxThickness: typed('0'),
    minLength: typed('12'),
    minThickness: typed('1/2'),
    bite: typed('1/16'),
    setting: spread('0.006', '0.015'),
  },
  {
    id: 'planer',
    name: 'Planer',
    kind: 'planer',
    maxWidth: typed('13'),
    maxThickness: typed('6'),
    minLength: typed('12'),
    minThickness: typed('1/4'),
    bite: typed('1/16'),
    setting: spread('0.005', '0.012'),
  },
  {
    id: 'drum',
    name: 'Drum sander',
    kind: 'drum sander',
    maxWidth: typed('19'),
    maxThickness: typed('4'),
    minLength: typed('3'),
    minThickness: typed('1/16'),
    bite: typed('1/64'),
    setting: spread('0.004', '0.01'),
  },
  {
    id: 'sled',
    name: 'Router sled',
    kind: 'router sled',
    maxWidth: typed('40'),
    maxThickness: typed('5'),
    minLength: typed('0'),
    minThickness: typed('1/4'),
    bite: typed('1/16'),
    setting: spread('0.01', '0.02'),
  },
  {
    id: 'hand',
    name: 'Hand planes',
    kind: 'hand planes',
    maxWidth: typed('0'),
    maxThickness: typed('0'),
    minLength: typed('0'),
    minThickness: typed('1/8'),
    bite: typed('1/64'),
    setting: spread('0.015', '0.03'),
  },
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

/** What a shop does until it says otherwise: best faces, and figure before planing. */
export const DEFAULT_PRACTICE: Practice = { rings: 'bestFaces', first: 'figure' };

/** A shop's practice, with the defaults where it has not chosen. */
export const practiceOf = (shop: ShopSnapshot): Practice => shop.practice ?? DEFAULT_PRACTICE;

/** Clamps alike with the usual pads of their kind; the opening as it is typed. */
export const clampsAlike = (
  id: string,
  name: string,
  kind: string,
  count: number,
  opening: string,
  forceN: number,
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
  clampsAlike('parallel-long', 'Parallel-jaw clamps, long', 'parallel_jaw', 6, '40', 3000),
  clampsAlike('parallel-short', 'Parallel-jaw clamps, short', 'parallel_jaw', 8, '24', 3000),
  clampsAlike('pipe', 'Pipe clamps', 'pipe_three_quarter', 6, '50', 3500),
  clampsAlike('bar', 'Bar clamps', 'f_heavy', 8, '12', 2500),
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
export const adhesivesOf = (shop: ShopSnapshot): readonly Adhesive[] => shop.adhesives ?? DEFAULT_ADHESIVES;
export const climateOf = (shop: ShopSnapshot): Climate => shop.climate ?? DEFAULT_CLIMATE;
export const gluingOf = (shop: ShopSnapshot): GluePractice => shop.gluing ?? DEFAULT_GLUE_PRACTICE;
