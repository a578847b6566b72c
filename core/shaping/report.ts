import { boxOf, boundariesApart, isInside, rectangle, type Region, wallTo } from '../curve';
import type { BuildDocument } from '../document';
import type { Bit } from '../kit';
import { bounds, contacts, type Vec3 } from '../solid';
import {
  AXES_OF,
  bitKindsOf,
  type FeatureStep,
  kindOf,
  type LaidFeature,
  laidOn,
  laterTrims,
  outlineBefore,
  type TimelineStep,
  type WorkPiece,
} from '../steps';
import { type Body, bodiesOf } from './body';
import { bridge } from './clearance';

/** Wood that must stay beside and under what is cut, mm (common practice): less breaks, or tears. */
export const LEAST_WALL = 3;

/** A joint seen on a side: the stretch it crosses, and how deep it reaches there. */
interface JointOnSide {
  line: Region;
  low: number;
  high: number;
}

/** One feature as planned, with all that is left around it. mm. */
export interface FeatureReport {
  laid: LaidFeature;
  bodies: Body[][];
  /** Wood to the nearest finished edge; below zero, how far it breaks out. Undefined where it is meant to run out, or follows the edge. */
  wall?: { mm: number; spot: number };
  /** Wood under its floor; undefined for one that goes right through. */
  floor?: number;
  /** How deep it goes, all its cuts together. */
  depth: number;
  /** Wood to the nearest other feature, or another of its own row. */
  nearest?: { mm: number; other: string; spot: number };
  /** Joints: how many it crosses, and the nearest one that it clears. */
  joints: { crosses: number; clears?: number; into?: { mm: number; spot: number } };
  /** It takes no wood at all. */
  beside: boolean;
  /** The cutter that makes it, and how many passes it takes. */
  bit?: Bit;
  passes?: number;
}

/** A step's features with what is around them, on the first piece that enters it. */
export interface StepReport {
  size: Vec3;
  features: FeatureReport[];
}

const joints = (piece: WorkPiece): { outline: Vec3[]; min: Vec3 }[] => {
  const { min } = bounds(piece.blank);
  return contacts(piece.blank).map((contact) => ({ outline: contact.outline(), min }));
};

/** Joints as they are seen on the side of a feature: those that stand square to it, as lines. */
function onSide(list: ReturnType<typeof joints>, { feature, side }: LaidFeature): JointOnSide[] {
  const [u, v, n] = AXES_OF[feature.side];
  const deep = (p: Vec3, min: Vec3) => {
    const at = p[n] - min[n];
    return feature.side === 'upper' || feature.side === 'far' || feature.side === 'right'
      ? side.deep - at
      : at;
  };
  return list.flatMap(({ outline, min }): JointOnSide[] => {
    const points = outline.map((p) => ({ x: p[u] - min[u], y: p[v] - min[v] }));
    const box = boxOf([points]);
    const [wide, high] = [box.x1 - box.x0, box.y1 - box.y0];
    const area = Math.abs(
      points.reduce((sum, p, i) => {
        const q = points[(i + 1) % points.length];
        return sum + p.x * q.y - q.x * p.y;
      }, 0),
    );
    // A joint that lies along the side is no line on it.
    if (area > 1e-3 * Math.max(wide, high)) return [];
    const far = points.reduce(
      (best, p) =>
        points.reduce(
          (own, q) =>
            Math.hypot(p.x - q.x, p.y - q.y) > own.d ? { p, q, d: Math.hypot(p.x - q.x, p.y - q.y) } : own,
          best,
        ),
      { p: points[0], q: points[0], d: 0 },
    );
    const depths = outline.map((p) => deep(p, min));
    return far.d < 1e-6
      ? []
      : [{ line: [[far.p, far.q]], low: Math.min(...depths), high: Math.max(...depths) }];
  });
}

/** The straight line that a stretch lies on, told so that stretches on one line are told alike. */
function lineKey([[a, b]]: Region): string {
  const long = Math.hypot(b.x - a.x, b.y - a.y);
  const sign = b.x - a.x < -1e-6 || (Math.abs(b.x - a.x) <= 1e-6 && b.y < a.y) ? -1 : 1;
  const [dx, dy] = [(sign * (b.x - a.x)) / long, (sign * (b.y - a.y)) / long];
  return [dx, dy, a.x * dy - a.y * dx].map((value) => Math.round(value * 100) + 0).join(' ');
}

/** How a feature stands to the joints of its side. */
function jointsOf(laid: LaidFeature, lines: readonly JointOnSide[]): FeatureReport['joints'] {
  const crossed = new Set<string>();
  let clears: number | undefined;
  let into: { mm: number; spot: number } | undefined;
  for (const { line, low, high } of lines) {
    let nearest = Infinity;
    laid.cuts.forEach((cuts, spot) => {
      for (const cut of cuts) {
        if (cut.from >= high - 1e-6 || cut.to <= low + 1e-6) continue;
        const [[a, b]] = line;
        const meets =
          boundariesApart(cut.region, line) === 0 || isInside(cut.region, a) || isInside(cut.region, b);
        if (!meets) {
          nearest = Math.min(nearest, boundariesApart(cut.region, line));
          continue;
        }
        nearest = 0;
        // How far it reaches past the joint on its lesser side.
        const long = Math.hypot(b.x - a.x, b.y - a.y);
        const off = (p: { x: number; y: number }) =>
          ((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) / long;
        const box = boxOf(cut.region);
        const sides = [
          off({ x: box.x0, y: box.y0 }),
          off({ x: box.x1, y: box.y1 }),
          off({ x: box.x0, y: box.y1 }),
          off({ x: box.x1, y: box.y0 }),
        ];
        const mm = Math.min(Math.max(...sides), -Math.min(...sides));
        if (!into || mm > into.mm) into = { mm, spot };
      }
    });
    // Joints between many short pieces lie on one line: it is one joint to the reader.
    if (nearest === 0) crossed.add(lineKey(line));
    else if (nearest < Infinity) clears = Math.min(clears ?? Infinity, nearest);
  }
  return { crosses: crossed.size, ...(clears === undefined ? {} : { clears }), ...(into ? { into } : {}) };
}

/** The finished outline of a side, as a region. */
export const finishedRegion = ({ side }: Pick<LaidFeature, 'side'>): Region => {
  const { u, v } = side.trims;
  return side.outline ?? [rectangle({ x: u[0], y: v[0] }, side.long - u[0] - u[1], side.wide - v[0] - v[1])];
};

function wallOf(laid: LaidFeature): FeatureReport['wall'] {
  const { runsOut, placed } = kindOf(laid.feature);
  if (runsOut || !placed) return undefined;
  const outline = finishedRegion(laid);
  let wall: { mm: number; spot: number } | undefined;
  laid.cuts.forEach((cuts, spot) => {
    for (const { region } of cuts) {
      const mm = wallTo(region, outline);
      if (!wall || mm < wall.mm) wall = { mm, spot };
    }
  });
  return wall;
}

/** The cutter that a feature names, or the first of the kit that makes it and passes where it must. */
export function bitFor({ feature }: LaidFeature, bits: readonly Bit[] | undefined): Bit | undefined {
  const kind = kindOf(feature);
  const named = bits?.find(({ id }) => id === feature.bit);
  if (named) return named;
  const narrow = kind.narrowest?.(feature) ?? kind.bitMm?.(feature);
  const exact = kind.bitMm?.(feature);
  const able = bits?.filter(
    ({ kind: own, diameter }) =>
      bitKindsOf(feature).includes(own) && (narrow === undefined || diameter.mm <= narrow + 0.05),
  );
  return (
    able?.find(({ diameter }) => exact !== undefined && Math.abs(diameter.mm - exact) <= 0.05) ??
    (kind.by === 'cutter'
      ? able?.reduce<Bit | undefined>(
          (best, each) => (!best || each.diameter.mm > best.diameter.mm ? each : best),
          undefined,
        )
      : undefined)
  );
}

/** Passes of a cutter: none deeper than half its width (common practice). */
export const passesOf = (depth: number, bit: Bit | undefined): number | undefined =>
  bit && depth > 0 ? Math.ceil(depth / (bit.diameter.mm / 2) - 1e-6) : undefined;

/** All that is left around the features of a step. `entry` is the step as it was played. */
export function featureReport(
  build: BuildDocument,
  step: FeatureStep,
  entry: TimelineStep,
): StepReport | undefined {
  const [piece] = entry.entered;
  if (!piece) return undefined;
  const laidList = laidOn(step, piece, {
    laterTrims: (output, size) => laterTrims(build, output, size),
    outlineBefore: (at) => outlineBefore(build, at),
  });
  const box = bounds(piece.blank);
  const size: Vec3 = [0, 1, 2].map((a) => box.max[a] - box.min[a]) as unknown as Vec3;
  const known = joints(piece);
  const all = laidList.map((laid) => bodiesOf(laid, size));
  const care = 4 * LEAST_WALL;
  const features = laidList.map((laid, i): FeatureReport => {
    const kind = kindOf(laid.feature);
    const bodies = all[i];
    const depth = laid.cuts.flat().reduce((most, { to }) => Math.max(most, to), 0);
    let nearest: FeatureReport['nearest'];
    bodies.forEach((own, spot) => {
      const look = (others: readonly Body[], name: string) => {
        for (const a of own)
          for (const b of others) {
            const mm = bridge(a, b, care);
            if (mm <= care && (!nearest || mm < nearest.mm)) nearest = { mm, other: name, spot };
          }
      };
      bodies.slice(spot + 1).forEach((others) => {
        look(others, laid.feature.id);
      });
      all.forEach((others, k) => {
        if (k !== i) for (const each of others) look(each, laidList[k].feature.id);
      });
    });
    const wall = wallOf(laid);
    const bit = bitFor(laid, build.shop.bits);
    const passes = kind.by === 'cutter' ? passesOf(depth, bit) : undefined;
    const floor = depth < laid.side.deep - 1e-6 && depth > 0 ? laid.side.deep - depth : undefined;
    return {
      laid,
      bodies,
      depth,
      joints: jointsOf(laid, onSide(known, laid)),
      beside: !laid.refused && laid.spots.length > 0 && isBeside(laid),
      ...(wall ? { wall } : {}),
      ...(floor === undefined ? {} : { floor }),
      ...(nearest ? { nearest } : {}),
      ...(bit ? { bit } : {}),
      ...(passes === undefined ? {} : { passes }),
    };
  });
  return { size, features };
}

/** Whether every cut of a feature lies beside the wood. */
function isBeside({ cuts, side }: LaidFeature): boolean {
  const { u, v } = side.trims;
  return cuts.flat().every(({ region }) => {
    const { x0, x1, y0, y1 } = boxOf(region);
    return x1 <= u[0] || x0 >= side.long - u[1] || y1 <= v[0] || y0 >= side.wide - v[1];
  });
}
