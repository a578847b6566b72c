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

export const text = (max: number) => yup.string().max(max);
export const id = () =>
  text(80)
    .matches(
      /^[A-Za-z0-9_.~-]+$/,
      ({ path }) => `${path} must be made of letters, digits, dots, dashes and underscores`,
    )
    .required();
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
/** One of a few words, or nothing. */
export const maybeOneOf = <T extends string>(...values: readonly T[]) =>
  yup.string().oneOf(values).optional();
export const optionalLength = () => length().default(undefined).optional();

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
