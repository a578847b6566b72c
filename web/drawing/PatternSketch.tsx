import { createElement, type ReactNode } from 'react';
import type { PatternId } from '../../core/document';

const [W, H] = [72, 36];
const box = ({
  x,
  y,
  w,
  h,
  dark = false,
}: {
  x: number;
  y: number;
  w: number;
  h: number;
  dark?: boolean;
}) => <rect x={x} y={y} width={w} height={h} className={dark ? 'fill-graphite/70' : 'fill-none'} />;
const grid = (columns: number, rows: number, dark: (c: number, r: number) => boolean) =>
  Array.from({ length: rows * columns }, (_, i) => {
    const [c, r] = [i % columns, Math.floor(i / columns)];
    return box({ x: (c * W) / columns, y: (r * H) / rows, w: W / columns, h: H / rows, dark: dark(c, r) });
  });
const stripes = (heights: readonly number[]) => {
  let at = 0;
  return heights.map((h, i) => box({ x: 0, y: (at += h) - h, w: W, h, dark: i % 2 === 1 }));
};
const path = (d: string, dark = false) => <path d={d} className={dark ? 'fill-graphite/70' : 'fill-none'} />;
const zigzag = (x: number, dark: boolean) => path(`M${x} 0l12 18l-12 18h8l12-18l-12-18z`, dark);

/** Every pattern in a few pencil lines. */
const SKETCHES: Record<PatternId, ReactNode> = {
  panel: stripes([12, 12, 12]),
  graded: stripes([12, 9, 6, 4, 3, 2]),
  centred: stripes([7, 6, 10, 6, 7]),
  ownRule: [...stripes([8, 4, 12, 4, 8]), path('M8 36L36 4L64 36')],
  butcher: [
    box({ x: 0, y: 0, w: 26, h: 12 }),
    box({ x: 26, y: 0, w: 46, h: 12, dark: true }),
    box({ x: 0, y: 12, w: 44, h: 12, dark: true }),
    box({ x: 44, y: 12, w: 28, h: 12 }),
    box({ x: 0, y: 24, w: 18, h: 12 }),
    box({ x: 18, y: 24, w: 54, h: 12, dark: true }),
  ],
  match: [
    path('M36 0v36'),
    path('M36 4C20 8 10 20 8 36'),
    path('M36 14C28 18 22 26 21 36'),
    path('M36 4C52 8 62 20 64 36'),
    path('M36 14C44 18 50 26 51 36'),
  ],
  skinned: [
    box({ x: 0, y: 6, w: W, h: 5, dark: true }),
    box({ x: 0, y: 11, w: W, h: 14 }),
    box({ x: 0, y: 25, w: W, h: 5, dark: true }),
  ],
  lamination: [8, 13, 18, 23].map((y, i) => box({ x: 0, y, w: W, h: 5, dark: i % 2 === 0 })),
  leg: [path('M0 6H20L72 12V24L20 30H0Z'), path('M0 14H72'), path('M0 22H72')],
  endGrain: grid(8, 4, (c, r) => (c + r) % 2 === 1),
  stagger: grid(1, 4, () => false).concat(
    Array.from({ length: 20 }, (_, i) =>
      box({
        x: (i % 5) * 16 - (Math.floor(i / 5) % 2 ? 8 : 0),
        y: Math.floor(i / 5) * 9,
        w: 16,
        h: 9,
        dark: i % 2 === 0,
      }),
    ),
  ),
  bricks: Array.from({ length: 16 }, (_, i) =>
    box({
      x: (i % 4) * 20 - (Math.floor(i / 4) % 2 ? 10 : 0),
      y: Math.floor(i / 4) * 9,
      w: 18,
      h: 7.5,
      dark: true,
    }),
  ),
  basket: Array.from({ length: 8 }, (_, i) => {
    const [c, r] = [i % 4, Math.floor(i / 4)];
    return [0, 1, 2].map((k) =>
      (c + r) % 2
        ? box({ x: c * 18 + k * 6, y: r * 18, w: 6, h: 18, dark: k === 1 })
        : box({ x: c * 18, y: r * 18 + k * 6, w: 18, h: 6, dark: k === 1 }),
    );
  }),
  stepped: grid(12, 4, (c, r) => (c + r) % 3 === 0),
  mosaic: [
    [0, 14, 30, 52],
    [0, 22, 40, 60],
    [0, 8, 34, 48],
    [0, 18, 44, 58],
  ].flatMap((at, r) =>
    at.map((x, i) => box({ x, y: r * 9, w: (at[i + 1] ?? W) - x, h: 9, dark: (i + r) % 2 === 0 })),
  ),
  chevron: [-8, 0, 8, 16, 24, 32, 40, 48, 56].map((x, i) => zigzag(x, i % 2 === 0)),
  cubes: [0, 1, 2, 3].flatMap((i) => [
    path(`M${9 + i * 18} 3l9 5l-9 5l-9-5z`),
    path(`M${i * 18} 8v11l9 5v-11z`, true),
    path(`M${i * 18 + 18} 8v11l-9 5v-11z`),
  ]),
  blocks: grid(12, 4, (c, r) => ((c % 8 < 4 ? c % 4 : 3 - (c % 4)) + r) % 4 < 2),
  framed: [
    path('M0 0H72V36H0Z'),
    path('M8 8H64V28H8Z', true),
    path('M0 0L8 8M72 0L64 8M0 36L8 28M72 36L64 28'),
  ],
  corner: [path('M0 36H72V0H54V18H0Z'), path('M72 36L54 18'), path('M0 27H63V0')],
};

/** A pattern in pencil, for choosing. */
export const PatternSketch = ({ id }: { id: PatternId }) => (
  <svg
    aria-hidden
    viewBox={`0 0 ${W} ${H}`}
    width={56}
    height={28}
    className="stroke-graphite overflow-hidden"
    strokeWidth="0.8"
  >
    {/* Handed over one by one: what never changes its order needs no keys. */}
    {createElement('g', null, ...[SKETCHES[id]].flat(3))}
    <rect x="0.4" y="0.4" width={W - 0.8} height={H - 0.8} fill="none" />
  </svg>
);
