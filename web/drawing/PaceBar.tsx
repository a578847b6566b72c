import { scaleLinear } from 'd3';
import type { Rehearsal } from '../../core/glueup';
import { minutesText } from '../../core/units';

/** The acts of a glue-up as one bar against the glue's closed time: spreading, placing, clamping, each with its own hatch. */
export function PaceBar({ rehearsal, width = 312 }: { rehearsal: Rehearsal; width?: number }) {
  const { spreadMin, placeMin, clampMin, totalMin, times } = rehearsal;
  const most = Math.max(totalMin, times?.closedMin ?? 0) * 1.04;
  const x = scaleLinear([0, most], [0, width]);
  const parts = [
    { name: 'spread', minutes: spreadMin, fill: 'url(#pace-dots)' },
    { name: 'place', minutes: placeMin, fill: '#cdd1cc' },
    { name: 'clamp', minutes: clampMin, fill: 'url(#pace-lines)' },
  ];
  let at = 0;
  const limit = times && x(times.closedMin);
  return (
    <svg
      width={width}
      height="64"
      role="img"
      aria-label={`Glue-up ${minutesText(totalMin)}${times ? ` of ${minutesText(times.closedMin)} until the glue sets` : ''}`}
    >
      <defs>
        <pattern
          id="pace-lines"
          width="5"
          height="5"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect width="5" height="5" fill="#fafaf7" />
          <path d="M0 0V5" stroke="#22272a" strokeWidth="2" />
        </pattern>
        <pattern id="pace-dots" width="5" height="5" patternUnits="userSpaceOnUse">
          <rect width="5" height="5" fill="#fafaf7" />
          <circle cx="2.5" cy="2.5" r="1.3" fill="#22272a" />
        </pattern>
      </defs>
      {parts.map(({ name, minutes, fill }) => {
        const from = at;
        at += minutes;
        return (
          <g key={name}>
            <rect
              x={x(from)}
              y={14}
              width={x(minutes)}
              height={20}
              fill={fill}
              stroke="#22272a"
              strokeWidth="0.8"
            />
            <text x={x(from) + 2} y={50} className="fill-graphite text-[12px]">
              {x(minutes) > 34 ? `${name} ${minutesText(minutes).replace(' min', '')}` : ''}
            </text>
          </g>
        );
      })}
      {limit !== undefined && (
        <g>
          <line
            x1={limit}
            x2={limit}
            y1={6}
            y2={40}
            stroke={rehearsal.fits ? '#2b6a35' : '#b0261c'}
            strokeWidth="2.4"
          />
          <text
            x={Math.min(width - 2, limit)}
            y={62}
            textAnchor={limit > width * 0.6 ? 'end' : 'start'}
            className={`text-[12px] font-medium ${rehearsal.fits ? 'fill-green' : 'fill-red'}`}
          >
            {rehearsal.fits ? '✓' : '✕'} sets at {minutesText(times?.closedMin ?? 0)}
          </text>
        </g>
      )}
    </svg>
  );
}
