import type { Look } from './looks';
import { madeAt } from './made';
import { chance, hash, noise } from './noise';
import type { Sample } from './sample';

const TAU = 2 * Math.PI;

/** A sine by parabola, good to 6 %: wood needs no better, and Math.sin would be a third of the whole cost. */
function wave(radians: number): number {
  const turns = radians * (1 / TAU);
  const x = 2 * (turns - Math.floor(turns)) - 1;
  return -4 * x * (1 - Math.abs(x));
}

const smooth = (t: number): number => (t <= 0 ? 0 : t >= 1 ? 1 : t * t * (3 - 2 * t));

/** Share of latewood at ring phase f in [0, 1): a ramp up, then an abrupt drop, averaged over a footprint of w rings. */
function lateShareAt(f: number, look: Look, w: number): number {
  const start = 1 - look.lateShare;
  const ramp = Math.max(0.04, look.lateShare * look.lateRamp) + w;
  const rise = smooth((f - start + w / 2) / ramp);
  const half = Math.max(0.02, w / 2);
  const before = smooth((1 - f) / half);
  const after = f < half ? 0.5 * (1 - smooth(f / half)) : 0;
  const sharp = rise * (f > 1 - half ? 0.5 + 0.5 * before : 1) + after;
  if (w < 0.35) return sharp;
  const mean = look.lateShare * (1 - look.lateRamp / 2);
  return sharp + (mean - sharp) * smooth((w - 0.35) / 0.65);
}

/** Share of the pixel that open pores cover, from tubes along z in a jittered grid. */
function poreCover(x: number, y: number, z: number, phase: number, s: Sample): number {
  const { pores } = s.look;
  const inEarly = phase < pores.earlyUntil;
  const density =
    inEarly && pores.earlyUntil < 1
      ? pores.early
      : pores.early + (pores.late - pores.early) * (inEarly ? phase : 1);
  if (density <= 0) return 0;
  const cx = Math.floor(x / pores.pitch);
  const cy = Math.floor(y / pores.pitch);
  const bits = hash(cx, cy, s.seed, 1);
  const pick = (bits & 1023) / 1024;
  const piece = Math.floor(z / pores.length + pick * 7);
  if (chance(cx, cy, piece, s.seed + 2) > density) return 0;
  const radius = (pores.diameter / 2) * (0.7 + (0.6 * ((bits >>> 10) & 127)) / 128);
  const room = Math.max(0, 1 - pores.diameter / pores.pitch);
  const ox = (cx + 0.5 + (((bits >>> 17) & 127) / 128 - 0.5) * room) * pores.pitch;
  const oy = (cy + 0.5 + (((bits >>> 24) & 127) / 128 - 0.5) * room) * pores.pitch;
  const wander = 0.12 * pores.pitch * wave(z / pores.length + pick * 40);
  const dx = x - ox - wander;
  const dy = y - oy;
  const edge = radius + s.px * 0.5;
  if (dx * dx + dy * dy > edge * edge) return 0;
  const d = Math.sqrt(dx * dx + dy * dy);
  return Math.min(1, pores.diameter / (pores.diameter + s.px)) * smooth((edge - d) / Math.max(0.02, s.px));
}

/** Signed strength of rays here: along their sheet light (quartersawn, end), across it dark (flat-sawn). */
function rayAt(r: number, turn: number, z: number, s: Sample, radialShare: number): number {
  const { rays } = s.look;
  if (rays.density === 0) return 0;
  // Rays are set in shells that double, so that their pitch stays about the same from pith to bark; the number in a
  // shell is whole, so no seam runs where the turn closes.
  const shell = Math.max(2, 31 - Math.clz32(r));
  const around = Math.max(6, Math.round((TAU * 2 ** (shell + 0.5)) / rays.pitch));
  const weave =
    0.35 * wave(z / (rays.height * 1.7) + shell * 2.1) + 0.2 * wave(r / 5 + z / (rays.height * 0.9));
  const at = turn * around + weave;
  const cell = Math.floor(at);
  const lane = ((cell % around) + around) % around;
  const lift = chance(lane, shell, s.seed, 6);
  const high = Math.floor(z / rays.height + lift * 9);
  if (chance(lane, shell, high, s.seed + 7) > rays.density) return 0;
  const within = z / rays.height + lift * 9 - high - 0.5;
  const lens = 1 - 4 * within * within;
  if (lens <= 0) return 0;
  const pitch = (TAU * r) / around;
  const off = Math.abs(at - cell - 0.5 - (chance(lane, shell, high, s.seed + 8) - 0.5) * 0.5) * pitch;
  const half = (rays.thickness / 2) * lens;
  const edge = half + s.px * 0.5;
  if (off > edge) return 0;
  const cover =
    Math.min(1, (2 * half) / (2 * half + s.px * 0.5)) * smooth((edge - off) / Math.max(0.03, s.px * 0.8));
  return cover * (1 - 1.7 * radialShare * radialShare);
}

/**
 * What the wood looks like at a point of its log: OKLab into `out`. Coordinates in mm, z along the pith. The same
 * point of the same log always gives the same colour, so neighbouring slices and bookmatched leaves come out true.
 */
export function woodAt(x0: number, y0: number, z: number, s: Sample, out: Float64Array): void {
  const { look, seed } = s;
  if (look.made) return madeAt([x0, y0, z], look.made, s, out);
  const x = x0 + 5 * wave(z / 310 + seed) + 1.6 * wave(z / 97 + seed * 3);
  const y = y0 + 5 * wave(z / 270 + seed * 2) + 1.6 * wave(z / 83 + seed * 5);
  const bare = Math.sqrt(x * x + y * y) || 1e-6; // Math.hypot costs ten times as much
  const ux = x / bare;
  const uy = y / bare;
  const lobe = 0.035 * (ux * ux - uy * uy) + 0.02 * (ux * ux * ux - 3 * ux * uy * uy);
  const broad = noise(x / 85, y / 85, z / 640, seed);
  const middle = noise(x / 17, y / 17, z / 150, seed + 11);
  const small = noise(x / 5, y / 5, z / 60, seed + 23);
  const fine = noise(x / 0.9, y / 0.9, z / 16, seed + 37);
  const r = bare * (1 + lobe) + 0.011 * z + 2.6 * broad + 0.95 * middle + 0.3 * small + 0.14 * fine;
  const warp =
    look.ringVariation *
    (1.1 * wave(r / (look.ringMm * 5.3) + seed) + 0.5 * wave(r / (look.ringMm * 2.1) + 2 * seed));
  const u = r / look.ringMm + warp * 0.55;
  const ring = Math.floor(u);
  const phase = u - ring;
  const radialShare = Math.min(1, Math.abs(ux * s.nx + uy * s.ny));
  const footprint = (s.px * Math.sqrt(Math.max(0, 1 - radialShare * radialShare)) + 0.02) / look.ringMm;
  const year = 1 + look.ringContrast * (2 * chance(ring, seed, 9) - 1);
  const late = lateShareAt(phase, look, footprint) * year;
  const stripe = noise(x / 13, y / 13, z / 460, seed + 51);
  const fibre = noise(x / 0.35, y / 0.35, z / 11, seed + 67) * Math.min(1, 0.35 / s.px);
  let L =
    look.early[0] +
    late * (look.late[0] - look.early[0]) +
    look.streak * stripe +
    0.011 * fibre +
    0.012 * small;
  let a = look.early[1] + late * (look.late[1] - look.early[1]) + 0.004 * stripe;
  let b = look.early[2] + late * (look.late[2] - look.early[2]) + 0.003 * broad;
  const cover = poreCover(x, y, z, phase, s);
  // A pore seen in its length is a groove that light falls into; at its end it is a hole.
  const sink = cover * (0.55 + 0.35 * Math.abs(s.nz));
  L += sink * (look.pores.lightness - L);
  if (look.rays.density > 0)
    L += look.rays.contrast * rayAt(bare, Math.atan2(y, x) / TAU + 0.5, z, s, radialShare);
  const end = s.nz * s.nz;
  L -= look.endDark * end * L;
  const chroma = 1 + 0.25 * end;
  a *= chroma;
  b *= chroma;
  L += 0.035 * (((s.shade * 0.6180339887) % 1) - 0.5);
  a += 0.008 * (((s.shade * 0.7548776662) % 1) - 0.5);
  b += 0.012 * (((s.shade * 0.5698402909) % 1) - 0.5);
  const { tone } = s;
  if (tone) {
    L += tone[0];
    a += tone[1];
    b += tone[2];
  }
  out[0] = L;
  out[1] = a;
  out[2] = b;
}
