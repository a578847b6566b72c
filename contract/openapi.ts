import { PHOTO_TYPES } from '../core/notes';
import { ENDPOINTS, type Endpoint } from './endpoints';
import { bodySchema, jobFileSchema, type Json } from './jsonschema';

const PROBLEM: Json = {
  type: 'object',
  required: ['type', 'title', 'status', 'detail'],
  properties: {
    type: { type: 'string' },
    title: { type: 'string' },
    status: { type: 'integer' },
    detail: { type: 'string' },
    errors: {
      type: 'array',
      items: {
        type: 'object',
        required: ['path', 'reason'],
        properties: { path: { type: 'string' }, reason: { type: 'string' } },
      },
    },
    current: {},
    write: { type: 'string' },
    aside: { type: 'string' },
  },
};

/** A body's schema; a job within it stands once, among the components. */
function withJob(schema: Json): Json {
  const properties = schema.properties as Record<string, Json> | undefined;
  return properties?.build
    ? { ...schema, properties: { ...properties, build: { $ref: '#/components/schemas/Job' } } }
    : schema;
}

const json = (schema: Json): Json => ({ 'application/json': { schema } });

const PHOTOS = Object.fromEntries(PHOTO_TYPES.map((type) => [type, {}]));

const GIVES = { image: 'image/webp', csv: 'text/csv' } as const;

function operation(
  name: string,
  { path, says, body, status, method, streams, takes, gives }: Endpoint,
): Json {
  const names = [...path.matchAll(/:(\w+)/g)].map(([, own]) => own);
  const writes = method !== 'get';
  return {
    operationId: name,
    summary: says,
    ...(names.length > 0 || writes
      ? {
          parameters: [
            ...names.map((own) => ({ name: own, in: 'path', required: true, schema: { type: 'string' } })),
            ...(writes
              ? [
                  {
                    name: 'Idempotency-Key',
                    in: 'header',
                    required: false,
                    description: 'Names the write, so that it can be repeated after a lost answer.',
                    schema: { type: 'string', pattern: '^[A-Za-z0-9_-]{8,64}$' },
                  },
                ]
              : []),
          ],
        }
      : {}),
    ...(body ? { requestBody: { required: true, content: json(withJob(bodySchema(body))) } } : {}),
    ...(takes ? { requestBody: { required: true, content: PHOTOS } } : {}),
    responses: {
      [status]: {
        description: 'As asked.',
        content: gives ? { [GIVES[gives]]: {} } : streams ? { 'text/event-stream': {} } : json({}),
      },
      default: {
        description: 'What went wrong, as problem details (RFC 9457).',
        content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
      },
    },
  };
}

/** The API described in OpenAPI 3.1, from the addresses and the schemas that the server itself checks. */
export function openApi(): Json {
  const paths: Record<string, Record<string, Json>> = {};
  for (const [name, endpoint] of Object.entries<Endpoint>(ENDPOINTS)) {
    const path = endpoint.path.replaceAll(/:(\w+)/g, '{$1}');
    paths[path] = { ...paths[path], [endpoint.method]: operation(name, endpoint) };
  }
  const { $schema: _, ...job } = jobFileSchema();
  return {
    openapi: '3.1.0',
    info: { title: 'Junta', version: '1' },
    paths,
    components: { schemas: { Job: job, Problem: PROBLEM } },
  };
}
