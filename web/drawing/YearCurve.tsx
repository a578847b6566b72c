import { curveMonotoneX, line as lineOf, scaleLinear } from 'd3';
import { type Display, lengthText, lengthUnit, offText } from '../../core/units';

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const HEIGHT = 214;
const WIDTH = 560;
const ROOM = { left: 70, right: 14, top: 22, bottom: 46 };

/** A width month by month as a curve, with the width it was fitted at. */
export function YearCurve({
  widths,
  fitted,
  display,
  name,
}: {
  /** January first, mm. */
  widths: readonly number[];
  fitted: number;
  display: Display;
  name: string;
}) {
  const all = [...widths, fitted];
  const [low, high] = [Math.min(...all), Math.max(...all)];
  const spare = Math.max(0.2, (high - low) * 0.12);
  const x = scaleLinear([0, 11], [ROOM.left, WIDTH - ROOM.right]);
  const y = scaleLinear([low - spare, high + spare], [HEIGHT - ROOM.bottom, ROOM.top]);
  const path =
    lineOf<number>(
      (_, i) => x(i),
      (mm) => y(mm),
    ).curve(curveMonotoneX)(widths) ?? '';
  const at = (mm: number) => widths.indexOf(mm);
  const ends = [
    { mm: Math.max(...widths), up: true },
    { mm: Math.min(...widths), up: false },
  ];
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="block w-full"
      role="img"
      aria-label={`${name} through the year: ${lengthText(ends[0].mm, display)} in ${MONTHS[at(ends[0].mm)]}, ${lengthText(ends[1].mm, display)} in ${MONTHS[at(ends[1].mm)]}, fitted at ${lengthText(fitted, display)}`}
    >
      {MONTHS.map((month, i) => (
        <text
          key={month}
          x={x(i)}
          y={HEIGHT - 8}
          textAnchor="middle"
          className="fill-graphite text-[12px] max-desk:text-[21px]"
        >
          {i % 2 === 0 ? month : ''}
        </text>
      ))}
      <line
        x1={ROOM.left}
        x2={WIDTH - ROOM.right}
        y1={y(fitted)}
        y2={y(fitted)}
        stroke="#535b60"
        strokeDasharray="5 4"
      />
      <text
        x={ROOM.left - 6}
        y={y(fitted) + 4}
        textAnchor="end"
        className="fill-graphite text-[12px] max-desk:text-[19px]"
      >
        fitted
      </text>
      <path d={path} fill="none" stroke="#22272a" strokeWidth="1.6" />
      {ends.map(({ mm, up }) => (
        <g key={String(up)}>
          <circle cx={x(at(mm))} cy={y(mm)} r="3.5" fill="#22272a" />
          <text
            x={x(at(mm))}
            y={y(mm) + (up ? -8 : 17)}
            textAnchor={at(mm) < 2 ? 'start' : at(mm) > 9 ? 'end' : 'middle'}
            className="rule fill-ink text-[13px] font-medium max-desk:text-[21px]"
          >
            {mm >= fitted ? '+' : '−'}
            {offText(Math.abs(mm - fitted), display)} {lengthUnit(display)}
          </text>
        </g>
      ))}
    </svg>
  );
}
