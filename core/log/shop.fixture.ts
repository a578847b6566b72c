import { settingRows, tailRow, takeOffRow, widthRow, type Fineness } from './rows';
import { estimate, type Row } from './estimate';

/** Random numbers that come again with their seed (mulberry32), normal by Box and Muller. */
export function randomOf(seed: number) {
  let state = seed >>> 0;
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  const normal = () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next());
  return { next, normal };
}

const LIKELY = 1.6448536269514722;
const CALIPER: Fineness = { sd: 0.03, step: 0.1 };
const TAPE: Fineness = { sd: 0.25, step: 0.1 };
/** What common practice says, and what is so in this shop: invented, as the tests want it. */
export const PRACTICE = {
  kerf: 3.2,
  off: 1.5,
  setting: 0.203 / LIKELY,
  flatten: 0.25 / LIKELY,
  piece: 0.08 / LIKELY,
};
export const TRUTH = {
  kerf: 3.05,
  off: 1.9,
  setting: 1.5 * PRACTICE.setting,
  flatten: 1.5 * PRACTICE.flatten,
};
const [STRIPS, SLICES] = [8, 10];

/** One job of the simulated shop as rows: four of eight strips, their width, three of ten slices, blank and tail, two thicknesses, a trim. `gross` is the share of readings that are wild. */
export function jobRows({ next, normal }: ReturnType<typeof randomOf>, gross: number): Row[] {
  const read = (truth: number, { sd, step }: Fineness): number => {
    // Off by ten steps of the hand, ten millimetres or an inch, whichever a shop slips by.
    const slips = [10 * sd * normal(), 10 * (next() < 0.5 ? -1 : 1), 25.4 * (next() < 0.5 ? -1 : 1)];
    // Drawn whether it slips or not, so that the same shop without slips reads the same otherwise.
    const [chance, which] = [next(), Math.floor(next() * slips.length)];
    const wild = chance < gross ? slips[which] : 0;
    return Math.round((truth + sd * normal() + wild) / step) * step;
  };
  const made = (dial: number, many: number) => {
    const set = dial + TRUTH.setting * normal();
    return Array.from({ length: many }, () => set + PRACTICE.piece * normal());
  };
  const sum = (values: readonly number[]) => values.reduce((total, value) => total + value, 0);
  const strips = made(40, STRIPS);
  const slices = made(52, SLICES);
  const stripsRead = strips.slice(0, 4).map((each) => read(each, CALIPER));
  const slicesRead = slices.slice(0, 3).map((each) => read(each, CALIPER));
  const blank = 700;
  const one = { fineness: CALIPER, setting: 'setting', piece: 'piece', pieceSd: PRACTICE.piece };
  return [
    ...settingRows({ ...one, readings: stripsRead, dial: 40, bias: 'fence' }),
    widthRow({
      width: read(sum(strips), TAPE),
      strips: stripsRead,
      n: STRIPS,
      fineness: CALIPER,
      own: TAPE,
      joint: 'joint',
      piece: 'piece',
    }),
    ...settingRows({ ...one, readings: slicesRead, dial: 52, bias: 'stop' }),
    tailRow({
      blank: read(blank, TAPE),
      tail: read(blank - sum(slices) - (SLICES + 1) * TRUTH.kerf, TAPE),
      slices: slicesRead,
      n: SLICES,
      cuts: SLICES + 1,
      practice: PRACTICE.kerf,
      fineness: CALIPER,
      tape: TAPE,
      kerf: 'kerf',
      piece: 'piece',
    }),
    ...[28, 28].map((thick) =>
      takeOffRow({
        before: read(thick, CALIPER),
        after: read(thick - TRUTH.off - TRUTH.flatten * normal(), CALIPER),
        practice: PRACTICE.off,
        fineness: CALIPER,
        off: 'off',
        spread: 'flatten',
      }),
    ),
    ...settingRows({ ...one, readings: [read(made(600, 1)[0], CALIPER)], dial: 600, bias: 'trim' }),
  ];
}

/** What is asked of a simulated shop, with what common practice says of it. */
export const ASKED = {
  means: [
    { id: 'kerf', practice: PRACTICE.kerf, tau: 0.25 },
    { id: 'off', practice: PRACTICE.off, tau: 1 },
    ...['fence', 'stop', 'trim'].map((id) => ({ id, practice: 0, tau: 0.3 })),
    { id: 'joint', practice: 0, tau: 0.06 },
  ],
  spreads: (['setting', 'flatten', 'piece'] as const).map((id) => ({ id, practice: PRACTICE[id] })),
};

/** What the shop has learned from so many jobs. */
export function learned(rows: readonly Row[]) {
  const { means, spreads, weights } = estimate({ rows, ...ASKED });
  const mean = (id: string) => means.find((each) => each.id === id)?.value ?? Number.NaN;
  const spread = (id: string) => spreads.find((each) => each.id === id)?.value ?? Number.NaN;
  return {
    kerf: mean('kerf'),
    off: mean('off'),
    setting: spread('setting'),
    flatten: spread('flatten'),
    weights,
  };
}
