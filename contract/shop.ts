import * as yup from 'yup';
import {
  ALLOWANCE_NAMES,
  type AllowanceName,
  BIT_KINDS,
  type BitKind,
  LADDER_NAMES,
  LIFTS_KG,
  MOST_PEOPLE_OF_SHOP,
  type LimitName,
  LIMITS,
  type Machine,
  type Saw,
  MACHINE_KIND_NAMES,
  SAW_KINDS,
  type SawKind,
  type ShopSnapshot,
  SUPPLY_KINDS,
  type SupplyKind,
} from '../core/kit';
import { sharedKitIds } from '../core/steps';
import { adhesive, clampSet, climate, gluePractice, presence } from './gluing';
import { oneOf } from './fields';
import { band, bandHeld, learned, paces, rates, renewed, rules } from './learned';
import {
  amount,
  display,
  exact,
  id,
  length,
  maybeOneOf,
  oneSpread,
  optionalLength,
  text,
  version,
} from './lengths';

const positive = (what: string) =>
  length().test(
    'positive',
    ({ path }) => `${path}: ${what} must be zero or more`,
    (value) => (value?.mm ?? 0) >= 0,
  );

const maybePositive = (what: string) =>
  optionalLength().test(
    'positive',
    ({ path }) => `${path}: ${what} must be zero or more`,
    (value) => (value?.mm ?? 0) >= 0,
  );

/** How far off a right angle, degrees: more than a few is no fence. */
const offSquare = () => yup.number().min(0).max(5).optional();

const spread = () => oneSpread().required();

export const saw = exact({
  id: id(),
  name: text(60).required(),
  kind: maybeOneOf(...(Object.keys(SAW_KINDS) as SawKind[])),
  kerf: positive('a kerf'),
  depth: positive('a depth'),
  crosscut: maybePositive('a capacity'),
  rip: maybePositive('a capacity'),
  offSquare: offSquare(),
  freeDepth: maybePositive('a depth'),
  setting: spread(),
  kerfOff: oneSpread().default(undefined).optional(),
});
/** Limits that only some kinds of machine have; the others stand below by name. */
type SomeLimit = Exclude<LimitName, 'maxWidth' | 'maxThickness' | 'minLength' | 'minThickness' | 'bite'>;
const someLimits = Object.fromEntries(
  Object.keys(LIMITS).map((name) => [name, maybePositive('a limit')]),
) as Record<SomeLimit, ReturnType<typeof optionalLength>>;

export const machine = exact({
  id: id(),
  reads: maybeOneOf('fractions', 'inches', 'mm'),
  knivesRanM: yup.number().min(0).max(1_000_000).optional(),
  knivesLastM: yup.number().min(0).max(1_000_000).optional(),
  days: yup.number().min(0).max(365).optional(),
  priceMinor: yup.number().integer().min(0).max(100_000_000).optional(),
  transportMinor: yup.number().integer().min(0).max(100_000_000).optional(),
  offSquare: offSquare(),
  name: text(60).required(),
  kind: yup.string().oneOf(MACHINE_KIND_NAMES).required(),
  ...someLimits,
  maxWidth: positive('a limit'),
  maxThickness: positive('a limit'),
  minLength: positive('a limit'),
  minThickness: positive('a limit'),
  bite: positive('a bite'),
  setting: spread(),
});

/** A cutter, bit or drill. */
export const bit = exact({
  id: id(),
  name: text(60).required(),
  kind: oneOf(...(Object.keys(BIT_KINDS) as BitKind[])),
  diameter: positive('a diameter'),
  body: maybePositive('a body'),
  cutting: maybePositive('a cutting length'),
  shank: maybePositive('a shank'),
  whole: maybePositive('a length'),
  transition: maybePositive('a depth'),
  topRpm: yup.number().min(1).max(100_000).optional(),
});

const currency = () =>
  text(3)
    .matches(/^[A-Z]{3}$/, ({ path }) => `${path} must be three capital letters, such as EUR`)
    .optional();

/** Hardware or a consumable on the shelf. */
export const supply = exact({
  id: id(),
  name: text(60).required(),
  kind: oneOf(...(Object.keys(SUPPLY_KINDS) as SupplyKind[])),
  size: text(40).optional(),
  onHand: amount().min(0).max(1_000_000),
  priceMinor: yup.number().integer().min(0).max(100_000_000).optional(),
  currency: currency(),
});
export const allowances = exact({
  millFace: positive('an allowance'),
  millEdge: positive('an allowance'),
  flattenPanel: positive('an allowance'),
  flattenBlock: positive('an allowance'),
  trimEnd: positive('an allowance'),
  trimEdge: positive('an allowance'),
  jointEdge: positive('an allowance'),
  sliceHead: positive('an allowance'),
  sliceTail: positive('an allowance'),
}).required();
/** Some of them: what a job allows for itself, or what the shop does there. */
export const ownAllowances = () =>
  exact(
    Object.fromEntries(ALLOWANCE_NAMES.map((name) => [name, maybePositive('an allowance')])) as Record<
      AllowanceName,
      ReturnType<typeof maybePositive>
    >,
  )
    .default(undefined)
    .optional();

/** A lay-up kept as a rule. */
const layUp = exact({
  id: id(),
  name: text(60).required(),
  strips: yup
    .array(
      exact({
        species: id(),
        share: amount().moreThan(0).max(1),
        endForEnd: yup.boolean().optional(),
        rollOver: yup.boolean().optional(),
      }).required(),
    )
    .min(1)
    .max(200)
    .required(),
});

/** Everything about the shop a build is planned with. */
export const shopSnapshot = () =>
  exact({
    name: text(80).required(),
    display: display(),
    currency: currency(),
    paper: maybeOneOf('a4', 'letter'),
    address: text(200).optional(),
    settingStep: positive('a step'),
    saws: yup.array(saw.required()).max(40).required(),
    machines: yup.array(machine.required()).max(40).required(),
    allowances,
    shopAllowances: ownAllowances(),
    noticeableStep: positive('a step'),
    narrowRip: maybePositive('a width'),
    woodMoisturePct: amount().min(0).max(30),
    practice: exact({
      rings: yup
        .string()
        .oneOf(['alternate', 'bestFaces'] as const)
        .required(),
      first: yup
        .string()
        .oneOf(['planing', 'figure'] as const)
        .required(),
      endGrain: maybeOneOf('never', 'light'),
    })
      .default(undefined)
      .optional(),
    layUps: yup.array(layUp.required()).max(100).optional(),
    clamps: yup.array(clampSet.required()).max(60).optional(),
    adhesives: yup.array(adhesive.required()).max(60).optional(),
    climate: climate.default(undefined).optional(),
    gluing: gluePractice.default(undefined).optional(),
    people: yup
      .array(
        exact({
          id: id(),
          name: text(60).required(),
          liftKg: yup.number().min(LIFTS_KG.least).max(LIFTS_KG.most).optional(),
          runs: yup.array(id()).max(80).optional(),
          hours: presence().default(undefined).optional(),
        }).required(),
      )
      .max(MOST_PEOPLE_OF_SHOP)
      .optional(),
    paces: paces(),
    band: band(),
    bandHeld: bandHeld(),
    rules: rules(),
    rates: rates(),
    learned: learned(),
    renewed: renewed(),
    ladders: yup
      .array(
        exact({
          after: oneOf(...LADDER_NAMES),
          grits: yup.array(yup.number().integer().min(16).max(3000).required()).min(1).max(12).required(),
        }).required(),
      )
      .max(LADDER_NAMES.length)
      .optional(),
    bits: yup.array(bit.required()).max(200).optional(),
    supplies: yup.array(supply.required()).max(300).optional(),
  }).required();

/** The kit as the server keeps it, with the version it was read at. */
export const kitBody = exact({
  version: version(),
  shop: shopSnapshot().test('own ids', (shop, context) => {
    const [shared] = sharedKitIds(shop as ShopSnapshot);
    return (
      shared === undefined ||
      context.createError({
        path: `${context.path}.${shared.path}`,
        message: `${context.path}.${shared.reason}`,
      })
    );
  }),
});

type Check<A, B extends A> = B;
/** What the schema of a type forgot: nothing, or this does not compile. */
type Forgotten<A, B> = Exclude<keyof A, keyof B>;
type None<T extends never> = T;
export type MachineForgets = None<Forgotten<Machine, yup.InferType<typeof machine>>>;
export type SawForgets = None<Forgotten<Saw, yup.InferType<typeof saw>>>;
export type ShopForgets = None<Forgotten<ShopSnapshot, yup.InferType<ReturnType<typeof shopSnapshot>>>>;
export type ShopOnTheWire = Check<ShopSnapshot, yup.InferType<ReturnType<typeof shopSnapshot>>>;
/** The kit with its version, and what of it was damaged in the database and is left out. */
export interface KitReply {
  /** The shop's own id. */
  id: string;
  version: number;
  shop: ShopSnapshot;
  damaged?: string[];
}
