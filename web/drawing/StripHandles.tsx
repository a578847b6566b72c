import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  MouseSensor,
  TouchSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import {
  memo,
  useCallback,
  useLayoutEffect,
  useMemo,
  useRef,
  type KeyboardEvent,
  type RefObject,
} from 'react';

import { Lock } from 'lucide-react';
import { holdPictures } from './pictures';

/** A strip or slice as something to take hold of. */
export interface Handle {
  id: string;
  name: string;
  left: number;
  top: number;
  width: number;
  height: number;
  turned: boolean;
  locked: boolean;
}

interface Props {
  handles: readonly Handle[];
  chosen: string | undefined;
  sortable: boolean;
  /** The face as drawn, to cut the dragged strips' pictures from. */
  face: RefObject<HTMLCanvasElement | null>;
  onChoose: (id: string) => void;
  onMove: (from: number, to: number) => void;
  onKey: (id: string, event: KeyboardEvent) => void;
}

/** Moves the strips in the drawn face to their new order, so that the eye need not wait for the new picture. */
function paintMove(face: HTMLCanvasElement, handles: readonly Handle[], from: number, to: number): void {
  const context = face.getContext('2d');
  if (!context || !face.clientWidth) return;
  const k = face.height / face.clientHeight;
  const [first, last] = from < to ? [from, to] : [to, from];
  const top = Math.round(handles[first].top * k);
  const bottom = Math.round((handles[last].top + handles[last].height) * k);
  const moved = Math.round(handles[from].height * k);
  const copy = new OffscreenCanvas(face.width, bottom - top);
  copy.getContext('2d')?.drawImage(face, 0, -top);
  const rest = bottom - top - moved;
  const down = from < to;
  context.drawImage(
    copy,
    0,
    down ? moved : 0,
    face.width,
    rest,
    0,
    top + (down ? 0 : moved),
    face.width,
    rest,
  );
  context.drawImage(
    copy,
    0,
    down ? 0 : rest,
    face.width,
    moved,
    0,
    top + (down ? rest : 0),
    face.width,
    moved,
  );
}

/** Strips or slices laid over the drawing: chosen by a press, moved by dragging or by keys. */
export function StripHandles({ handles, chosen, sortable, face, onChoose, onMove, onKey }: Props) {
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 4 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 120, tolerance: 8 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const ids = useMemo(() => handles.map(({ id }) => id), [handles]);
  const live = useRef({ onChoose, onKey });
  live.current = { onChoose, onKey };
  const choose = useCallback((id: string) => live.current.onChoose(id), []);
  const key = useCallback((id: string, event: KeyboardEvent) => live.current.onKey(id, event), []);
  const end = ({ active, over }: DragEndEvent) => {
    holdPictures(false);
    const [from, to] = [ids.indexOf(String(active.id)), ids.indexOf(String(over?.id ?? active.id))];
    if (face.current && from !== to) paintMove(face.current, handles, from, to);
    // The strip lies where it was let go; what follows from that comes in a task of its own.
    setTimeout(() => {
      onChoose(String(active.id));
      if (from !== to) onMove(from, to);
    });
  };
  const items = handles.map((handle, i) => (
    <StripHandle
      key={handle.id}
      {...handle}
      nth={i + 1}
      chosen={handle.id === chosen}
      sortable={sortable}
      face={face}
      onChoose={choose}
      onKey={key}
    />
  ));
  if (!sortable) return items;
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      autoScroll={false}
      onDragStart={() => holdPictures(true)}
      onDragCancel={() => holdPictures(false)}
      onDragEnd={end}
    >
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        {items}
      </SortableContext>
    </DndContext>
  );
}

interface HandleProps extends Handle {
  nth: number;
  chosen: boolean;
  sortable: boolean;
  /** Where the picture of a strip that makes way is taken from. */
  face: RefObject<HTMLCanvasElement | null>;
  onChoose: (id: string) => void;
  onKey: (id: string, event: KeyboardEvent) => void;
}

const StripHandle = memo(function StripHandle({
  id,
  name,
  left,
  top,
  width,
  height,
  turned,
  locked,
  nth,
  chosen,
  sortable,
  face,
  onChoose,
  onKey,
}: HandleProps) {
  const { setNodeRef, listeners, transform, transition, isDragging } = useSortable({
    id,
    disabled: !sortable,
  });
  const tall = height > width;
  return (
    <button
      ref={setNodeRef}
      type="button"
      data-strip={nth}
      data-id={id}
      aria-pressed={chosen}
      aria-label={name}
      className={`group absolute touch-none border-0 bg-transparent p-0 ${chosen ? 'ring-chalk z-10 ring-2' : 'hover:ring-chalk/60 hover:ring-1'} ${isDragging ? 'z-20 shadow-lg' : ''}`}
      style={{
        left,
        top,
        width,
        height,
        transform: CSS.Translate.toString(transform),
        transition,
        cursor: sortable ? 'grab' : 'pointer',
      }}
      {...(sortable ? listeners : {})}
      onClick={() => onChoose(id)}
      onFocus={(event) => event.currentTarget.matches(':focus-visible') && onChoose(id)}
      onKeyDown={(event) => {
        onKey(id, event);
        if (!event.defaultPrevented) listeners?.onKeyDown?.(event);
      }}
    >
      {transform && (isDragging || transform.y !== 0) && (
        <StripPicture face={face} left={left} top={top} width={width} height={height} />
      )}
      <span
        className={`rule absolute text-[12px] leading-none ${chosen ? 'text-chalk' : 'text-graphite'} ${tall ? '-top-4 left-1/2 -translate-x-1/2' : 'top-1/2 -left-5 -translate-y-1/2'}`}
      >
        {nth}
      </span>
      {locked && (
        <Lock aria-hidden size={12} className="text-chalk absolute top-1/2 left-1 -translate-y-1/2" />
      )}
      {turned && (
        <span
          aria-hidden
          className={`bg-sheet/85 text-chalk pointer-events-none absolute rounded-sm px-1 text-[11px] leading-4 ${tall ? 'bottom-1 left-1/2 -translate-x-1/2' : 'top-1/2 right-1 -translate-y-1/2'}`}
        >
          {tall ? '↕' : '↔'}
        </span>
      )}
    </button>
  );
});

/** A strip's own picture, taken from the drawn face once, when the strip begins to move. */
const StripPicture = memo(function StripPicture({
  face,
  left,
  top,
  width,
  height,
}: {
  face: RefObject<HTMLCanvasElement | null>;
  left: number;
  top: number;
  width: number;
  height: number;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useLayoutEffect(() => {
    const [source, own] = [face.current, canvas.current];
    if (!own || !source?.clientWidth) return;
    const k = source.width / source.clientWidth;
    own.width = Math.max(1, Math.round(width * k));
    own.height = Math.max(1, Math.round(height * k));
    own.getContext('2d', { willReadFrequently: true })?.drawImage(source, -left * k, -top * k);
  }, [face, left, top, width, height]);
  return <canvas aria-hidden className="absolute inset-0 h-full w-full" ref={canvas} />;
});
