import * as yup from 'yup';
import { GLUE_USES, type GluePlan, type GlueUse, PACE_ACTS } from '../core/document';
import {
  type Adhesive,
  ADHESIVE_CLASSES,
  AID_KINDS,
  CLAMP_KINDS,
  type ClampSet,
  type Climate,
  type GluePractice,
} from '../core/kit';
import { flag, list, oneOf, optionalList, whole } from './fields';
import { amount, exact, id, maybeOneOf, notNegative, spacing, text } from './lengths';

/** Whether a time zone is one that dates can be told in. */
function isZone(zone: string | undefined): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
    return true;
  } catch {
    return false;
  }
}
const place = () => amount().min(-1000).max(100_000);
const number = (least: number, most: number) => amount().min(least).max(most);
const maybe = (least: number, most: number) => yup.number().min(least).max(most).optional();
/** A moment as an ISO time with its zone. */
export const momentText = () =>
  text(40).matches(
    /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}/,
    ({ path }) => `${path} must be a time such as 2026-03-02T08:30:00Z`,
  );
export const day = () =>
  text(10).matches(/^\d{4}-\d{2}-\d{2}$/, ({ path }) => `${path} must be a day such as 2027-03-31`);

/** Weekdays 1 (Monday) to 7, and hours of the day. */
const dayHours = () => ({
  days: list(whole().min(1).max(7), 7).min(1),
  from: number(0, 24),
  to: number(0, 24),
});
const IN_ORDER = {
  name: 'order',
  message: ({ path }: { path: string }) => `${path}: the day must end at least half an hour after it begins`,
  test: (v: { from?: number | undefined; to?: number | undefined } | undefined) =>
    (v?.to ?? 1) - (v?.from ?? 0) >= 0.5,
};
/** When somebody is there. */
export const presence = () => exact(dayHours()).test(IN_ORDER);

/** Clamps alike. */
export const clampSet = exact({
  id: id(),
  name: text(60).required(),
  kind: oneOf(...CLAMP_KINDS.map((kind) => kind.id)),
  count: whole().min(0).max(500),
  opening: notNegative(),
  forceN: number(1, 100_000),
  padLength: notNegative(),
  padWidth: notNegative(),
});

/** A bottle of glue. */
export const adhesive = exact({
  id: id(),
  name: text(60).required(),
  class: oneOf(...ADHESIVE_CLASSES.map((each) => each.id)),
  leftG: maybe(0, 1_000_000),
  expires: day().optional(),
  batch: text(40).optional(),
  foodOk: flag(),
  openMin: maybe(0.05, 1440),
  closedMin: maybe(0.05, 1440),
  clampMin: maybe(0.05, 10_080),
  leastC: maybe(-10, 40),
  gPerM2: maybe(10, 1000),
});

/** The shop's air: what wood can be told for. */
export const climate = exact({ temperatureC: number(-2, 50), humidityPct: number(0, 95) });

const minutes = () => number(0, 120);
const applicator = () => oneOf('bottle', 'brush', 'roller', 'notched');
const aidKind = () => oneOf(...AID_KINDS.map(({ id: kind }) => kind));
const school = () => oneOf('fan', 'reach', 'elastic');
const tightening = () => oneOf('middle', 'rounds', 'ends');
const hands = () =>
  yup
    .number<1 | 2>()
    .oneOf([1, 2] as const)
    .required();

/** How the shop glues. */
export const gluePractice = exact({
  school: school(),
  reachHard: number(0.5, 5),
  reachSoft: number(0.5, 5),
  pressure: oneOf('firm', 'even'),
  mostSpacing: spacing(),
  tightening: tightening(),
  faces: oneOf('alternate', 'oneSide'),
  edges: oneOf('straight', 'sprung'),
  pairing: maybeOneOf('single', 'folded', 'opposed'),
  hollow: notNegative(),
  shaving: notNegative().test(
    'some',
    ({ path }) => `${path} must be at least 0.001 mm`,
    (v) => (v?.mm ?? 0) >= 0.001,
  ),
  aids: aidKind(),
  spreadFaces: hands(),
  applicator: applicator(),
  squeezeOut: oneOf('wet', 'rubbery', 'hard'),
  unclamp: oneOf('label', 'overnight'),
  surfaceWaitH: number(0, 1000),
  wide: oneOf('sections', 'sled', 'pairs', 'paid'),
  cauls: exact({
    height: notNegative(),
    width: notNegative(),
    count: whole().min(0).max(500),
    species: id(),
    protection: oneOf('tape', 'wax', 'paper'),
  }).required(),
  pace: exact({
    jointMin: minutes(),
    spreading: number(0.01, 50),
    placeMin: minutes(),
    alignMin: minutes(),
    aidMin: minutes(),
    clampMin: minutes(),
    caulMin: minutes(),
    timed: whole().min(0).max(100_000),
  }).required(),
  hands: hands(),
  liftKg: number(1, 1000),
  benches: whole().min(1).max(50),
  hours: exact({
    ...dayHours(),
    zone: text(60)
      .optional()
      .test('zone', ({ path }) => `${path} must be a time zone such as Europe/Oslo`, isZone),
  })
    .test(IN_ORDER)
    .required(),
  paid: exact({ maxWidth: notNegative(), days: number(0, 365), priceMinor: whole().min(0).max(100_000_000) })
    .default(undefined)
    .optional(),
});

/** What a piece's glue must stand. */
export const glueUse = () => yup.string<GlueUse>().oneOf(GLUE_USES.map((use) => use.id));

const joint = () => whole().min(1).max(2000);

/** What a maker chose for one glue-up. */
export const gluePlan = exact({
  adhesive: text(80).optional(),
  applicator: maybeOneOf('bottle', 'brush', 'roller', 'notched'),
  faces: yup
    .number<1 | 2>()
    .oneOf([1, 2] as const)
    .optional(),
  hands: yup
    .number<1 | 2>()
    .oneOf([1, 2] as const)
    .optional(),
  school: maybeOneOf('fan', 'reach', 'elastic'),
  tightening: maybeOneOf('middle', 'rounds', 'ends'),
  wantedMPa: maybe(0.001, 20),
  clamps: optionalList(
    exact({
      id: id(),
      at: exactPlace(),
      side: oneOf('above', 'below'),
      forceN: number(0, 100_000),
      set: text(80).optional(),
    }).required(),
    200,
  ),
  edgeCaul: notNegative().default(undefined).optional(),
  crossCauls: yup.number().integer().min(0).max(40).optional(),
  edges: optionalList(
    exact({
      joint: joint(),
      shape: oneOf('straight', 'sprung', 'crowned', 'wavy'),
      depth: notNegative(),
      wave: notNegative().default(undefined).optional(),
    }).required(),
    500,
  ),
  pairs: optionalList(exact({ joint: joint(), how: oneOf('single', 'folded', 'opposed') }).required(), 500),
  aids: exact({
    kind: aidKind(),
    places: optionalList(exact({ joint: joint(), at: exactPlace() }).required(), 500),
    keepOut: optionalList(
      exact({
        from: exactPlace(),
        to: exactPlace(),
        why: text(80).required(),
        joint: joint().optional(),
        low: exactPlace().default(undefined).optional(),
        high: exactPlace().default(undefined).optional(),
      }).required(),
      50,
    ),
    own: exact({
      thick: notNegative(),
      into: notNegative(),
      along: notNegative(),
      pitch: notNegative().default(undefined).optional(),
      first: notNegative().default(undefined).optional(),
      count: yup.number().integer().min(1).max(200).optional(),
    })
      .default(undefined)
      .optional(),
  })
    .default(undefined)
    .optional(),
  rehearsal: exact({
    at: momentText().required(),
    whole: yup.boolean().required(),
    laps: list(
      exact({
        act: oneOf(...PACE_ACTS),
        seconds: number(0, 86_400),
      }).required(),
      2000,
    ),
  })
    .default(undefined)
    .optional(),
  clamped: momentText().optional(),
  storage: maybeOneOf('edge', 'stickers'),
  joints: optionalList(
    exact({
      joint: joint(),
      squeezeOut: maybeOneOf('even', 'lean', 'open', 'heavy'),
      step: notNegative().default(undefined).optional(),
    }).required(),
    500,
  ),
  hollow: notNegative().default(undefined).optional(),
});

/** A length that may lie a little before the beginning. */
function exactPlace() {
  return exact({
    mm: place(),
    typed: exact({ text: text(40).required(), system: oneOf('inch', 'mm') })
      .default(undefined)
      .optional(),
  }).required();
}

type Check<A, B extends A> = B;
/** What the schema of a type forgot: nothing, or this does not compile. */
type None<T extends never> = T;
export type PlanForgets = None<Exclude<keyof GluePlan, keyof yup.InferType<typeof gluePlan>>>;
export type PracticeForgets = None<Exclude<keyof GluePractice, keyof yup.InferType<typeof gluePractice>>>;
export type GluePlanOnTheWire = Check<GluePlan, yup.InferType<typeof gluePlan>>;
export type ClampSetOnTheWire = Check<ClampSet, yup.InferType<typeof clampSet>>;
export type AdhesiveOnTheWire = Check<Adhesive, yup.InferType<typeof adhesive>>;
export type ClimateOnTheWire = Check<Climate, yup.InferType<typeof climate>>;
export type GluePracticeOnTheWire = Check<GluePractice, yup.InferType<typeof gluePractice>>;
