import { press, pressQuickly, type LinePressure, type PressCase } from '../core/glueup/pressure';
import { forgetGive } from '../core/glueup/pressure/board';
import { planeOf } from '../core/wood';
import { pressMonolithic } from './monolithic';
import { quietMs, type Row } from './timing';

const wood = planeOf('cherry_black');
/** Five boards by one metre under two clamps, one line of which lifts off. */
const five: PressCase = {
  length: 1000,
  thickness: 20,
  boards: Array.from({ length: 5 }, () => ({ width: 100, wood })),
  clamps: [
    { at: 300, force: 3000, pad: 30 },
    { at: 800, force: 2000, pad: 30 },
  ],
};

/** Mean pressure of a fine line over each cell of a coarse one. */
function coarsened(fine: LinePressure, coarse: LinePressure): number[] {
  const dx = fine.x[1];
  const half = coarse.x[1] / 2;
  const last = fine.x.length - 1;
  return Array.from(coarse.x, (at) => {
    let [force, length] = [0, 0];
    for (let i = 0; i <= last; i++) {
      const from = Math.max(fine.x[i] - (i === 0 ? 0 : dx / 2), at - half, 0);
      const to = Math.min(fine.x[i] + (i === last ? 0 : dx / 2), at + half);
      if (to <= from) continue;
      force += fine.pressure[i] * (to - from);
      length += to - from;
    }
    return force / length;
  });
}

const once = (call: () => void): number => {
  const begun = performance.now();
  call();
  return performance.now() - begun;
};

/** The solver against one system of all boards on the same mesh, against a fine mesh, and the preview against a frame. */
export function pressureRows(): Row[] {
  const cold = quietMs(() => {
    forgetGive();
    press(five);
  });
  const start = press(five);
  const warm = quietMs(() => press(five, start));
  let mono: LinePressure[] = [];
  const times = [1, 2, 3].map(() => once(() => (mono = pressMonolithic(five, 100, 10))));
  const whole = Math.min(...times);
  const fine = pressMonolithic(five, 400, 20);
  const mean = 5000 / (1000 * 20);
  const off = (lines: readonly LinePressure[]) =>
    Math.max(
      ...lines.flatMap((line, l) =>
        coarsened(fine[l], line).map((p, i) => Math.abs(p - line.pressure[i]) / mean),
      ),
    );
  const preview = quietMs(() => pressQuickly(five));
  return [
    {
      what: 'pressure of 5 boards by 1 m at 10 mm: cold and warm, against all boards as one system',
      measured: `${(whole / cold).toFixed(0)} and ${(whole / warm).toFixed(0)} times faster (${cold.toFixed(0)} ms, ${warm.toFixed(0)} ms, ${whole.toFixed(0)} ms)`,
      wanted: 'at least 10',
      met: whole / cold >= 10,
    },
    {
      what: 'the same along every joint, from a mesh of 2.5 by 5 mm, in mean pressures',
      measured: `${off(start.lines).toFixed(3)} at most (the one system on the same mesh: ${off(mono).toFixed(3)})`,
      wanted: 'at most 0.03',
      met: off(start.lines) <= 0.03,
    },
    {
      what: 'preview of the pressure while a clamp is dragged',
      measured: `${preview.toFixed(1)} ms`,
      wanted: 'under a frame, 16.7 ms',
      met: preview < 16.7,
    },
  ];
}
