import {
  extent,
  scaleLinear,
  scaleOrdinal,
  scaleTime,
  symbol,
  symbolCircle,
  symbolDiamond,
  symbolSquare,
  symbolTriangle,
} from 'd3';
import { useMemo } from 'react';
import type { LogPoint } from '../../../contract/log';
import { seasonOf } from '../../../core/log';
import { type Display, lengthUnit, offText } from '../../../core/units';

/** What the readings are told apart by. */
export type ChartBy = 'tool' | 'wood' | 'season' | 'stepKind';

const [WIDTH, HEIGHT] = [900, 300];
const ROOM = { left: 84, right: 16, top: 14, bottom: 34 };
const SHAPES = [symbolCircle, symbolSquare, symbolTriangle, symbolDiamond];
const INKS = ['#22272a', '#3a5f8a', '#8a5a1e', '#4c6b3a', '#7a3b4a'];
/** So few groups are told apart by sign and ink; the others are one. */
const MOST_GROUPS = SHAPES.length * 2;
const TICKS = 5;

const groupOf = (point: LogPoint, by: ChartBy): string =>
  by === 'season' ? seasonOf(point.at) : (point[by] ?? '–');

/**
 * Measured less predicted, reading by reading, with the band that each was predicted in: sizes in the shop's units, minutes as taken over
 * planned. Groups differ by sign and by ink, and are named under it.
 */
export function LogChart({
  points,
  by,
  nameOf,
  display,
}: {
  points: readonly LogPoint[];
  by: ChartBy;
  nameOf: (by: ChartBy, id: string) => string;
  display: Display;
}) {
  const chart = useMemo(() => {
    const off = points.map(({ predicted, measured }) => measured - predicted);
    // Slips of the hand stand at the edge: drawn to scale they would flatten all others.
    const sorted = off.map(Math.abs).toSorted((a, b) => a - b);
    const most = Math.max(1e-6, (sorted[Math.floor(0.97 * (sorted.length - 1))] ?? 1) * 1.15);
    const [first, last] = extent(points, ({ at }) => new Date(at));
    const x = scaleTime([first ?? new Date(0), last ?? new Date(1)], [ROOM.left, WIDTH - ROOM.right]);
    const y = scaleLinear([-most, most], [HEIGHT - ROOM.bottom, ROOM.top]).clamp(true);
    const counts = new Map<string, number>();
    for (const point of points) {
      const group = groupOf(point, by);
      counts.set(group, (counts.get(group) ?? 0) + 1);
    }
    const groups = [...counts]
      .toSorted(([, a], [, b]) => b - a)
      .slice(0, MOST_GROUPS)
      .map(([id]) => id);
    return { x, y, groups, off };
  }, [points, by]);
  if (points.length === 0) return null;
  const { x, y, groups, off } = chart;
  const shape = scaleOrdinal(groups, SHAPES);
  const ink = scaleOrdinal(groups, INKS);
  const mean = off.reduce((sum, each) => sum + each, 0) / off.length;
  const unit = lengthUnit(display);
  return (
    <figure>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="block w-full"
        role="img"
        aria-label={`Measured less predicted of ${points.length} readings: ${offText(mean, display)} ${unit} on average. The same numbers stand in the table.`}
      >
        {y.ticks(TICKS).map((tick) => (
          <g key={tick}>
            <line
              x1={ROOM.left}
              x2={WIDTH - ROOM.right}
              y1={y(tick)}
              y2={y(tick)}
              stroke={tick === 0 ? '#535b60' : '#dfe3e2'}
            />
            <text
              x={ROOM.left - 8}
              y={y(tick) + 4}
              textAnchor="end"
              className="rule fill-graphite text-[13px] max-desk:text-[26px]"
            >
              {offText(tick, display)}
            </text>
          </g>
        ))}
        {x.ticks(TICKS).map((tick) => (
          <text
            key={tick.getTime()}
            x={x(tick)}
            y={HEIGHT - 10}
            textAnchor="middle"
            className="fill-graphite text-[13px] max-desk:text-[24px]"
          >
            {tick.toLocaleDateString('en', { month: 'short', day: 'numeric' })}
          </text>
        ))}
        {points.map(({ at, likely }, i) => (
          <line
            key={`b${i}`}
            x1={x(new Date(at))}
            x2={x(new Date(at))}
            y1={y(-likely)}
            y2={y(likely)}
            stroke="#c9d3cf"
            strokeWidth="3"
          />
        ))}
        {points.map((point, i) => {
          const group = groupOf(point, by);
          return (
            <path
              key={i}
              d={symbol(shape(group), 34)() ?? ''}
              transform={`translate(${x(new Date(point.at))},${y(off[i])})`}
              fill={Math.abs(off[i]) <= point.likely ? ink(group) : 'none'}
              stroke={ink(group)}
              strokeWidth="1.6"
            />
          );
        })}
      </svg>
      <figcaption className="flex flex-wrap gap-x-4 gap-y-1 text-[13.5px]">
        <span className="text-graphite">
          Measured less predicted, {unit}. Grey: the band. Hollow: outside of it.
        </span>
        {groups.map((group) => (
          <span key={group} className="flex items-center gap-1.5">
            <svg width="12" height="12" viewBox="-6 -6 12 12" aria-hidden>
              <path d={symbol(shape(group), 40)() ?? ''} fill={ink(group)} />
            </svg>
            {nameOf(by, group)}
          </span>
        ))}
      </figcaption>
    </figure>
  );
}
