import { line as lineOf, scaleLinear } from 'd3';
import type { JointPressure } from '../../core/glueup';
import { type Display, pressureText } from '../../core/units';

const HEIGHT = 74;

/** Pressure along the chosen joint, with the pressure wanted, under the drawing and at its scale where the joints lie. */
export function PressureCurve({
  joint,
  wanted,
  length,
  left,
  width,
  display,
  quick,
}: {
  joint: JointPressure;
  wanted: number;
  length: number;
  left: number;
  width: number;
  display: Display;
  quick: boolean;
}) {
  const most = Math.max(wanted * 1.35, ...joint.mpa);
  const x = scaleLinear([0, length], [left, left + width]);
  const y = scaleLinear([0, most], [HEIGHT - 6, 14]);
  const path =
    lineOf<number>(
      (_, i) => x(joint.x[i]),
      (p) => y(p),
    )(joint.mpa) ?? '';
  return (
    <svg
      className="absolute bottom-0 left-0 w-full"
      height={HEIGHT}
      role="img"
      aria-label={`Pressure along joint ${joint.joint}: least ${pressureText(joint.leastMPa, display)}, mean ${pressureText(joint.meanMPa, display)}, wanted ${pressureText(wanted, display)}`}
    >
      <line x1={left} x2={left + width} y1={y(0)} y2={y(0)} stroke="#535b60" />
      <line
        x1={left}
        x2={left + width}
        y1={y(wanted)}
        y2={y(wanted)}
        stroke="#535b60"
        strokeDasharray="5 4"
      />
      <path
        d={path}
        fill="none"
        stroke="#1d4f9c"
        strokeWidth="2"
        strokeDasharray={quick ? '6 3' : undefined}
      />
      <text x={left} y={11} className="fill-graphite text-[12.5px] font-medium">
        Joint {joint.joint}, pressure along it{quick ? ', first picture' : ''}
      </text>
      <text x={left + width} y={y(wanted) - 4} textAnchor="end" className="fill-graphite text-[12px]">
        wanted {pressureText(wanted, display)}
      </text>
    </svg>
  );
}
