import { rising } from '../units';
import { TOUCH_MM } from './board';

/** A stretch of one axis: a part that is kept, what the blade takes, or what is left over. */
export interface Stretch {
  kind: 'part' | 'kerf' | 'offcut';
  from: number;
  to: number;
  /** Which of the ranges, for a part. */
  index?: number;
}

/**
 * Divides 0 to `end` by cuts that free the given ranges, which must be sorted and apart by at least one kerf where
 * they do not touch the end. Each cut takes one kerf outside its range; a gap of less than two kerfs is all kerf where
 * the two cuts meet. The stretches cover 0 to `end` exactly. Gives the index of the first range that cannot be freed.
 * All sizes in mm.
 */
export function parcel(
  end: number,
  ranges: readonly { from: number; to: number }[],
  kerfMm: number,
): { ok: true; stretches: Stretch[] } | { ok: false; index: number } {
  const stretches: Stretch[] = [];
  const add = (kind: Stretch['kind'], from: number, to: number, index?: number) => {
    if (to - from > TOUCH_MM) stretches.push({ kind, from, to, index });
  };
  /** Where the rest begins, and whether its edge is as bought. */
  let at = 0;
  for (const [index, { from, to }] of ranges.entries()) {
    if (from < at - TOUCH_MM || to > end + TOUCH_MM || to - from <= TOUCH_MM) return { ok: false, index };
    const begin = from - at > TOUCH_MM ? from : at;
    if (begin > at) {
      const cut = Math.max(at, begin - kerfMm);
      add('offcut', at, cut);
      add('kerf', cut, begin);
    }
    const last = end - to <= TOUCH_MM;
    const finish = last ? end : to;
    add('part', begin, finish, index);
    at = last ? end : Math.min(end, to + kerfMm);
    if (!last) add('kerf', to, at);
  }
  add('offcut', at, end);
  return { ok: true, stretches };
}

/** A rectangle of a board that becomes a strip, or several leaves of it. */
export interface Place {
  id: string;
  x: number;
  y: number;
  length: number;
  width: number;
}

/** Places that one pair of crosscuts frees: they share a stretch of the board's length. */
export interface Section<P extends Place = Place> {
  x: number;
  length: number;
  lanes: P[][];
}

/**
 * Groups places into sections by the stretches of length they share, and into lanes across the width; leaves resawn
 * from one place share a lane. Gives the two places that stand in each other's way where they overlap.
 */
export function sectionsOf<P extends Place>(
  places: readonly P[],
): { ok: true; sections: Section<P>[] } | { ok: false; between: [P, P] } {
  const sections: { from: number; to: number; places: P[] }[] = [];
  for (const place of places.toSorted(rising((a) => a.x))) {
    const last = sections.at(-1);
    const to = place.x + place.length;
    if (last && place.x < last.to - TOUCH_MM) {
      last.places.push(place);
      last.to = Math.max(last.to, to);
    } else sections.push({ from: place.x, to, places: [place] });
  }
  const out: Section<P>[] = [];
  for (const section of sections) {
    const lanes: P[][] = [];
    for (const place of section.places.toSorted(rising((a) => a.y))) {
      const beside = lanes.at(-1)?.[0];
      if (!beside || place.y >= beside.y + beside.width - TOUCH_MM) lanes.push([place]);
      else if (sameRectangle(place, beside)) lanes[lanes.length - 1].push(place);
      else return { ok: false, between: [beside, place] };
    }
    out.push({ x: section.from, length: section.to - section.from, lanes });
  }
  return { ok: true, sections: out };
}

const near = (a: number, b: number) => Math.abs(a - b) <= TOUCH_MM;

const sameRectangle = (a: Place, b: Place): boolean =>
  near(a.x, b.x) && near(a.y, b.y) && near(a.length, b.length) && near(a.width, b.width);
