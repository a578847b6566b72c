import * as yup from 'yup';
import type { Display, Length } from '../core/units';

/** Objects take exactly the fields they name: a misspelt one is an error, not a silent loss. */
export const exact = <T extends yup.ObjectShape>(fields: T) =>
  yup
    .object(fields)
    .noUnknown(
      ({ path, unknown }) => `${path || 'the body'} has a field that Junta does not know: ${unknown}`,
    )
    .strict();

/** Words, at most so many letters. */
export const text = (max: number) => yup.string().max(max);
/** An id: letters, digits, dots, dashes and underscores, up to 80, and no word that programs keep for themselves. */
export const id = () =>
  text(80)
    .matches(
      /^[A-Za-z0-9_.~-]+$/,
      ({ path }) => `${path} must be made of letters, digits, dots, dashes and underscores`,
    )
    .test(
      'own name',
      ({ path }) => `${path} must not be a word that programs keep for themselves, such as constructor`,
      (value) => value === undefined || !(value in Object.prototype),
    )
    .required();
/** A finite number. */
export const amount = () =>
  yup
    .number()
    .required()
    .test(
      'finite',
      ({ path }) => `${path} must be a finite number`,
      (v) => Number.isFinite(v),
    );

/** A length: millimetres, and what was typed. Up to 100 m either way; a build may hold a wrong one, as a finding. */
export const length = () =>
  exact({
    mm: amount().min(-100_000).max(100_000),
    typed: exact({
      text: text(40).required(),
      system: yup
        .string()
        .oneOf(['inch', 'mm'] as const)
        .required(),
    })
      .default(undefined)
      .optional(),
  }).required();
/** A length that cannot be less than nothing. */
export const notNegative = () =>
  length().test(
    'not negative',
    ({ path }) => `${path} must be zero or more`,
    (value) => (value?.mm ?? 0) >= 0,
  );
/** The largest pieces of wood a shop can mean, mm. */
const MOST = { length: 30_000, width: 5_000, thickness: 2_000 } as const;
/** Thinner than any veneer, mm: what is less is a slip, except nothing at all. */
const LEAST = 0.05;
/**
 * The size of a strip or board in one dimension: up to 30 m long, 5 m wide and 2 m thick, and where it is anything at
 * all, at least 0.05 mm. Nothing, or less, may be stored: it is a finding, not a lost edit.
 */
export const size = (dimension: keyof typeof MOST) =>
  length().test(
    'size',
    ({ path }) =>
      `${path} must be between ${LEAST} and ${MOST[dimension].toLocaleString('en')} mm, or zero as long as it is not known`,
    (value) => {
      const mm = value?.mm ?? 0;
      return mm <= 0 || (mm >= LEAST && mm <= MOST[dimension]);
    },
  );
/** A spacing: zero where there is none, or at least a finger's width, 10 mm. */
export const spacing = () =>
  notNegative().test(
    'spacing',
    ({ path }) => `${path} must be zero, for none, or at least 10 mm`,
    (value) => (value?.mm ?? 0) === 0 || (value?.mm ?? 0) >= 10,
  );
/** A version counted by the database, which ends at 2^31 - 1. */
export const version = () =>
  amount()
    .integer()
    .min(1)
    .max(2 ** 31 - 2);
/** One of a few words, or nothing. */
export const maybeOneOf = <T extends string>(...values: readonly T[]) =>
  yup.string().oneOf(values).optional();
/** A length that may be missing. */
export const optionalLength = () => length().default(undefined).optional();

/** How far a setting may be off, and where that comes from. */
export const oneSpread = () =>
  exact({
    likely: notNegative(),
    worst: notNegative(),
    basis: yup
      .string()
      .oneOf(['common practice', "this shop's log", "the machine's manual"] as const)
      .required(),
  });

/** How lengths are read: the system, and the finest fraction of an inch, 0 for decimals. */
export const display = () =>
  exact({
    system: yup
      .string()
      .oneOf(['inch', 'mm'] as const)
      .required(),
    fraction: yup.mixed<0 | 16 | 32 | 64>().oneOf([0, 16, 32, 64]).required(),
  }).required();

type Check<A, B extends A> = B;
export type LengthOnTheWire = Check<Length, yup.InferType<ReturnType<typeof length>>>;
export type DisplayOnTheWire = Check<Display, yup.InferType<ReturnType<typeof display>>>;
