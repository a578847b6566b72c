import fc from 'fast-check';
import Module, { type Manifold } from 'manifold-3d';
import { describe, expect, it } from 'vitest';
import { type Region, sidesOf } from '../../curve';
import { balancePoint, blankVolume, type Vec3 } from '../../solid';
import { asFeatures } from '../find';
import { build, GLUE, last, three } from '../steps.fixture';
import { AXES_OF } from './frame';
import { type FeatureStep, laidOn } from './feature';
import { beginFeature, FEATURE_LIST } from './kinds';
import type { Cut, SideSize } from './kind';
import type { Feature, PieceSide } from './model';

/*
 * Volumes and balance points of pieces with features against manifold-3d, a general library of meshes: it gets lines for
 * arcs, sector by sector of the same area, and slabs for what changes with depth, and computes in single precision.
 */
const wasm = await Module();
wasm.setup();

/* The panel is 500 by 150 by 25. */
const SIZE: Vec3 = [500, 150, 25];
const CHORD = 0.02;
const SLABS = 12;

/** A region as polygons that keep within CHORD of its arcs, their corners so far out that each sector keeps its area. */
const polygonsOf = (region: Region): [number, number][][] =>
  region.map((loop) =>
    sidesOf(loop).flatMap(({ a, arc }): [number, number][] => {
      if (!arc) return [[a.x, a.y]];
      const step = 2 * Math.acos(1 - Math.min(CHORD / arc.r, 0.002));
      const parts = Math.max(1, Math.ceil(Math.abs(arc.sweep) / step));
      const turn = Math.abs(arc.sweep) / parts;
      const r = arc.r * Math.sqrt(turn / Math.sin(turn));
      return Array.from({ length: parts }, (_, i) => {
        const angle = arc.from + (arc.sweep * i) / parts;
        return [arc.cx + r * Math.cos(angle), arc.cy + r * Math.sin(angle)];
      });
    }),
  );

/** A cut as a mesh in the piece’s frame. */
function meshOf({ region, from, to, at }: Cut, side: PieceSide): Manifold {
  const slabs = at
    ? Array.from({ length: SLABS }, (_, i) => {
        // Thinner towards both ends, where a round floor or shoulder changes most.
        const place = (k: number) => from + ((to - from) * (1 - Math.cos((Math.PI * k) / SLABS))) / 2;
        const [a, b] = [place(i), place(i + 1)];
        return { a, b, region: at((a + b) / 2) };
      })
    : [{ a: from, b: to, region }];
  const [u, v, n] = AXES_OF[side];
  const high = side === 'upper' || side === 'far' || side === 'right';
  return wasm.Manifold.union(
    slabs
      .filter(({ region: own }) => own.length > 0)
      .map(({ a, b, region: own }) => {
        const solid = wasm.CrossSection.ofPolygons(polygonsOf(own), 'EvenOdd').extrude(b - a);
        // Columns of the motion: along, across, and into the wood.
        const m = new Array<number>(16).fill(0);
        m[u] = 1;
        m[4 + v] = 1;
        m[8 + n] = high ? -1 : 1;
        m[12 + n] = high ? SIZE[n] - a : a;
        m[15] = 1;
        return solid.transform(m as never);
      }),
  );
}

/** Volume and middle of a mesh by tetrahedra from the origin. */
function middleOf(mesh: Manifold): { mm3: number; at: Vec3 } {
  const { vertProperties: p, triVerts, numProp } = mesh.getMesh();
  let mm3 = 0;
  const at = [0, 0, 0];
  for (let i = 0; i < triVerts.length; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => [0, 1, 2].map((axis) => p[triVerts[i + k] * numProp + axis]));
    const six =
      a[0] * (b[1] * c[2] - b[2] * c[1]) -
      a[1] * (b[0] * c[2] - b[2] * c[0]) +
      a[2] * (b[0] * c[1] - b[1] * c[0]);
    mm3 += six / 6;
    for (const axis of [0, 1, 2]) at[axis] += (six * (a[axis] + b[axis] + c[axis])) / 24;
  }
  return { mm3, at: at.map((sum) => sum / mm3) as unknown as Vec3 };
}

const sideSize = (side: PieceSide): SideSize => {
  const [u, v, n] = AXES_OF[side];
  return { side, long: SIZE[u], wide: SIZE[v], deep: SIZE[n], trims: { u: [0, 0], v: [0, 0], n: 0 } };
};

/** A feature of a kind at a place, its sizes so many per cent of what it begins with. */
const feature = fc.record({
  kind: fc.constantFrom(...FEATURE_LIST),
  side: fc.integer({ min: 0, max: 5 }),
  u: fc.integer({ min: -60, max: 60 }),
  v: fc.integer({ min: -30, max: 30 }),
  share: fc.integer({ min: 60, max: 130 }),
  choice: fc.integer({ min: 0, max: 20 }),
});

function made(
  {
    kind,
    side,
    u,
    v,
    share,
    choice,
  }: {
    kind: (typeof FEATURE_LIST)[number];
    side: number;
    u: number;
    v: number;
    share: number;
    choice: number;
  },
  id: string,
): Feature {
  const sides: readonly PieceSide[] = kind.sides ?? ['upper', 'lower', 'near', 'far', 'left', 'right'];
  const on = sideSize(sides[side % sides.length]);
  const begun = beginFeature(kind, on, { id, system: 'mm' });
  const changed = Object.fromEntries(
    Object.entries(kind.fields as Record<string, { is: string; options?: { value: string }[] }>).flatMap(
      ([name, field]): [string, unknown][] => {
        const value = (begun as unknown as Record<string, unknown>)[name];
        if (field.is === 'length' && value)
          return [[name, { mm: ((value as { mm: number }).mm * share) / 100 }]];
        if (field.is === 'choice' && field.options)
          return [[name, field.options[choice % field.options.length].value]];
        return [];
      },
    ),
  );
  const middle = (by: number, room: number) => ({ from: 'middle' as const, by: { mm: (by * room) / 200 } });
  return { ...begun, ...changed, u: middle(u, on.long), v: middle(v, on.wide) } as Feature;
}

describe('pieces with features against a library of meshes', () => {
  it('have the volume and the balance point that it finds: 300 features of every kind', () => {
    const seen = new Map<string, number>();
    let compared = 0;
    const wrong: unknown[] = [];
    for (const list of fc.sample(fc.array(feature, { minLength: 1, maxLength: 3 }), {
      seed: 20261129,
      numRuns: 160,
    })) {
      const features = list.map((each, i) => made(each, `f${i}`));
      const step: FeatureStep = {
        id: 'cutting',
        kind: 'feature',
        inputs: ['panel'],
        output: 'cut',
        features,
        edges: 'now',
      };
      const entry = last(build(three, [GLUE, step]));
      const [piece] = entry.entered;
      const own = asFeatures(step) as FeatureStep;
      const laid = laidOn(own, piece, {
        laterTrims: () => {
          throw new Error('none');
        },
        outlineBefore: () => undefined,
      });
      if (entry.pieces.length === 0) continue;
      const cuts = laid.flatMap(({ cuts: all, feature: { side } }) =>
        all.flat().map((cut) => ({ cut, side })),
      );
      for (const {
        feature: { kind },
        refused,
      } of laid)
        if (!refused) seen.set(kind, (seen.get(kind) ?? 0) + 1);
      const box = wasm.Manifold.cube([...SIZE]);
      const left = cuts.reduce((mesh, { cut, side }) => mesh.subtract(meshOf(cut, side)), box);
      const { mm3, at } = middleOf(left);
      const whole = SIZE[0] * SIZE[1] * SIZE[2];
      const taken = whole - mm3;
      // Slabs for what changes with depth, single precision for the rest.
      const changing = cuts.filter(({ cut }) => cut.at).length;
      // Two that both change with depth meet in levels of their own: there a part of a level is off.
      const slack = changing === 0 ? 1e-3 : changing === 1 ? 5e-3 : 3e-2;
      const [blank] = entry.pieces.map((each) => each.blank);
      const off = Math.abs(blankVolume(blank) - mm3);
      const balance = balancePoint(blank, () => 1) as Vec3;
      const aside = Math.max(...[0, 1, 2].map((axis) => Math.abs(balance[axis] - at[axis])));
      if (off > 2 + slack * taken || aside > 0.01) wrong.push({ off, aside, taken, features });
      compared += laid.length;
    }
    expect(wrong).toEqual([]);
    expect(compared).toBeGreaterThanOrEqual(300);
    // Every kind was among them.
    expect([...seen.keys()].toSorted()).toEqual(FEATURE_LIST.map(({ kind }) => kind).toSorted());
  });
});
