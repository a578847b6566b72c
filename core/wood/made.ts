import type { Made } from './looks';
import { noise } from './noise';
import type { Sample } from './sample';

/** How far from the pith a sheet is set in its "log": so far that its rings are planes along its faces, mm. */
export const SHEET_RADIUS_MM = 1e6;

/**
 * What a sheet or a metal looks like at a point: OKLab into `out`. Layers lie in the middle of whole multiples of their
 * thickness, counted from `SHEET_RADIUS_MM` up; fibres run along z, in every other layer of crosswise veneers along x.
 */
export function madeAt(
  [x, y, z]: readonly [number, number, number],
  { layerMm, crosswise, glueLine, fibre }: Made,
  s: Sample,
  out: Float64Array,
): void {
  const { look, seed, px } = s;
  const height = y - SHEET_RADIUS_MM;
  const layer = layerMm > 0 ? Math.round(height / layerMm) : 0;
  const turned = crosswise && ((layer % 2) + 2) % 2 === 1;
  const [along, side] = turned ? [x, z] : [z, x];
  const grain = noise(side / 6, layer * 3.7, along / 260, seed + 51);
  const fine = noise(side / 0.5, height / 0.5, along / 14, seed + 67) * Math.min(1, 0.5 / px);
  // A cut across the fibres is darker than one along them.
  const end = turned ? s.nx * s.nx : s.nz * s.nz;
  const cut = end > 0.5 ? 1 : 0;
  let L = look.early[0] + cut * (look.late[0] - look.early[0]) + fibre * (grain + 0.5 * fine);
  if (glueLine !== 0 && layerMm > 0) {
    const off = (0.5 - Math.abs(height / layerMm - layer)) * layerMm;
    const width = Math.max(0.12, px * 0.6);
    if (off < width) L += glueLine * (1 - off / width) * Math.min(1, 0.5 / px);
  }
  L += 0.02 * (((s.shade * 0.6180339887) % 1) - 0.5);
  const { tone } = s;
  out[0] = L + (tone?.[0] ?? 0);
  out[1] = look.early[1] + cut * (look.late[1] - look.early[1]) + (tone?.[1] ?? 0);
  out[2] = look.early[2] + cut * (look.late[2] - look.early[2]) + (tone?.[2] ?? 0);
}
