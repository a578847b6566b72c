import {
  type Announcements,
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
  horizontalListSortingStrategy,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import {
  memo,
  useCallback,
  useEffect,
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
  /** Drawn upright: strips stand side by side, the first at the left. */
  upright: boolean;
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

/** What is said of a strip that is carried by keys: its name and the place it is at. */
const announcing = (handles: readonly Handle[]): Announcements => {
  const name = (id: string | number) =>
    handles.find((handle) => handle.id === id)?.name.replace(/ of .*/, '');
  const place = (id: string | number) => handles.findIndex((handle) => handle.id === id) + 1;
  return {
    onDragStart: ({ active }) => `${name(active.id)} taken up from place ${place(active.id)}.`,
    onDragOver: ({ active, over }) =>
      over ? `${name(active.id)} is over place ${place(over.id)} of ${handles.length}.` : undefined,
    onDragEnd: ({ active, over }) =>
      `${name(active.id)} laid down at place ${place(over?.id ?? active.id)} of ${handles.length}.`,
    onDragCancel: ({ active }) => `${name(active.id)} put back to place ${place(active.id)}.`,
  };
};

const HOW = {
  draggable:
    'Arrow keys go from strip to strip. The space bar takes a strip up, arrow keys carry it, the space bar lays it down, Escape puts it back.',
};

/** The strip beside one in the direction of a key, or the first or last. */
const beside = (key: string, at: number, count: number): number | undefined =>
  ({ ArrowUp: at - 1, ArrowLeft: at - 1, ArrowDown: at + 1, ArrowRight: at + 1, Home: 0, End: count - 1 })[
    key
  ];

/**
 * Strips or slices laid over the drawing: chosen by a press, moved by dragging or by keys. They are one stop of the Tab key;
 * arrows go from one to the next, and the focus stays among them when the focused one is taken away.
 */
export function StripHandles({ handles, chosen, sortable, upright, face, onChoose, onMove, onKey }: Props) {
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 4 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 120, tolerance: 8 } }),
    // Enter chooses, as on every button; the space bar carries.
    useSensor(KeyboardSensor, {
      coordinateGetter: sortableKeyboardCoordinates,
      keyboardCodes: { start: ['Space'], cancel: ['Escape'], end: ['Space', 'Enter'] },
    }),
  );
  const ids = useMemo(() => handles.map(({ id }) => id), [handles]);
  const buttons = useRef(new Map<string, HTMLButtonElement>());
  const live = useRef({ onChoose, onKey, ids });
  live.current = { onChoose, onKey, ids };
  const focused = useRef<{ id: string; at: number }>(undefined);
  const choose = useCallback((id: string) => live.current.onChoose(id), []);
  const key = useCallback((id: string, event: KeyboardEvent) => {
    const { ids: all } = live.current;
    const next = beside(event.key, all.indexOf(id), all.length);
    if (next === undefined || event.ctrlKey || event.metaKey || event.altKey)
      return live.current.onKey(id, event);
    event.preventDefault();
    if (all[next]) buttons.current.get(all[next])?.focus();
  }, []);
  const keep = useCallback((id: string, button: HTMLButtonElement | null) => {
    if (button) buttons.current.set(id, button);
    else buttons.current.delete(id);
  }, []);
  const onFocused = useCallback((id: string) => {
    focused.current = { id, at: live.current.ids.indexOf(id) };
  }, []);
  useEffect(() => {
    const last = focused.current;
    if (!last || ids.includes(last.id)) return;
    focused.current = undefined;
    const lost = document.activeElement === document.body || document.activeElement === null;
    const next = ids[Math.min(last.at, ids.length - 1)];
    if (lost && next) buttons.current.get(next)?.focus();
  }, [ids]);
  /** Pixels of the drawn face for one of the screen, as it is when a drag begins: asked of each strip it would lay the page out anew. */
  const scale = useRef(0);
  const start = () => {
    holdPictures(true);
    scale.current = face.current?.clientWidth ? face.current.width / face.current.clientWidth : 0;
  };
  const announcements = useMemo(() => announcing(handles), [handles]);
  const stop = chosen !== undefined && ids.includes(chosen) ? chosen : ids[0];
  const end = ({ active, over }: DragEndEvent) => {
    holdPictures(false);
    const [from, to] = [ids.indexOf(String(active.id)), ids.indexOf(String(over?.id ?? active.id))];
    if (face.current && from !== to && !upright) paintMove(face.current, handles, from, to);
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
      upright={upright}
      stop={handle.id === stop}
      face={face}
      scale={scale}
      onChoose={choose}
      onKey={key}
      onFocused={onFocused}
      keep={keep}
    />
  ));
  if (!sortable) return items;
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      autoScroll={false}
      accessibility={{ announcements, screenReaderInstructions: HOW }}
      onDragStart={start}
      onDragCancel={() => holdPictures(false)}
      onDragEnd={end}
    >
      <SortableContext
        items={ids}
        strategy={upright ? horizontalListSortingStrategy : verticalListSortingStrategy}
      >
        {items}
      </SortableContext>
    </DndContext>
  );
}

interface HandleProps extends Handle {
  nth: number;
  chosen: boolean;
  sortable: boolean;
  upright: boolean;
  /** The one that the Tab key comes to. */
  stop: boolean;
  /** Where the picture of a strip that makes way is taken from. */
  face: RefObject<HTMLCanvasElement | null>;
  scale: RefObject<number>;
  onChoose: (id: string) => void;
  onKey: (id: string, event: KeyboardEvent) => void;
  onFocused: (id: string) => void;
  keep: (id: string, button: HTMLButtonElement | null) => void;
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
  upright,
  stop,
  face,
  scale,
  onChoose,
  onKey,
  onFocused,
  keep,
}: HandleProps) {
  const { attributes, setNodeRef, listeners, transform, transition, isDragging } = useSortable({
    id,
    disabled: !sortable,
    // Nothing grows while it is carried, and what is let go lies where it is: neither is watched nor moved after.
    resizeObserverConfig: { disabled: true },
    animateLayoutChanges: () => false,
  });
  const hold = useCallback(
    (button: HTMLButtonElement | null) => {
      setNodeRef(button);
      keep(id, button);
    },
    [setNodeRef, keep, id],
  );
  const tall = height > width;
  return (
    <button
      ref={hold}
      type="button"
      tabIndex={stop ? 0 : -1}
      aria-describedby={sortable ? attributes['aria-describedby'] : undefined}
      data-strip={nth}
      data-id={id}
      aria-pressed={chosen}
      aria-label={name}
      className={`drawn group absolute touch-pan-x touch-pan-y border-0 bg-transparent p-0 ${chosen ? 'ring-chalk z-10 ring-2' : 'hover:ring-chalk/60 hover:ring-1'} ${isDragging ? 'z-20 shadow-lg' : ''}`}
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
      onFocus={(event) => {
        onFocused(id);
        if (event.currentTarget.matches(':focus-visible')) onChoose(id);
      }}
      onKeyDown={(event) => {
        // While it is carried, keys are the carrying's own.
        if (!isDragging) onKey(id, event);
        if (!event.defaultPrevented) listeners?.onKeyDown?.(event);
      }}
    >
      {transform && (isDragging || transform.y !== 0 || transform.x !== 0) && (
        <StripPicture {...{ face, scale, upright, left, top, width, height }} />
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
  scale,
  upright,
  left,
  top,
  width,
  height,
}: {
  face: RefObject<HTMLCanvasElement | null>;
  scale: RefObject<number>;
  upright: boolean;
  left: number;
  top: number;
  width: number;
  height: number;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useLayoutEffect(() => {
    const [source, own] = [face.current, canvas.current];
    const k = scale.current;
    if (!own || !source || !(k > 0)) return;
    own.width = Math.max(1, Math.round(width * k));
    own.height = Math.max(1, Math.round(height * k));
    const context = own.getContext('2d', { willReadFrequently: true });
    // Upright, what is at x from the left and y from the top of the picture lies y from the left, its width less x from the top.
    if (upright) context?.setTransform(0, -1, 1, 0, -left * k, source.width - top * k);
    else context?.setTransform(1, 0, 0, 1, -left * k, -top * k);
    context?.drawImage(source, 0, 0);
  }, [face, scale, upright, left, top, width, height]);
  return <canvas aria-hidden className="absolute inset-0 h-full w-full" ref={canvas} />;
});
