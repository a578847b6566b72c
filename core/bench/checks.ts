import { sumOf } from '../units';
import {
  type BuildDocument,
  type Check,
  CHECK_KINDS,
  type CheckKind,
  type Phrase,
  sawIdOf,
  type Step,
} from '../document';
import { extents } from '../solid';
import { adhesiveFor, glueUpOf } from '../glueup';
import { KERF_OFF } from '../kit';
import { asSlicing, lengthForSlices, massOf, roomOf, type Timeline, type WorkPiece } from '../steps';
import type { Quantity } from './gauges';
import { needsOf } from './needs';

/** How a check came out: good, to be minded, or not good enough. */
export type Verdict = 'good' | 'mind' | 'bad';

/** What a check says in words with its numbers, and how it came out. */
export interface CheckResult {
  verdict: Verdict;
  words: Phrase[];
}

/** What a check is held against: the step, and a piece as it is predicted. */
export interface CheckPlace {
  build: BuildDocument;
  timeline: Timeline;
  step: Step;
  piece: WorkPiece;
}

type Room = ReturnType<typeof roomOf>;

/** A kind of check: what it is called and how it is done, which numbers it asks for, where, and what they mean. */
export interface CheckRoom {
  name: string;
  how: string;
  of: Quantity;
  /** A name for each number; one name with `more` is read as often as one likes. */
  numbers: readonly string[];
  more?: true;
  /** The kinds of step it can be made at, all if missing; and at which of those. */
  where?: (room: Room) => boolean;
  at?: (place: CheckPlace) => boolean;
  judge: (values: readonly number[], place: CheckPlace) => CheckResult;
}

/** Twice what is good is minded, more is not good enough. */
const graded = (off: number, good: number): Verdict =>
  off <= good + 1e-9 ? 'good' : off <= 2 * good + 1e-9 ? 'mind' : 'bad';
/** No feeler gauge enters a good joint, mm; common practice. */
const LIGHT_MM = 0.05;
/** A blade is set square to so much, degrees; common practice. */
const SQUARE_DEG = 0.1;
/** Wood within so many percent of the shop's is at rest there; common practice. */
const MOISTURE_PCT = 2;
/** A sprung edge is hollow by so much of its length in the middle; common practice, 1/64 in on 3 ft. */
const SPRUNG = 0.4 / 914;
/** Wood of one kind weighs so much more or less from board to board, as a share; common practice. */
const MASS_SHARE = 0.1;

const joins = ({ flow }: Room) => flow.joins === true;
const saws = ({ sawing }: Room) => sawing !== undefined;
const glued = ({ step }: CheckPlace) => joins(roomOf(step));
const sawAt = (step: Step, { shop }: BuildDocument) => shop.saws.find(({ id }) => id === sawIdOf(step));
const flatSide = ({ piece }: CheckPlace) => extents(piece.blank)[1] > 0;

/**
 * How far a rectangle is out of square over its width, mm, by its two diagonals: they differ by 4 L W sin(d) in their squares
 * (plane geometry: the law of cosines, twice).
 */
export function outOfSquare([a, b]: readonly number[], length: number, width: number): number {
  const sine = Math.abs(a * a - b * b) / (4 * length * width);
  return sine >= 1 ? Infinity : width * Math.tan(Math.asin(sine));
}

/** Glue differs by so much from one glue-up to the next, as a share; a guess. */
const GLUE_SHARE = 0.3;

/** The glue that a glue-up takes by its plan, and of which bottle; undefined where it takes none. */
export function glueTaken(
  step: Step,
  build: BuildDocument,
  timeline: Timeline,
): { adhesive: string; grams: number } | undefined {
  const need = needsOf(step, build, timeline).find((each) => each.what === 'glue');
  return need?.what === 'glue' ? { adhesive: need.adhesive, grams: need.grams } : undefined;
}

/** Every kind of check. One that is added to the document does not compile until it is here. */
export const CHECKS: Record<CheckKind, CheckRoom> = {
  squareness: {
    name: 'Corner to corner',
    how: 'Measure both diagonals. Alike, the corners are square.',
    of: 'length',
    numbers: ['First diagonal', 'Second diagonal'],
    at: flatSide,
    judge: (values, { build, piece }) => {
      const [length, width] = extents(piece.blank);
      const off = outOfSquare(values, length, width);
      if (!Number.isFinite(off))
        return { verdict: 'bad', words: ['No piece of this size has such diagonals: measure again.'] };
      return {
        verdict: graded(off, build.shop.noticeableStep.mm),
        words: [
          'The diagonals differ by ',
          { mm: Math.abs(values[0] - values[1]) },
          ': out of square by ',
          { mm: off },
          ' over the width.',
        ],
      };
    },
  },
  light: {
    name: 'Straightedge and light',
    how: 'Lay the straightedge on, look for light, and measure the widest gap.',
    of: 'length',
    numbers: ['Widest gap'],
    judge: ([gap], place) => {
      const good = glued(place) ? place.build.shop.noticeableStep.mm : LIGHT_MM;
      return {
        verdict: graded(gap, good),
        words:
          gap > 0
            ? ['Light under the straightedge: ', { fine: gap }, '; up to ', { fine: good }, ' is straight.']
            : ['No light under the straightedge.'],
      };
    },
  },
  corners: {
    name: 'Thickness at four corners',
    how: 'Measure the thickness near each corner, in the order as you walk round.',
    of: 'length',
    numbers: ['Corner 1', 'Corner 2', 'Corner 3', 'Corner 4'],
    judge: (values, { build, piece }) => {
      const [least, most] = [Math.min(...values), Math.max(...values)];
      // Opposite corners that differ together are wind; what else differs is taper.
      const wind = Math.abs(values[0] + values[2] - values[1] - values[3]) / 2;
      const mean = sumOf(values) / values.length;
      return {
        verdict: graded(most - least, build.shop.noticeableStep.mm),
        words: [
          'The corners differ by ',
          { mm: most - least },
          ', of which ',
          { mm: wind },
          ' is wind; on the mean ',
          { mm: mean },
          ', planned ',
          { mm: extents(piece.blank)[2] },
          '.',
        ],
      };
    },
  },
  bladeAngle: {
    name: 'Blade to table',
    how: 'Set the gauge to zero on the table, then read it on the blade.',
    of: 'angle',
    numbers: ['Angle, degrees'],
    where: saws,
    judge: ([angle], { step, piece }) => {
      const upright = roomOf(step).sawing?.upright?.(step) ?? 1;
      const wanted = (Math.asin(upright) * 180) / Math.PI;
      const off = Math.abs(angle - wanted);
      const opens = extents(piece.blank)[2] * Math.tan((off * Math.PI) / 180);
      return {
        verdict: graded(off, SQUARE_DEG),
        words: [
          `The blade is ${Number(off.toFixed(2))}° off ${Number(wanted.toFixed(2))}°: over this thickness a sawn edge leans by `,
          { fine: opens },
          '.',
        ],
      };
    },
  },
  gap: {
    name: 'Gap at the joint',
    how: 'Lay the parts together dry, and measure the widest gap with a feeler gauge.',
    of: 'length',
    numbers: ['Widest gap'],
    where: joins,
    judge: ([gap], { build, timeline, step }) => {
      const glueUp = glueUpOf(build, timeline, step.id);
      const glue = glueUp && adhesiveFor(glueUp, build.shop);
      const most = glue?.gapMm ?? 0.1;
      return {
        verdict: gap <= most ? 'good' : gap <= 2 * most ? 'mind' : 'bad',
        words: [
          'The joint gapes by ',
          { fine: gap },
          `; ${glue?.name ?? 'the glue'} bridges `,
          { fine: most },
          '.',
        ],
      };
    },
  },
  moisture: {
    name: 'Moisture at the pins',
    how: 'Press the pins in along the grain, away from the ends.',
    of: 'moisture',
    numbers: ['Moisture, %'],
    more: true,
    judge: (values, { build }) => {
      const own = build.shop.woodMoisturePct;
      const off = Math.max(...values.map((value) => Math.abs(value - own)));
      const worst = values.reduce((a, b) => (Math.abs(b - own) > Math.abs(a - own) ? b : a));
      const apart = Math.max(...values) - Math.min(...values);
      return {
        verdict: graded(Math.max(off, apart), MOISTURE_PCT),
        words: [
          `${Number(worst.toFixed(1))} %, where wood comes to rest at ${Number(own.toFixed(1))} % in this shop`,
          ...(values.length > 1 ? [`; the readings lie ${Number(apart.toFixed(1))} % apart`] : []),
          off > MOISTURE_PCT ? '. It will still move: let it rest.' : '.',
        ],
      };
    },
  },
  opening: {
    name: 'Sprung joint, opening',
    how: 'Hold the ends shut and measure the opening in the middle, or all along.',
    of: 'length',
    numbers: ['Opening'],
    more: true,
    where: (room) => joins(room) || room.machining?.over === 'edges',
    judge: (values, { piece }) => {
      const widest = Math.max(...values);
      const wanted = extents(piece.blank)[0] * SPRUNG;
      const at = values.indexOf(widest);
      const middle = values.length < 3 || (at > 0 && at < values.length - 1);
      return {
        verdict: middle ? graded(Math.abs(widest - wanted), wanted) : 'bad',
        words: [
          'The joint opens by ',
          { fine: widest },
          middle ? '' : ' at an end, where it must be shut',
          '; usual over this length is ',
          { fine: wanted },
          '.',
        ],
      };
    },
  },
  kerf: {
    name: 'Kerf of a test cut',
    how: 'Cut into a piece of scrap, and measure how wide the slot is.',
    of: 'length',
    numbers: ['Width of the slot'],
    where: saws,
    at: ({ step, build }) => sawAt(step, build) !== undefined,
    judge: ([slot], { build, step }) => {
      const saw = sawAt(step, build);
      const kerf = saw?.kerf.mm ?? 0;
      const good = (saw?.kerfOff ?? KERF_OFF).likely.mm;
      return {
        verdict: graded(Math.abs(slot - kerf), good),
        words: ['The blade takes ', { fine: slot }, '; planned with ', { fine: kerf }, '.'],
      };
    },
  },
  tail: {
    name: 'Left after the slices',
    how: 'Measure what is left of the blank after its last slice, along the blank.',
    of: 'length',
    numbers: ['Left of the blank'],
    where: ({ kind }) => kind === 'slice',
    judge: ([left], { build, timeline, step }) => {
      const slicing = asSlicing(step);
      const entry = timeline.steps.find(({ id }) => id === step.id);
      const saw = sawAt(step, build);
      if (!slicing || !saw || !entry?.entered[0]) return { verdict: 'mind', words: ['Kept as it was read.'] };
      const n = entry.pieces.length + (step.spoilt?.length ?? 0);
      const wanted =
        extents(entry.entered[0].blank)[0] -
        lengthForSlices(n, { ...slicing, hold: { mm: 0 } }, saw.kerf.mm) -
        saw.kerf.mm;
      const good = Math.hypot(n * saw.setting.likely.mm, (n + 1) * (saw.kerfOff ?? KERF_OFF).likely.mm);
      return {
        verdict: graded(Math.abs(left - wanted), good),
        words: ['Left of the blank: ', { mm: left }, '; planned ', { mm: wanted }, '.'],
      };
    },
  },
  glueUsed: {
    name: 'Glue used',
    how: 'Weigh the bottle before and after, with its brush or roller, and enter the difference.',
    of: 'mass',
    numbers: ['Glue used'],
    where: joins,
    judge: ([kg], { build, timeline, step }) => {
      const planned = glueTaken(step, build, timeline)?.grams ?? 0;
      const share = planned > 0 ? (1000 * kg) / planned - 1 : 0;
      return {
        verdict: graded(Math.abs(share), GLUE_SHARE),
        words: ['Glue used: ', { grams: 1000 * kg }, '; planned ', { grams: planned }, '.'],
      };
    },
  },
  weight: {
    name: 'Weight',
    how: 'Weigh the piece.',
    of: 'mass',
    numbers: ['Weight'],
    judge: ([kg], { piece }) => {
      const planned = massOf(piece.blank);
      const share = planned > 0 ? kg / planned - 1 : 0;
      return {
        verdict: graded(Math.abs(share), MASS_SHARE),
        words: [
          'It weighs ',
          { kg },
          ', ',
          `${Math.round(Math.abs(share) * 100)} % ${share < 0 ? 'less' : 'more'} than its woods usually do, `,
          { kg: planned },
          '.',
        ],
      };
    },
  },
};

/** Whether a kind of check can be made at a kind of step. */
const fits = (kind: CheckKind, room: Room): boolean => CHECKS[kind].where?.(room) ?? true;

/** The kinds of check at a kind of step of which one number says enough for a rule: two diagonals do not, each by itself. */
export const ruleChecks = (room: Room): CheckKind[] =>
  CHECK_KINDS.filter((kind) => CHECKS[kind].numbers.length === 1 && fits(kind, room));

/** Why numbers are none of a check, in words; undefined where they are. */
export function notOfCheck(kind: CheckKind, values: readonly number[]): string | undefined {
  const { numbers, more, name } = CHECKS[kind];
  if (more ? values.length === 0 : values.length !== numbers.length)
    return `${name} asks for ${numbers.length === 1 ? 'a number' : `${numbers.length} numbers`}.`;
  if (values.some((value) => !Number.isFinite(value) || value < 0))
    return `${name}: a number of none or more.`;
  return undefined;
}

/** A check as it came out, for the bench and the card; undefined where its step or piece is not played. */
export function judged(check: Check, build: BuildDocument, timeline: Timeline): CheckResult | undefined {
  const place = checkPlace(build, timeline, check.step, check.piece);
  return place && notOfCheck(check.kind, check.values) === undefined
    ? CHECKS[check.kind].judge(check.values, place)
    : undefined;
}

/** What a check at a step is held against: one piece, the first if none is said. */
export function checkPlace(
  build: BuildDocument,
  timeline: Timeline,
  id: string,
  piece?: string,
): CheckPlace | undefined {
  const step = build.steps.find((each) => each.id === id);
  const pieces = timeline.steps.find((each) => each.id === id)?.pieces ?? [];
  const own = pieces.find((each) => each.id === piece) ?? pieces[0];
  return step && own ? { build, timeline, step, piece: own } : undefined;
}

/** The kinds of check that can be made at a step. */
export const checksAt = (place: CheckPlace): CheckKind[] =>
  CHECK_KINDS.filter((kind) => fits(kind, roomOf(place.step)) && (CHECKS[kind].at?.(place) ?? true));
