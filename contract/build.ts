import { parseTree, type ParseError } from 'jsonc-parser';
import * as yup from 'yup';
import {
  FACE_GRADES,
  FORMAT_VERSION,
  GOALS,
  MOST_STRIPS,
  brokenReferences,
  type BuildDocument,
  type StepKind,
} from '../core/build';
import { tooMuch } from './bounds';
import { checkWith, type Checked, type FieldProblem } from './check';
import { amount, exact, id, length, maybeOneOf, notNegative, optionalLength, size, text } from './lengths';
import { boardSchema } from './board';
import { briefSchema } from './brief';
import { aim, cutter, flag, list, oneOf, optionalList, whole } from './fields';
import { AIDS, gluePlan, glueUse, momentText } from './gluing';
import { shopSnapshot } from './shop';

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
const place = () => amount().min(-100_000).max(100_000);

const target = exact({
  id: id(),
  purpose: text(200).defined(),
  quantity: whole().min(1).max(1000),
  output: id(),
  length: aim(),
  width: aim(),
  thickness: aim(),
  tolerance: optionalLength(),
}).required();
const slot = exact({
  id: id(),
  species: id(),
  length: size('length'),
  width: size('width'),
  thickness: size('thickness'),
  grain: maybeOneOf('flat', 'rift', 'quarter'),
  grade: maybeOneOf(...FACE_GRADES),
  gradeBelow: maybeOneOf(...FACE_GRADES),
  set: text(40).optional(),
  side: maybeOneOf('up', 'down'),
  fibre: maybeOneOf('straight', 'rising', 'falling'),
  sapEdge: maybeOneOf('near', 'far', 'both', 'none'),
  strip: exact({
    board: text(80).optional(),
    seed: yup.number().integer().optional(),
    at: exact({ x: place(), y: place() }).default(undefined).optional(),
    leaf: yup.number().integer().min(0).max(200).optional(),
    leaves: yup.number().integer().min(1).max(200).optional(),
    faceDown: flag(),
    locked: flag(),
    excluded: flag(),
  })
    .default(undefined)
    .optional(),
}).required();
const assembly = exact({
  id: id(),
  name: text(80).required(),
  repeat: whole().min(1).max(1000),
  slots: list(slot, MOST_STRIPS),
}).required();

const laidPart = exact({
  piece: id(),
  endForEnd: flag(),
  rollOver: flag(),
  quarter: flag(),
  sacrificial: flag(),
  locked: flag(),
  place: exact({
    offset: optionalLength(),
    angleDegrees: yup.number().min(-360).max(360).optional(),
    spacer: optionalLength(),
    about: maybeOneOf('length', 'width', 'thickness'),
    x: optionalLength(),
    y: optionalLength(),
    z: optionalLength(),
  })
    .default(undefined)
    .optional(),
}).required();
const partRule = {
  every: whole().min(1).max(1000),
  first: whole().min(1).max(2000),
  except: list(whole().min(1), 2000),
  rowOf: yup.number().integer().min(1).max(2000).optional(),
};
const turnRule = exact({ turn: oneOf('endForEnd', 'rollOver', 'quarter'), ...partRule })
  .default(undefined)
  .optional();
const shiftRule = exact({ by: length(), wrap: optionalLength(), ...partRule })
  .default(undefined)
  .optional();
const rows = exact({
  counts: list(whole().min(1).max(2000), 500),
  across: oneOf('length', 'width', 'thickness'),
})
  .default(undefined)
  .optional();
const contactNote = exact({
  between: list(id(), 2).min(2),
  how: oneOf('glued', 'in part', 'dry', 'fastened'),
  clearance: optionalLength(),
}).required();

const base = {
  id: id(),
  name: text(80).optional(),
  inputs: list(id(), 100),
  output: id(),
  done: flag(),
  doneAt: momentText().optional(),
  note: text(4000).optional(),
  marks: optionalList(text(80).required(), 50),
  photos: optionalList(text(200).required(), 50),
  spoilt: optionalList(text(80).required(), 2000),
  begin: momentText().optional(),
};
/** Settings of steps that Junta holds and does not carry out yet: plain data of at most 500 values, five levels deep. */
const settings = yup
  .mixed<Record<string, unknown>>()
  .optional()
  .test(
    'small',
    ({ path }) => `${path} must be an object of at most 500 values, nested at most 5 deep`,
    (value) => value === undefined || isSmall(value),
  );
/** Slices of one blank: as many as a glue-up can lay. A fraction may stand there, as a finding. */
const sliceCount = () => yup.number().min(0).max(2000).required();
/** How long a step that only waits takes, h: at most a year. */
const waiting = {
  hours: yup.number().min(0).max(8784).optional(),
  coats: yup.number().min(0).max(50).optional(),
};
const planned = (kind: StepKind) =>
  exact({ ...base, kind: oneOf(kind), settings, days: yup.number().min(0).max(365).optional() });

/** One schema for each kind of step, by its kind. */
export const stepSchemas = {
  rip: exact({ ...base, kind: oneOf('rip'), assembly: id(), saw: id(), fence: oneOf('shared', 'separate') }),
  mill: exact({ ...base, kind: oneOf('mill'), machine: id(), face: length(), edge: length() }),
  glue: exact({
    ...base,
    kind: oneOf('glue'),
    along: oneOf('length', 'width', 'thickness'),
    parts: optionalList(laidPart, 2000),
    turns: turnRule,
    shifts: shiftRule,
    rows,
    blanks: yup.number().integer().min(1).max(200).optional(),
    split: exact({
      joints: list(whole().min(1).max(2000), 500),
      machining: exact({ sections: id(), edges: id(), joined: id() }).default(undefined).optional(),
      aids: maybeOneOf(...AIDS),
    })
      .default(undefined)
      .optional(),
    mark: maybeOneOf('triangle', 'numbers'),
    contacts: optionalList(contactNote, 2000),
    plan: gluePlan.default(undefined).optional(),
  }),
  flatten: exact({
    ...base,
    kind: oneOf('flatten'),
    machine: id(),
    top: length(),
    bottom: length(),
    carrier: optionalLength(),
  }),
  joint: exact({ ...base, kind: oneOf('joint'), machine: id(), near: length(), far: length() }),
  slice: exact({
    ...base,
    kind: oneOf('slice'),
    saw: id(),
    head: length(),
    thickness: length(),
    count: sliceCount(),
    hold: optionalLength(),
  }),
  turn: exact({
    ...base,
    kind: oneOf('turn'),
    turn: oneOf('standOnEnd', 'tipOnEdge', 'endForEnd', 'rollOver'),
  }),
  trim: exact({
    ...base,
    kind: oneOf('trim'),
    cutter: cutter(),
    uneven: flag(),
    start: length(),
    end: length(),
    near: length(),
    far: length(),
  }),
  crosscut: exact({ ...base, kind: oneOf('crosscut'), saw: id(), length: length() }),
  rest: exact({
    ...base,
    kind: oneOf('rest'),
    ...waiting,
  }),
  finish: exact({ ...base, kind: oneOf('finish'), ...waiting }),
  resaw: exact({ ...base, kind: oneOf('resaw'), saw: id(), leaves: yup.number().min(0).max(200).required() }),
  oblique: exact({
    ...base,
    kind: oneOf('oblique'),
    saw: id(),
    tilt: oneOf('mitre', 'bevel', 'ripBevel'),
    angleDegrees: amount(),
    head: length(),
    thickness: length(),
    count: sliceCount(),
    ends: maybeOneOf('start', 'end', 'both'),
    long: maybeOneOf('near', 'far'),
  }),
  shape: exact({
    ...base,
    kind: oneOf('shape'),
    saw: text(80).optional(),
    seen: maybeOneOf('face', 'edge'),
    outline: optionalList(exact({ x: length(), y: length() }).required(), 200),
    settings,
  }),
  surface: planned('surface'),
  outside: planned('outside'),
} satisfies Record<StepKind, yup.ISchema<unknown>>;

/** What a step of no kind is held against: its kind is at fault. */
const noStep = exact({ ...base, kind: oneOf(...(Object.keys(stepSchemas) as StepKind[])) });

const step = yup.lazy(
  (value: { kind?: StepKind } | undefined) =>
    (value?.kind && Object.hasOwn(stepSchemas, value.kind)
      ? stepSchemas[value.kind]
      : noStep) as yup.ISchema<unknown> as never,
);

const reading = exact({
  id: id(),
  step: id(),
  piece: text(80).optional(),
  dimension: oneOf('length', 'width', 'thickness'),
  measured: length(),
  taken: text(40).optional(),
}).required();

/** How boards are broken down. */
const breakdownSchema = exact({
  goal: oneOf(...GOALS),
  crosscutSaw: id(),
  ripSaw: id(),
  resawSaw: id(),
  resaw: yup.boolean().required(),
  extraLength: notNegative(),
  extraWidth: notNegative(),
  endTrim: notNegative(),
  edgeTrim: notNegative(),
  remnant: notNegative(),
  leastOffcutLength: notNegative(),
  leastOffcutWidth: notNegative(),
  offcutWorthPct: amount().min(0).max(100),
});

/** The build document as it stands in the file, in the database and on the wire. */
export const buildSchema = exact({
  format: oneOf('junta-build'),
  version: yup
    .number()
    .oneOf([FORMAT_VERSION] as const)
    .required(),
  name: text(120).required(),
  use: text(400).defined(),
  targets: list(target, 20),
  boards: list(boardSchema(), 500),
  assemblies: list(assembly, 50),
  steps: list(step, 200),
  readings: list(reading, 2000),
  shop: shopSnapshot(),
  brief: briefSchema.default(undefined).optional(),
  uses: optionalList(glueUse().required(), 10),
  breakdown: breakdownSchema.default(undefined).optional(),
})
  .test('references', (value, context) => {
    const wrong = brokenReferences(value as unknown as BuildDocument);
    return (
      wrong.length === 0 ||
      new yup.ValidationError(wrong.map((each) => context.createError(under(context.path, each))))
    );
  })
  .required();

/** A problem of a part, in the path of the whole. */
const under = (path: string, problem: FieldProblem) => ({
  path: path ? `${path}.${problem.path}` : problem.path,
  message: problem.reason,
});

/** A build, or what is wrong with it. */
export type CheckedBuild = Checked<BuildDocument>;

/** What says that a value is no job of a version this Junta reads: nothing else about it can be trusted then. */
export function notThisFormat(value: unknown): FieldProblem | undefined {
  const { format, version } = (value ?? {}) as { format?: unknown; version?: unknown };
  if (format !== 'junta-build')
    return { path: 'format', reason: 'this is not a Junta job: its “format” should be “junta-build”' };
  if (typeof version === 'number' && version > FORMAT_VERSION)
    return {
      path: 'version',
      reason: `this file is of version ${version}, made by a newer Junta; this one reads up to version ${FORMAT_VERSION}`,
    };
  return undefined;
}

/** Checks anything against the contract, format and version first. Never throws. */
export function checkBuild(value: unknown): CheckedBuild {
  const foreign = notThisFormat(value);
  return foreign ? { ok: false, problems: [foreign] } : (checkWith(buildSchema, value) as CheckedBuild);
}

/** Reads a job file's text. Answers a broken file with the place where reading stopped, a flood with its size. */
export function readJobFile(content: string): CheckedBuild {
  const flood = tooMuch(new TextEncoder().encode(content));
  if (flood) return { ok: false, problems: [{ path: 'the file', reason: `it ${flood}` }] };
  let value: unknown;
  try {
    value = JSON.parse(content);
  } catch (error) {
    return {
      ok: false,
      problems: [{ path: placeOf(content), reason: `this is not JSON: ${(error as Error).message}` }],
    };
  }
  return checkBuild(value);
}

/** Line and column where reading stops; JSON.parse itself does not always say. */
function placeOf(content: string): string {
  const errors: ParseError[] = [];
  parseTree(content, errors, { disallowComments: true });
  const at = errors[0]?.offset;
  if (at === undefined || at >= content.length) return 'the end of the file';
  const before = content.slice(0, at);
  return `line ${before.split('\n').length}, column ${before.length - before.lastIndexOf('\n')}`;
}
