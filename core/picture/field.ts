import { asShare } from '../units';
import { type Region, type Side, sidesOf, windingOf } from '../curve';
import type { Form, Level, Vec3 } from '../solid';

/** A plane outline ready to be asked about points many times: its sides, and their numbers one behind the other. */
export interface Plan {
  sides: readonly Side[];
  /** Of each side: its ends, then 0 0 0 0 0 0 for a straight one, else centre, radius, the way to its middle, cosine of half its sweep. */
  numbers: Float64Array;
}
const EACH = 10;
const plans = new WeakMap<Region, Plan>();
/** The sides of an outline, made once. */
export function planOf(region: Region): Plan {
  let plan = plans.get(region);
  if (!plan) {
    const sides = region.flatMap(sidesOf);
    const numbers = new Float64Array(sides.length * EACH);
    sides.forEach(({ a, b, arc }, i) => {
      numbers.set([a.x, a.y, b.x, b.y], i * EACH);
      if (!arc) return;
      const middle = arc.from + arc.sweep / 2;
      const half = Math.cos(Math.min(Math.PI, Math.abs(arc.sweep) / 2));
      numbers.set([arc.cx, arc.cy, arc.r, Math.cos(middle), Math.sin(middle), half], i * EACH + 4);
    });
    plan = { sides, numbers };
    plans.set(region, plan);
  }
  return plan;
}

/** How far inside an outline a point lies, mm; below zero outside. */
const insideBy = (plan: Plan, x: number, y: number): number =>
  (windingOf(plan.sides, { x, y }) > 0 ? 1 : -1) * awayFrom(plan, x, y);

/** How far a point lies from an outline, mm. Runs some hundred thousand times for a picture. */
function awayFrom({ numbers }: Plan, x: number, y: number): number {
  let least = Infinity;
  for (let o = 0; o < numbers.length; o += EACH) {
    const ax = x - numbers[o];
    const ay = y - numbers[o + 1];
    const r = numbers[o + 6];
    let own: number;
    if (r === 0) {
      const dx = numbers[o + 2] - numbers[o];
      const dy = numbers[o + 3] - numbers[o + 1];
      const long = dx * dx + dy * dy;
      const t = long > 0 ? asShare((ax * dx + ay * dy) / long) : 0;
      const [px, py] = [ax - t * dx, ay - t * dy];
      own = px * px + py * py;
    } else {
      const cx = x - numbers[o + 4];
      const cy = y - numbers[o + 5];
      const away = Math.sqrt(cx * cx + cy * cy);
      const bx = x - numbers[o + 2];
      const by = y - numbers[o + 3];
      own = Math.min(ax * ax + ay * ay, bx * bx + by * by);
      if (cx * numbers[o + 7] + cy * numbers[o + 8] >= away * numbers[o + 9])
        own = Math.min(own, (away - r) ** 2);
    }
    if (own < least) least = own;
  }
  return Math.sqrt(least);
}

/** Every other level, with the first and the last: a picture shows no more. */
const everyOther = (levels: readonly Level[]): readonly Level[] =>
  levels.length <= 8 ? levels : levels.filter((_, i) => i % 2 === 0 || i === levels.length - 1);

/** Points of a block along each way, less one. */
const BLOCK = 8;
const ROW = BLOCK + 1;
/** A block that lies wholly out of every level, or wholly in an outline. */
const OUT = 0;
const IN = 1;

/**
 * Whether points lie in a form, and how deep, for a picture: asked block by block. A block that is wholly in or out is told so from its
 * middle; of a form of levels the distances of a block’s points are kept, and what lies between is taken as even.
 */
export class Field {
  private readonly blocks = new Map<number, number | Float32Array>();
  private readonly far = new Map<number, boolean>();
  private lastKey = NaN;
  private lastBlock: number | Float32Array = OUT;
  private blank = OUT;
  private offset = 0;
  private w00 = 0;
  private w10 = 0;
  private w01 = 0;
  private w11 = 0;
  private readonly plans: readonly Plan[];
  private readonly zs: readonly number[];

  constructor(
    private readonly form: Form,
    /** Between points, mm. */
    private readonly grid: number,
  ) {
    const levels = form.kind === 'prism' ? [{ z: 0, region: form.region }] : everyOther(form.levels);
    this.plans = levels.map(({ region }) => planOf(region));
    this.zs = levels.map(({ z }) => z);
  }

  private block(bx: number, by: number): number | Float32Array {
    const key = bx * 100_003 + by;
    // Points come row by row: the next one mostly lies in the same block.
    if (key === this.lastKey) return this.lastBlock;
    let known = this.blocks.get(key);
    if (known === undefined) {
      known = this.made(bx, by);
      this.blocks.set(key, known);
    }
    this.lastKey = key;
    this.lastBlock = known;
    return known;
  }

  private made(bx: number, by: number): number | Float32Array {
    const size = BLOCK * this.grid;
    if (this.farOut(Math.floor(bx / BLOCK), Math.floor(by / BLOCK))) return OUT;
    const reach = size * 0.7072;
    const middles = this.middles((bx + 0.5) * size, (by + 0.5) * size);
    if (middles.every((mm) => mm < -reach)) return OUT;
    if (this.form.kind === 'prism') return middles[0] > reach ? IN : 2;
    const out = new Float32Array(this.plans.length * ROW * ROW);
    this.plans.forEach((plan, k) => {
      let before = 0;
      for (let j = 0; j < ROW; j++)
        for (let i = 0; i < ROW; i++) {
          const [x, y] = [bx * size + i * this.grid, by * size + j * this.grid];
          // Next to a point that lies farther from the outline than they are apart, no side is crossed.
          const same = i > 0 && Math.abs(before) > this.grid;
          before =
            plan.sides.length === 0
              ? -1e3
              : same
                ? Math.sign(before) * awayFrom(plan, x, y)
                : insideBy(plan, x, y);
          out[(k * ROW + j) * ROW + i] = before;
        }
    });
    return out;
  }

  private middles(x: number, y: number): number[] {
    return this.plans.map((plan) => (plan.sides.length === 0 ? -1e3 : insideBy(plan, x, y)));
  }

  /** Whether a block of blocks lies wholly out of every level. */
  private farOut(bx: number, by: number): boolean {
    const key = bx * 100_003 + by;
    let known = this.far.get(key);
    if (known === undefined) {
      const size = BLOCK * BLOCK * this.grid;
      known = this.middles((bx + 0.5) * size, (by + 0.5) * size).every((mm) => mm < -size * 0.7072);
      this.far.set(key, known);
    }
    return known;
  }

  /** Whether a point lies in the form; its height is known to lie between the form’s ends. */
  opens(x: number, y: number, z: number): boolean {
    const size = BLOCK * this.grid;
    const block = this.block(Math.floor(x / size), Math.floor(y / size));
    if (block === OUT) return false;
    if (this.form.kind === 'levels') return this.depth(x, y, z) > 0;
    return block === IN || windingOf(this.plans[0].sides, { x, y }) > 0;
  }

  /** The block around a point, and the weights of its four nearest points, into `place`; undefined where it is wholly out or in. */
  private placed(x: number, y: number): Float32Array | undefined {
    const size = BLOCK * this.grid;
    const [bx, by] = [Math.floor(x / size), Math.floor(y / size)];
    const block = this.block(bx, by);
    if (typeof block === 'number') {
      this.blank = block;
      return undefined;
    }
    const fx = x / this.grid - bx * BLOCK;
    const fy = y / this.grid - by * BLOCK;
    const i = Math.min(BLOCK - 1, Math.floor(fx));
    const j = Math.min(BLOCK - 1, Math.floor(fy));
    const u = fx - i;
    const v = fy - j;
    this.offset = j * ROW + i;
    this.w00 = (1 - u) * (1 - v);
    this.w10 = u * (1 - v);
    this.w01 = (1 - u) * v;
    this.w11 = u * v;
    return block;
  }

  /** The depth on a level, at the point that was placed last. */
  private onLevel(block: Float32Array, k: number): number {
    const o = k * ROW * ROW + this.offset;
    return (
      block[o] * this.w00 +
      block[o + 1] * this.w10 +
      block[o + ROW] * this.w01 +
      block[o + ROW + 1] * this.w11
    );
  }

  /** How far inside a form of levels a point lies, mm; below zero outside. */
  depth(x: number, y: number, z: number): number {
    const block = this.placed(x, y);
    if (!block) return this.blank === IN ? BLOCK * this.grid : (-BLOCK * this.grid) / 2;
    const { zs } = this;
    const last = zs.length - 1;
    if (last === 0) return this.onLevel(block, 0);
    let k = 0;
    while (k < last - 1 && zs[k + 1] < z) k++;
    const t = (z - zs[k]) / (zs[k + 1] - zs[k]);
    return this.onLevel(block, k) * (1 - t) + this.onLevel(block, k + 1) * t;
  }

  /**
   * Where a straight line along the axis leaves a form of levels, from a height on, upwards or downwards; undefined where it stays in to
   * the end. Depth runs evenly from level to level, so that the place is told and not sought.
   */
  leavesAt(x: number, y: number, z: number, up: boolean): number | undefined {
    const block = this.placed(x, y);
    if (!block) return undefined;
    const { zs } = this;
    let [before, from] = [this.depth(x, y, z), z];
    const step = up ? 1 : -1;
    let k = up ? zs.findIndex((each) => each > z) : zs.findLastIndex((each) => each < z);
    if (k < 0) return undefined;
    for (; k >= 0 && k < zs.length; k += step) {
      const here = this.onLevel(block, k);
      if (here <= 0) return from + ((zs[k] - from) * before) / (before - here);
      before = here;
      from = zs[k];
    }
    // Past the last level it goes on as it ran.
    const inner = up ? zs.length - 2 : 1;
    if (inner < 0 || inner >= zs.length) return undefined;
    const slope = (before - this.onLevel(block, inner)) / Math.abs(from - zs[inner]);
    return slope < 0 ? from + (step * before) / -slope : undefined;
  }

  /** How the wall of a form of levels lies at a point, out of the wood. */
  slope(x: number, y: number, z: number): Vec3 {
    const e = this.grid / 4;
    const here = this.depth(x, y, z);
    const g = [
      this.depth(x + e, y, z) - here,
      this.depth(x, y + e, z) - here,
      this.depth(x, y, z + e) - here,
    ];
    const long = Math.hypot(...g) || 1;
    return [g[0] / long, g[1] / long, g[2] / long];
  }
}

const fields = new WeakMap<Form, Map<number, Field>>();
/** The field of a form for pixels of a size: made once for each fineness, in steps of two. */
export function fieldOf(form: Form, pxMm: number): Field {
  const grid = Math.min(2, Math.max(0.25, 2 ** Math.round(Math.log2(pxMm * 1.5))));
  const own = fields.get(form) ?? new Map<number, Field>();
  fields.set(form, own);
  let field = own.get(grid);
  if (!field) {
    field = new Field(form, grid);
    own.set(grid, field);
  }
  return field;
}
