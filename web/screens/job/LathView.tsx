import { Fragment, useEffect, useLayoutEffect, useRef, useState } from 'react';
import type { BuildDocument } from '../../../core/document';
import type { Outlook } from '../../../core/review';
import { type Lath, stepName } from '../../../core/steps';
import type { Display } from '../../../core/units';
import { type ChainPlace, crossing, placeAfter } from '../../../core/view';
import { useSlide } from '../../drawing/use-slide';
import { inHand } from '../../drawing/use-zoom';
import { useTextScale } from '../../parts/use-text-scale';
import { AddHere, HEIGHT, layMarks, LEFT, LINE, type Mark, MarkView, TOP } from './LathMark';

const ROWS = ['L', 'W', 'T'] as const;

/** On a phone the pin stands still, this share of the width from the left, and the lath slides under it. */
const PIN_AT = 0.3;
/** One lath drawn large: three pencil lines, values only where a step changes them, what was taken underneath. */
export function LathView({
  lath,
  build,
  outlook,
  chosen,
  display,
  onChoose,
  onAdd,
}: {
  lath: Lath;
  build: BuildDocument;
  outlook: Outlook;
  chosen: string | undefined;
  display: Display;
  onChoose: (id: string) => void;
  onAdd: (place: ChainPlace) => void;
}) {
  const box = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState(900);
  const grown = useTextScale();
  useLayoutEffect(() => {
    if (!box.current) return;
    const watch = new ResizeObserver(([entry]) => setRoom(entry.contentRect.width));
    watch.observe(box.current);
    return () => watch.disconnect();
  }, []);
  const pin = inHand({ width: room }) ? Math.round(room * PIN_AT) : undefined;
  const marks = layMarks(lath, build, outlook, { display, width: room, pin });
  const last = marks.at(-1);
  // The last mark, too, comes under a pin that stands still.
  const end = last ? Math.max(last.x + last.room + 8, pin === undefined ? 0 : last.x + room - pin) : 0;
  const width = Math.max(room, end);
  const under = marks.find(({ step }) => step.id === chosen)?.x;
  const slid = useSlide(box, {
    pin,
    under,
    marks: marks.map(({ step, x }) => ({ id: step.id, x })),
    onChoose,
  });
  useEffect(() => {
    const view = box.current;
    const at = chosen && view?.querySelector<HTMLElement>(`#mark-${CSS.escape(chosen)}`);
    if (!view || !at || pin !== undefined) return;
    const [from, to] = [at.offsetLeft, at.offsetLeft + at.offsetWidth];
    if (from < view.scrollLeft || to > view.scrollLeft + view.clientWidth)
      view.scrollTo({ left: Math.max(0, from - view.clientWidth / 3) });
  }, [chosen, pin]);
  const done = marks.findLast(({ step }) => step.done);
  const doneTo = done ? Math.min(width - 2, done.x + done.room - 14) : LEFT;
  return (
    <div className="relative" style={grown === 1 ? undefined : { zoom: grown, textSizeAdjust: 'none' }}>
      {pin !== undefined && <FixedPin x={pin} />}
      <div
        ref={box}
        className="group/lath relative overflow-x-auto overflow-y-hidden"
        style={{ height: TOP + HEIGHT + (width > room ? 36 : 24), marginTop: 2 }}
        data-testid="lath"
        {...slid}
      >
        <svg width={width} height={TOP + HEIGHT + 4} className="absolute inset-0" aria-hidden>
          <rect
            x={LEFT}
            y={TOP}
            width={width - LEFT - 1}
            height={HEIGHT}
            rx="3"
            fill="var(--color-lath)"
            stroke="var(--color-lath-line)"
          />
          <LathGrain width={width} />
          {done && (
            <rect
              x={LEFT}
              y={TOP}
              width={doneTo - LEFT}
              height={HEIGHT}
              rx="3"
              fill="var(--color-lath-dark)"
              opacity="0.75"
            />
          )}
          {[0, 1, 2].map((row) => (
            <path key={row} d={pencil(row, marks, width)} fill="none" stroke="#6d6046" strokeWidth="1" />
          ))}
          {marks.map(({ step, x }) => (
            <line
              key={step.id}
              x1={x}
              x2={x}
              y1={TOP}
              y2={TOP + HEIGHT}
              stroke="var(--color-lath-line)"
              strokeWidth="0.8"
            />
          ))}
          {pin === undefined && under !== undefined && <Pin x={under} />}
        </svg>
        <span aria-hidden className="pointer-events-none sticky left-0 z-10 block h-0 w-0">
          {ROWS.map((row, i) => (
            <span
              key={row}
              className={`text-graphite absolute text-[13px] font-semibold ${pin === undefined ? 'left-5' : 'left-1'}`}
              style={{ top: TOP + LINE[i] - 17 }}
            >
              {row}
            </span>
          ))}
        </span>
        {marks.map((mark, i) => (
          <Fragment key={mark.step.id}>
            <MarkView
              build={build}
              mark={mark}
              chosen={mark.step.id === chosen}
              held={pin !== undefined}
              display={display}
              onChoose={onChoose}
            />
            <AddHere
              stop={mark.step.id === chosen}
              x={Math.min(mark.x + mark.room, width - 2)}
              name={`Add a step after ${stepName(mark.step)}`}
              onAdd={() => onAdd(placeAfter(build, mark.step, marks[i + 1]?.step))}
            />
          </Fragment>
        ))}
      </div>
    </div>
  );
}

const Pin = ({ x }: { x: number }) => (
  <g fill="var(--color-chalk)">
    <path d={`M${x - 6} ${TOP - 9}h12l-6 9z`} />
    <rect x={x - 1.25} y={TOP - 1} width="2.5" height={HEIGHT + 2} />
  </g>
);

/** The pin of a phone: the lath slides under it. */
const FixedPin = ({ x }: { x: number }) => (
  <svg
    aria-hidden
    width={14}
    height={TOP + HEIGHT + 4}
    className="pointer-events-none absolute top-[2px] z-10"
    style={{ left: x - 7 }}
  >
    <Pin x={7} />
  </svg>
);

/** Where a turn makes one dimension into another, its pencil line crosses over. */
function pencil(row: number, marks: readonly Mark[], width: number): string {
  const y = (r: number) => TOP + LINE[r];
  let path = `M${LEFT + 6} ${y(row)}`;
  for (const { step, x } of marks) {
    const swaps = crossing(step);
    if (!swaps || swaps[row] === row) continue;
    path += ` H${x - 34} C${x - 16} ${y(row)} ${x - 22} ${y(swaps[row])} ${x - 3} ${y(swaps[row])} M${x} ${y(row)}`;
  }
  return `${path} H${width - 8}`;
}

/** Long grain of the lath itself: fine, even lines. */
function LathGrain({ width }: { width: number }) {
  return (
    <g stroke="#c9b078" strokeWidth="0.6" opacity="0.55">
      {[5, 11, 16, 24, 37, 43, 50, 63, 69, 76, 88].map((y, i) => (
        <path
          key={y}
          fill="none"
          d={`M${LEFT + 2} ${TOP + y} C${width * 0.3} ${TOP + y + (i % 3) - 1} ${width * 0.6} ${TOP + y - (i % 2)} ${width - 3} ${TOP + y + 0.6}`}
        />
      ))}
    </g>
  );
}
