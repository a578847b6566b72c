import { type Loop, type Point } from '../../curve';

/** A profile of an edge: what it is called, and how wide it is cut at a depth below the face, for a size; mm. */
interface Profile {
  label: string;
  /** From nothing at its foot to the size at the face, for depths from 0 to the size. */
  widthAt: (z: number, size: number) => number;
}

const quarter = (rest: number, r: number): number => Math.sqrt(Math.max(0, r * r - rest * rest));

/** Profiles of edges, in the order they are offered: a new one is one entry here. */
export const PROFILES = {
  roundOver: { label: 'Round-over', widthAt: (z, r) => r - quarter(r - z, r) },
  chamfer: { label: 'Chamfer', widthAt: (z, c) => c - z },
  cove: { label: 'Cove', widthAt: (z, r) => quarter(z, r) },
  rabbet: { label: 'Rabbet', widthAt: (_z, size) => size },
  // Round above and hollow below, each over half the size.
  ogee: {
    label: 'Ogee',
    widthAt: (z, size) => {
      const h = size / 2;
      return z <= h ? size - quarter(h - z, h) : quarter(z - h, h);
    },
  },
} as const satisfies Record<string, Profile>;
export type ProfileName = keyof typeof PROFILES;

export const PROFILE_OPTIONS = [
  { value: 'roundOver', label: PROFILES.roundOver.label },
  { value: 'chamfer', label: PROFILES.chamfer.label },
  { value: 'cove', label: PROFILES.cove.label },
  { value: 'rabbet', label: PROFILES.rabbet.label },
  { value: 'ogee', label: PROFILES.ogee.label },
] as const;

/** How wide a profile is cut at a depth below the face, under a step of its own at the face; nothing below its foot. mm. */
export const profileWidth = (
  { profile, size, step = 0 }: { profile: ProfileName; size: number; step?: number },
  z: number,
): number =>
  z < step ? size : z - step > size ? 0 : Math.max(0, PROFILES[profile].widthAt(Math.max(0, z - step), size));

/** The line of a profile, from the face to its foot: how far in from the edge, and how far below the face, mm; for drawing. */
export function profileLine(of: { profile: ProfileName; size: number; step?: number }): Point[] {
  const step = of.step ?? 0;
  const parts = 24;
  const below = Array.from({ length: parts + 1 }, (_, i) => {
    const y = step + (of.size * i) / parts;
    return { x: profileWidth(of, y), y };
  });
  const all = step > 0 ? [{ x: of.size, y: 0 }, ...below] : below;
  const [last] = all.slice(-1);
  return last.x > 1e-9 ? [...all, { x: 0, y: last.y }] : all;
}

/** The section of a profile that runs down a corner of the piece: what is cut at the low corner of a quadrant, mm. */
export function cornerSection({ profile, size }: { profile: ProfileName; size: number }): Loop {
  const q = Math.tan(Math.PI / 8);
  const line = (bulge: number): Loop => [
    { x: 0, y: 0 },
    bulge === 0 ? { x: size, y: 0 } : { x: size, y: 0, bulge },
    { x: 0, y: size },
  ];
  switch (profile) {
    case 'roundOver':
      return line(-q);
    case 'chamfer':
      return line(0);
    case 'cove':
      return line(q);
    case 'rabbet':
      return [
        { x: 0, y: 0 },
        { x: size, y: 0 },
        { x: size, y: size },
        { x: 0, y: size },
      ];
    case 'ogee': {
      const h = size / 2;
      return [
        { x: 0, y: 0 },
        { x: size, y: 0, bulge: -q },
        { x: h, y: h, bulge: q },
        { x: 0, y: size },
      ];
    }
  }
}
