import * as yup from 'yup';
import { type AnyField, BASE_FIELDS, STEP_ROOMS } from '../core/steps';
import { cutter, flag, list, oneOf, optionalList } from './fields';
import { gluePlan, momentText } from './gluing';
import { amount, exact, id, length, maybeOneOf, optionalLength, text } from './lengths';

/** Whether a value is an object of few values and levels. Walks no further than that. */
function isSmall(value: unknown): boolean {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return false;
  let level: unknown[] = [value];
  let values = 0;
  for (let depth = 0; level.length > 0; depth++) {
    if (depth > 5) return false;
    const next: unknown[] = [];
    for (const each of level) {
      if (typeof each !== 'object' || each === null) continue;
      const inner = Object.values(each);
      values += inner.length;
      if (values > 500) return false;
      next.push(...inner);
    }
    level = next;
  }
  return true;
}

const plain = () =>
  yup
    .mixed<Record<string, unknown>>()
    .optional()
    .test(
      'small',
      ({ path }) => `${path} must be an object of at most 500 values, nested at most 5 deep`,
      (value) => value === undefined || isSmall(value),
    );

/** What walks over fields and needs no more than their kind. */
type Described = AnyField & { optional?: true };

function number({ least, most, whole, optional }: Extract<Described, { is: 'number' }>) {
  // A number without limits must at least be one.
  let schema =
    least === undefined && most === undefined
      ? (amount() as yup.NumberSchema<number | undefined>)
      : yup.number();
  if (whole) schema = schema.integer();
  if (least !== undefined) schema = schema.min(least);
  if (most !== undefined) schema = schema.max(most);
  return optional ? schema.optional() : schema.required();
}

function listOf(field: Extract<Described, { is: 'list' }>): yup.ISchema<unknown> {
  const of = schemaOf(field.of);
  if (field.optional) return optionalList(of, field.most);
  const schema = list(of, field.most);
  return field.least === undefined ? schema : schema.min(field.least);
}

/** The schema of one setting, read from its field. */
function schemaOf(field: Described): yup.ISchema<unknown> {
  switch (field.is) {
    case 'length':
      return field.optional ? optionalLength() : length();
    case 'number':
      return number(field);
    case 'flag':
      return flag();
    case 'choice': {
      const values = field.options.map(({ value }) => value);
      return field.optional ? maybeOneOf(...values) : oneOf(...values);
    }
    case 'text':
      return field.optional ? text(field.most).optional() : text(field.most).required();
    case 'moment':
      return momentText().optional();
    case 'id':
      return field.loose || field.optional ? text(80).optional() : id();
    case 'cutter':
      return cutter();
    case 'list':
      return listOf(field);
    case 'group': {
      const group = exact(shapeOf(field.fields));
      return field.optional ? group.default(undefined).optional() : group.required();
    }
    case 'plain':
      return plain();
    case 'gluePlan':
      return gluePlan.default(undefined).optional();
  }
}

const shapeOf = (fields: Record<string, Described>): yup.ObjectShape =>
  Object.fromEntries(
    Object.entries(fields).map(([name, field]) => [name, schemaOf(field)]),
  ) as yup.ObjectShape;

const base = shapeOf(BASE_FIELDS as Record<string, Described>);

/** One schema for each kind of step, by its kind: every field of its room, and those of every step. */
export const stepSchemas: Record<string, yup.ISchema<unknown>> = Object.fromEntries(
  STEP_ROOMS.map(({ kind, fields }) => [kind, exact({ ...base, kind: oneOf(kind), ...shapeOf(fields) })]),
);

/**
 * A step of a kind that this Junta does not know, as a newer one wrote it: what every step has must be right, and the rest is
 * kept as it is.
 */
const unknownStep = yup
  .object({ ...base, kind: id() })
  .strict()
  .test(
    'small',
    ({ path }) => `${path} must be an object of at most 500 values, nested at most 5 deep`,
    isSmall,
  );

/** A step of any kind. */
export const stepSchema = yup.lazy((value: { kind?: unknown } | undefined) => {
  const kind = value?.kind;
  return (typeof kind === 'string' && Object.hasOwn(stepSchemas, kind)
    ? stepSchemas[kind]
    : unknownStep) as yup.ISchema<unknown> as never;
});
