import { type KeyboardEvent, type PointerEvent, useState } from 'react';
import { type Display, lengthText } from '../../core/units';
import { movedByKey } from './key-move';
import { useRoom } from './use-room';
import { gripped } from './grip';

/** Room beside the piece, px. */
const MARGIN = 26;

/** Where a corner is drawn, mm from the piece’s left end and near edge. */
export interface CornerPlace {
  x: number;
  y: number;
}

/** A piece to scale with the outline that is sawn from it; its corners are dragged, or moved by keys. */
export function OutlineDrawing({
  size,
  path,
  box,
  corners,
  chosen,
  display,
  stepMm,
  onChoose,
  onMove,
}: {
  /** Length of the piece and its width, or its thickness where it is seen from the edge, mm. */
  size: readonly [number, number];
  /** The outline as an SVG’s path, y turned down over the piece’s width; nothing where it is none. */
  path: string | undefined;
  /** What the outline fills, mm. */
  box: { x0: number; y0: number; x1: number; y1: number } | undefined;
  corners: readonly CornerPlace[];
  chosen: number;
  display: Display;
  stepMm: number;
  onChoose: (corner: number) => void;
  onMove: (corner: number, by: CornerPlace, settled: boolean) => void;
}) {
  const { room, width } = useRoom();
  const [held, setHeld] = useState<{ corner: number; x: number; y: number; by: CornerPlace }>();
  const xs = [0, size[0], ...corners.map(({ x }) => x), ...(box ? [box.x0, box.x1] : [])];
  const ys = [0, size[1], ...corners.map(({ y }) => y), ...(box ? [box.y0, box.y1] : [])];
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const scale = width > 0 ? Math.min((width - 2 * MARGIN) / (x1 - x0 || 1), 380 / (y1 - y0 || 1)) : 0;
  const rounded = (mm: number) => Math.round(mm / stepMm) * stepMm;
  const down = (event: PointerEvent, corner: number) => {
    onChoose(corner);
    event.currentTarget.setPointerCapture(event.pointerId);
    setHeld({ corner, x: event.clientX, y: event.clientY, by: { x: 0, y: 0 } });
  };
  const move = (event: PointerEvent) =>
    held &&
    setHeld({
      ...held,
      by: { x: rounded((event.clientX - held.x) / scale), y: rounded((held.y - event.clientY) / scale) },
    });
  const up = () => {
    if (held && (held.by.x !== 0 || held.by.y !== 0)) onMove(held.corner, held.by, true);
    setHeld(undefined);
  };
  const key = (event: KeyboardEvent, corner: number) => {
    if (event.key === 'Enter' || event.key === ' ') {
      event.preventDefault();
      return onChoose(corner);
    }
    const by = movedByKey(event, stepMm);
    if (by) onMove(corner, by, false);
  };
  const px = (x: number) => MARGIN + (x - x0) * scale;
  const py = (y: number) => MARGIN + (y1 - y) * scale;
  return (
    <div ref={room} className="w-full min-w-0">
      {scale > 0 && (
        <svg
          ref={gripped}
          width={(x1 - x0) * scale + 2 * MARGIN}
          height={(y1 - y0) * scale + 2 * MARGIN}
          role="group"
          aria-label={`The piece, ${lengthText(size[0], display)} by ${lengthText(size[1], display)}, and its outline`}
          className="block max-w-full select-none"
        >
          <rect
            x={px(0)}
            y={py(size[1])}
            width={size[0] * scale}
            height={size[1] * scale}
            fill="var(--color-lath)"
            stroke="var(--color-lath-line)"
          />
          {path && (
            <g transform={`translate(${px(0)} ${py(size[1])}) scale(${scale})`}>
              <path
                d={path}
                data-outline
                fill="var(--color-ink)"
                fillOpacity={0.14}
                stroke="var(--color-ink)"
                strokeWidth={1.8}
                vectorEffect="non-scaling-stroke"
              />
            </g>
          )}
          {corners.map(({ x, y }, i) => {
            const by = held?.corner === i ? held.by : { x: 0, y: 0 };
            const [cx, cy] = [px(x + by.x), py(y + by.y)];
            const own = i === chosen;
            return (
              <g
                key={i}
                role="button"
                tabIndex={0}
                data-corner={i + 1}
                data-grip
                aria-pressed={own}
                aria-label={`Corner ${i + 1}, ${lengthText(x, display)} from the left end, ${lengthText(y, display)} from the near edge`}
                className="cursor-grab outline-none focus-visible:[&_rect]:stroke-[3px]"
                onPointerDown={(event) => down(event, i)}
                onPointerMove={move}
                onPointerUp={up}
                onPointerCancel={() => setHeld(undefined)}
                onKeyDown={(event) => key(event, i)}
              >
                {/* A finger must hit it. */}
                <circle cx={cx} cy={cy} r={15} fill="transparent" />
                <rect
                  x={cx - 4}
                  y={cy - 4}
                  width={8}
                  height={8}
                  fill={own ? 'var(--color-chalk)' : 'var(--color-paper)'}
                  stroke={own ? 'var(--color-chalk)' : 'var(--color-ink)'}
                />
                {(own || corners.length <= 24) && (
                  <text
                    x={cx + 8}
                    y={cy - 7}
                    fontSize="12.5"
                    fill={own ? 'var(--color-chalk)' : 'var(--color-ink)'}
                  >
                    {i + 1}
                  </text>
                )}
              </g>
            );
          })}
        </svg>
      )}
    </div>
  );
}
