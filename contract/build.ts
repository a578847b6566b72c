import * as yup from 'yup';
import {
  type BuildDocument,
  CHECK_KINDS,
  FACE_GRADES,
  FAILURE_KINDS,
  FORMAT_VERSION,
  GOALS,
  MOST_ASSEMBLIES,
  MOST_CHECK_VALUES,
  MOST_CHECKS,
  MOST_FAILURES,
  MOST_WARNED,
  MOST_SIZES,
  MOST_STEPS,
  MOST_STRIPS,
  MOST_TARGETS,
  MOST_BUY_LENGTHS,
} from '../core/document';
import { ROOM_HUMIDITY, STOCK_KIND_NAMES } from '../core/kit';
import { LONGEST_FORMULA } from '../core/sizes';
import { brokenReferences } from '../core/steps';
import { boardSchema } from './board';
import { briefSchema } from './brief';
import type { FieldProblem } from './check';
import { aim, flag, list, oneOf, optionalList, whole } from './fields';
import { day, glueUse } from './gluing';
import { amount, exact, id, length, maybeOneOf, notNegative, optionalLength, size, text } from './lengths';
import { shopSnapshot } from './shop';
import { stepSchema } from './steps';

const place = () => amount().min(-100_000).max(100_000);

const target = exact({
  id: id(),
  purpose: text(200).defined(),
  quantity: whole().min(1).max(1000),
  atOnce: yup.number().integer().min(1).max(1000).optional(),
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
  who: text(60).optional(),
  gauge: text(60).optional(),
}).required();

const check = exact({
  id: id(),
  step: id(),
  kind: oneOf(...CHECK_KINDS),
  values: list(amount().min(0).max(100_000).required(), MOST_CHECK_VALUES),
  piece: text(80).optional(),
  taken: text(40).optional(),
  who: text(60).optional(),
  gauge: text(60).optional(),
}).required();

const failure = exact({
  id: id(),
  step: id(),
  kind: oneOf(...FAILURE_KINDS),
  words: text(400).optional(),
  pieces: optionalList(text(80).required(), 2000),
  joint: yup.number().integer().min(1).max(2000).optional(),
  from: optionalLength(),
  wide: optionalLength(),
  measured: optionalLength(),
  at: text(40).optional(),
  who: text(60).optional(),
  way: text(200).optional(),
  warned: optionalList(text(80).required(), MOST_WARNED),
}).required();

/** The air of a room: never quite dry or quite full. */
const roomAir = () =>
  exact({
    temperatureC: yup.number().min(-2).max(50).required(),
    humidityPct: yup.number().min(ROOM_HUMIDITY.least).max(ROOM_HUMIDITY.most).required(),
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
  buyAs: maybeOneOf(...STOCK_KIND_NAMES),
  buyLengths: optionalList(length(), MOST_BUY_LENGTHS),
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
  targets: list(target, MOST_TARGETS),
  boards: list(boardSchema(), 500),
  assemblies: list(assembly, MOST_ASSEMBLIES),
  steps: list(stepSchema, MOST_STEPS),
  readings: list(reading, 2000),
  checks: optionalList(check, MOST_CHECKS),
  failures: optionalList(failure, MOST_FAILURES),
  earlier: exact({ job: id(), name: text(200).required() })
    .default(undefined)
    .optional(),
  promised: day().optional(),
  shop: shopSnapshot(),
  brief: briefSchema.default(undefined).optional(),
  uses: optionalList(glueUse().required(), 10),
  sizes: optionalList(
    exact({
      id: id(),
      name: text(40).required(),
      formula: text(LONGEST_FORMULA).defined(),
      wanted: aim().default(undefined).optional(),
    }).required(),
    MOST_SIZES,
  ),
  place: exact({
    dry: roomAir(),
    damp: roomAir(),
    driest: yup.number().integer().min(1).max(12).optional(),
    months: yup.array(roomAir().required()).length(12).optional(),
    fittedPct: yup.number().min(0).max(30).optional(),
    relation: maybeOneOf('coefficient', 'shrinkage'),
  })
    .default(undefined)
    .optional(),
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
