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
import { settingErrors } from '../tolerance';
import type { WorkPiece } from '../timeline';
import { isStopped, sawOf, stopAt, type Outcome, type RunContext } from './context';

const MOST_LEAVES = 50;

/** Resaws every piece into leaves alike, the lowest first: (thickness - (n - 1) kerf) / n each. */
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
    if (leaf <= 0.1)
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
    let rest: Blank = toOrigin(piece.blank);
    for (let i = 0; i < leaves; i++) {
      const at = i * (leaf + saw.kerf.mm);
      const [low, above] = i === leaves - 1 ? [rest, undefined] : splitBlank(rest, across(2, at + leaf));
      pieces.push({
        id: `${piece.id}.${i + 1}`,
        blank: toOrigin(low),
        errors: [piece.errors[0], piece.errors[1], errors],
      });
      if (!above) break;
      const [kerf, next] = splitBlank(above, across(2, at + leaf + saw.kerf.mm));
      lost = book(lost, 'kerf', kerf);
      rest = next;
    }
  }
  return { pieces, lost };
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
