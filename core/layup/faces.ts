import type { BoardStock, Slot } from '../document';
import {
  type Blank,
  bounds,
  type Cell,
  cellCentre,
  compose,
  inverse,
  movePoint,
  turnDirection,
  type Vec3,
} from '../solid';
import { boardBlank } from '../steps';
import { type BoardMarks, lookOf, markWood, type OkLab, type Sample, woodAt } from '../wood';

/** What the eye sees of a strip beside one of its edges, on its upper face. */
export interface EdgeLook {
  lab: OkLab;
  /** Direction of the figure's lines against the length, degrees from -90 to 90; undefined where there are none. */
  figureDegrees?: number;
  /** Sapwood runs along this edge; undefined where nobody looked. */
  sap?: boolean;
}

/** What a strip shows with one of its faces up, seen from above: the far edge is the upper one in the drawing. */
export interface FaceLook {
  far: EdgeLook;
  near: EdgeLook;
  lab: OkLab;
  /** +1 where the bark side is up, -1 where the pith side is, 0 where rings stand too upright to say. */
  rings: -1 | 0 | 1;
  /** +1 where it planes from left to right without tearing, -1 the other way, 0 either; undefined where nobody looked. */
  planing?: -1 | 0 | 1;
}

/** A strip with what it shows either way up. */
export interface StripLook {
  piece: string;
  species: string;
  /** Boards, bundles and logs it shares with others. */
  board?: string;
  set?: string;
  width: number;
  thickness: number;
  up: FaceLook;
  down: FaceLook;
  /** The better face is under when this side is up. */
  goodFace?: 'up' | 'down';
}

/** Rings within this of upright neither cup up nor down: sine of about 20 degrees. */
const UPRIGHT = 0.34;

/** Sapwood is looked for this far in from an edge, mm; common practice. */
const SAP_REACH = 12;

/** Grid of the patch beside an edge: columns along the length, rows across, and how far in it reaches, mm. */
const PATCH = { columns: 26, rows: 7, reach: 16 };

interface Painter {
  paint: (x: number, y: number) => OkLab;
  top: number;
}

function painter(cell: Cell, px: number): Painter {
  const { toLog, origin } = cell;
  const sample: Sample = {
    look: lookOf(origin.species),
    seed: origin.seed,
    shade: origin.shade,
    nx: toLog[2],
    ny: toLog[6],
    nz: toLog[10],
    px,
    ...(origin.tone ? { tone: origin.tone } : {}),
  };
  const lab = new Float64Array(3);
  const top = bounds({ cells: [cell] }).max[2];
  const marks = origin.marks as BoardMarks | undefined;
  return {
    top,
    paint: (x, y) => {
      const [lx, ly, lz] = movePoint(toLog, [x, y, top]);
      woodAt(lx, ly, lz, sample, lab);
      if (marks) markWood(marks, lx, ly, lz, sample.look, px, lab);
      return [lab[0], lab[1], lab[2]];
    },
  };
}

/** Mean colour of a patch and the direction of its lines, from the structure tensor of its lightness. */
function lookBeside(
  paint: Painter['paint'],
  { x0, x1, from, to }: { x0: number; x1: number; from: number; to: number },
): EdgeLook {
  const { columns, rows } = PATCH;
  // Short stretches, spread over the length, so that lines are seen at their own scale.
  const dx = Math.min(3, (x1 - x0) / (columns + 1));
  const dy = (to - from) / (rows - 1);
  let [L, A, B] = [0, 0, 0];
  let [xx, xy, yy] = [0, 0, 0];
  const stretches = 3;
  for (let s = 0; s < stretches; s++) {
    const middle = x0 + ((x1 - x0) * (s + 0.5)) / stretches;
    const light: number[][] = [];
    for (let r = 0; r < rows; r++) {
      light.push([]);
      for (let c = 0; c < columns / 2; c++) {
        const [l, a, b] = paint(middle + (c - columns / 4) * dx, from + r * dy);
        light[r].push(l);
        L += l;
        A += a;
        B += b;
      }
    }
    for (let r = 1; r + 1 < rows; r++)
      for (let c = 1; c + 1 < light[r].length; c++) {
        const gx = (light[r][c + 1] - light[r][c - 1]) / (2 * dx);
        const gy = ((light[r + 1][c] - light[r - 1][c]) / (2 * Math.abs(dy))) * Math.sign(dy);
        xx += gx * gx;
        xy += gx * gy;
        yy += gy * gy;
      }
  }
  const count = stretches * rows * Math.ceil(columns / 2);
  const lab: OkLab = [L / count, A / count, B / count];
  const sum = xx + yy;
  const coherence = sum > 0 ? Math.hypot(xx - yy, 2 * xy) / sum : 0;
  if (sum < 1e-6 || coherence < 0.15) return { lab };
  // The gradient lies across the lines.
  let degrees = (Math.atan2(2 * xy, xx - yy) * 90) / Math.PI + 90;
  if (degrees > 90) degrees -= 180;
  return { lab, figureDegrees: degrees };
}

const cellBeside = (blank: Blank, y: number): Cell =>
  blank.cells.find((cell) => {
    const box = bounds({ cells: [cell] });
    return y >= box.min[1] && y <= box.max[1];
  }) ?? blank.cells[0];

/** What is known of a strip that its picture does not show. */
export interface StripNotes {
  board?: BoardStock;
  slot?: Slot;
}

/** Direction of a board's axis in the blank's frame: +1 or -1 along the blank's own, by the greatest part. */
const signAlong = (toBoard: readonly number[], axis: 0 | 2): number =>
  Math.sign(turnDirection(toBoard, axis === 0 ? [1, 0, 0] : [0, 0, 1])[axis]) || 1;

function planingOf(notes: StripNotes, toBoard: readonly number[] | undefined, flips: number) {
  const fibre = notes.board?.fibre ?? notes.slot?.fibre;
  if (!fibre) return undefined;
  if (fibre === 'straight') return 0;
  const rising = fibre === 'rising' ? 1 : -1;
  const turned = toBoard ? signAlong(toBoard, 0) * signAlong(toBoard, 2) : flips;
  // Knives moving from left to right run up a rising fibre and lift none.
  return (rising * turned > 0 ? 1 : -1) as -1 | 1;
}

function sapAt(
  point: Vec3,
  notes: StripNotes,
  toBoard: readonly number[] | undefined,
  far: boolean,
): boolean | undefined {
  const { board, slot } = notes;
  if (board && toBoard) {
    const [x, y] = movePoint(toBoard, point);
    const marked = (board.faults ?? []).some(
      (fault) =>
        fault.kind === 'sapwood' &&
        x >= fault.x &&
        x <= fault.x + fault.length &&
        y >= fault.y - SAP_REACH &&
        y <= fault.y + fault.width + SAP_REACH,
    );
    if (marked) return true;
    if (!board.sapEdge) return board.faults ? false : undefined;
    const atNear = y < SAP_REACH * 2;
    const atFar = y > board.width.mm - SAP_REACH * 2;
    return (
      (atNear && (board.sapEdge === 'near' || board.sapEdge === 'both')) ||
      (atFar && (board.sapEdge === 'far' || board.sapEdge === 'both'))
    );
  }
  if (!slot?.sapEdge) return undefined;
  return slot.sapEdge === 'both' || slot.sapEdge === (far ? 'far' : 'near');
}

/** What a strip shows with the face that is up now up. `flips` is -1 for a strip lying on its other face than as ripped. */
export function faceLook(blank: Blank, notes: StripNotes, flips: 1 | -1 = 1): FaceLook {
  const box = bounds(blank);
  const [x0, x1] = [box.min[0] + 2, box.max[0] - 2];
  const reach = Math.min(PATCH.reach, (box.max[1] - box.min[1]) / 2);
  const far = cellBeside(blank, box.max[1] - 0.5);
  const near = cellBeside(blank, box.min[1] + 0.5);
  const px = 1.5;
  const farLook = lookBeside(painter(far, px).paint, {
    x0,
    x1,
    from: box.max[1] - 0.5,
    to: box.max[1] - reach,
  });
  const nearLook = lookBeside(painter(near, px).paint, {
    x0,
    x1,
    from: box.min[1] + reach,
    to: box.min[1] + 0.5,
  });
  const middle = blank.cells[0];
  const centre = cellCentre(middle);
  const inLog = movePoint(middle.toLog, centre);
  const up = turnDirection(middle.toLog, [0, 0, 1]);
  const radius = Math.hypot(inLog[0], inLog[1]) || 1;
  const outward = (inLog[0] * up[0] + inLog[1] * up[1]) / radius;
  const toBoard = notes.board
    ? compose(inverse(boardBlank(notes.board).cells[0].toLog), middle.toLog)
    : undefined;
  const x = (x0 + x1) / 2;
  // An edge's own sapwood, as the strip was ripped, changes sides when the strip is rolled over.
  const asRipped = (atFar: boolean) => (flips > 0 ? atFar : !atFar);
  return {
    far: { ...farLook, ...sap(sapAt([x, box.max[1], centre[2]], notes, toBoard, asRipped(true))) },
    near: { ...nearLook, ...sap(sapAt([x, box.min[1], centre[2]], notes, toBoard, asRipped(false))) },
    lab: [0, 1, 2].map((k) => (farLook.lab[k] + nearLook.lab[k]) / 2) as unknown as OkLab,
    rings: Math.abs(outward) < UPRIGHT ? 0 : outward > 0 ? 1 : -1,
    ...planing(planingOf(notes, toBoard, flips)),
  };
}

const sap = (value: boolean | undefined) => (value === undefined ? {} : { sap: value });

const planing = (value: -1 | 0 | 1 | undefined) => (value === undefined ? {} : { planing: value });

/** A face after the strip was turned end for end: edges change places, lines keep their slope, planing turns about. */
export const endForEnd = (face: FaceLook): FaceLook => ({
  ...face,
  far: face.near,
  near: face.far,
  ...(face.planing ? { planing: -face.planing as -1 | 1 } : {}),
});
