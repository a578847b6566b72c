import type { Region } from '../../curve';
import type { Cut } from './kind';

/** How the floor of a groove is shaped. */
export const FLOORS = [
  { value: 'flat', label: 'Flat' },
  { value: 'round', label: 'Round' },
] as const;
export type Floor = (typeof FLOORS)[number]['value'];

/**
 * A cut of so wide and deep with a floor: `band` is what it opens at a width. A round floor is half a circle below straight walls;
 * where it is not as deep as half its width, an arc that meets the side. Empty where it has no depth.
 */
export function floorOf(
  band: (width: number) => Region,
  { width, depth, floor }: { width: number; depth: number; floor: Floor },
): Cut[] {
  if (depth <= 0 || width <= 0) return [];
  if (floor === 'flat') return [{ region: band(width), from: 0, to: depth }];
  const half = width / 2;
  // Radius of the floor: half the width, or of the flatter arc through both rims.
  const r = depth >= half ? half : (half * half + depth * depth) / (2 * depth);
  const straight = Math.max(0, depth - half);
  const centre = depth - r;
  const at = (z: number) => band(Math.max(2e-3, 2 * Math.sqrt(Math.max(0, r * r - (z - centre) ** 2))));
  return [
    ...(straight > 0 ? [{ region: band(width), from: 0, to: straight }] : []),
    { region: band(width), from: straight, to: depth, at },
  ];
}
