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

/** A schema, made ready: a quick yes or no, and, where that is no, what is wrong. */
interface Check {
  ok: (value: unknown) => boolean;
  explain: (value: unknown, path: string, found: FieldProblem[]) => void;
}
type Test = ((options: unknown, panic: (error: Error) => void, next: (error: unknown) => void) => void) & {
  OPTIONS?: {
    name?: string;
    skipAbsent?: boolean;
    test: (this: unknown, value: unknown, context: unknown) => unknown;
  };
};

const checks = new WeakMap<object, Check>();
const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const shown = (value: unknown): string => {
  const text = typeof value === 'string' ? JSON.stringify(value.slice(0, 41)) : String(value);
  return isObject(value) ? 'an object' : Array.isArray(value) ? 'a list' : text.slice(0, 43);
};

/** What a test finds around it when only its yes counts: words are made when it says no. */
const QUICK = { path: '', resolve: (value: unknown) => value, createError: () => false };
const passes = ({ OPTIONS }: Test, value: unknown): boolean =>
  OPTIONS?.test.call(QUICK, value, QUICK) === true;

/** Runs a schema's own tests on a value whose type is right; stops at the first that fails. */
function runTests(schema: yup.Schema, tests: readonly Test[], value: unknown, path: string): FieldProblem[] {
  let problems: FieldProblem[] = [];
  for (const test of tests) {
    if (passes(test, value)) continue;
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
  (schema.tests as unknown as Test[]).filter((test) => test.OPTIONS?.name === name);
const others = (schema: yup.Schema, ...names: string[]): Test[] =>
  (schema.tests as unknown as Test[]).filter((test) => !names.includes(test.OPTIONS?.name ?? ''));

const WORDS: Record<string, string> = { string: 'text', number: 'a number', boolean: 'true or false' };

/** A leaf: its type, its words, its own tests. */
function leaf(schema: yup.Schema): Check {
  const { type, oneOf } = schema.describe();
  const allowed = oneOf.length ? new Set(oneOf) : undefined;
  const tests = schema.tests as unknown as Test[];
  // JSON's 1e999 is read as infinity, which no field means.
  const typed = (value: unknown) =>
    type === 'mixed' || (typeof value === type && (type !== 'number' || Number.isFinite(value)));
  return {
    ok: (value) =>
      typed(value) && (allowed?.has(value) ?? true) && tests.every((test) => passes(test, value)),
    explain: (value, path, found) => {
      if (typeof value === 'number' && type === 'number' && !Number.isFinite(value))
        found.push({ path, reason: `${path} must be a finite number` });
      else if (!typed(value))
        found.push({ path, reason: `${path} must be ${WORDS[type] ?? type}, not ${shown(value)}` });
      else if (allowed && !allowed.has(value))
        found.push({
          path,
          reason: `${path} must be one of ${[...allowed].join(', ')}, not ${shown(value)}`,
        });
      else found.push(...runTests(schema, tests, value, path));
    },
  };
}

/** A list: its length before its entries, and no entry of one that is too long. */
function list(schema: yup.ArraySchema<unknown[], unknown>): Check {
  const inner = schema.innerType && checkOf(schema.innerType as yup.ISchema<unknown>);
  const tests = schema.tests as unknown as Test[];
  return {
    ok: (value) =>
      Array.isArray(value) &&
      tests.every((test) => passes(test, value)) &&
      (!inner || value.every((entry) => inner.ok(entry))),
    explain: (value, path, found) => {
      if (!Array.isArray(value))
        return void found.push({ path, reason: `${path} must be a list, not ${shown(value)}` });
      const wrong = runTests(schema, tests, value, path);
      found.push(...wrong);
      if (wrong.length > 0 || !inner) return;
      for (let i = 0; i < value.length && found.length < MOST_PROBLEMS; i++)
        if (!inner.ok(value[i])) inner.explain(value[i], `${path}[${i}]`, found);
    },
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
  const stranger = (value: object) => {
    if (closed) for (const name in value) if (!known.has(name)) return name;
    return undefined;
  };
  const field = (value: Record<string, unknown>, name: string) =>
    Object.hasOwn(value, name) ? value[name] : undefined;
  return {
    ok: (value) =>
      isObject(value) &&
      stranger(value) === undefined &&
      fields.every(([name, check]) => check.ok(field(value, name))) &&
      tests.every((test) => passes(test, value)),
    explain: (value, path, found) => {
      if (!isObject(value))
        return void found.push({
          path,
          reason: `${path || 'the body'} must be an object, not ${shown(value)}`,
        });
      const before = found.length;
      const unknown = stranger(value);
      if (unknown !== undefined)
        found.push({
          path,
          reason: `${path || 'the body'} has a field that Junta does not know: ${unknown.slice(0, 80)}`,
        });
      for (const [name, check] of fields) {
        if (found.length >= MOST_PROBLEMS) return;
        const inner = field(value, name);
        if (!check.ok(inner)) check.explain(inner, path ? `${path}.${name}` : name, found);
      }
      if (found.length === before) found.push(...runTests(schema, tests, value, path));
    },
  };
}

const isLazy = (schema: yup.ISchema<unknown>): schema is yup.Lazy<unknown> =>
  (schema as { type?: string }).type === 'lazy';

function make(schema: yup.ISchema<unknown>): Check {
  if (isLazy(schema)) {
    const chosen = (value: unknown) =>
      checkOf(schema.resolve({ value, options: {} } as never) as yup.ISchema<unknown>);
    return {
      ok: (value) => chosen(value).ok(value),
      explain: (value, path, found) => chosen(value).explain(value, path, found),
    };
  }
  const plain = schema as yup.Schema;
  const { optional, nullable } = plain.spec;
  const check =
    plain instanceof yup.ObjectSchema
      ? object(plain as yup.ObjectSchema<object>)
      : plain instanceof yup.ArraySchema
        ? list(plain as yup.ArraySchema<unknown[], unknown>)
        : leaf(plain);
  return {
    ok: (value) => (value === undefined ? optional : value === null ? nullable === true : check.ok(value)),
    explain: (value, path, found) => {
      if (value !== undefined && value !== null) return check.explain(value, path, found);
      found.push({
        path,
        reason: `${path || 'the body'} is required${value === null ? ' and is null' : ''}`,
      });
    },
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
  const check = checkOf(schema);
  if (check.ok(value)) return { ok: true, build: value as T };
  const found: FieldProblem[] = [];
  check.explain(value, '', found);
  return { ok: false, problems: found.slice(0, MOST_PROBLEMS) };
}
