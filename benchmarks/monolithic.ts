import { padLoads, type LinePressure, type PressCase } from '../core/glueup/pressure';
import { addTo, bandOf, factorBand, solveBand } from '../core/glueup/pressure/band';
import { quadStiffness } from '../core/glueup/pressure/board';

/** Spring between facing nodes in contact, N/mm of thickness 1: stiff against any element. */
const TIE = 1e7;

/**
 * The same case as one finite-element system: all boards meshed together, facing nodes tied by stiff springs where
 * they touch, solved anew until nothing changes. What the quick way is measured against; nothing of it is shared but
 * the element and the band solver.
 */
export function pressMonolithic(given: PressCase, cells: number, layers: number): LinePressure[] {
  const { length, thickness, boards, clamps } = given;
  const rows = layers + 1;
  const all = rows * boards.length;
  const n = cells + 1;
  const dx = length / cells;
  const node = (c: number, board: number, r: number) => c * all + board * rows + r;
  const quads = boards.map(({ width, wood }) => quadStiffness(dx, width / layers, wood));
  const load = padLoads(clamps, length, cells);
  const on = boards.slice(1).map(() => Array.from({ length: n }, () => true));
  const x = Float64Array.from({ length: n }, (_, i) => i * dx);
  for (let pass = 0; ; pass++) {
    const K = bandOf(2 * n * all, 2 * (all + 2));
    for (let c = 0; c < cells; c++)
      for (let b = 0; b < boards.length; b++)
        for (let r = 0; r < layers; r++) {
          const of = [node(c, b, r), node(c + 1, b, r), node(c + 1, b, r + 1), node(c, b, r + 1)];
          for (let i = 0; i < 8; i++)
            for (let j = 0; j <= i; j++)
              addTo(K, 2 * of[i >> 1] + (i & 1), 2 * of[j >> 1] + (j & 1), quads[b][i * 8 + j]);
        }
    const u = new Float64Array(2 * n * all);
    for (let c = 0; c < n; c++) {
      // The first board's outer edge lies below, the last one's above; clamps press them together.
      u[2 * node(c, 0, 0) + 1] += load[c] / thickness;
      u[2 * node(c, boards.length - 1, layers) + 1] -= load[c] / thickness;
      on.forEach((line, l) => {
        if (!line[c]) return;
        const [a, b] = [2 * node(c, l, layers) + 1, 2 * node(c, l + 1, 0) + 1];
        addTo(K, a, a, TIE);
        addTo(K, b, b, TIE);
        addTo(K, b, a, -TIE);
      });
    }
    // Nothing holds the stack in space, nor one board along another: a hair of stiffness does.
    for (let d = 0; d < K.size; d++) addTo(K, d, d, 1e-6);
    factorBand(K);
    solveBand(K, u);
    let changed = false;
    const close = (l: number, c: number) => u[2 * node(c, l, layers) + 1] - u[2 * node(c, l + 1, 0) + 1];
    on.forEach((line, l) =>
      line.forEach((is, c) => {
        const touches = close(l, c) > (is ? 0 : 1e-10);
        if (touches === is) return;
        line[c] = touches;
        changed = true;
      }),
    );
    if (changed && pass < 30) continue;
    return on.map((line, l) => ({
      x,
      pressure: Float64Array.from(line, (is, c) =>
        is ? (Math.max(0, close(l, c)) * TIE) / (c === 0 || c === cells ? dx / 2 : dx) : 0,
      ),
      gap: Float64Array.from(line, (is, c) => (is ? 0 : Math.max(0, -close(l, c)))),
    }));
  }
}
