import { counted } from '../../units';
import type { StepRoom } from '../room';
import type { StepBase } from '../../document';
import {
  type Blank,
  book,
  EMPTY,
  emptyLedger,
  type Ledger,
  type Plane,
  splitBlank,
  toOrigin,
} from '../../solid';
import type { Length } from '../../units';
import { sawThat } from '../begin';
import { isStopped, type Outcome, type RunContext, sawOf, stopAt } from '../context';
import type { WorkPiece } from '../timeline';

/** Saws every piece to an outline without hollows, seen from above or from the near edge; x from its left end. */
export interface ShapeStep extends StepBase {
  kind: 'shape';
  saw?: string;
  seen?: 'face' | 'edge';
  outline?: { x: Length; y: Length }[];
  settings?: Record<string, unknown>;
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
      { numbers: { corners: corners.length } },
    );
  let lost = emptyLedger();
  const pieces: WorkPiece[] = [];
  for (const piece of inputs) {
    const cut = keepInside(toOrigin(piece.blank), planes, saw.kerf.mm, lost);
    if (cut.blank.cells.length === 0)
      return stopAt(step, 'nothing-left', ['The outline lies beside the piece: nothing is left of it.'], {
        numbers: {
          left: 0,
          corners: corners.length,
        },
      });
    lost = cut.ledger;
    pieces.push({ ...piece, blank: toOrigin(cut.blank) });
  }
  return { pieces, lost };
}

/** The room of shaping. */
export const shape: StepRoom<ShapeStep> = {
  kind: 'shape',
  name: 'Shape',
  group: 'Saw',
  says: 'Saws every piece to an outline without hollows.',
  subtitle: ({ outline }) =>
    outline ? `an outline of ${counted(outline.length, 'corner')}` : 'no outline yet: sizes pass through',
  fields: {
    saw: { is: 'id', of: 'saw', loose: true, label: 'Saw', optional: true, carried: true },
    seen: {
      is: 'choice',
      label: 'Outline seen from',
      options: [
        { value: 'face', label: 'Above' },
        { value: 'edge', label: 'The near edge' },
      ],
      optional: true,
    },
    outline: {
      is: 'list',
      label: 'Corners',
      most: 200,
      of: { is: 'group', fields: { x: { is: 'length' }, y: { is: 'length' } } },
      optional: true,
    },
    settings: { is: 'plain', optional: true },
  },
  flow: {},
  begin: (at) => ({ saw: sawThat(at, 'crosscut') }),
  run: runShape,
  held: ({ outline, saw }) => !(outline && saw),
  took: ({ saw }, kerfMm) => (saw ? [{ from: 'kerf', mm: kerfMm }] : []),
  sawing: {
    work: () => ['crosscut'],
    through: ({ seen }) => (seen === 'edge' ? 'width' : 'thickness'),
    carried: { across: () => true },
  },
  needsSettled: true,
  labour: { setUp: 20, each: 15 },
  caution: 'Relief cuts first; the blade guide just above the wood. The saw’s manual comes first.',
};

declare module '../../document/step' {
  interface StepKinds {
    shape: ShapeStep;
  }
}

declare module '../../document/finding' {
  interface FindingCodes {
    /** An outline with a hollow, or without area. */
    'outline-not-round': true;
  }
}
