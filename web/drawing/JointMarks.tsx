import type { ReactNode } from 'react';
import type { JointReading } from '../../core/layup';
import type { BenchScene } from '../../core/review';
import { type Display, lengthText } from '../../core/units';
import { jointSentence, showsStep } from '../../core/view';
import type { BenchLayout } from './layout';

/** Joints nearer to each other than this show only what matters most, px. */
const ROOM = 24;

/** What each joint shows, drawn on the joint itself, and said in a sentence. */
export function JointMarks({
  readings,
  order,
  scene,
  layout,
  display,
}: {
  readings: readonly JointReading[];
  /** The pieces of the lay-up as they lie. */
  order: readonly string[];
  scene: BenchScene;
  layout: BenchLayout;
  display: Display;
}) {
  const { face, mmPerPx, upright } = layout;
  const place = (at: number) =>
    (face.view === 'underside' ? at - scene.box.min[1] : scene.box.max[1] - at) / mmPerPx;
  const tight =
    upright ||
    readings.some((reading, i) => i > 0 && Math.abs(place(reading.at) - place(readings[i - 1].at)) < ROOM);
  return readings.map((reading, i) => (
    <div
      key={reading.between.join()}
      role="img"
      aria-label={jointSentence(reading, order, display)}
      className={`pointer-events-none absolute flex items-center gap-1 ${upright ? 'top-2 -translate-x-1/2 flex-col' : 'left-2 -translate-y-1/2'}`}
      style={upright ? { left: place(reading.at) } : { top: place(reading.at) }}
      data-joint={i + 1}
    >
      <Chip>{Math.round(reading.difference)}</Chip>
      {!tight && <Drawn reading={reading} />}
      {reading.sap === 'both' && <Chip>sap on both</Chip>}
      {reading.sap === 'one' && <Chip>sap to heart</Chip>}
      {reading.same && !tight && <Chip>same {reading.same}</Chip>}
      {showsStep(reading) && <Chip>step {lengthText(reading.stepMm, display)}</Chip>}
    </div>
  ));
}

const Chip = ({ children }: { children: ReactNode }) => (
  <span className="bg-sheet/90 rule rounded-sm px-1 text-[11.5px] leading-4 whitespace-nowrap">
    {children}
  </span>
);

const figurePath = ({ far, near }: NonNullable<JointReading['figure']>): string => {
  const stroke = (degrees: number, up: boolean) => {
    const radians = (degrees * Math.PI) / 180;
    // Lines nearly along the joint are drawn from it all the same: 9 px up or down, at most 15 along.
    const run = Math.max(-15, Math.min(15, 7 / Math.tan(radians || 0.01)));
    return up ? `M20 10L${20 + run} 3` : `M20 10L${20 - run} 17`;
  };
  return stroke(far, true) + stroke(near, false);
};
const ringPath = (y: number, bark: -1 | 0 | 1): string =>
  bark === 0 ? `M56 ${y - 3}v6` : bark > 0 ? `M50 ${y + 2}q6 -6 12 0` : `M50 ${y - 2}q6 6 12 0`;
const planingPath = (y: number, way: number | undefined): string =>
  way === undefined
    ? ''
    : way === 0
      ? `M76 ${y}h16`
      : way > 0
        ? `M76 ${y}h16m-4 -3l4 3l-4 3`
        : `M92 ${y}h-16m4 -3l-4 3l4 3`;

/** Lines of the figure at their true angles, rings as arcs, and the way each side planes. */
function Drawn({ reading }: { reading: Pick<JointReading, 'figure' | 'sides'> }) {
  const { figure, sides } = reading;
  const wide = sides.some(({ planing }) => planing !== undefined) ? 98 : 68;
  return (
    <svg
      width={wide}
      height="20"
      viewBox={`0 0 ${wide} 20`}
      className="bg-sheet/90 stroke-ink shrink-0 rounded-sm fill-none"
      strokeWidth="1.2"
      aria-hidden
    >
      <path d="M2 10H38" strokeWidth="0.6" />
      {figure && <path d={figurePath(figure)} strokeDasharray={figure.through ? undefined : '2 2'} />}
      <path d={ringPath(6, sides[0].rings) + ringPath(14, sides[1].rings)} />
      <path d={planingPath(5, sides[0].planing) + planingPath(15, sides[1].planing)} />
    </svg>
  );
}

type Side = JointReading['sides'][0];
const side = (rings: Side['rings'], planing?: NonNullable<Side['planing']>): Side => ({
  rings,
  ...(planing === undefined ? {} : { planing }),
});
const lines = (far: number, near: number, through: boolean): JointReading['figure'] => ({
  far,
  near,
  apart: Math.abs(far - near),
  through,
});

/** Every sign that stands on a joint, with what it says. */
export const JOINT_SIGNS: readonly { sign: ReactNode; says: string }[] = [
  {
    sign: <Chip>4</Chip>,
    says: 'How far apart the colours of the two strips are: 1 is just seen side by side, 10 is another colour.',
  },
  {
    sign: <Drawn reading={{ figure: lines(25, 22, true), sides: [side(0), side(0)] }} />,
    says: 'At the left the lines of the grain at their angles. Drawn through: they run on across the joint.',
  },
  {
    sign: <Drawn reading={{ figure: lines(40, 150, false), sides: [side(0), side(0)] }} />,
    says: 'Dashed: the lines break off at the joint.',
  },
  {
    sign: <Drawn reading={{ sides: [side(1), side(-1)] }} />,
    says: 'Arcs: growth rings of the far and the near strip. They point to the bark side. An upright stroke: too upright to say.',
  },
  {
    sign: <Drawn reading={{ sides: [side(0, 1), side(0, -1)] }} />,
    says: 'Arrows: the way each strip planes without tearing out. Two ways at one joint: sand it, or turn one strip.',
  },
  { sign: <Chip>sap on both</Chip>, says: 'Light sapwood on both sides of the joint.' },
  {
    sign: <Chip>sap to heart</Chip>,
    says: 'Sapwood on one side, heartwood on the other: the joint will be seen.',
  },
  { sign: <Chip>same board</Chip>, says: 'Both strips come from one board, or from one bundle.' },
  {
    sign: <Chip>step 1/16</Chip>,
    says: 'One strip is so much thicker than the other: that must be planed off.',
  },
];
