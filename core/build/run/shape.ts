import {
  book,
  emptyLedger,
  extents,
  splitBlank,
  across,
  toOrigin,
  type Blank,
  type Plane,
  EMPTY,
  type Ledger,
} from '../../solid';
import type { ResawStep, ShapeStep } from '../document';
import type { Finding } from '../finding';
import { settingErrors } from '../tolerance';
import type { WorkPiece } from '../timeline';
import { isStopped, sawOf, stopAt, type Outcome, type RunContext } from './context';

const MOST_LEAVES = 50;
/** A leaf thinner than this is none, mm. */
const LEAST_LEAF_MM = 0.1;

/**
 * How thick the leaves of a piece come out, the lowest first, mm: alike, or as measured. One leaf's gain is the others'
 * loss: those that nobody measured share what is left. Undefined where leaves and kerfs are more than the piece.
 */
function leavesOf(piece: string, room: number, leaves: number, measured?: ReadonlyMap<string, number>) {
  const given = Array.from({ length: leaves }, (_, i) => measured?.get(`${piece}.${i + 1}`));
  const known = given.reduce<number>((sum, mm) => sum + (mm ?? 0), 0);
  const open = given.filter((mm) => mm === undefined).length;
  const each = open > 0 ? (room - known) / open : 0;
  if (known > room + 1e-6 || (open > 0 && each <= LEAST_LEAF_MM)) return undefined;
  return given.map((mm) => mm ?? each);
}

/**
 * Resaws every piece into leaves alike, the lowest first: (thickness - (n - 1) kerf) / n each; or as they were measured,
 * where the saw went off the middle.
 */
export function runResaw(step: ResawStep, inputs: readonly WorkPiece[], context: RunContext): Outcome {
  const saw = sawOf(step, step.saw, context);
  if (isStopped(saw)) return saw;
  const { leaves } = step;
  if (!(Number.isInteger(leaves) && leaves >= 2 && leaves <= MOST_LEAVES))
    return stopAt(step, 'bad-count', [`A board is resawn into 2 to ${MOST_LEAVES} leaves.`], { leaves });
  let lost = emptyLedger();
  const pieces: WorkPiece[] = [];
  const errors = settingErrors(
    context.sources,
    `${step.id}:leaf`,
    `leaves resawn on ${saw.name}`,
    saw.setting,
  );
  for (const piece of inputs) {
    const thick = extents(piece.blank)[2];
    const leaf = (thick - (leaves - 1) * saw.kerf.mm) / leaves;
    if (leaf <= LEAST_LEAF_MM)
      return stopAt(
        step,
        'leaves-too-thin',
        [
          `${leaves} leaves cannot be sawn from `,
          { mm: thick },
          ': the kerfs alone take ',
          { mm: (leaves - 1) * saw.kerf.mm },
          '.',
        ],
        { leaves, thickness: thick, kerfs: (leaves - 1) * saw.kerf.mm },
        { axis: 2 },
      );
    const room = thick - (leaves - 1) * saw.kerf.mm;
    const sizes = leavesOf(piece.id, room, leaves, context.measuredLeaves);
    if (!sizes) context.notes.push(leavesTooThick(step, piece.id, thick, saw.kerf.mm, context));
    let rest: Blank = toOrigin(piece.blank);
    let at = 0;
    for (let i = 0; i < leaves; i++) {
      const own = sizes?.[i] ?? leaf;
      const [low, above] = i === leaves - 1 ? [rest, undefined] : splitBlank(rest, across(2, at + own));
      pieces.push({
        id: `${piece.id}.${i + 1}`,
        blank: toOrigin(low),
        errors: [piece.errors[0], piece.errors[1], errors],
      });
      if (!above) break;
      const [kerf, next] = splitBlank(above, across(2, at + own + saw.kerf.mm));
      lost = book(lost, 'kerf', kerf);
      rest = next;
      at += own + saw.kerf.mm;
    }
  }
  return { pieces, lost };
}

/** Leaves measured thicker than the board they came from: refused, with the sum. */
function leavesTooThick(
  { id, leaves }: ResawStep,
  piece: string,
  thick: number,
  kerf: number,
  { measuredLeaves }: RunContext,
): Finding {
  const own = Array.from({ length: leaves }, (_, i) => `${piece}.${i + 1}`);
  const read = own.filter((leaf) => measuredLeaves?.has(leaf));
  const sum = read.reduce((total, leaf) => total + (measuredLeaves?.get(leaf) ?? 0), 0);
  const kerfs = (leaves - 1) * kerf;
  return {
    code: 'more-than-went-in',
    step: id,
    severity: 'warning',
    axis: 2,
    message: [
      `${read.length} of ${leaves} leaves were measured as `,
      { mm: sum },
      ' together, the kerfs take ',
      { mm: kerfs },
      ': ',
      { mm: sum + kerfs },
      ', and the board is ',
      { mm: thick },
      read.length < leaves ? '. Nothing is left for the others. ' : '. That is more wood than went in. ',
      'Measure again.',
    ],
    numbers: { measured: sum, kerfs, sum: sum + kerfs, thickness: thick, more: sum + kerfs - thick },
    fixes: [
      {
        label: read.length > 1 ? 'Take the readings back' : 'Take the reading back',
        edit: {
          do: 'many',
          edits: read.map((leaf) => ({ do: 'measure', step: id, axis: 2, piece: leaf })),
        },
      },
    ],
  };
}

/** Keeps what lies inside every plane; what lies outside is booked. */
function keepInside(
  blank: Blank,
  planes: readonly Plane[],
  kerfMm: number,
  ledger: Ledger,
): { blank: Blank; ledger: Ledger } {
  let kept = blank;
  let booked = ledger;
  for (const at of planes) {
    if (kept.cells.length === 0) break;
    const [inside, rest] = splitBlank(kept, at);
    if (rest.cells.length === 0) continue;
    const [kerf, off] = kerfMm > 0 ? splitBlank(rest, { ...at, offset: at.offset + kerfMm }) : [EMPTY, rest];
    booked = book(book(booked, 'kerf', kerf), 'offcut', off);
    kept = inside;
  }
  return { blank: kept, ledger: booked };
}

/** Planes of an outline's edges, pointing out; undefined where it has a hollow or no area. Corners in mm. */
export function outlinePlanes(
  corners: readonly { x: number; y: number }[],
  seen: 'face' | 'edge',
): Plane[] | undefined {
  const area = corners.reduce((sum, p, i) => {
    const q = corners[(i + 1) % corners.length];
    return sum + p.x * q.y - q.x * p.y;
  }, 0);
  if (corners.length < 3 || Math.abs(area) < 1e-6) return undefined;
  const round = area > 0 ? corners : corners.toReversed();
  const planes: Plane[] = [];
  for (const [i, p] of round.entries()) {
    const q = round[(i + 1) % round.length];
    const long = Math.hypot(q.x - p.x, q.y - p.y);
    if (long < 1e-6) continue;
    const n = { x: (q.y - p.y) / long, y: (p.x - q.x) / long };
    const offset = n.x * p.x + n.y * p.y;
    if (round.some((r) => n.x * r.x + n.y * r.y > offset + 1e-6)) return undefined;
    planes.push({ normal: seen === 'face' ? [n.x, n.y, 0] : [n.x, 0, n.y], offset });
  }
  return planes;
}

/** Saws every piece to an outline. A shape that only stands in the documents changes nothing, and a note says so. */
export function runShape(step: ShapeStep, inputs: readonly WorkPiece[], context: RunContext): Outcome {
  if (!step.outline || !step.saw) return { pieces: [...inputs], lost: emptyLedger() };
  const saw = sawOf(step, step.saw, context);
  if (isStopped(saw)) return saw;
  const corners = step.outline.map(({ x, y }) => ({ x: x.mm, y: y.mm }));
  const planes = outlinePlanes(corners, step.seen ?? 'face');
  if (!planes)
    return stopAt(
      step,
      'outline-not-round',
      [
        `The outline of ${corners.length} corners has a hollow, or no area: Junta saws outlines without hollows.`,
      ],
      { corners: corners.length },
    );
  let lost = emptyLedger();
  const pieces: WorkPiece[] = [];
  for (const piece of inputs) {
    const cut = keepInside(toOrigin(piece.blank), planes, saw.kerf.mm, lost);
    if (cut.blank.cells.length === 0)
      return stopAt(step, 'nothing-left', ['The outline lies beside the piece: nothing is left of it.'], {});
    lost = cut.ledger;
    pieces.push({ ...piece, blank: toOrigin(cut.blank) });
  }
  return { pieces, lost };
}
