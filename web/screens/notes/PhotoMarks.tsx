import { useDrag } from '@use-gesture/react';
import { useRef, useState } from 'react';
import { heldIn, isMeant, type Mark, type MarkKind, MARKS, moved } from '../../../core/notes';
import type { Sides } from './Picture';

/** How far an arrow key moves a mark, in shares of the photo; with Alt a fifth of it. */
const STEP = 0.02;
const ARROWS: Record<string, readonly [dx: number, dy: number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** The marks on a photo. With a kind chosen a finger draws one; each is moved and taken away by keys, too. */
export function PhotoMarks({
  marks,
  sides,
  kind,
  chosen,
  onChosen,
  onMarks,
}: {
  marks: readonly Mark[];
  sides: Sides;
  /** What is drawn next; nothing, and the photo only shows its marks. */
  kind?: MarkKind | undefined;
  chosen?: number | undefined;
  onChosen?: (at: number | undefined) => void;
  onMarks?: (marks: Mark[]) => void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const [drawn, setDrawn] = useState<Mark>();
  /** Shares of the photo under a point of the page. */
  const at = (x: number, y: number) => {
    const box = svg.current?.getBoundingClientRect();
    return box ? { x: (x - box.left) / box.width, y: (y - box.top) / box.height } : { x: 0, y: 0 };
  };
  const bind = useDrag(
    ({ initial, xy, last, canceled }) => {
      if (!kind || !onMarks) return;
      const [from, to] = [at(...initial), at(...xy)];
      const mark = heldIn({ kind, x1: from.x, y1: from.y, x2: to.x, y2: to.y });
      setDrawn(last ? undefined : mark);
      if (last && !canceled && isMeant(mark, sides)) {
        onMarks([...marks, mark]);
        onChosen?.(marks.length);
      }
    },
    { enabled: kind !== undefined, pointer: { keys: false } },
  );
  const onKey = (event: React.KeyboardEvent, i: number) => {
    if (!onMarks) return;
    const arrow = ARROWS[event.key];
    if (arrow) {
      event.preventDefault();
      const by = event.altKey ? STEP / 5 : STEP;
      onMarks(
        marks.map((mark, j) => (i === j ? moved(mark, arrow[0] * by, arrow[1] * by, event.shiftKey) : mark)),
      );
    } else if (event.key === 'Delete' || event.key === 'Backspace') {
      event.preventDefault();
      onMarks(marks.filter((_, j) => j !== i));
      onChosen?.(undefined);
    }
  };
  const wide = Math.max(sides.widthPx, sides.heightPx) / 220;
  const line = (mark: Mark, on: boolean) => (
    <>
      <path d={MARKS[mark.kind].path(mark, sides)} stroke="white" strokeWidth={wide * 2} />
      <path d={MARKS[mark.kind].path(mark, sides)} stroke={on ? '#1d5fd0' : '#c8281e'} strokeWidth={wide} />
    </>
  );
  return (
    <svg
      ref={svg}
      {...bind()}
      viewBox={`0 0 ${sides.widthPx} ${sides.heightPx}`}
      className={`absolute inset-0 h-full w-full ${kind ? 'cursor-crosshair touch-none' : ''}`}
      fill="none"
      strokeLinecap="round"
      strokeLinejoin="round"
      data-testid="marks"
      {...(onMarks ? { role: 'group', 'aria-label': 'Marks' } : { 'aria-hidden': true })}
    >
      {marks.map((mark, i) =>
        onMarks ? (
          <g
            key={i}
            role="button"
            tabIndex={0}
            aria-pressed={chosen === i}
            aria-label={`${MARKS[mark.kind].name} ${i + 1}: arrow keys move it, with Shift its end; Delete takes it away`}
            className={kind ? 'pointer-events-none' : ''}
            onFocus={() => onChosen?.(i)}
            onClick={() => onChosen?.(i)}
            onKeyDown={(event) => onKey(event, i)}
          >
            {line(mark, chosen === i)}
          </g>
        ) : (
          <g key={i}>{line(mark, false)}</g>
        ),
      )}
      {drawn && <g>{line(drawn, false)}</g>}
    </svg>
  );
}
