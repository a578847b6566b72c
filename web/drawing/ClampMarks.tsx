import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react';
import type { ClampPlan, GlueUp, PlannedClamp } from '../../core/glueup';
import { type Display, lengthParts, lengthText } from '../../core/units';
import { Parts } from '../parts/Measure';
import type { GlueFrame } from './glue-frame';
import { gripWidth } from './grip';

/** Room a clamp's head takes outside the piece, px. */
const HEAD = 17;
const PAD = 5;

/** Clamps over the piece: solid above, dashed below, numbered in the order of tightening; each can be dragged along. */
export function ClampMarks({
  glueUp,
  plan,
  frame,
  chosen,
  display,
  movable,
  onChoose,
  onDrag,
  onDrop,
  onKey,
}: {
  glueUp: GlueUp;
  plan: ClampPlan;
  frame: GlueFrame;
  chosen: string | undefined;
  display: Display;
  movable: boolean;
  onChoose: (id: string) => void;
  onDrag: (id: string, at: number) => void;
  onDrop: (id: string, at: number) => void;
  onKey: (id: string, event: KeyboardEvent) => void;
}) {
  const svg = useRef<SVGGElement>(null);
  const [held, setHeld] = useState<{ id: string; at: number }>();
  const caul = plan.edgeCaulMm / frame.mmPerPx;
  const place = (event: PointerEvent): number => {
    const box = svg.current?.ownerSVGElement?.getBoundingClientRect();
    const at = frame.runAt(event.clientX - (box?.left ?? 0), event.clientY - (box?.top ?? 0));
    return Math.min(glueUp.lengthMm, Math.max(0, at));
  };
  const shown = plan.clamps.filter(({ row }) => row === 0);
  const wide = gripWidth(shown.map(({ at }) => at / frame.mmPerPx));
  return (
    <g ref={svg}>
      <Spacings glueUp={glueUp} plan={plan} frame={frame} display={display} caul={caul} />
      {caul > 0 && <EdgeCauls glueUp={glueUp} frame={frame} caulMm={plan.edgeCaulMm} />}
      {shown.map((clamp) => {
        const at = held?.id === clamp.id ? held.at : clamp.at;
        return (
          <g
            key={clamp.id}
            role="button"
            tabIndex={0}
            data-clamp={clamp.id}
            data-grip={movable ? '' : undefined}
            aria-label={`Clamp ${clamp.order}, ${clamp.side}, ${lengthText(at, display)} from the end`}
            aria-pressed={chosen === clamp.id}
            className={`outline-none ${movable ? (frame.lying ? 'cursor-ew-resize' : 'cursor-ns-resize') : ''} focus-visible:[&_.bar]:stroke-[3px]`}
            onKeyDown={(event) => onKey(clamp.id, event)}
            onPointerDown={(event) => {
              onChoose(clamp.id);
              if (!movable) return;
              event.currentTarget.setPointerCapture(event.pointerId);
              setHeld({ id: clamp.id, at: clamp.at });
            }}
            onPointerMove={(event) => {
              if (held?.id !== clamp.id) return;
              const next = place(event);
              setHeld({ id: clamp.id, at: next });
              onDrag(clamp.id, next);
            }}
            onPointerUp={(event) => {
              if (held?.id !== clamp.id) return;
              const next = place(event);
              setHeld(undefined);
              if (Math.abs(next - clamp.at) > frame.mmPerPx) onDrop(clamp.id, next);
            }}
            onPointerCancel={() => setHeld(undefined)}
          >
            <Clamp
              clamp={{ ...clamp, at }}
              glueUp={glueUp}
              frame={frame}
              caul={caul}
              wide={wide}
              chosen={chosen === clamp.id}
            />
          </g>
        );
      })}
    </g>
  );
}

/** A bar with a head at both ends, in the drawing's own direction. */
function Clamp({
  clamp,
  glueUp,
  frame,
  caul,
  wide,
  chosen,
}: {
  clamp: PlannedClamp;
  glueUp: GlueUp;
  frame: GlueFrame;
  caul: number;
  /** How wide a finger takes hold of it, px. */
  wide: number;
  chosen: boolean;
}) {
  const [a, b] = [frame.point(clamp.at, 0), frame.point(clamp.at, glueUp.widthMm)];
  const pad = Math.max(10, (clamp.set?.padLength.mm ?? 35) / frame.mmPerPx);
  const below = clamp.side === 'below';
  const colour = chosen ? '#1d4f9c' : '#22272a';
  const line = {
    stroke: colour,
    strokeWidth: chosen ? 2 : 1.3,
    strokeDasharray: below ? '4 3' : undefined,
    fill: below ? 'none' : 'rgba(250,250,247,.62)',
    className: 'bar',
  };
  // Drawn upright; where joints stand the whole clamp is turned a quarter.
  const middle = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
  const reach = Math.hypot(b.x - a.x, b.y - a.y) / 2 + caul;
  const head = {
    fill: below ? '#fafaf7' : colour,
    stroke: colour,
    strokeWidth: 1.3,
    strokeDasharray: below ? '3 2' : undefined,
  };
  return (
    <g transform={`translate(${middle.x} ${middle.y})${frame.lying ? '' : ' rotate(90)'}`}>
      <rect x={-8} y={-reach - HEAD - PAD} width={16} height={2 * (reach + HEAD + PAD)} fill="transparent" />
      {/* A finger is wider than a clamp. */}
      <rect
        className="hidden pointer-coarse:inline"
        x={-wide / 2}
        y={-reach - HEAD - PAD}
        width={wide}
        height={2 * (reach + HEAD + PAD)}
        fill="transparent"
      />
      <rect x={-4} y={-reach - PAD} width={8} height={2 * (reach + PAD)} {...line} />
      {[-1, 1].map((end) => (
        <g key={end} transform={`scale(1 ${end})`}>
          <rect
            x={-pad / 2}
            y={reach}
            width={pad}
            height={PAD}
            fill={colour}
            fillOpacity={below ? 0.25 : 0.55}
          />
          <rect x={-9} y={reach + PAD} width={18} height={HEAD - PAD} rx={2} {...head} />
        </g>
      ))}
      <text
        y={reach + HEAD + 15}
        transform={frame.lying ? undefined : `rotate(-90 0 ${reach + HEAD + 11})`}
        textAnchor="middle"
        className="rule text-[13px]"
        fill={colour}
      >
        {clamp.order}
      </text>
    </g>
  );
}

const EdgeCauls = ({ glueUp, frame, caulMm }: { glueUp: GlueUp; frame: GlueFrame; caulMm: number }) =>
  [
    [-caulMm, 0],
    [glueUp.widthMm, glueUp.widthMm + caulMm],
  ].map(([from, to]) => {
    const [a, b] = [frame.point(0, from), frame.point(glueUp.lengthMm, to)];
    return (
      <rect
        key={from}
        x={Math.min(a.x, b.x)}
        y={Math.min(a.y, b.y)}
        width={Math.abs(b.x - a.x)}
        height={Math.abs(b.y - a.y)}
        fill="#ead9b4"
        stroke="#b79f6c"
        data-caul="edge"
      />
    );
  });

/** Cauls across the faces, by pairs. */
export function CrossCauls({ glueUp, plan, frame }: { glueUp: GlueUp; plan: ClampPlan; frame: GlueFrame }) {
  const over = 30;
  return plan.crossCauls.at.map((at) => {
    const [a, b] = [frame.point(at - 12, -over), frame.point(at + 12, glueUp.widthMm + over)];
    return (
      <rect
        key={at}
        x={Math.min(a.x, b.x)}
        y={Math.min(a.y, b.y)}
        width={Math.abs(b.x - a.x)}
        height={Math.abs(b.y - a.y)}
        fill="#ead9b4"
        fillOpacity="0.45"
        stroke="#b79f6c"
        strokeDasharray="1 2"
        data-caul="across"
      />
    );
  });
}

/** From the end to the first clamp and from each to the next, above the heads; left out where there is no room. */
function Spacings({
  glueUp,
  plan,
  frame,
  display,
  caul,
}: {
  glueUp: GlueUp;
  plan: ClampPlan;
  frame: GlueFrame;
  display: Display;
  caul: number;
}) {
  const places = [0, ...plan.clamps.filter(({ row }) => row === 0).map(({ at }) => at)].toSorted(
    (a, b) => a - b,
  );
  const out = caul + HEAD + 12;
  return places.slice(1).map((at, i) => {
    const [a, b] = [frame.point(places[i], glueUp.widthMm), frame.point(at, glueUp.widthMm)];
    const far = Math.hypot(b.x - a.x, b.y - a.y);
    if (far < 34) return null;
    const { lying, box } = frame;
    const aside = lying ? box.top - out : box.left - out - 18;
    const [from, to] = lying ? [a.x, b.x] : [a.y, b.y];
    const place = (along: number, across: number) => (lying ? `${along} ${across}` : `${across} ${along}`);
    const slash = (along: number) => `M${place(along - 3, aside + 3)}L${place(along + 3, aside - 3)}`;
    const [x, y] = lying ? [(from + to) / 2, aside] : [aside, (from + to) / 2];
    const half = 4 * lengthText(at - places[i], display).length - 12;
    return (
      <g key={at} aria-hidden className="pointer-events-none">
        <path
          d={`M${place(from, aside)}L${place(to, aside)}${slash(from)}${slash(to)}`}
          stroke="#535b60"
          fill="none"
        />
        <rect x={x - half} y={y - 8} width={2 * half} height={16} fill="#fafaf7" />
        <text x={x} y={y + 4} textAnchor="middle" className="rule text-[12.5px]">
          <Parts parts={lengthParts(at - places[i], display)} svg />
        </text>
      </g>
    );
  });
}
