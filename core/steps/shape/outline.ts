import {
  areaOf,
  biarc,
  bulgeOf,
  bulgeThrough,
  type Corner,
  type CornerCut,
  cornered,
  cornerTakes,
  ellipse,
  type Loop,
  offset,
  type Point,
  reversed,
  selfCrossing,
} from '../../curve';
import type { Length } from '../../units';
import type { Refused } from '../feature/kind';

/** A corner of an outline, from the left end and the near edge: the side to the next one may bend, and the corner be round or cut off. */
export interface OutlineCorner {
  x: Length;
  y: Length;
  /** How far the side to the next corner rises over its chord: outwards, inwards with a minus; straight if missing. */
  rise?: Length;
  /** Or the radius of its arc, the shorter way round: outwards, inwards with a minus. */
  arc?: Length;
  /** Or a third point that its arc runs through. */
  through?: { x: Length; y: Length };
  /** Or it is part of a smooth curve through this corner and the next, that runs on from the sides beside it. */
  curve?: boolean;
  /** Radius of the corner, between straight sides. */
  radius?: Length;
  /** Or the corner is cut off, by so much along both its straight sides. */
  clip?: Length;
}

/** What an outline is drawn from: its corners, and how much larger all round it is sawn. */
export interface OutlineDrawn {
  outline?: readonly OutlineCorner[];
  larger?: Length;
}

const pointOf = ({ x, y }: Pick<OutlineCorner, 'x' | 'y'>): Point => ({ x: x.mm, y: y.mm });

/** Arcs of more than this bulge are nearly whole circles: a slip. */
const MOST_BULGE = 5;

/** The bulge of a side that does not bend. */
const STRAIGHT = 0;

/** How the side from a corner to the next bends; 0 where it is straight, or part of a curve. */
function bulgeAt(corners: readonly OutlineCorner[], i: number, sign: number): number {
  const { rise, arc, through, curve } = corners[i];
  const [p, q] = [pointOf(corners[i]), pointOf(corners[(i + 1) % corners.length])];
  const chord = Math.hypot(q.x - p.x, q.y - p.y);
  if (curve || chord < 1e-9) return STRAIGHT;
  if (through) return bulgeThrough(p, pointOf(through), q);
  if (arc?.mm) {
    const r = Math.abs(arc.mm);
    const height = r - Math.sqrt(Math.max(0, r * r - (chord * chord) / 4));
    const bulge = bulgeOf(chord, height);
    return Math.sign(arc.mm) === sign ? bulge : -bulge;
  }
  return rise ? sign * bulgeOf(chord, rise.mm) : STRAIGHT;
}

/** The direction that a side with a bulge leaves its begin in, or reaches its end in. */
function heading(p: Point, q: Point, bulge: number, end: 'begin' | 'end'): Point {
  const turn = Math.atan2(q.y - p.y, q.x - p.x) + (end === 'begin' ? -1 : 1) * 2 * Math.atan(bulge);
  return { x: Math.cos(turn), y: Math.sin(turn) };
}

const between = (p: Point, q: Point): Point => {
  const long = Math.hypot(q.x - p.x, q.y - p.y) || 1;
  return { x: (q.x - p.x) / long, y: (q.y - p.y) / long };
};

/** Corners with their bulges before corners are rounded, and what each is to become. */
function bent(corners: readonly OutlineCorner[]): { loop: Corner[]; cuts: CornerCut[] } {
  const n = corners.length;
  const points = corners.map(pointOf);
  // Outwards is right of the way round where it is walked counter-clockwise.
  const sign = areaOf([points]) < 0 ? -1 : 1;
  const bulges = corners.map((_, i) => bulgeAt(corners, i, sign));
  const at = (i: number) => points[((i % n) + n) % n];
  /** The way a curve runs through a corner: on from a side that is none, or as the chord between its neighbours. */
  const along = (i: number): Point => {
    const [before, own] = [(i - 1 + n) % n, i % n];
    if (!corners[before].curve) return heading(at(before), at(own), bulges[before], 'end');
    if (!corners[own].curve) return heading(at(own), at(own + 1), bulges[own], 'begin');
    return between(at(i - 1), at(i + 1));
  };
  const loop: Corner[] = [];
  const cuts: CornerCut[] = [];
  corners.forEach((corner, i) => {
    const { radius, clip, curve } = corner;
    if (curve) {
      loop.push(...biarc(at(i), along(i), at(i + 1), along(i + 1)));
      cuts.push({}, {});
      return;
    }
    loop.push(bulges[i] === 0 ? points[i] : { ...points[i], bulge: bulges[i] });
    cuts.push({ ...(clip ? { clip: clip.mm } : radius ? { radius: radius.mm } : {}) });
  });
  return { loop, cuts };
}

/** An outline's lines and arcs, counter-clockwise; undefined where it has no area, crosses itself, or is used up or comes apart when it is drawn smaller. */
export function outlineLoop(corners: readonly OutlineCorner[], larger = 0): Loop | undefined {
  const { loop: sharp, cuts } = bent(corners);
  const loop = cornered(sharp, cuts);
  const round = areaOf([loop]) < 0 ? reversed(loop) : loop;
  if (loop.length < 2 || areaOf([round]) <= 1e-6 || selfCrossing(round) !== undefined) return undefined;
  if (larger === 0) return round;
  const grown = offset(round, larger);
  return grown.length === 1 ? grown[0] : undefined;
}

/** The outline that a step draws. */
export const drawnOutline = ({ outline, larger }: OutlineDrawn): Loop | undefined =>
  outline && outlineLoop(outline, larger?.mm);

/** Why a side cannot bend as it is set, with its numbers; undefined where all can. */
export function bentWrong(corners: readonly OutlineCorner[]): Refused | undefined {
  for (const [i, corner] of corners.entries()) {
    const { rise, arc, through, curve } = corner;
    const next = corners[(i + 1) % corners.length];
    const chord = Math.hypot(next.x.mm - corner.x.mm, next.y.mm - corner.y.mm);
    if (curve) continue;
    if (through) {
      const bulge = bulgeThrough(pointOf(corner), pointOf(through), pointOf(next));
      if (Math.abs(bulge) > MOST_BULGE)
        return {
          words: [
            `The point that side ${i + 1} runs through lies on its own line, past its ends: no arc of a chord of `,
            { mm: chord },
            ' runs through it.',
          ],
          numbers: { side: i + 1, chord },
        };
    } else if (arc && Math.abs(arc.mm) < chord / 2 - 1e-9)
      return {
        words: [
          `Side ${i + 1} is `,
          { mm: chord },
          ' long: an arc of radius ',
          { mm: Math.abs(arc.mm) },
          ' does not span it, ',
          { mm: chord / 2 },
          ' is the least.',
        ],
        numbers: { radius: Math.abs(arc.mm), chord },
      };
    else if (!arc && rise && Math.abs(rise.mm) > chord / 2 + 1e-9)
      return {
        words: [
          `Side ${i + 1} rises `,
          { mm: Math.abs(rise.mm) },
          ' over a chord of ',
          { mm: chord },
          ': at half the chord, ',
          { mm: chord / 2 },
          ', it is half a circle. Put a corner in between.',
        ],
        numbers: { rise: Math.abs(rise.mm), chord },
      };
  }
  return undefined;
}

/** Corners that cannot be made as they are set and stay sharp: their numbers from 1, what they would take of a side, and what it has, mm. */
export function leftSharp(
  corners: readonly OutlineCorner[],
): { corner: number; takes?: number; side: number }[] {
  const { loop, cuts } = bent(corners);
  const out: { corner: number; takes?: number; side: number }[] = [];
  let at = 0;
  corners.forEach(({ radius, clip, curve }, i) => {
    const own = at;
    at += curve ? 2 : 1;
    if (!radius?.mm && !clip?.mm) return;
    const before = loop[(own - 1 + loop.length) % loop.length];
    const after = loop[(own + 1) % loop.length];
    const side = Math.min(
      Math.hypot(before.x - loop[own].x, before.y - loop[own].y),
      Math.hypot(after.x - loop[own].x, after.y - loop[own].y),
    );
    const takes = cornerTakes(loop, own, cuts[own]);
    if (takes === undefined || takes > side + 1e-9)
      out.push({ corner: i + 1, side, ...(takes === undefined ? {} : { takes }) });
  });
  return out;
}

/** An outline of lines and arcs as corners that can be edited: each bend as a rise, one of more than half a circle in two. mm. */
export const cornersOf = (loop: Loop): OutlineCorner[] =>
  loop.flatMap((corner, i): OutlineCorner[] => {
    const next = loop[(i + 1) % loop.length];
    const bulge = corner.bulge ?? 0;
    const chord = Math.hypot(next.x - corner.x, next.y - corner.y);
    const own = (p: Point, rise: number): OutlineCorner => ({
      x: { mm: p.x },
      y: { mm: p.y },
      ...(Math.abs(rise) > 1e-9 ? { rise: { mm: rise } } : {}),
    });
    if (Math.abs(bulge) <= 1) return [own(corner, (bulge * chord) / 2)];
    // Its middle lies as far right of the chord as the bulge says.
    const middle = {
      x: (corner.x + next.x) / 2 + ((next.y - corner.y) / 2) * bulge,
      y: (corner.y + next.y) / 2 - ((next.x - corner.x) / 2) * bulge,
    };
    const half = Math.tan(Math.atan(bulge) / 2);
    const rise = (p: Point, q: Point) => (half * Math.hypot(q.x - p.x, q.y - p.y)) / 2;
    return [own(corner, rise(corner, middle)), own(middle, rise(middle, next))];
  });

/** An ellipse that fills a piece, as corners whose sides rise: within 0.05 of its true line for a metre. mm. */
export const ellipseCorners = (length: number, width: number): OutlineCorner[] =>
  cornersOf(ellipse({ x: length / 2, y: width / 2 }, length, width, 32));
