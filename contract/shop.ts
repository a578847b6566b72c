import * as yup from 'yup';
import { MACHINE_KINDS, type ShopSnapshot } from '../core/kit';
import { sharedKitIds } from '../core/steps';
import { adhesive, clampSet, climate, gluePractice } from './gluing';
import { amount, display, exact, id, length, optionalLength, text, version } from './lengths';

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

const spread = () =>
  exact({
    likely: positive('a spread'),
    worst: positive('a spread'),
    basis: yup
      .string()
      .oneOf(['common practice', "this shop's log", "the machine's manual"] as const)
      .required(),
  }).required();

export const saw = exact({
  id: id(),
  name: text(60).required(),
  kerf: positive('a kerf'),
  depth: positive('a depth'),
  crosscut: maybePositive('a capacity'),
  rip: maybePositive('a capacity'),
  setting: spread(),
});
export const machine = exact({
  id: id(),
  name: text(60).required(),
  kind: yup.string().oneOf(MACHINE_KINDS).required(),
  maxWidth: positive('a limit'),
  maxThickness: positive('a limit'),
  minLength: positive('a limit'),
  minThickness: positive('a limit'),
  bite: positive('a bite'),
  setting: spread(),
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
    settingStep: positive('a step'),
    saws: yup.array(saw.required()).max(40).required(),
    machines: yup.array(machine.required()).max(40).required(),
    allowances,
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
    })
      .default(undefined)
      .optional(),
    layUps: yup.array(layUp.required()).max(100).optional(),
    clamps: yup.array(clampSet.required()).max(60).optional(),
    adhesives: yup.array(adhesive.required()).max(60).optional(),
    climate: climate.default(undefined).optional(),
    gluing: gluePractice.default(undefined).optional(),
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
export type ShopOnTheWire = Check<ShopSnapshot, yup.InferType<ReturnType<typeof shopSnapshot>>>;
/** The kit with its version, and what of it was damaged in the database and is left out. */
export interface KitReply {
  version: number;
  shop: ShopSnapshot;
  damaged?: string[];
}
