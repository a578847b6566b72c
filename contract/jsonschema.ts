import type * as yup from 'yup';
import type { SchemaDescription, SchemaObjectDescription, SchemaInnerTypeDescription } from 'yup';
import { FORMAT_VERSION } from '../core/document';
import { BASE_FIELDS } from '../core/steps';
import { buildSchema } from './build';
import { id } from './lengths';
import { everyFeatureSchema, everyFittingSchema, stepSchemas } from './steps';

/** A piece of JSON Schema. */
export type Json = Record<string, unknown>;

const testOf = (d: SchemaDescription, name: string) =>
  d.tests.find((test) => test.name === name)?.params as Record<string, unknown> | undefined;

const cutterSchema: Json = {
  anyOf: ['saw', 'machine'].map((field) => ({
    type: 'object',
    additionalProperties: false,
    required: [field],
    properties: { [field]: convert(id().describe()) },
  })),
};

/** A JSON Schema (draft 2020-12) of one described part of the contract. */
function convert(described: unknown, key = ''): Json {
  const d = described as SchemaDescription;
  const oneOfAll = (schemas: readonly unknown[]) =>
    schemas.map((schema) => convert((schema as { describe(): unknown }).describe()));
  if (d.type === 'lazy' && key === 'features') return { oneOf: oneOfAll(everyFeatureSchema()) };
  if (d.type === 'lazy' && key === 'fittings') return { oneOf: oneOfAll(everyFittingSchema()) };
  if (d.type === 'lazy')
    return key === 'cutter' || key === 'trimWith'
      ? cutterSchema
      : {
          oneOf: [...oneOfAll(Object.values(stepSchemas)), unknownStep()],
        };
  if (d.type === 'object') {
    const { fields } = d as SchemaObjectDescription;
    const required = Object.entries(fields)
      .filter(
        ([, field]) => (field as SchemaDescription).type === 'lazy' || !(field as SchemaDescription).optional,
      )
      .map(([name]) => name);
    return {
      type: 'object',
      additionalProperties: false,
      properties: Object.fromEntries(
        Object.entries(fields).map(([name, field]) => [name, convert(field, name)]),
      ),
      ...(required.length ? { required } : {}),
    };
  }
  if (d.type === 'array') {
    const { innerType } = d as SchemaInnerTypeDescription;
    const [max, min] = [testOf(d, 'max')?.max, testOf(d, 'min')?.min];
    return {
      type: 'array',
      items: convert(innerType, key),
      ...(max !== undefined ? { maxItems: max } : {}),
      ...(min !== undefined ? { minItems: min } : {}),
    };
  }
  if (d.type === 'mixed') return d.oneOf.length ? { enum: d.oneOf } : {};
  const out: Json = { type: d.type === 'number' && testOf(d, 'integer') ? 'integer' : d.type };
  if (d.oneOf.length) out.enum = d.oneOf;
  const [max, min] = [testOf(d, 'max')?.max, testOf(d, 'min')?.min];
  if (d.type === 'string') {
    if (max !== undefined) out.maxLength = max;
    if (!d.optional && testOf(d, 'required') && !d.oneOf.length) out.minLength = 1;
    const pattern = testOf(d, 'matches')?.regex as RegExp | undefined;
    if (pattern) out.pattern = pattern.source;
  } else {
    if (max !== undefined) out.maximum = max;
    if (min !== undefined) out.minimum = min;
  }
  return out;
}

/** A step of a kind that this Junta does not know: what every step has, and whatever else it holds. */
function unknownStep(): Json {
  const [known] = Object.values(stepSchemas);
  const { properties } = convert((known as { describe(): unknown }).describe()) as { properties: Json };
  const base = Object.fromEntries(Object.keys(BASE_FIELDS).map((name) => [name, properties[name]]));
  return {
    type: 'object',
    required: ['id', 'kind', 'inputs', 'output'],
    properties: { ...base, kind: { ...convert(id().describe()), not: { enum: Object.keys(stepSchemas) } } },
  };
}

/** The JSON Schema of a body of the API. */
export const bodySchema = (body: yup.ISchema<unknown>): Json =>
  convert((body as unknown as { describe(): unknown }).describe());

/** The JSON Schema of a job file, generated from the contract. What the contract checks across fields is left to it. */
export const jobFileSchema = (): Json => ({
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: `Junta job, version ${FORMAT_VERSION}`,
  ...convert(buildSchema.describe()),
});
