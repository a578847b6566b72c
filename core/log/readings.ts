import { sumOf } from '../units';
import { axisOf, type BuildDocument, type Reading, type Step } from '../document';
import { extents } from '../solid';
import {
  type Errors,
  isEndGrain,
  roomOf,
  type Sources,
  type TakesOff,
  type Timeline,
  type TimelineStep,
  toleranceOf,
  type WorkPiece,
} from '../steps';
import { type AllowanceName, ALLOWANCES } from '../kit';
import { LIKELY_SD } from './bands';
import { finenessOf } from './fineness';
import type { TaughtRow } from './line';
import { PIECE_LIKELY_MM } from './losses';
import { type Fineness, readingVariance, settingRows, widthRow } from './rows';

/* What the sizes that were read at one step teach, each against what was predicted just before. */

/** A step whose sizes were read, as it was predicted by the readings of earlier steps alone. */
export interface ReadStep {
  build: BuildDocument;
  step: Step;
  /** The step as it was predicted; what the whole job was predicted by no reading at all. */
  entry: TimelineStep;
  sources: Sources;
  bare: Timeline;
}

/** What a size is set by: a fence, a stop, what it is trimmed by; of a machine its scale. */
const whatIsSet = (step: Step): string => {
  const { sawing } = roomOf(step);
  return sawing ? (sawing.setBy ?? 'stop') : 'scale';
};

/** The allowance behind what a step takes off, and how often it is in it. */
function allowanceOf(
  { allowance, ofEndGrain, min, max }: TakesOff,
  pieces: readonly WorkPiece[],
): { name: AllowanceName; times: number } | undefined {
  if (!allowance) return undefined;
  const name = ofEndGrain && isEndGrain(pieces) ? ofEndGrain : allowance;
  const sides = (min > 0 ? 1 : 0) + (max > 0 ? 1 : 0);
  return { name, times: ALLOWANCES[name].together ? 1 : sides };
}

/** A reading with the piece that it is of, what was predicted of it, and how finely it was read. */
export interface ReadSize {
  reading: Reading;
  piece: WorkPiece;
  predicted: number;
  likely: number;
  errors: Errors;
  fineness: Fineness;
}

const isMeasured = (errors: Errors): boolean => {
  const ids = Object.keys(errors);
  return ids.length > 0 && ids.every((id) => id.includes(':measured:'));
};

/** The readings of a step with their pieces; one of no piece is of the largest. Those of pieces that are gone say nothing. */
export function sizesOf({ build, step, entry, sources }: ReadStep): ReadSize[] {
  return build.readings.flatMap((reading): ReadSize[] => {
    if (reading.step !== step.id || !(reading.measured.mm > 0)) return [];
    const axis = axisOf(reading.dimension);
    const piece =
      reading.piece === undefined
        ? entry.pieces.find(({ blank }) => extents(blank)[axis] === entry.greatest[axis])
        : entry.pieces.find(({ id }) => id === reading.piece);
    if (!piece) return [];
    const errors = piece.errors[axis];
    return [
      {
        reading,
        piece,
        predicted: extents(piece.blank)[axis],
        likely: toleranceOf(errors, sources).likelyMm,
        errors,
        fineness: finenessOf(reading.measured, reading.gauge),
      },
    ];
  });
}

/** What the sources of a size have in it: spreads by the square of their share, kerfs by their share, what was measured by its variance. */
function shares(errors: Errors, sources: Sources) {
  const a: Record<string, number> = {};
  const b: Record<string, number> = {};
  let g2 = 0;
  for (const [id, share] of Object.entries(errors)) {
    const source = sources.get(id);
    if (!source) continue;
    if (source.family?.startsWith('kerf:')) a[source.family] = (a[source.family] ?? 0) + share;
    else if (source.family) b[source.family] = (b[source.family] ?? 0) + share ** 2;
    else g2 += (share * (source.likelyMm / LIKELY_SD)) ** 2;
  }
  return { a, b, g2 };
}

const kerfsUsed = (a: Readonly<Record<string, number>>, { shop }: BuildDocument): Record<string, number> =>
  Object.fromEntries(
    shop.saws.flatMap(({ id, kerf }) => (`kerf:${id}` in a ? [[`kerf:${id}`, kerf.mm] as const] : [])),
  );

/** The rows that the sizes read at a step give, each with the reading that it stands with. */
export function rowsOf(at: ReadStep): { reading: string; row: TaughtRow }[] {
  const sizes = sizesOf(at);
  const { step, build, sources, entry } = at;
  const out: { reading: string; row: TaughtRow }[] = [];
  const settings = new Map<string, ReadSize[]>();
  for (const size of sizes) {
    const { reading, errors } = size;
    const add = (row: TaughtRow) => out.push({ reading: reading.id, row });
    const taken = roomOf(step)
      .takesOff?.(step)
      .find((each) => each.dimension === reading.dimension && each.min + each.max > 0);
    const joined = entry.glue && isAcross(step, reading);
    const own = Object.entries(errors).filter(([, share]) => share !== 0);
    const source = own.length === 1 ? sources.get(own[0][0]) : undefined;
    const set = source?.family?.startsWith('setting:') && source.id.startsWith(`${step.id}:`);
    if (joined) {
      const row = joinedRow(at, size);
      if (row) add(row);
    } else if (taken && !taken.to && (!set || enteredRead(at, size))) add(takeOffOf(at, size, taken));
    else if (set && Math.abs(own[0][1]) === 1)
      settings.set(own[0][0], [...(settings.get(own[0][0]) ?? []), size]);
    else {
      const { a, b, g2 } = shares(errors, sources);
      // A size that was measured before is measured again: that teaches nothing of any setting.
      if (Object.keys(a).length + Object.keys(b).length > 0)
        add({
          y: reading.measured.mm - size.predicted,
          a,
          b,
          g2: g2 + readingVariance(size.fineness),
          kind: `${step.kind} ${reading.dimension}`,
          used: kerfsUsed(a, build),
        });
    }
  }
  for (const [id, group] of settings) out.push(...settingsRead(at, id, group));
  return out;
}

const isAcross = (step: Step, { dimension }: Reading): boolean =>
  (step as { along?: string }).along === dimension;

/** Whether the size that went in was read. */
function enteredRead({ entry }: ReadStep, { piece, reading }: ReadSize): boolean {
  const before = enteredOf(entry, piece);
  return before !== undefined && isMeasured(before.errors[axisOf(reading.dimension)]);
}
const enteredOf = ({ entered, pieces }: TimelineStep, piece: WorkPiece): WorkPiece | undefined =>
  entered.find(({ id }) => id === piece.id) ?? entered[pieces.indexOf(piece)];

/** A size before and after: what came off. What went in may not have been read: then it may be off itself. */
function takeOffOf({ step, build, entry, sources }: ReadStep, size: ReadSize, taken: TakesOff): TaughtRow {
  const { reading, piece, predicted, fineness, errors } = size;
  const allowance = allowanceOf(taken, entry.entered);
  const before = enteredOf(entry, piece);
  const axis = axisOf(reading.dimension);
  const went = before && shares(before.errors[axis], sources);
  const own = shares(errors, sources);
  const a: Record<string, number> = { ...own.a };
  const used: Record<string, number> = kerfsUsed(a, build);
  if (allowance && allowance.times > 0) {
    a[`takeOff:${allowance.name}`] = -allowance.times;
    used[`takeOff:${allowance.name}`] = (taken.min + taken.max) / allowance.times;
  }
  // Where the machine alone sets the size, what went in is no part of its errors; of what came off it is.
  const apart = own.g2 === 0 && went && !Object.keys(went.b).every((id) => id in own.b);
  return {
    y: reading.measured.mm - predicted,
    a,
    b: apart ? { ...went.b, ...own.b } : own.b,
    g2: readingVariance(fineness) + (own.g2 > 0 ? own.g2 : (went?.g2 ?? 0)),
    kind: `${step.kind} ${reading.dimension} taken`,
    used,
  };
}

/** Pieces of one setting: how far it was off, and how far they scatter. */
function settingsRead(
  { step, sources }: ReadStep,
  id: string,
  group: readonly ReadSize[],
): { reading: string; row: TaughtRow }[] {
  const [first] = group;
  const family = sources.get(id)?.family ?? id;
  const tool = family.slice(family.indexOf(':') + 1);
  return settingRows({
    readings: group.map(({ reading, predicted }) => reading.measured.mm - predicted),
    dial: 0,
    fineness: first.fineness,
    bias: `bias:${tool}:${whatIsSet(step)}`,
    setting: family,
    piece: 'piece:shop',
    pieceSd: PIECE_LIKELY_MM / LIKELY_SD,
  }).map((row) => ({ reading: first.reading.id, row: { ...row, used: {} } }));
}

/** A width of glued strips, some of which were read: what the joints gained. */
function joinedRow({ entry, bare, step }: ReadStep, { reading, predicted, fineness }: ReadSize) {
  const axis = axisOf(reading.dimension);
  const planned = bare.steps.find(({ id }) => id === step.id)?.entered ?? [];
  const n = entry.entered.length;
  const read = entry.entered.flatMap((piece, i) =>
    isMeasured(piece.errors[axis]) && planned[i]
      ? [extents(piece.blank)[axis] - extents(planned[i].blank)[axis]]
      : [],
  );
  if (n < 2 || read.length === 0) return undefined;
  // Strips that were not read are taken to be off like those that were: what the reading is held against changes by that.
  const unread = entry.entered.length - read.length;
  const off = sumOf(read) / read.length;
  const row = widthRow({
    width: reading.measured.mm - predicted - unread * off + n * off,
    strips: read,
    n,
    fineness: { sd: 0.03, step: 0.1 },
    own: fineness,
    joint: 'joint:shop',
    piece: 'piece:shop',
  });
  return { ...row, used: {} };
}
