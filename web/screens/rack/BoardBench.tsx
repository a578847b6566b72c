import { Trash2 } from 'lucide-react';
import { type PointerEvent, useRef, useState } from 'react';
import type { RackBoard } from '../../../contract/board';
import { type Fault, FAULT_KINDS, type FaultKind } from '../../../core/document';
import { clearAreas, clipFault, forbidden } from '../../../core/stock';
import { lengthText } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { changeBoard } from '../../app/rack';
import { BoardPicture } from '../../drawing/BoardPicture';
import { FaultMarks, onBoard } from '../../drawing/FaultMarks';
import { useRoom } from '../../drawing/use-room';
import { Choice } from '../../parts/Choice';
import { LengthField } from '../../parts/LengthField';
import { useFingers } from '../../parts/use-phone';
import { FAULT_NAMES } from './words';

const FACE_NAMES: Record<Fault['face'], string> = {
  up: 'upper face',
  down: 'under face',
  both: 'both faces',
};
const FACES = ['up', 'down'] as const;
/** A press that moves less than this, in pixels, is a tap: it puts a small fault there. */
const TAP_PX = 4;
const TAP_SIZE_PX = 12;
/** A face that fingers draw on is at least so wide, px; longer than its room then, it slides. */
const FACE_PX = 52;

/** A board on the bench: both faces as wood, its faults where they are, and what remains clear. */
export function BoardBench({ board }: { board: RackBoard }) {
  const display = useDisplay();
  const { room, size } = useRoom();
  const [tool, setTool] = useState<FaultKind>();
  const [chosen, setChosen] = useState<string>();
  const fingers = useFingers();
  const whole = Math.min((size.width - 36) / board.length.mm, (size.height / 2 - 26) / board.width.mm);
  const pxPerMm = Math.max(0, whole, fingers && size.width > 0 ? FACE_PX / board.width.mm : 0);
  const faults = board.faults ?? [];
  const set = (next: Fault[], mark?: string) =>
    changeBoard(board.id, { faults: next.length ? next : undefined }, mark);
  const current = faults.find(({ id }) => id === chosen);
  const draw = (fault: Omit<Fault, 'id'>) => {
    const id = freshId(faults);
    const inside = clipFault({ ...fault, id }, board);
    if (!inside) return;
    set([...faults, inside]);
    setChosen(id);
  };
  return (
    <div className="sheet flex min-w-0 flex-1 flex-col">
      <div
        className="border-line flex flex-wrap items-center gap-1.5 border-b px-3 py-1.5"
        role="toolbar"
        aria-label="Draw a fault"
      >
        <span className="label pr-1">Draw</span>
        {FAULT_KINDS.map((kind) => (
          <button
            key={kind}
            type="button"
            aria-pressed={tool === kind}
            className={`action h-7 px-2 ${tool === kind ? 'border-chalk! bg-chalk-wash text-chalk' : ''}`}
            onClick={() => setTool(tool === kind ? undefined : kind)}
          >
            {FAULT_NAMES[kind]}
          </button>
        ))}
        <span className="text-graphite ml-auto text-[13px]">
          {tool ? `Drag over it on its face` : 'Choose, then drag where it is'}
        </span>
      </div>
      <div
        ref={room}
        // Longer than its room, a face is slid by arrow keys, too.
        {...(pxPerMm > whole ? { tabIndex: 0, role: 'group', 'aria-label': 'Faces' } : {})}
        className="relative flex min-h-48 flex-1 flex-col justify-evenly overflow-x-auto px-4 py-1 @min-[52rem]:min-h-0"
      >
        {pxPerMm > 0 &&
          FACES.map((face) => (
            <div key={face}>
              <p className="label sticky left-0 flex justify-between leading-tight">
                <span>
                  {FACE_NAMES[face]}
                  {board.goodFace === face && ', the good one'}
                </span>
                <Clear board={board} face={face} text={(mm) => lengthText(mm, display)} />
              </p>
              <BoardPicture board={board} face={face} pxPerMm={pxPerMm}>
                <Drawing
                  board={board}
                  face={face}
                  pxPerMm={pxPerMm}
                  tool={tool}
                  chosen={chosen}
                  onChoose={setChosen}
                  onDraw={draw}
                />
              </BoardPicture>
            </div>
          ))}
      </div>
      <div className="border-line flex min-h-12 flex-wrap items-end gap-2 border-t px-3 py-1.5">
        {faults.length > 0 && (
          <ul
            aria-label="Faults"
            className="flex max-h-24 w-full flex-wrap gap-1.5 overflow-y-auto p-0.5 max-desk:max-h-none"
          >
            {faults.map((fault) => (
              <li key={fault.id}>
                <button
                  type="button"
                  aria-pressed={fault.id === chosen}
                  className={`action h-7 px-2 ${fault.id === chosen ? 'border-chalk! bg-chalk-wash text-chalk' : ''}`}
                  onClick={() => setChosen(fault.id === chosen ? undefined : fault.id)}
                >
                  {FAULT_NAMES[fault.kind]}, {FACE_NAMES[fault.face]}, {lengthText(fault.x, display)}
                  <span className="sr-only"> from the marked end</span>
                </button>
              </li>
            ))}
          </ul>
        )}
        {current ? (
          <FaultNumbers
            key={current.id}
            board={board}
            fault={current}
            onChange={(change) =>
              set(
                faults.map((fault) =>
                  fault.id === current.id ? (clipFault({ ...fault, ...change }, board) ?? fault) : fault,
                ),
                `fault ${current.id}`,
              )
            }
            onRemove={() => {
              set(faults.filter(({ id }) => id !== current.id));
              setChosen(undefined);
            }}
          />
        ) : (
          <>
            <span className="text-graphite self-center text-[13.5px]">
              {faults.length === 0 ? 'No faults noted.' : 'Choose a fault to see its numbers.'} The marked end
              is on the left, the near edge below on the upper face.
            </span>
            <button
              type="button"
              className="action ml-auto h-7"
              onClick={() =>
                draw({
                  kind: tool ?? 'knot',
                  face: 'up',
                  x: board.length.mm * 0.4,
                  y: board.width.mm * 0.35,
                  length: 40,
                  width: Math.min(40, board.width.mm * 0.3),
                })
              }
            >
              Add by numbers
            </button>
          </>
        )}
      </div>
    </div>
  );
}

function freshId(faults: readonly Fault[]): string {
  for (let n = faults.length + 1; ; n++) if (!faults.some(({ id }) => id === `f${n}`)) return `f${n}`;
}

/** The greatest area on a face that a show face may use. */
function clearest(board: RackBoard, face: 'up' | 'down') {
  const [first] = clearAreas(board, forbidden(board, { up: 'show', down: 'hidden' }, face === 'down'));
  return first;
}

function Clear({
  board,
  face,
  text,
}: {
  board: RackBoard;
  face: 'up' | 'down';
  text: (mm: number) => string;
}) {
  const area = clearest(board, face);
  if (!area) return <span className="text-red">nothing clear</span>;
  return (
    <span className="text-green">
      clear: {text(area.length)} by {text(area.width)}
    </span>
  );
}

function Drawing({
  board,
  face,
  pxPerMm,
  tool,
  chosen,
  onChoose,
  onDraw,
}: {
  board: RackBoard;
  face: 'up' | 'down';
  pxPerMm: number;
  tool: FaultKind | undefined;
  chosen: string | undefined;
  onChoose: (id: string | undefined) => void;
  onDraw: (fault: Omit<Fault, 'id'>) => void;
}) {
  const start = useRef<{ x: number; y: number }>(undefined);
  const [band, setBand] = useState<{ x: number; y: number; width: number; height: number }>();
  const [w, h] = [board.length.mm * pxPerMm, board.width.mm * pxPerMm];
  const at = (event: PointerEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };
  const finish = (rectangle: { x: number; y: number; width: number; height: number }) => {
    if (!tool) return;
    const y = face === 'up' ? h - rectangle.y - rectangle.height : rectangle.y;
    onDraw({
      kind: tool,
      face,
      x: rectangle.x / pxPerMm,
      y: y / pxPerMm,
      length: rectangle.width / pxPerMm,
      width: rectangle.height / pxPerMm,
    });
  };
  const clear = clearest(board, face);
  const outline = clear && onBoard(board, clear, pxPerMm, face);
  return (
    <svg
      width={w}
      height={h}
      role="group"
      aria-label={`${face === 'up' ? 'Upper' : 'Under'} face of board ${board.label}`}
      data-face={face}
      className={`absolute inset-0 ${tool ? 'cursor-crosshair touch-none' : ''}`}
      onPointerDown={(event) => {
        if (!tool) return onChoose(undefined);
        start.current = at(event);
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={(event) => {
        const from = start.current;
        if (!from) return;
        const to = at(event);
        setBand({
          x: Math.min(from.x, to.x),
          y: Math.min(from.y, to.y),
          width: Math.abs(to.x - from.x),
          height: Math.abs(to.y - from.y),
        });
      }}
      onPointerCancel={() => {
        start.current = undefined;
        setBand(undefined);
      }}
      onPointerUp={(event) => {
        const from = start.current;
        start.current = undefined;
        setBand(undefined);
        if (!from || !tool) return;
        const to = at(event);
        const tap = Math.hypot(to.x - from.x, to.y - from.y) < TAP_PX;
        const r = TAP_SIZE_PX / 2;
        finish(
          tap
            ? { x: from.x - r, y: from.y - r, width: TAP_SIZE_PX, height: TAP_SIZE_PX }
            : {
                x: Math.min(from.x, to.x),
                y: Math.min(from.y, to.y),
                width: Math.max(2, Math.abs(to.x - from.x)),
                height: Math.max(2, Math.abs(to.y - from.y)),
              },
        );
      }}
    >
      {outline && <rect {...outline} fill="none" stroke="#2b6a35" strokeWidth={1.5} strokeDasharray="7 4" />}
      <FaultMarks
        board={board}
        face={face}
        pxPerMm={pxPerMm}
        chosen={chosen}
        onChoose={tool ? undefined : (fault) => onChoose(fault.id)}
      />
      {band && <rect {...band} fill="#1d4f9c22" stroke="#1d4f9c" strokeWidth={1.5} />}
    </svg>
  );
}

function FaultNumbers({
  board,
  fault,
  onChange,
  onRemove,
}: {
  board: RackBoard;
  fault: Fault;
  onChange: (change: Partial<Fault>) => void;
  onRemove: () => void;
}) {
  const display = useDisplay();
  const number = (name: 'x' | 'y' | 'length' | 'width', label: string, most: number, least = 0) => (
    <LengthField
      label={label}
      className="w-[98px]"
      value={{ mm: fault[name] }}
      display={display}
      rule={{ minMm: least, maxMm: most }}
      onChange={({ mm }) => onChange({ [name]: mm })}
    />
  );
  return (
    <>
      <Choice
        label="Fault"
        className="w-28"
        value={fault.kind}
        options={FAULT_KINDS.map((kind) => ({ value: kind, label: FAULT_NAMES[kind] }))}
        onChange={(kind) => onChange({ kind: kind as FaultKind })}
      />
      <Choice
        label="On"
        className="w-32"
        value={fault.face}
        options={(['up', 'down', 'both'] as const).map((value) => ({ value, label: FACE_NAMES[value] }))}
        onChange={(face) => onChange({ face: face as Fault['face'] })}
      />
      {number('x', 'From marked end', board.length.mm)}
      {number('y', 'From near edge', board.width.mm)}
      {number('length', 'Long', board.length.mm - fault.x, 0.1)}
      {number('width', 'Wide', board.width.mm - fault.y, 0.1)}
      <button type="button" className="action ml-auto" onClick={onRemove}>
        <Trash2 size={15} aria-hidden /> Remove
      </button>
    </>
  );
}
