import { type Length, type LengthSystem, DEFAULT_DISPLAY, roundToStep, sumOf } from '../units';
import { clampKind, type ClampSet } from './clamps';
import { clampsAlike, DEFAULT_ADHESIVES, DEFAULT_CLAMPS, defaultShop } from './defaults';
import type { ShopSnapshot } from './kit';
import {
  type Machine,
  type MachineKind,
  type Saw,
  SAW_KINDS,
  type SawKind,
  usualMachine,
  usualSaw,
} from './machines';

/* Setting up a shop of one's own: what it may have, with the values that are usual, to be corrected. */

/**
 * A size typed in inches as a shop with a metric rule would say it: to 10 mm from 100 mm on, to 1 mm from 10 mm on, to
 * 0.1 mm below. Usual values are round in the system they are used in.
 */
function roundMetric(length: Length): Length {
  const step = length.mm >= 100 ? 10 : length.mm >= 10 ? 1 : 0.1;
  return { mm: roundToStep(length.mm, step) };
}

const isLength = (value: unknown): value is Length =>
  typeof value === 'object' && value !== null && 'mm' in value && typeof value.mm === 'number';

/** The same thing with usual sizes as a shop of that system says them. Nothing that is not a length changes. */
export function inSystem<T>(value: T, system: LengthSystem): T {
  if (system === 'inch') return value;
  if (isLength(value)) return roundMetric(value) as T;
  if (Array.isArray(value)) return value.map((each) => inSystem(each, system)) as T;
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([key, inner]) => [key, inSystem(inner, system)])) as T;
}

/** One kind of thing a shop may have, with its usual values. */
export interface Usual<T> {
  kind: string;
  name: string;
  /** What one of them is usually like, in the shop's system. */
  item: T;
  /** A small shop usually has it. */
  common: boolean;
}

const COMMON_SAWS: readonly SawKind[] = ['table saw', 'bandsaw', 'track saw'];
const COMMON_MACHINES: readonly MachineKind[] = [
  'jointer',
  'planer',
  'drum sander',
  'router sled',
  'hand planes',
];

/** Every kind of saw, as one usually is (common practice; the saw's own manual comes first). */
export const usualSaws = (system: LengthSystem): Usual<Saw>[] =>
  (Object.keys(SAW_KINDS) as SawKind[]).map((kind) => ({
    kind,
    name: SAW_KINDS[kind].name,
    item: inSystem(usualSaw(kind, kind.replaceAll(' ', '-')), system),
    common: COMMON_SAWS.includes(kind),
  }));

/** Every kind of machine, likewise. */
export const usualMachines = (system: LengthSystem, kinds: readonly MachineKind[]): Usual<Machine>[] =>
  kinds.map((kind) => {
    const item = inSystem(usualMachine(kind, kind.replaceAll(' ', '-')), system);
    return { kind, name: item.name, item, common: COMMON_MACHINES.includes(kind) };
  });

/** Clamps of the kinds most shops have, four of each (forces: unverified, from the middle of what a hand reaches). */
export const usualClamps = (system: LengthSystem): Usual<ClampSet>[] =>
  [...DEFAULT_CLAMPS, ...OTHER_CLAMPS].map((set) => ({
    kind: set.id,
    name: set.name,
    item: inSystem(set, system),
    common: DEFAULT_CLAMPS.includes(set),
  }));

const middle = (kind: string): number => {
  const [least, most] = clampKind(kind).handN;
  return Math.round((least + most) / 2);
};
const OTHER_CLAMPS: readonly ClampSet[] = [
  clampsAlike('light-bar', 'Light bar clamps', 'f_light', {
    count: 4,
    opening: '24',
    forceN: middle('f_light'),
  }),
];

/** What is told of a shop that is being set up. What is missing was skipped. */
export interface SetUp {
  name: string;
  system: LengthSystem;
  currency?: string | undefined;
  paper?: 'a4' | 'letter' | undefined;
  address?: string | undefined;
  saws?: readonly Saw[] | undefined;
  machines?: readonly Machine[] | undefined;
  clamps?: readonly ClampSet[] | undefined;
  /** Classes of glue on the shelf. */
  glues?: readonly { class: string; name: string; foodOk?: boolean }[] | undefined;
}

/**
 * A shop as it was told. Saws and machines that were skipped are a small shop's usual ones; clamps and glue that were
 * skipped stay unsaid, and Junta plans with a small shop's until they are entered. What was told to be none is none.
 */
export function shopFrom(told: SetUp): ShopSnapshot {
  const { name, system, currency, paper, address, saws, machines, clamps, glues } = told;
  const usual = inSystem(defaultShop(name), system);
  return {
    ...usual,
    display: system === 'mm' ? { system: 'mm', fraction: DEFAULT_DISPLAY.fraction } : DEFAULT_DISPLAY,
    settingStep: system === 'mm' ? { mm: 0.5 } : usual.settingStep,
    ...(currency ? { currency } : {}),
    ...(paper ? { paper } : {}),
    ...(address ? { address } : {}),
    ...(saws ? { saws: [...saws] } : {}),
    ...(machines ? { machines: [...machines] } : {}),
    ...(clamps ? { clamps: [...clamps] } : {}),
    ...(glues
      ? {
          adhesives: glues.map(({ class: kind, name: glue, foodOk }, i) => ({
            id: `glue-${i + 1}`,
            name: glue,
            class: kind,
            ...(foodOk ? { foodOk } : {}),
          })),
        }
      : {}),
  };
}

/** What skipped parts come to, in words: what Junta plans with until they are entered. */
export const SKIPPED = {
  saws: `Skipped: a small shop’s usual saws are entered, ${defaultShop('').saws.length} of them.`,
  machines: `Skipped: a small shop’s usual machines are entered, ${defaultShop('').machines.length} of them.`,
  clamps: `Skipped: until you enter yours, Junta plans with ${sumOf(DEFAULT_CLAMPS, ({ count }) => count)} clamps of a small shop.`,
  glues: `Skipped: until you enter yours, Junta plans with ${DEFAULT_ADHESIVES.length} bottles of a small shop.`,
} as const;
