import * as yup from 'yup';
import { exact, id, optionalLength } from './lengths';

/** A yes or no that may be missing. */
export const flag = () => yup.boolean().optional();
/** One of a few words. */
export const oneOf = <T extends string>(...values: T[]) => yup.string().oneOf(values).required();
/** A list with a most; more is answered with the count. */
export const list = <T extends yup.ISchema<unknown>>(item: T, most: number) =>
  yup
    .array(item as never)
    .max(
      most,
      ({ path, value }) =>
        `${path} holds ${Array.isArray(value) ? value.length : 'too many'} entries; the most is ${most}`,
    )
    .required();
/** A list that may be missing. */
export const optionalList = <T extends yup.ISchema<unknown>>(item: T, most: number) =>
  yup
    .array(item as never)
    .max(most)
    .optional();
/** A whole number. */
export const whole = () => yup.number().integer().required();
/** What is wanted of a dimension; a value unless it is free. */
export const aim = () =>
  exact({ aim: oneOf('fixed', 'atLeast', 'atMost', 'free'), value: optionalLength() })
    .test(
      'value',
      ({ path }) => `${path} needs a value unless it is free`,
      (v) => v === undefined || v.aim === 'free' || v.value !== undefined,
    )
    .required();

const bySaw = exact({ saw: id() }).required();
const byMachine = exact({ machine: id() }).required();
/** A saw or a machine that trims. */
export const cutter = () =>
  yup.lazy((value: { saw?: unknown } | undefined) =>
    value && typeof value === 'object' && 'saw' in value ? bySaw : byMachine,
  );
