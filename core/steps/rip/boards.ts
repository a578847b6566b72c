import {
  type BoardStock,
  type BuildDocument,
  type Finding,
  isThrough,
  mustAvoid,
  overlap,
  parcel,
  type Place,
  sectionsOf,
  type Slot,
  type Stretch,
  TOUCH_MM,
} from '../../document';
import {
  across,
  type Blank,
  blankVolume,
  book,
  type Cause,
  emptyLedger,
  splitBlank,
  toOrigin,
  turnBlank,
  type Axis,
} from '../../solid';
import { type CutBoard, isStopped, type RunContext, sawOf, stopAt } from '../context';
import { boardBlank } from './log';
import type { RipStep } from './step';

/** A place on a board with what it is for: a strip of this build, or somebody else's. */
interface Claim extends Place {
  slot?: Slot;
  thickness: number;
  leaf: number;
  leaves: number;
}

const slotsOn = (build: BuildDocument, board: string): Slot[] =>
  build.assemblies.flatMap(({ slots }) =>
    slots.filter((slot) => slot.strip?.board === board && slot.strip.at !== undefined),
  );

/** Everything a board gives: this build's strips with their allowances, and places taken by others. */
export function claimsOn(build: BuildDocument, board: BoardStock): Claim[] {
  const extra = build.breakdown;
  const own = slotsOn(build, board.id).map((slot): Claim => {
    const { at = { x: 0, y: 0 }, leaf = 0, leaves = 1 } = slot.strip ?? {};
    return {
      id: slot.id,
      slot,
      ...at,
      length: slot.length.mm + (extra?.extraLength.mm ?? 0),
      width: slot.width.mm + (extra?.extraWidth.mm ?? 0),
      thickness: slot.thickness.mm,
      leaf,
      leaves,
    };
  });
  const others = (board.taken ?? []).map(
    (taken, i): Claim => ({
      id: `~${i}`,
      ...taken,
      slot: undefined,
      leaf: taken.leaf ?? 0,
      leaves: taken.leaves ?? 1,
    }),
  );
  return [...own, ...others];
}

/** Divides a blank along an axis as `parcel` says, each stretch with its wood. */
function divide(blank: Blank, axis: Axis, stretches: readonly Stretch[]): [Stretch, Blank][] {
  let rest = blank;
  return stretches.map((stretch, i): [Stretch, Blank] => {
    if (i === stretches.length - 1) return [stretch, rest];
    const [before, after] = splitBlank(rest, across(axis, stretch.to));
    rest = after;
    return [stretch, before];
  });
}

/**
 * Cuts a board as its strips' places say: across into sections, each section ripped, each strip cut to length and
 * resawn or planed to thickness. Once for a board, however many steps take strips from it.
 */
export function cutBoard(
  step: RipStep,
  board: BoardStock,
  context: RunContext,
): CutBoard | { stop: Finding } {
  const claims = claimsOn(context.build, board);
  const kerfs = kerfsOf(step, context);
  if ('stop' in kerfs) return kerfs;
  const grouped = sectionsOf(claims);
  if (!grouped.ok) return overlapping(step, board, grouped.between);
  const out: CutBoard = { strips: new Map(), lost: emptyLedger(), woodInMm3: 0 };
  const size = [board.length.mm, board.width.mm, board.thickness.mm] as const;
  const whole = boardBlank(board);
  out.woodInMm3 = blankVolume(whole);
  const lose = (cause: Cause, blank: Blank) => void (out.lost = book(out.lost, cause, blank));
  const causeOf = (stretch: Stretch): Cause => (stretch.kind === 'kerf' ? 'kerf' : 'offcut');
  const { sections } = grouped;
  const across0 = parcel(
    size[0],
    sections.map(({ x, length }) => ({ from: x, to: x + length })),
    kerfs.crosscut,
  );
  if (!across0.ok) return doesNotFit(step, board, sections[across0.index].lanes[0][0], 'length');
  for (const [stretch, wood] of divide(whole, 0, across0.stretches)) {
    if (stretch.index === undefined) {
      lose(causeOf(stretch), wood);
      continue;
    }
    const { lanes } = sections[stretch.index];
    const ripped = parcel(
      size[1],
      lanes.map(([{ y, width }]) => ({ from: y, to: y + width })),
      kerfs.rip,
    );
    if (!ripped.ok) return doesNotFit(step, board, lanes[ripped.index][0], 'width');
    for (const [lane, strip] of divide(wood, 1, ripped.stretches)) {
      if (lane.index === undefined) {
        lose(causeOf(lane), strip);
        continue;
      }
      const stop = cutLane(step, board, { claims: lanes[lane.index], wood: strip, kerfs, out });
      if (stop) return stop;
    }
  }
  return out;
}

function cutLane(
  step: RipStep,
  board: BoardStock,
  { claims, wood, kerfs, out }: { claims: readonly Claim[]; wood: Blank; kerfs: Kerfs; out: CutBoard },
): { stop: Finding } | undefined {
  const [first] = claims;
  const lose = (cause: Cause, blank: Blank) => void (out.lost = book(out.lost, cause, blank));
  const sawn = parcelInside(wood, first.x, first.x + first.length, kerfs.crosscut);
  for (const { cause, blank } of sawn.lost) lose(cause, blank);
  const thick = board.thickness.mm;
  const needed = first.leaves * first.thickness + (first.leaves - 1) * kerfs.resaw;
  if (needed > thick + TOUCH_MM)
    return stopAt(
      step,
      'strip-larger-than-board',
      [
        first.leaves > 1 ? `${first.leaves} leaves of ` : 'A strip of ',
        { mm: first.thickness },
        first.leaves > 1 ? ' with their kerf need ' : ' thickness needs ',
        { mm: needed },
        `, but board ${board.label} has `,
        { mm: thick },
        ': short by ',
        { mm: needed - thick },
        '.',
      ],
      {
        numbers: { needed, available: thick, short: needed - thick },
        dimension: 'thickness',
        fixes: first.slot ? [releaseFix(step, first.slot)] : [],
      },
    );
  let rest = sawn.part;
  let at = 0;
  const take = (to: number): Blank => {
    if (to - at <= TOUCH_MM) return { cells: [] };
    const [below, above] = splitBlank(rest, across(2, to));
    rest = above;
    at = to;
    return below;
  };
  const surplus = thick - needed;
  // Equal amounts from both faces.
  if (surplus > TOUCH_MM) lose('shaving', take(surplus / 2));
  for (let leaf = 0; leaf < first.leaves; leaf++) {
    const top = at + first.thickness;
    const last = leaf === first.leaves - 1 && surplus <= TOUCH_MM;
    const piece = last ? rest : take(top);
    if (last) rest = { cells: [] };
    const claim = claims.find((candidate) => candidate.leaf === leaf);
    if (!claim) lose('offcut', piece);
    else if (!claim.slot) out.woodInMm3 -= blankVolume(piece);
    else finish(claim, claim.slot, { board, wood: piece, out });
    if (leaf < first.leaves - 1) lose('kerf', take(at + kerfs.resaw));
  }
  lose('shaving', rest);
  return undefined;
}

/** Takes the allowances off a strip and gives it its lineage; it waits for its step. */
function finish(
  claim: Claim,
  slot: Slot,
  { board, wood, out }: { board: BoardStock; wood: Blank; out: CutBoard },
): void {
  const lose = (cause: Cause, blank: Blank) => void (out.lost = book(out.lost, cause, blank));
  const [short, end] = splitBlank(wood, across(0, claim.x + slot.length.mm));
  lose('offcut', end);
  const spare = claim.width - slot.width.mm;
  const [near, rest] =
    spare > TOUCH_MM ? splitBlank(short, across(1, claim.y + spare / 2)) : [undefined, short];
  if (near) lose('shaving', near);
  const [kept, far] =
    spare > TOUCH_MM ? splitBlank(rest, across(1, claim.y + spare / 2 + slot.width.mm)) : [rest, undefined];
  if (far) lose('shaving', far);
  const named = { cells: kept.cells.map((cell) => ({ ...cell, id: `${board.id}/${slot.id}` })) };
  out.woodInMm3 -= blankVolume(named);
  out.strips.set(slot.id, slot.strip?.faceDown ? turnBlank(named, 'rollOver') : toOrigin(named));
}

function parcelInside(
  wood: Blank,
  from: number,
  to: number,
  kerf: number,
): { part: Blank; lost: { cause: Cause; blank: Blank }[] } {
  const lost: { cause: Cause; blank: Blank }[] = [];
  const [before, rest] = splitBlank(wood, across(0, from));
  const [offcut, dust] = splitBlank(before, across(0, from - kerf));
  lost.push({ cause: 'offcut', blank: offcut }, { cause: 'kerf', blank: dust });
  const [part, after] = splitBlank(rest, across(0, to));
  const [kerfAfter, tail] = splitBlank(after, across(0, to + kerf));
  lost.push({ cause: 'kerf', blank: kerfAfter }, { cause: 'offcut', blank: tail });
  return { part, lost: lost.filter(({ blank }) => blank.cells.length > 0) };
}

interface Kerfs {
  crosscut: number;
  rip: number;
  resaw: number;
}

function kerfsOf(step: RipStep, context: RunContext): Kerfs | { stop: Finding } {
  const plan = context.build.breakdown;
  const kerf = (id: string) => sawOf(step, id, context);
  const saws = [plan?.crosscutSaw ?? step.saw, plan?.ripSaw ?? step.saw, plan?.resawSaw ?? step.saw].map(
    kerf,
  );
  for (const saw of saws) if (isStopped(saw)) return saw;
  const [crosscut, rip, resaw] = saws.flatMap((saw) => (isStopped(saw) ? [] : saw.kerf.mm));
  return { crosscut, rip, resaw };
}

const releaseFix = (step: RipStep, slot: Slot) => ({
  label: 'Take it from wood not yet chosen',
  edit: { do: 'setSlot' as const, step: step.id, strip: slot.id, change: { strip: {} } },
});

function overlapping(step: RipStep, board: BoardStock, [a, b]: [Claim, Claim]) {
  const slot = b.slot ?? a.slot;
  return stopAt(
    step,
    'strips-overlap-on-board',
    [
      `On board ${board.label} two strips want the same wood, `,
      { mm: Math.max(a.x, b.x) },
      ' from the marked end.',
    ],
    {
      numbers: { x: Math.max(a.x, b.x), y: Math.max(a.y, b.y) },
      fixes: slot ? [releaseFix(step, slot)] : [],
    },
  );
}

function doesNotFit(step: RipStep, board: BoardStock, claim: Claim, dimension: 'length' | 'width') {
  const [needed, available] =
    dimension === 'length'
      ? [claim.x + claim.length, board.length.mm]
      : [claim.y + claim.width, board.width.mm];
  const over = needed > available + TOUCH_MM;
  return stopAt(
    step,
    over ? 'strip-larger-than-board' : 'no-room-for-the-kerf',
    over
      ? [
          'A strip reaches ',
          { mm: needed },
          ` along the ${dimension} of board ${board.label}, which has `,
          { mm: available },
          ': short by ',
          { mm: needed - available },
          '.',
        ]
      : [`On board ${board.label} two strips lie closer than the saw’s kerf.`],
    {
      numbers: { needed, available, short: needed - available },
      dimension,
      fixes: claim.slot ? [releaseFix(step, claim.slot)] : [],
    },
  );
}

/** Strips that carry what their grade forbids: said, and the run goes on. */
export function faultsOnStrips(step: RipStep, board: BoardStock, context: RunContext): Finding[] {
  return claimsOn(context.build, board).flatMap((claim) => {
    const { slot } = claim;
    if (!slot) return [];
    const grades = { up: slot.grade ?? 'show', down: slot.gradeBelow ?? 'hidden' } as const;
    const met = (board.faults ?? []).filter(
      (fault) => overlap(fault, claim) && mustAvoid(fault, grades, slot.strip?.faceDown ?? false),
    );
    return met.slice(0, 1).map(
      (fault): Finding => ({
        code: 'fault-on-strip',
        step: step.id,
        severity: 'warning',
        message: [
          `A strip from board ${board.label} carries a ${fault.kind}, `,
          { mm: fault.x },
          ' from the marked end and ',
          { mm: fault.y },
          ` from the near edge${isThrough(fault) ? '' : ` on its ${fault.face === 'up' ? 'upper' : 'under'} face`}. Its grade forbids that.`,
        ],
        numbers: { x: fault.x, y: fault.y, length: fault.length, width: fault.width },
        fixes: [releaseFix(step, slot)],
      }),
    );
  });
}

declare module '../../document/finding' {
  interface FindingCodes {
    /** Two strips lie on their board with less than a kerf between them. */
    'no-room-for-the-kerf': true;
    /** Two strips lie on one place of a board. */
    'strips-overlap-on-board': true;
    /** A strip carries a fault that its grade forbids. */
    'fault-on-strip': true;
  }
}
