import * as yup from 'yup';
import { type ParseError, parseTree } from 'jsonc-parser';
import { type BuildDocument, FACE_GRADES, FORMAT_VERSION, GOALS, MOST_STRIPS } from '../core/document';
import { brokenReferences } from '../core/steps';
import { boardSchema } from './board';
import { tooMuch } from './bounds';
import { briefSchema } from './brief';
import { type Checked, checkWith, type FieldProblem } from './check';
import { aim, flag, list, oneOf, optionalList, whole } from './fields';
import { glueUse } from './gluing';
import { amount, exact, id, length, maybeOneOf, notNegative, optionalLength, size, text } from './lengths';
import { shopSnapshot } from './shop';
import { stepSchema } from './steps';

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
  steps: list(stepSchema, 200),
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
