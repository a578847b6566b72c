import { addTo, bandOf, factorBand, solveBand } from './band';
import { padLoads, type LinePressure, type PressCase } from './contact';

/** Shear coefficient fitted to the finite elements, and stiffness of the springs between beams (measured: peaks within 12 %). */
const SHEAR = 2.4;
const SPRING = 2.25;
/** Stations along the length; one more makes the nodes. */
const STATIONS = 100;
const MOST_PASSES = 12;

/**
 * A quick picture of the pressure while a clamp is dragged: boards as Timoshenko beams on springs that only push.
 * About a millisecond for five boards; peaks within 12 % of the solver's. The same promises as `press`.
 */
export function pressQuickly(given: PressCase): LinePressure[] {
  const { length, thickness: t, boards, clamps } = given;
  const count = boards.length;
  const lines = count - 1;
  if (lines < 1) return [];
  const cells = STATIONS;
  const n = cells + 1;
  const dx = length / cells;
  const x = Float64Array.from({ length: n }, (_, i) => i * dx);
  const load = padLoads(clamps, length, cells);
  const springs = Array.from({ length: lines }, (_, l) => {
    const [a, b] = [boards[l], boards[l + 1]];
    return (SPRING * t) / (a.width / a.wood.Ey + b.width / b.wood.Ey);
  });
  const gaps = springs.map((_, l) => (given.gaps?.[l] ? Float64Array.from(x, given.gaps[l]) : undefined));
  const on = springs.map(() => Array.from({ length: n }, () => true));
  const trib = (i: number) => (i === 0 || i === cells ? dx / 2 : dx);
  const at = (i: number, board: number) => 2 * (i * count + board);
  const size = 2 * n * count;
  const beams = boards.map(({ width, wood }) => beamStiffness(dx, width, t, { E: wood.Ex, G: wood.G }));
  let v: Float64Array = new Float64Array(size);
  for (let pass = 0; pass < MOST_PASSES; pass++) {
    const K = bandOf(size, 2 * count + 1);
    for (let i = 0; i < cells; i++)
      for (let b = 0; b < count; b++) {
        const of = [at(i, b), at(i, b) + 1, at(i + 1, b), at(i + 1, b) + 1];
        for (let r = 0; r < 4; r++) for (let c = 0; c <= r; c++) addTo(K, of[r], of[c], beams[b][r * 4 + c]);
      }
    const right = new Float64Array(size);
    for (let i = 0; i < n; i++) {
      right[at(i, 0)] += load[i];
      right[at(i, count - 1)] -= load[i];
      for (let l = 0; l < lines; l++) {
        if (!on[l][i]) continue;
        const k = springs[l] * trib(i);
        addTo(K, at(i, l), at(i, l), k);
        addTo(K, at(i, l + 1), at(i, l + 1), k);
        addTo(K, at(i, l + 1), at(i, l), -k);
        const gap = gaps[l]?.[i] ?? 0;
        right[at(i, l)] += k * gap;
        right[at(i, l + 1)] -= k * gap;
      }
    }
    // Nothing holds the stack in space, nor a board that lifts off all over: a hair of stiffness does.
    const hair = 1e-7 * springs[0] * length;
    for (let d = 0; d < size; d++) addTo(K, d, d, d % 2 === 0 ? hair : hair * dx * dx);
    factorBand(K);
    solveBand(K, right);
    v = right;
    let changed = false;
    for (let l = 0; l < lines; l++)
      for (let i = 0; i < n; i++) {
        const close = v[at(i, l)] - v[at(i, l + 1)] - (gaps[l]?.[i] ?? 0);
        if (on[l][i] !== close >= -1e-12) {
          on[l][i] = close > 0;
          changed = true;
        }
      }
    if (!changed) break;
  }
  return springs.map((k, l) => {
    const pressure = new Float64Array(n);
    const gap = new Float64Array(n);
    for (let i = 0; i < n; i++) {
      const close = v[at(i, l)] - v[at(i, l + 1)] - (gaps[l]?.[i] ?? 0);
      pressure[i] = Math.max(0, (k * close) / t);
      gap[i] = Math.max(0, -close);
    }
    return { x, pressure, gap };
  });
}

/** Stiffness of a Timoshenko beam element (Przemieniecki, Theory of Matrix Structural Analysis): lift and slope at both ends. */
function beamStiffness(
  h: number,
  width: number,
  t: number,
  { E, G }: { E: number; G: number },
): Float64Array {
  const EI = (E * t * width ** 3) / 12;
  const phi = (12 * EI) / (SHEAR * G * t * width * h * h);
  const k = EI / (h ** 3 * (1 + phi));
  const [a, b, c, d] = [12 * k, 6 * h * k, (4 + phi) * h * h * k, (2 - phi) * h * h * k];
  return Float64Array.of(a, b, -a, b, b, c, -b, d, -a, -b, a, -b, b, d, -b, c);
}
