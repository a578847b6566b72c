import { type BoardStock, type Fault, type FaultKind, isThrough } from '../../core/document';
import { lengthText } from '../../core/units';
import { useDisplay } from '../app/display';

/** A rectangle on a board in pixels of its drawing: the near edge is below on the upper face, above on the under one. */
export function onBoard(
  board: Pick<BoardStock, 'width'>,
  area: { x: number; y: number; length: number; width: number },
  pxPerMm: number,
  face: 'up' | 'down' = 'up',
) {
  const top = face === 'up' ? board.width.mm - area.y - area.width : area.y;
  return {
    x: area.x * pxPerMm,
    y: top * pxPerMm,
    width: area.length * pxPerMm,
    height: area.width * pxPerMm,
  };
}

/** How each fault is drawn inside its rectangle: what a maker would see there, not a sign for it. */
function Mark({ kind, width: w, height: h }: { kind: FaultKind; width: number; height: number }) {
  const line = { stroke: '#2b1a10', strokeWidth: 1.1, fill: 'none' };
  if (kind === 'knot')
    return (
      <>
        <ellipse cx={w / 2} cy={h / 2} rx={w / 2} ry={h / 2} fill="#6b4326" fillOpacity={0.75} />
        <ellipse cx={w / 2} cy={h / 2} rx={w / 3.4} ry={h / 3.4} fill="#43281a" />
        <ellipse cx={w / 2} cy={h / 2} rx={w / 2.3} ry={h / 2.3} {...line} strokeWidth={0.7} />
      </>
    );
  if (kind === 'split' || kind === 'check') {
    const n = 7;
    const points = Array.from(
      { length: n + 1 },
      (_, i) => `${(w * i) / n},${h / 2 + (i % 2 ? 0.16 : -0.16) * h}`,
    );
    return <polyline points={points.join(' ')} {...line} strokeWidth={kind === 'split' ? 2.2 : 1.2} />;
  }
  if (kind === 'wane') return <rect width={w} height={h} fill="#4a3526" fillOpacity={0.85} />;
  if (kind === 'sapwood') return <rect width={w} height={h} fill="#f3e4c4" fillOpacity={0.55} />;
  if (kind === 'stain')
    return <ellipse cx={w / 2} cy={h / 2} rx={w / 2} ry={h / 2} fill="#3c4650" fillOpacity={0.42} />;
  if (kind === 'pith')
    return <line x1={0} x2={w} y1={h / 2} y2={h / 2} {...line} strokeDasharray="5 2" strokeWidth={2} />;
  if (kind === 'nail')
    return (
      <>
        <circle cx={w / 2} cy={h / 2} r={Math.max(2.2, Math.min(w, h) / 3)} fill="#22272a" />
        <circle
          cx={w / 2}
          cy={h / 2}
          r={Math.max(5, Math.min(w, h) / 1.6)}
          fill="#22272a"
          fillOpacity={0.25}
        />
      </>
    );
  return (
    <path d={`M0 ${h} L${w * 0.3} ${h * 0.2} L${w * 0.7} 0 L${w} ${h} Z`} fill="#2b1a10" fillOpacity={0.6} />
  );
}

/** The faults one sees on a face of a board: those on it and those that go through. */
export function FaultMarks({
  board,
  face,
  pxPerMm,
  chosen,
  onChoose,
}: {
  board: BoardStock;
  face: 'up' | 'down';
  pxPerMm: number;
  chosen?: string;
  onChoose?: (fault: Fault) => void;
}) {
  const display = useDisplay();
  return (board.faults ?? [])
    .filter((fault) => fault.face === face || isThrough(fault))
    .map((fault) => {
      const { x, y, width, height } = onBoard(board, fault, pxPerMm, face);
      const [w, h] = [Math.max(3, width), Math.max(3, height)];
      return (
        <g
          key={fault.id}
          transform={`translate(${x} ${y})`}
          role={onChoose ? 'button' : undefined}
          tabIndex={onChoose ? 0 : undefined}
          aria-label={
            onChoose ? `${fault.kind}, ${lengthText(fault.x, display)} from the marked end` : undefined
          }
          aria-pressed={onChoose ? chosen === fault.id : undefined}
          className={onChoose ? 'cursor-pointer outline-none' : undefined}
          onPointerDown={(event) => {
            if (!onChoose) return;
            event.stopPropagation();
            onChoose(fault);
          }}
          onKeyDown={(event) => {
            if (event.key === 'Enter' || event.key === ' ') onChoose?.(fault);
          }}
        >
          <Mark kind={fault.kind} width={w} height={h} />
          <rect
            x={-2}
            y={-2}
            width={w + 4}
            height={h + 4}
            fill="transparent"
            stroke={chosen === fault.id ? '#1d4f9c' : 'transparent'}
            strokeWidth={2}
          />
        </g>
      );
    });
}
