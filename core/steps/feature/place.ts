import type { Feature, Place1, Row } from './model';
import type { Refused, SideSize } from './kind';

/** Where a feature comes to lie on its side, mm. */
export interface Spot {
  u: number;
  v: number;
}

/** What places may be measured from besides edges: joints across each direction, and features placed before. */
export interface Marks {
  joints: { u: readonly number[]; v: readonly number[] };
  placed: ReadonlyMap<string, Spot>;
}

/** The most places one feature may have: more is a slip. */
export const MOST_SPOTS = 400;
/** Sizes that differ by less are one, mm. */
const SAME = 1e-6;

/** Where the finished side begins and ends along a direction. */
const ends = ({ long, wide, trims }: SideSize, along: 'u' | 'v'): [number, number] =>
  along === 'u' ? [trims.u[0], long - trims.u[1]] : [trims.v[0], wide - trims.v[1]];

function placeOf(
  place: Place1,
  along: 'u' | 'v',
  { side, marks }: { side: SideSize; marks: Marks },
): number | Refused {
  const [low, high] = ends(side, along);
  switch (place.from) {
    case 'low':
      return low + place.by.mm;
    case 'high':
      return high - place.by.mm;
    case 'middle':
      return (low + high) / 2 + place.by.mm;
    case 'joint': {
      const lines = marks.joints[along];
      const at = lines[(place.joint ?? 1) - 1];
      return at === undefined
        ? {
            words: [`There is no joint ${place.joint ?? 1} that way: this side has ${lines.length}.`],
            numbers: { joint: place.joint ?? 1, joints: lines.length },
          }
        : at + place.by.mm;
    }
    case 'feature': {
      const other = marks.placed.get(place.feature ?? '');
      return other
        ? other[along] + place.by.mm
        : {
            words: ['The feature it is measured from is not there, or comes after it.'],
            numbers: { placed: marks.placed.size },
          };
    }
  }
}

/** How many stand at a pitch from a first place to a last one that may not be passed: floor, with a stated tolerance of 1e-6 mm. */
export const standsAt = (start: number, pitch: number, last: number): number =>
  Math.max(0, Math.floor((last - start + SAME) / pitch) + 1);

/** Stations along a direction, from the first on. */
export function stationsOf(row: Row, start: number, high: number): number[] | Refused {
  if (row.count !== undefined) {
    const last = high - (row.margin?.mm ?? 0);
    if (row.count === 1) return [start];
    const pitch = (last - start) / (row.count - 1);
    return pitch <= SAME
      ? {
          words: ['Between the first and the margin there is no room: ', { mm: last - start }, '.'],
          numbers: { room: last - start, count: row.count },
        }
      : Array.from({ length: row.count }, (_, i) => start + i * pitch);
  }
  const pitch = row.pitch?.mm ?? 0;
  if (pitch <= SAME) return { words: ['A row needs a pitch, or how many there are.'], numbers: { pitch } };
  const count = standsAt(start, pitch, high - (row.keepOut?.mm ?? 0));
  return count > MOST_SPOTS
    ? {
        words: [`A pitch of `, { mm: pitch }, ` makes ${count} of them: the most is ${MOST_SPOTS}.`],
        numbers: { count, most: MOST_SPOTS },
      }
    : Array.from({ length: count }, (_, i) => start + i * pitch);
}

const mirrored = (spots: readonly Spot[], side: SideSize, how: Feature['mirror']): Spot[] => {
  const flip = (along: 'u' | 'v') => (spot: Spot) => {
    const [low, high] = ends(side, along);
    return { ...spot, [along]: low + high - spot[along] };
  };
  const across = how === 'u' || how === 'both' ? [...spots, ...spots.map(flip('u'))] : [...spots];
  return how === 'v' || how === 'both' ? [...across, ...across.map(flip('v'))] : across;
};

const withoutDoubles = (spots: readonly Spot[]): Spot[] =>
  spots.filter(
    (one, i) =>
      !spots
        .slice(0, i)
        .some((other) => Math.abs(one.u - other.u) < SAME && Math.abs(one.v - other.v) < SAME),
  );

/**
 * All places of a feature on its side, mm from the side’s own low corner: its row, its second row, and what is mirrored; places
 * that fall on one another count once. A refusal with its numbers where a place cannot be told.
 */
export function spotsOf(feature: Feature, side: SideSize, marks: Marks): Spot[] | Refused {
  const u = placeOf(feature.u, 'u', { side, marks });
  if (typeof u !== 'number') return u;
  const v = placeOf(feature.v, 'v', { side, marks });
  if (typeof v !== 'number') return v;
  const { row } = feature;
  if (!row) return withoutDoubles(mirrored([{ u, v }], side, feature.mirror));
  const across = row.along === 'u' ? 'v' : 'u';
  const first = { u, v };
  const stations = stationsOf(row, first[row.along], ends(side, row.along)[1]);
  if (!Array.isArray(stations)) return stations;
  const spots = stations.map((at): Spot => ({ ...first, [row.along]: at }));
  const { second } = row;
  const pitch = stations.length > 1 ? stations[1] - stations[0] : 0;
  const more = second
    ? spots
        .filter((_, i) => i % Math.max(1, second.every) === 0 && i + 1 < spots.length)
        .map(
          (spot): Spot => ({
            ...spot,
            [row.along]: spot[row.along] + pitch / 2,
            [across]: spot[across] + second.off.mm,
          }),
        )
    : [];
  return withoutDoubles(mirrored([...spots, ...more], side, feature.mirror));
}
