import { area, curveMonotoneX } from 'd3';
import type { GlueUp, PressureAnswer } from '../../core/glueup';
import type { GlueFrame } from './glue-frame';

/** Widest a ribbon is drawn to either side of its joint, px. */
const MOST = 9;

/** Pressure on every joint as a hatched band as wide as the pressure, blank where the joint is open. */
export function PressureRibbons({
  glueUp,
  answer,
  frame,
  chosen,
  stale,
  onChoose,
}: {
  glueUp: GlueUp;
  answer: PressureAnswer | undefined;
  frame: GlueFrame;
  chosen: number;
  stale: boolean;
  onChoose: (joint: number) => void;
}) {
  const most = Math.max(1e-9, ...(answer?.joints.map(({ meanMPa }) => meanMPa * 1.6) ?? []));
  const gap = Math.min(...glueUp.courses.map(({ from, to }) => (to - from) / frame.mmPerPx), 2.6 * MOST);
  const half = Math.max(2, Math.min(MOST, gap / 2.6));
  return (
    <>
      <defs>
        <pattern id="hatch" width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="4" height="4" fill="#fafaf7" fillOpacity="0.82" />
          <path d="M0 0V4" stroke="#22272a" strokeWidth="1.3" />
        </pattern>
      </defs>
      {glueUp.lines.map((line) => {
        const found = answer?.joints.find(({ joint }) => joint === line.joint);
        const [a, b] = [frame.point(line.from, line.at), frame.point(line.to, line.at)];
        const shape = found && ribbon(found.x, found.mpa, { most, half, at: line.at, frame });
        return (
          <g
            key={line.joint}
            className="cursor-pointer"
            data-ribbon={line.joint}
            data-words={found?.words}
            opacity={stale ? 0.65 : 1}
            onPointerDown={() => onChoose(line.joint)}
          >
            <line
              x1={a.x}
              y1={a.y}
              x2={b.x}
              y2={b.y}
              stroke="transparent"
              strokeWidth={Math.max(8, 2 * half)}
            />
            {shape && (
              <path
                d={shape}
                fill="url(#hatch)"
                stroke={line.joint === chosen ? '#1d4f9c' : '#22272a'}
                strokeWidth={line.joint === chosen ? 1.6 : 0.8}
              />
            )}
            {!shape && (
              <line
                x1={a.x}
                y1={a.y}
                x2={b.x}
                y2={b.y}
                stroke="#22272a"
                strokeWidth={line.joint === chosen ? 2 : 1}
              />
            )}
            {found?.stretches
              .filter(({ state }) => state === 'open')
              .map(({ from, to }) => {
                const [p, q] = [frame.point(from, line.at), frame.point(to, line.at)];
                return (
                  <line
                    key={from}
                    x1={p.x}
                    y1={p.y}
                    x2={q.x}
                    y2={q.y}
                    stroke="#b0261c"
                    strokeWidth="2.2"
                    strokeDasharray="2 4"
                  />
                );
              })}
          </g>
        );
      })}
    </>
  );
}

function ribbon(
  x: readonly number[],
  mpa: readonly number[],
  { most, half, at, frame }: { most: number; half: number; at: number; frame: GlueFrame },
): string | undefined {
  const points = x.map((mm, i) => ({
    ...frame.point(mm, at),
    w: Math.min(1, mpa[i] / most) * half,
    on: mpa[i] > 0,
  }));
  const shape = area<(typeof points)[number]>()
    .defined(({ on }) => on)
    .curve(curveMonotoneX);
  const drawn = frame.lying
    ? shape
        .x(({ x: px }) => px)
        .y0(({ y, w }) => y - w)
        .y1(({ y, w }) => y + w)
    : area<(typeof points)[number]>()
        .defined(({ on }) => on)
        .y(({ y }) => y)
        .x0(({ x: px, w }) => px - w)
        .x1(({ x: px, w }) => px + w);
  return drawn(points) ?? undefined;
}
