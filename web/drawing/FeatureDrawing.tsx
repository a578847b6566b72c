import { type KeyboardEvent, type PointerEvent, useState } from 'react';
import type { FeatureRow, SideSheet } from '../../core/view';
import { type Display, lengthText } from '../../core/units';
import { movedByKey } from './key-move';
import { useRoom } from './use-room';
import { gripped } from './grip';

/** Room for numbers left of the side, and for half a number at its right end, px. */
const LEFT = 106;
const RIGHT = 26;
/** Room for numbers below it. */
const BELOW = 84;

/** A side of the piece to scale, with its joints, its finished edge, and what is cut into it; each cut can be dragged. */
export function FeatureDrawing({
  side,
  features,
  chosen,
  display,
  stepMm,
  onChoose,
  onMove,
}: {
  side: SideSheet;
  features: readonly FeatureRow[];
  chosen: string | undefined;
  display: Display;
  /** What a key moves it by, and what places are rounded to, mm. */
  stepMm: number;
  onChoose: (id: string) => void;
  onMove: (id: string, by: { u: number; v: number }, settled: boolean) => void;
}) {
  const { room, width } = useRoom();
  const [held, setHeld] = useState<{ id: string; x: number; y: number; u: number; v: number }>();
  const scale = width > 0 ? Math.min((width - LEFT - RIGHT) / side.long, 360 / side.wide) : 0;
  const [w, h] = [side.long * scale, side.wide * scale];
  const rounded = (mm: number) => Math.round(mm / stepMm) * stepMm;
  const down = (event: PointerEvent, row: FeatureRow) => {
    onChoose(row.id);
    if (!row.fromBlank) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    setHeld({ id: row.id, x: event.clientX, y: event.clientY, u: 0, v: 0 });
  };
  const move = (event: PointerEvent) =>
    held &&
    setHeld({
      ...held,
      u: rounded((event.clientX - held.x) / scale),
      v: rounded((held.y - event.clientY) / scale),
    });
  const up = () => {
    if (held && (held.u !== 0 || held.v !== 0)) onMove(held.id, { u: held.u, v: held.v }, true);
    setHeld(undefined);
  };
  const key = (event: KeyboardEvent, row: FeatureRow) => {
    if (event.key === 'Enter' || event.key === ' ') {
      event.preventDefault();
      return onChoose(row.id);
    }
    const by = row.fromBlank && movedByKey(event, stepMm);
    if (by) onMove(row.id, { u: by.x, v: by.y }, false);
  };
  const own = features.find(({ id }) => id === chosen);
  return (
    <div ref={room} className="w-full min-w-0" data-features={side.side}>
      {scale > 0 && (
        <svg
          ref={gripped}
          width={w + LEFT + RIGHT}
          height={h + BELOW}
          role="group"
          aria-label={`${side.name}, ${lengthText(side.long, display)} by ${lengthText(side.wide, display)}`}
          className="block select-none"
        >
          <g transform={`translate(${LEFT} 12)`}>
            <rect width={w} height={h} fill="var(--color-lath)" stroke="var(--color-lath-line)" />
            {side.joints.v.map((at) => (
              <line
                key={`v${at}`}
                x1={0}
                x2={w}
                y1={h - at * scale}
                y2={h - at * scale}
                stroke="var(--color-lath-line)"
                data-joint="v"
              />
            ))}
            {side.joints.u.map((at) => (
              <line
                key={`u${at}`}
                y1={0}
                y2={h}
                x1={at * scale}
                x2={at * scale}
                stroke="var(--color-lath-line)"
                data-joint="u"
              />
            ))}
            <g transform={`scale(${scale})`}>
              <path
                d={side.finished}
                fill="none"
                stroke="var(--color-ink)"
                strokeDasharray="6 4"
                strokeWidth={1.2}
                vectorEffect="non-scaling-stroke"
              />
            </g>
            {features.map((row) => (
              <Mark
                key={row.id}
                row={row}
                scale={scale}
                chosen={row.id === chosen}
                shift={held?.id === row.id ? held : undefined}
                wide={side.wide}
                display={display}
                onPointerDown={(event) => down(event, row)}
                onPointerMove={move}
                onPointerUp={up}
                onPointerCancel={() => setHeld(undefined)}
                onKeyDown={(event) => key(event, row)}
              />
            ))}
            <Ordinates side={side} features={features} scale={scale} display={display} />
            {own && (
              <Dimensions
                row={own}
                side={side}
                scale={scale}
                shift={held?.id === own.id ? held : undefined}
                display={display}
              />
            )}
          </g>
        </svg>
      )}
    </div>
  );
}

function Mark({
  row,
  scale,
  chosen,
  shift,
  wide,
  display,
  ...handlers
}: {
  row: FeatureRow;
  scale: number;
  chosen: boolean;
  shift: { u: number; v: number } | undefined;
  wide: number;
  display: Display;
  onPointerDown: (event: PointerEvent) => void;
  onPointerMove: (event: PointerEvent) => void;
  onPointerUp: () => void;
  onPointerCancel: () => void;
  onKeyDown: (event: KeyboardEvent) => void;
}) {
  const place = row.fromFinished
    ? `, ${lengthText(row.fromFinished.u, display)} along, ${lengthText(row.fromFinished.v, display)} across`
    : '';
  return (
    <g
      role="button"
      tabIndex={0}
      data-feature={row.id}
      data-grip={row.fromBlank ? '' : undefined}
      aria-pressed={chosen}
      aria-label={`${row.name}${row.count > 1 ? `, ${row.count} of them` : ''}${place}`}
      className={`outline-none focus-visible:[&_path]:stroke-[3px] ${row.fromBlank ? 'cursor-grab' : 'cursor-pointer'}`}
      transform={shift ? `translate(${shift.u * scale} ${-shift.v * scale})` : undefined}
      {...handlers}
    >
      <g transform={`scale(${scale})`}>
        {row.drawn.map(({ path }, i) => (
          <path
            key={i}
            d={path}
            fillRule="evenodd"
            fill={chosen ? 'var(--color-chalk)' : 'var(--color-ink)'}
            fillOpacity={chosen ? 0.35 : 0.22}
            stroke={chosen ? 'var(--color-chalk)' : 'var(--color-ink)'}
            strokeWidth={1.4}
            vectorEffect="non-scaling-stroke"
          />
        ))}
      </g>
      {row.drawn.map(({ at }, i) => {
        const [cx, cy] = [at.u * scale, (wide - at.v) * scale];
        // A finger must hit a small hole.
        return row.fromBlank ? <circle key={i} cx={cx} cy={cy} r={14} fill="transparent" /> : null;
      })}
    </g>
  );
}

/** Numbers nearer than this run into each other, px: along, and one above the other. */
const APART = { u: 56, v: 15 };

/** Places told from the finished low edges, all features together, each once; a number that would run into the one before it steps aside. */
function Ordinates({
  side,
  features,
  scale,
  display,
}: {
  side: SideSheet;
  features: readonly FeatureRow[];
  scale: number;
  display: Display;
}) {
  const places = (along: 'u' | 'v') => {
    const all = features.flatMap(({ fromBlank, drawn }) =>
      fromBlank ? drawn.map(({ at }) => at[along]) : [],
    );
    const once = [...new Set(all.map((mm) => Math.round(mm * 1000) / 1000))].toSorted((a, b) => a - b);
    let last = -Infinity;
    return once.map((mm) => {
      last = Math.max(mm * scale, last + APART[along]);
      return { mm, tick: mm * scale, label: last };
    });
  };
  const base = side.wide * scale;
  const text = (mm: number) => lengthText(mm, display);
  return (
    <g
      stroke="var(--color-graphite)"
      fill="var(--color-graphite)"
      className="pointer-events-none"
      data-ordinates
    >
      {places('u').map(({ mm, tick, label }) => (
        <g key={`u${mm}`}>
          <polyline points={`${tick},${base + 32} ${tick},${base + 36} ${label},${base + 43}`} fill="none" />
          <text x={label} y={base + 56} textAnchor="middle" stroke="none" fontSize="12">
            {text(mm - side.trims.u[0])}
          </text>
        </g>
      ))}
      {places('v').map(({ mm, tick, label }) => (
        <g key={`v${mm}`}>
          <polyline points={`-34,${base - tick} -37,${base - tick} -43,${base - label}`} fill="none" />
          <text x={-45} y={base - label + 4} textAnchor="end" stroke="none" fontSize="12">
            {text(mm - side.trims.v[0])}
          </text>
        </g>
      ))}
    </g>
  );
}

/** Lines from the finished near edge and left end to the middle of a feature, with their lengths. */
function Dimensions({
  row,
  side,
  scale,
  shift,
  display,
}: {
  row: FeatureRow;
  side: SideSheet;
  scale: number;
  shift: { u: number; v: number } | undefined;
  display: Display;
}) {
  if (!row.fromBlank || !row.fromFinished) return null;
  const u = row.fromBlank.u + (shift?.u ?? 0);
  const v = row.fromBlank.v + (shift?.v ?? 0);
  const [x, y] = [u * scale, (side.wide - v) * scale];
  const x0 = side.trims.u[0] * scale;
  const y0 = (side.wide - side.trims.v[0]) * scale;
  const base = side.wide * scale + 14;
  const text = (mm: number) => lengthText(mm, display);
  return (
    <g
      stroke="var(--color-chalk)"
      fill="var(--color-chalk)"
      strokeWidth="1"
      className="pointer-events-none"
      data-dimensions
    >
      <line x1={x0} x2={x} y1={base} y2={base} />
      <line x1={x0} x2={x0} y1={base - 5} y2={base + 5} />
      <line x1={x} x2={x} y1={y} y2={base + 5} strokeDasharray="2 3" />
      <text x={(x0 + x) / 2} y={base + 14} textAnchor="middle" stroke="none" fontSize="12.5">
        {text(u - side.trims.u[0])}
      </text>
      <line x1={-14} x2={-14} y1={y0} y2={y} />
      <line x1={-19} x2={-9} y1={y0} y2={y0} />
      <line x1={-19} x2={x} y1={y} y2={y} strokeDasharray="2 3" />
      <text
        transform={`translate(-20 ${(y0 + y) / 2}) rotate(-90)`}
        textAnchor="middle"
        stroke="none"
        fontSize="12.5"
      >
        {text(v - side.trims.v[0])}
      </text>
    </g>
  );
}
