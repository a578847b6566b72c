import type { SchemaDescription, SchemaObjectDescription, SchemaInnerTypeDescription } from 'yup';
import { buildSchema } from './build';
import { id } from './lengths';
import { stepSchemas } from './steps';

type Json = Record<string, unknown>;

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
  if (d.type === 'lazy')
    return key === 'cutter' || key === 'trimWith'
      ? cutterSchema
      : {
          oneOf: Object.values(stepSchemas).map((schema) =>
            convert((schema as { describe(): unknown }).describe()),
          ),
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

/** The JSON Schema of a job file, generated from the contract. What the contract checks across fields is left to it. */
export const jobFileSchema = (): Json => ({
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: 'Junta job, version 1',
  ...convert(buildSchema.describe()),
});
