import { alongArc, type Box2 } from '../curve';
import { type Field, fieldOf, type Plan, planOf } from './field';
import {
  bounds,
  type Cell,
  compose,
  faceOffset,
  type Form,
  formBox,
  movePoint,
  type Rigid,
  turnDirection,
  type Vec3,
} from '../solid';

/** A hollow as the eye meets it: the motion into its frame, the way of the eye there, and how it is asked about points. */
interface Seen {
  form: Form;
  m: Rigid;
  way: Vec3;
  field: Field;
  box: Box2;
}

/** Where the eye ends in a piece with hollows: in which cell, how far behind the face, and how the wood lies there. */
export interface Landing {
  cell: Cell;
  deep: number;
  /** In the blank’s frame, out of the wood; undefined where it is the face itself. */
  normal?: Vec3;
}

/** Just past a wall, so that a point lies on its other side, mm. */
const PAST = 1e-4;
/** More walls than this behind each other are fog. */
const MOST_WALLS = 24;

const opens = ({ form, m, field, box }: Seen, px: number, py: number, pz: number): boolean => {
  const z = m[8] * px + m[9] * py + m[10] * pz + m[11];
  if (z < form.z0 - PAST || z > form.z1 + PAST) return false;
  const x = m[0] * px + m[1] * py + m[2] * pz + m[3];
  if (x <= box.x0 || x >= box.x1) return false;
  const y = m[4] * px + m[5] * py + m[6] * pz + m[7];
  return y > box.y0 && y < box.y1 && field.opens(x, y, z);
};

/** Where a ray in the plane first meets a side ahead of it, and how the side lies there, facing it. */
function wallAhead({ sides }: Plan, p: Vec3, way: Vec3): { t: number; nx: number; ny: number } {
  const best = { t: Infinity, nx: 0, ny: 0 };
  const keep = (t: number, nx: number, ny: number) => {
    if (t <= PAST / 10 || t >= best.t) return;
    const facing = nx * way[0] + ny * way[1] > 0 ? -1 : 1;
    best.t = t;
    best.nx = facing * nx;
    best.ny = facing * ny;
  };
  for (const { a, b, arc } of sides) {
    if (!arc) {
      const [dx, dy] = [b.x - a.x, b.y - a.y];
      const det = way[0] * dy - way[1] * dx;
      if (Math.abs(det) < 1e-12) continue;
      const t = ((a.x - p[0]) * dy - (a.y - p[1]) * dx) / det;
      const s = ((a.x - p[0]) * way[1] - (a.y - p[1]) * way[0]) / det;
      if (s < 0 || s > 1) continue;
      const long = Math.hypot(dx, dy);
      keep(t, dy / long, -dx / long);
      continue;
    }
    const [ox, oy] = [p[0] - arc.cx, p[1] - arc.cy];
    const q = way[0] * way[0] + way[1] * way[1];
    const half = ox * way[0] + oy * way[1];
    const root = half * half - q * (ox * ox + oy * oy - arc.r * arc.r);
    if (root < 0) continue;
    for (const sign of [-1, 1]) {
      const t = (-half + sign * Math.sqrt(root)) / q;
      const [hx, hy] = [ox + t * way[0], oy + t * way[1]];
      if (alongArc(arc, Math.atan2(hy, hx)) <= 1) keep(t, hx / arc.r, hy / arc.r);
    }
  }
  return best;
}

/** How far until a ray leaves a form, and how the wood lies there, in the form’s frame. */
function leaving({ form, way, field }: Seen, p: Vec3, stepMm: number): { t: number; normal: Vec3 } {
  const floor =
    way[2] > 1e-12 ? (form.z1 - p[2]) / way[2] : way[2] < -1e-12 ? (form.z0 - p[2]) / way[2] : Infinity;
  const onFloor = { t: floor, normal: [0, 0, way[2] > 0 ? -1 : 1] as Vec3 };
  if (form.kind === 'prism') {
    if (Math.hypot(way[0], way[1]) < 1e-9) return onFloor;
    const { t, nx, ny } = wallAhead(planOf(form.region), p, way);
    return t < floor ? { t, normal: [nx, ny, 0] } : onFloor;
  }
  if (Math.hypot(way[0], way[1]) < 1e-9) {
    const z = field.leavesAt(p[0], p[1], p[2], way[2] > 0);
    const t = z === undefined ? floor : (z - p[2]) / way[2];
    return t < floor ? { t: Math.max(PAST, t), normal: field.slope(p[0], p[1], z as number) } : onFloor;
  }
  const depth = (t: number) => field.depth(p[0] + t * way[0], p[1] + t * way[1], p[2] + t * way[2]);
  let t = 0;
  let value = field.depth(p[0], p[1], p[2]);
  // What is left to a wall is at least so far as it lies inside, where walls are steep; small steps elsewhere.
  for (let guard = 0; guard < 400; guard++) {
    const next = t + Math.max(stepMm, 0.5 * value);
    if (next >= floor) {
      if (depth(floor) > 0) return onFloor;
    }
    const to = Math.min(next, floor);
    const own = depth(to);
    if (own <= 0) {
      let [low, high] = [t, to];
      for (let k = 0; k < 10; k++) {
        const mid = (low + high) / 2;
        if (depth(mid) > 0) low = mid;
        else high = mid;
      }
      return {
        t: high,
        normal: field.slope(p[0] + high * way[0], p[1] + high * way[1], p[2] + high * way[2]),
      };
    }
    t = to;
    value = own;
  }
  return onFloor;
}

/** How far until a ray leaves a convex cell, and through which way it looks out. */
function outOf(cell: Cell, p: Vec3, way: Vec3): { t: number; normal: Vec3 } {
  let t = Infinity;
  let normal: Vec3 = [0, 0, 1];
  for (const face of cell.faces) {
    const n = face.normal;
    const along = n[0] * way[0] + n[1] * way[1] + n[2] * way[2];
    if (along <= 1e-9) continue;
    const own = (faceOffset(cell, face) - n[0] * p[0] - n[1] * p[1] - n[2] * p[2]) / along;
    if (own < t) {
      t = own;
      normal = n;
    }
  }
  return { t, normal };
}

/** Looks into a scene with hollows along one way: made once for a picture. */
export class Looker {
  private readonly seen = new Map<Cell, Seen[]>();
  private last: Cell | undefined;
  private lastList: Seen[] = [];
  private readonly boxes: { cell: Cell; min: Vec3; max: Vec3 }[];

  constructor(
    cells: readonly Cell[],
    /** The way of the eye, into the picture, of length one. */
    private readonly way: Vec3,
    private readonly pxMm: number,
  ) {
    this.boxes = cells.map((cell) => ({ cell, ...bounds({ cells: [cell] }) }));
  }

  private hollowsOf(cell: Cell): Seen[] {
    let list = this.seen.get(cell);
    if (!list) {
      list = (cell.hollows ?? []).map(({ form, fromLog }) => {
        const m = compose(fromLog, cell.toLog);
        return {
          form,
          m,
          way: turnDirection(m, this.way),
          field: fieldOf(form, this.pxMm),
          box: formBox(form),
        };
      });
      this.seen.set(cell, list);
    }
    return list;
  }

  private cellAt(p: Vec3): Cell | undefined {
    for (const { cell, min, max } of this.boxes) {
      if (p[0] < min[0] || p[1] < min[1] || p[2] < min[2] || p[0] > max[0] || p[1] > max[1] || p[2] > max[2])
        continue;
      if (
        cell.faces.every((face) => {
          const n = face.normal;
          return n[0] * p[0] + n[1] * p[1] + n[2] * p[2] <= faceOffset(cell, face) + PAST;
        })
      )
        return cell;
    }
    return undefined;
  }

  /** Whether a cell’s face is open at a point, just behind it. Asked for every sample of a picture. */
  opensAt(cell: Cell, px: number, py: number, pz: number): boolean {
    if (cell !== this.last) {
      this.last = cell;
      this.lastList = this.hollowsOf(cell);
    }
    const { way, lastList } = this;
    const [x, y, z] = [px + PAST * way[0], py + PAST * way[1], pz + PAST * way[2]];
    for (const each of lastList) if (opens(each, x, y, z)) return true;
    return false;
  }

  /** Where the eye ends that meets a cell’s face at a point; undefined where it looks right through. */
  from(start: Cell, p: Vec3): Landing | undefined {
    let cell = start;
    let deep = 0;
    let normal: Vec3 | undefined;
    const at = (s: number): Vec3 => [p[0] + s * this.way[0], p[1] + s * this.way[1], p[2] + s * this.way[2]];
    for (let walls = 0; walls < MOST_WALLS; walls++) {
      const here = at(deep + PAST);
      const list = this.hollowsOf(cell);
      const open = list.find((each) => opens(each, here[0], here[1], here[2]));
      if (!open) return { cell, deep, ...(normal ? { normal } : {}) };
      const exit = leaving(open, movePoint(open.m, here), Math.max(0.2, this.pxMm / 2));
      const out = outOf(cell, here, this.way);
      // A floor that lies on the cell’s own underside is none: it goes right through.
      if (exit.t < out.t - 1e-3) {
        deep += exit.t + 2 * PAST;
        const n = exit.normal;
        const { m } = open;
        normal = [
          m[0] * n[0] + m[4] * n[1] + m[8] * n[2],
          m[1] * n[0] + m[5] * n[1] + m[9] * n[2],
          m[2] * n[0] + m[6] * n[1] + m[10] * n[2],
        ];
        continue;
      }
      deep += out.t + 2 * PAST;
      const next = this.cellAt(at(deep + PAST));
      if (!next) return undefined;
      cell = next;
      normal = [-out.normal[0], -out.normal[1], -out.normal[2]];
    }
    return { cell, deep, ...(normal ? { normal } : {}) };
  }
}
