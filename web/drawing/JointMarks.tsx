import type { JointReading } from '../../core/layup';
import type { BenchScene } from '../../core/review';
import { type Display, lengthText } from '../../core/units';
import type { BenchLayout } from './layout';

/** Joints nearer to each other than this show only what matters most, px. */
const ROOM = 24;

/** What each joint shows, drawn on the joint itself. */
export function JointMarks({
  readings,
  scene,
  layout,
  display,
}: {
  readings: readonly JointReading[];
  scene: BenchScene;
  layout: BenchLayout;
  display: Display;
}) {
  const { face, mmPerPx } = layout;
  const top = (at: number) =>
    (face.view === 'underside' ? at - scene.box.min[1] : scene.box.max[1] - at) / mmPerPx;
  const tight = readings.some(
    (reading, i) => i > 0 && Math.abs(top(reading.at) - top(readings[i - 1].at)) < ROOM,
  );
  return readings.map((reading, i) => (
    <div
      key={reading.between.join()}
      className="pointer-events-none absolute left-2 flex -translate-y-1/2 items-center gap-1"
      style={{ top: top(reading.at) }}
      data-joint={i + 1}
    >
      <Chip title={`colour difference ${reading.difference.toFixed(1)}`}>
        {Math.round(reading.difference)}
      </Chip>
      {!tight && <Drawn reading={reading} />}
      {reading.sap === 'both' && <Chip>sap on both</Chip>}
      {reading.sap === 'one' && <Chip>sap to heart</Chip>}
      {reading.same && !tight && <Chip>same {reading.same}</Chip>}
      {reading.stepMm > 0.02 && <Chip>step {lengthText(reading.stepMm, display)}</Chip>}
    </div>
  ));
}

const Chip = ({ children, title }: { children: React.ReactNode; title?: string }) => (
  <span title={title} className="bg-sheet/90 rule rounded-sm px-1 text-[11.5px] leading-4 whitespace-nowrap">
    {children}
  </span>
);

/** Lines of the figure at their true angles, rings as arcs, and the way each side planes. */
function Drawn({ reading }: { reading: JointReading }) {
  const { figure, sides, rings, planing } = reading;
  const stroke = (degrees: number, up: boolean) => {
    const radians = (degrees * Math.PI) / 180;
    // Lines nearly along the joint are drawn from it all the same: 9 px up or down, at most 15 along.
    const run = Math.max(-15, Math.min(15, 7 / Math.tan(radians || 0.01)));
    return up ? `M20 10L${20 + run} 3` : `M20 10L${20 - run} 17`;
  };
  const arc = (y: number, bark: -1 | 0 | 1) =>
    bark === 0 ? `M56 ${y - 3}v6` : bark > 0 ? `M50 ${y + 2}q6 -6 12 0` : `M50 ${y - 2}q6 6 12 0`;
  const wide = sides.some(({ planing: way }) => way !== undefined) ? 98 : 68;
  const arrow = (y: number, way: number | undefined) =>
    way === undefined
      ? ''
      : way === 0
        ? `M76 ${y}h16`
        : way > 0
          ? `M76 ${y}h16m-4 -3l4 3l-4 3`
          : `M92 ${y}h-16m4 -3l-4 3l4 3`;
  return (
    <svg
      width={wide}
      height="20"
      viewBox={`0 0 ${wide} 20`}
      className="bg-sheet/90 stroke-ink rounded-sm fill-none"
      strokeWidth="1.2"
      role="img"
      aria-label={[
        figure
          ? `lines ${Math.round(figure.far)}° and ${Math.round(figure.near)}°, ${figure.through ? 'running through' : 'broken'}`
          : 'no lines',
        `rings ${rings}`,
        `planing ${planing === 'unknown' ? 'not looked at' : planing}`,
      ].join('; ')}
    >
      <path d="M2 10H38" strokeWidth="0.6" />
      {figure && (
        <path
          d={stroke(figure.far, true) + stroke(figure.near, false)}
          strokeDasharray={figure.through ? undefined : '2 2'}
        />
      )}
      <path d={arc(6, sides[0].rings) + arc(14, sides[1].rings)} />
      <path d={arrow(5, sides[0].planing) + arrow(15, sides[1].planing)} />
    </svg>
  );
}
