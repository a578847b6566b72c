import {
  converter,
  differenceCiede2000,
  modeLab65,
  modeLrgb,
  modeOklab,
  modeRgb,
  modeXyz65,
  useMode as register,
} from 'culori/fn';
import type { Look, OkLab } from './looks';

// Only the colour spaces on the way between those used here: all of them would weigh four times as much.
for (const mode of [modeRgb, modeLrgb, modeXyz65, modeLab65, modeOklab]) register(mode as typeof modeRgb);

const toLab65 = converter('lab65');
const ciede2000 = differenceCiede2000();

type Lab65 = NonNullable<ReturnType<typeof toLab65>>;
const known = new WeakMap<OkLab, Lab65>();
/** Lab under D65 of an OKLab colour; converted once for each, since orders of strips compare the same few often. */
function lab65Of(colour: OkLab): Lab65 {
  let lab = known.get(colour);
  if (!lab) {
    lab = toLab65({ mode: 'oklab', l: colour[0], a: colour[1], b: colour[2] }) as Lab65;
    known.set(colour, lab);
  }
  return lab;
}

/** Difference as the eye sees it between two OKLab colours: CIEDE2000, about 1 is just noticeable side by side. */
export const colourDifference = (a: OkLab, b: OkLab): number => ciede2000(lab65Of(a), lab65Of(b));

/** CIEDE2000 between two Lab colours under D65. */
export const labDifference = (a: readonly number[], b: readonly number[]): number =>
  ciede2000({ mode: 'lab65', l: a[0], a: a[1], b: a[2] }, { mode: 'lab65', l: b[0], a: b[1], b: b[2] });

/** Lab under D65 of a colour written `#rrggbb`; undefined for anything else. */
export function labOfColour(colour: string): readonly [number, number, number] | undefined {
  const lab = /^#[0-9a-f]{6}$/i.test(colour) ? toLab65(colour) : undefined;
  return lab && [lab.l, lab.a, lab.b];
}

/** OKLab to linear sRGB, into `out` (matrices of Ottosson 2020, "A perceptual color space for image processing"). */
export function okLabToLinear(L: number, a: number, b: number, out: Float64Array): void {
  const l = (L + 0.3963377774 * a + 0.2158037573 * b) ** 3;
  const m = (L - 0.1055613458 * a - 0.0638541728 * b) ** 3;
  const s = (L - 0.0894841775 * a - 1.291485548 * b) ** 3;
  out[0] = 4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s;
  out[1] = -1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s;
  out[2] = -0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s;
}

const STEPS = 4096;
const gamma = new Uint8ClampedArray(STEPS + 1);
for (let i = 0; i <= STEPS; i++) {
  const v = i / STEPS;
  gamma[i] = 255 * (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055);
}

/** Linear light 0 to 1 as an sRGB byte (IEC 61966-2-1). */
export const linearToByte = (v: number): number => gamma[v <= 0 ? 0 : v >= 1 ? STEPS : (v * STEPS + 0.5) | 0];

/**
 * What oil does to a colour, in place: darker by a seventh and stronger by a quarter. An illustration from these two
 * constants, set by eye; no finish is measured.
 */
export const OIL = { lightness: 0.86, chroma: 1.25 };
export function oil(lab: Float64Array): void {
  lab[0] *= OIL.lightness;
  lab[1] *= OIL.chroma;
  lab[2] *= OIL.chroma;
}

const toOkLab = converter('oklab');

/** How far a board's colour, written `#rrggbb`, lies from its wood's usual one; undefined for no colour. */
export function toneOf(colour: string | undefined, look: Look): OkLab | undefined {
  const lab = colour && /^#[0-9a-f]{6}$/i.test(colour) ? toOkLab(colour) : undefined;
  if (!lab) return undefined;
  const late = look.lateShare * (1 - look.lateRamp / 2);
  const usual = look.early.map((early, k) => early + late * (look.late[k] - early));
  return [lab.l - usual[0], lab.a - usual[1], lab.b - usual[2]];
}
