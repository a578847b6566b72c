import { Lock } from 'lucide-react';
import { useId, useRef, type PointerEvent } from 'react';
import type { BoardLayout, LaidStrip } from '../../../core/stock';
import { lengthText, rising, type Display } from '../../../core/units';
import { BoardPicture } from '../../drawing/BoardPicture';
import { FaultMarks, onBoard } from '../../drawing/FaultMarks';
import { gripped } from '../../drawing/grip';

/** A strip let go of: on which board and where its least corner lies, mm. */
export interface Drop {
  strip: string;
  board: string;
  x: number;
  y: number;
}

const DRAG_PX = 5;
/** A strip that is let go no farther beside a board than this is meant for it, px. */
const BESIDE_PX = 22;

/** A board with what comes out of it, drawn on its wood: strips bare, waste under a veil, every cut with its number. */
export function BoardPlan({
  layout,
  pxPerMm,
  display,
  labelOf,
  lockedOf,
  movable,
  chosen,
  onChoose,
  onDrop,
}: {
  layout: BoardLayout;
  pxPerMm: number;
  display: Display;
  labelOf: (strip: string) => string;
  lockedOf: (strip: string) => boolean;
  movable: (strip: string) => boolean;
  chosen: string | undefined;
  onChoose: (strip: string) => void;
  onDrop: (drop: Drop) => void;
}) {
  const { board } = layout;
  const hatch = useId();
  const place = (area: { x: number; y: number; length: number; width: number }) =>
    onBoard(board, area, pxPerMm);
  const [w, h] = [board.length.mm * pxPerMm, board.width.mm * pxPerMm];
  return (
    <div data-board-id={board.id} data-board-label={board.label}>
      <BoardPicture board={board} pxPerMm={pxPerMm}>
        <svg
          ref={gripped}
          width={w}
          height={h}
          className="absolute inset-0 overflow-visible"
          role="group"
          aria-label={`Board ${board.label}`}
        >
          <defs>
            <pattern
              id={hatch}
              width="7"
              height="7"
              patternUnits="userSpaceOnUse"
              patternTransform="rotate(45)"
            >
              <line x1="0" y1="0" x2="0" y2="7" stroke="#2b6a35" strokeWidth="1.4" />
            </pattern>
          </defs>
          {layout.offcuts.map((offcut) => (
            <g key={`${offcut.x} ${offcut.y}`}>
              <rect {...place(offcut)} fill="#fafaf7" fillOpacity={offcut.reusable ? 0.35 : 0.72} />
              {offcut.reusable && <rect {...place(offcut)} fill={`url(#${hatch})`} fillOpacity={0.45} />}
              {offcut.reusable && (
                <OffcutLabel
                  box={place(offcut)}
                  text={`keep ${lengthText(offcut.length, display)} × ${lengthText(offcut.width, display)}`}
                />
              )}
            </g>
          ))}
          {layout.kerfs.map((kerf) => {
            const box = place(kerf);
            return (
              <rect
                key={`${kerf.x} ${kerf.y}`}
                {...box}
                width={Math.max(1, box.width)}
                height={Math.max(1, box.height)}
                fill="#22272a"
              />
            );
          })}
          <FaultMarks board={board} face="up" pxPerMm={pxPerMm} />
          {layout.sections.flatMap((section, s) =>
            section.lanes.map((lane, l) => (
              <Lane
                key={lane[0].strip.id}
                lane={lane}
                box={place(lane[0])}
                number={`${s + 1}.${l + 1}`}
                pxPerMm={pxPerMm}
                label={lane.map((laid) => labelOf(laid.strip.id)).join(' + ')}
                locked={lane.some((laid) => lockedOf(laid.strip.id))}
                movable={movable(lane[0].strip.id)}
                chosen={lane.some((laid) => laid.strip.id === chosen)}
                onChoose={onChoose}
                onDrop={onDrop}
                display={display}
              />
            )),
          )}
          {layout.sections.map((section, s) => (
            <text
              key={section.x}
              x={(section.x + section.length / 2) * pxPerMm}
              y={-3}
              textAnchor="middle"
              className="rule"
              fontSize={11}
              fill="#535b60"
            >
              {s + 1}
            </text>
          ))}
        </svg>
      </BoardPicture>
    </div>
  );
}

type Box = { x: number; y: number; width: number; height: number };

function OffcutLabel({ box, text }: { box: Box; text: string }) {
  if (box.width < text.length * 5.6 || box.height < 13) return null;
  return (
    <text
      x={box.x + box.width / 2}
      y={box.y + box.height / 2 + 4}
      textAnchor="middle"
      fontSize={11}
      className="rule"
      fill="#1e4f27"
      stroke="#fafaf7"
      strokeWidth={3}
      paintOrder="stroke"
    >
      {text}
    </text>
  );
}

/** A strip on its board: taken hold of with mouse or finger, and by its keys in the card. */
function Lane({
  lane,
  box,
  number,
  pxPerMm,
  label,
  locked,
  movable,
  chosen,
  onChoose,
  onDrop,
  display,
}: {
  lane: LaidStrip[];
  box: Box;
  number: string;
  pxPerMm: number;
  label: string;
  locked: boolean;
  movable: boolean;
  chosen: boolean;
  onChoose: (strip: string) => void;
  onDrop: (drop: Drop) => void;
  display: Display;
}) {
  const [first] = lane;
  const grip = useRef<{ x: number; y: number; moved: boolean }>(undefined);
  const group = useRef<SVGGElement>(null);
  const finish = (event: PointerEvent<SVGGElement>) => {
    const from = grip.current;
    grip.current = undefined;
    if (group.current) group.current.style.transform = '';
    if (!from?.moved) return;
    const boards = [...document.querySelectorAll<HTMLElement>('[data-board-id]')].map((board) => {
      const box = board.getBoundingClientRect();
      const aside = Math.max(box.left - event.clientX, event.clientX - box.right, 0);
      return { board, off: Math.max(aside, box.top - event.clientY, event.clientY - box.bottom, 0) };
    });
    const [nearest] = boards.toSorted(rising(({ off }) => off));
    const own = group.current?.closest<HTMLElement>('[data-board-id]');
    const id = nearest?.board.dataset.boardId;
    if (!nearest || nearest.off > BESIDE_PX || !id || !own) return;
    const [to, start] = [nearest.board.getBoundingClientRect(), own.getBoundingClientRect()];
    const left = start.left + box.x + event.clientX - from.x;
    const bottom = start.top + box.y + box.height + event.clientY - from.y;
    onDrop({
      strip: first.strip.id,
      board: id,
      x: (left - to.left) / pxPerMm,
      y: (to.bottom - bottom) / pxPerMm,
    });
  };
  return (
    <g
      ref={group}
      role="button"
      tabIndex={0}
      aria-pressed={chosen}
      aria-label={`Strip ${label}, ${lengthText(first.strip.length, display)} by ${lengthText(first.strip.width, display)}${locked ? ', locked' : ''}`}
      data-strip={first.strip.id}
      // A finger chooses a strip first, then drags it: everywhere else it slides the boards.
      data-grip={movable && chosen ? '' : undefined}
      className={`outline-offset-0 ${movable ? 'cursor-grab' : 'cursor-pointer'}`}
      onKeyDown={(event) => {
        if (event.key === 'Enter' || event.key === ' ') onChoose(first.strip.id);
      }}
      onClick={() => onChoose(first.strip.id)}
      onPointerDown={(event) => {
        if (event.pointerType === 'touch' && !chosen) return;
        onChoose(first.strip.id);
        if (!movable) return;
        grip.current = { x: event.clientX, y: event.clientY, moved: false };
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={(event) => {
        const from = grip.current;
        if (!from || !group.current) return;
        const [dx, dy] = [event.clientX - from.x, event.clientY - from.y];
        from.moved ||= Math.hypot(dx, dy) > DRAG_PX;
        if (from.moved) group.current.style.transform = `translate(${dx}px, ${dy}px)`;
      }}
      onPointerUp={finish}
      onPointerCancel={() => {
        grip.current = undefined;
        if (group.current) group.current.style.transform = '';
      }}
    >
      <rect
        {...box}
        fill={chosen ? '#1d4f9c' : 'transparent'}
        fillOpacity={chosen ? 0.22 : 1}
        stroke={chosen ? '#1d4f9c' : '#22272a'}
        strokeWidth={chosen ? 2.5 : 1}
      />
      {box.height >= 9 && (
        <text
          x={box.x + Math.min(box.width / 2, 120)}
          y={box.y + box.height / 2 + 4}
          textAnchor="middle"
          fontSize={Math.min(14, Math.max(10, box.height - 2))}
          className="rule"
          fill="#22272a"
          stroke="#fafaf7"
          strokeWidth={3.5}
          paintOrder="stroke"
        >
          {label}
        </text>
      )}
      {box.height >= 12 && box.width > (first.place.faceDown ? 280 : 150) && (
        <text
          x={box.x + box.width - 6}
          y={box.y + box.height / 2 + 4}
          textAnchor="end"
          fontSize={10.5}
          className="rule"
          fill="#22272a"
          stroke="#fafaf7"
          strokeWidth={3}
          paintOrder="stroke"
        >
          cut {number}
          {first.place.faceDown && ', under face up'}
        </text>
      )}
      {locked && (
        <Lock
          x={box.x + 4}
          y={box.y + box.height / 2 - 6}
          width={12}
          height={12}
          color="#1d4f9c"
          strokeWidth={2.6}
        />
      )}
    </g>
  );
}
