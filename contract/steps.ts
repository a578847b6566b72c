import * as yup from 'yup';
import {
  type AnyField,
  BASE_FIELDS,
  FEATURE_LIST,
  FITTING_LIST,
  FROM,
  MOST_SPOTS,
  SIDES_OF_PIECE,
  STEP_ROOMS,
} from '../core/steps';
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
    case 'feature':
      return featureSchema();
    case 'fitting':
      return fittingSchema();
    case 'gluePlan':
      return gluePlan.default(undefined).optional();
  }
}

const shapeOf = (fields: Record<string, Described>): yup.ObjectShape =>
  Object.fromEntries(
    Object.entries(fields).map(([name, field]) => [name, schemaOf(field)]),
  ) as yup.ObjectShape;

/** What every feature has, whatever its kind. */
const featureBase = () => ({
  id: id(),
  name: text(80).optional(),
  side: oneOf(...SIDES_OF_PIECE.map(({ value }) => value)),
  u: place(),
  v: place(),
  row: exact({
    along: oneOf('u', 'v'),
    pitch: optionalLength(),
    keepOut: optionalLength(),
    count: yup.number().integer().min(1).max(MOST_SPOTS).optional(),
    margin: optionalLength(),
    second: exact({ off: length(), every: yup.number().integer().min(1).max(100).required() })
      .default(undefined)
      .optional(),
  })
    .default(undefined)
    .optional(),
  mirror: maybeOneOf('u', 'v', 'both'),
  bit: text(80).optional(),
  guide: exact({ outer: length(), inner: length(), thick: length() }).default(undefined).optional(),
});

const place = () =>
  exact({
    from: oneOf(...FROM.map(({ value }) => value)),
    by: length(),
    joint: yup.number().integer().min(1).max(2000).optional(),
    feature: text(80).optional(),
  }).required();

/** One schema for each kind of feature, read from its fields. */
const featureSchemas = new Map<string, yup.ISchema<unknown>>();
const featureOf = (kind: string): yup.ISchema<unknown> | undefined => {
  const known = featureSchemas.get(kind);
  const own = FEATURE_LIST.find((each) => each.kind === kind);
  if (known || !own) return known;
  const schema = exact({
    ...featureBase(),
    kind: oneOf(kind),
    ...shapeOf(own.fields as unknown as Record<string, Described>),
  });
  featureSchemas.set(kind, schema);
  return schema;
};

/** One schema for each kind of feature, in the order they are offered. */
export const everyFeatureSchema = (): yup.ISchema<unknown>[] =>
  FEATURE_LIST.flatMap(({ kind }) => featureOf(kind) ?? []);

/** A feature of any kind that Junta knows. */
function featureSchema() {
  return yup.lazy((value: { kind?: unknown } | undefined) => {
    const own = typeof value?.kind === 'string' ? featureOf(value.kind) : undefined;
    return (own ??
      exact({ kind: oneOf(...FEATURE_LIST.map(({ kind }) => kind)) }).required()) as unknown as never;
  });
}

/** One schema for each kind of fitting, read from its fields. */
const fittingSchemas = new Map(
  FITTING_LIST.map(({ kind, fields }) => [
    kind as string,
    exact({
      id: id(),
      name: text(80).optional(),
      kind: oneOf(kind),
      ...shapeOf(fields as unknown as Record<string, Described>),
    }),
  ]),
);

/** One schema for each kind of fitting, in the order they are offered. */
export const everyFittingSchema = (): yup.ISchema<unknown>[] => [...fittingSchemas.values()];

/** A fitting of any kind that Junta knows. */
function fittingSchema() {
  return yup.lazy((value: { kind?: unknown } | undefined) => {
    const own = typeof value?.kind === 'string' ? fittingSchemas.get(value.kind) : undefined;
    return (own ??
      exact({ kind: oneOf(...FITTING_LIST.map(({ kind }) => kind)) }).required()) as unknown as never;
  });
}

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
