import * as yup from 'yup';

/** What is wrong, and where, in the field's own path. */
export interface FieldProblem {
  path: string;
  reason: string;
}

/** A value that keeps its contract, or what is wrong with it. */
export type Checked<T> = { ok: true; build: T } | { ok: false; problems: FieldProblem[] };

/** The most problems that are looked for: a reader mends these first, and a flood of errors costs nothing. */
export const MOST_PROBLEMS = 20;

type Check = (value: unknown, path: string, found: FieldProblem[]) => void;
type Test = (options: unknown, panic: (error: Error) => void, next: (error: unknown) => void) => void;

const checks = new WeakMap<object, Check>();
const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const shown = (value: unknown): string => {
  const text = typeof value === 'string' ? JSON.stringify(value.slice(0, 41)) : String(value);
  return isObject(value) ? 'an object' : Array.isArray(value) ? 'a list' : text.slice(0, 43);
};

/** Runs a schema's own tests on a value whose type is right; stops at the first that fails. */
function runTests(schema: yup.Schema, tests: readonly Test[], value: unknown, path: string): FieldProblem[] {
  let problems: FieldProblem[] = [];
  for (const test of tests) {
    test(
      { value, path, originalValue: value, schema, options: { strict: true, sync: true, abortEarly: false } },
      (error) => {
        throw error;
      },
      (error) => {
        if (error instanceof yup.ValidationError)
          problems = (error.inner.length > 0 ? error.inner : [error]).map((each) => ({
            path: each.path ?? path,
            reason: each.message,
          }));
      },
    );
    if (problems.length > 0) break;
  }
  return problems;
}

const named = (schema: yup.Schema, name: string): Test[] =>
  (schema.tests as unknown as (Test & { OPTIONS?: { name?: string } })[]).filter(
    (test) => test.OPTIONS?.name === name,
  );
const others = (schema: yup.Schema, ...names: string[]): Test[] =>
  (schema.tests as unknown as (Test & { OPTIONS?: { name?: string } })[]).filter(
    (test) => !names.includes(test.OPTIONS?.name ?? ''),
  );

const WORDS: Record<string, string> = { string: 'text', number: 'a number', boolean: 'true or false' };

/** A leaf: its type, its words, its own tests. */
function leaf(schema: yup.Schema): Check {
  const { type, oneOf } = schema.describe();
  const allowed = oneOf.length ? new Set(oneOf) : undefined;
  const tests = schema.tests as unknown as Test[];
  return (value, path, found) => {
    if (type !== 'mixed' && typeof value !== type)
      return void found.push({ path, reason: `${path} must be ${WORDS[type] ?? type}, not ${shown(value)}` });
    // JSON's 1e999 is read as infinity, which no field means.
    if (type === 'number' && !Number.isFinite(value))
      return void found.push({ path, reason: `${path} must be a finite number` });
    if (allowed && !allowed.has(value))
      return void found.push({
        path,
        reason: `${path} must be one of ${[...allowed].join(', ')}, not ${shown(value)}`,
      });
    found.push(...runTests(schema, tests, value, path));
  };
}

/** A list: its length before its entries, and no entry of one that is too long. */
function list(schema: yup.ArraySchema<unknown[], unknown>): Check {
  const inner = schema.innerType && checkOf(schema.innerType as yup.ISchema<unknown>);
  const tests = schema.tests as unknown as Test[];
  return (value, path, found) => {
    if (!Array.isArray(value))
      return void found.push({ path, reason: `${path} must be a list, not ${shown(value)}` });
    const wrong = runTests(schema, tests, value, path);
    found.push(...wrong);
    if (wrong.length > 0 || !inner) return;
    for (let i = 0; i < value.length && found.length < MOST_PROBLEMS; i++)
      inner(value[i], `${path}[${i}]`, found);
  };
}

/** An object: fields that nobody knows first, then each field, then what the whole must be once all fields are right. */
function object(schema: yup.ObjectSchema<object>): Check {
  const fields = Object.entries(schema.fields).map(
    ([name, field]) => [name, checkOf(field as yup.ISchema<unknown>)] as const,
  );
  const known = new Set(fields.map(([name]) => name));
  const closed = named(schema, 'noUnknown').length > 0;
  const tests = others(schema, 'noUnknown');
  return (value, path, found) => {
    if (!isObject(value))
      return void found.push({
        path,
        reason: `${path || 'the body'} must be an object, not ${shown(value)}`,
      });
    const before = found.length;
    if (closed)
      for (const name in value)
        if (!known.has(name)) {
          found.push({
            path,
            reason: `${path || 'the body'} has a field that Junta does not know: ${name.slice(0, 80)}`,
          });
          break;
        }
    for (const [name, check] of fields) {
      if (found.length >= MOST_PROBLEMS) return;
      check(Object.hasOwn(value, name) ? value[name] : undefined, path ? `${path}.${name}` : name, found);
    }
    if (found.length === before) found.push(...runTests(schema, tests, value, path));
  };
}

const isLazy = (schema: yup.ISchema<unknown>): schema is yup.Lazy<unknown> =>
  (schema as { type?: string }).type === 'lazy';

function make(schema: yup.ISchema<unknown>): Check {
  if (isLazy(schema))
    return (value, path, found) =>
      checkOf(schema.resolve({ value, options: {} } as never) as yup.ISchema<unknown>)(value, path, found);
  const plain = schema as yup.Schema;
  const { optional, nullable } = plain.spec;
  const check =
    plain instanceof yup.ObjectSchema
      ? object(plain as yup.ObjectSchema<object>)
      : plain instanceof yup.ArraySchema
        ? list(plain as yup.ArraySchema<unknown[], unknown>)
        : leaf(plain);
  return (value, path, found) => {
    if (value === undefined ? optional : value === null && nullable) return;
    if (value === undefined || value === null)
      return void found.push({
        path,
        reason: `${path || 'the body'} is required${value === null ? ' and is null' : ''}`,
      });
    check(value, path, found);
  };
}

function checkOf(schema: yup.ISchema<unknown>): Check {
  let check = checks.get(schema);
  if (!check) {
    check = make(schema);
    checks.set(schema, check);
  }
  return check;
}

/**
 * Checks a value against a schema and lists up to 20 problems with their paths; never throws. It says yes and no where
 * Yup's own strict validation does, but looks at no entry of a list that is too long, asks what the whole must be only
 * when its parts are right, and stops at the twentieth problem, so that its cost is bounded by what the contract allows.
 */
export function checkWith<T>(schema: yup.ISchema<T>, value: unknown): Checked<T> {
  const found: FieldProblem[] = [];
  checkOf(schema)(value, '', found);
  return found.length === 0
    ? { ok: true, build: value as T }
    : { ok: false, problems: found.slice(0, MOST_PROBLEMS) };
}
