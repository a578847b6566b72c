import { Lock } from 'lucide-react';
import {
  memo,
  useCallback,
  useEffect,
  useId,
  useMemo,
  useRef,
  type KeyboardEvent,
  type RefObject,
} from 'react';
import { beside } from './carried';
import { useCarrying } from './use-carrying';

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

const HOW =
  'Arrow keys go from strip to strip. The space bar takes a strip up, arrow keys carry it, the space bar lays it down, Escape puts it back.';

/**
 * Strips or slices laid over the drawing: chosen by a press, moved by dragging or by keys. They are one stop of the Tab key;
 * arrows go from one to the next, and the focus stays among them when the focused one is taken away.
 */
export function StripHandles({ handles, chosen, sortable, upright, face, onChoose, onMove, onKey }: Props) {
  const ids = useMemo(() => handles.map(({ id }) => id), [handles]);
  const buttons = useRef(new Map<string, HTMLButtonElement>());
  const said = useRef<HTMLSpanElement>(null);
  const { bind, key: carry } = useCarrying({
    handles,
    enabled: sortable,
    upright,
    face,
    button: (id) => buttons.current.get(id),
    say: (text) => said.current && (said.current.textContent = text),
    nameOf: ({ name }) => name.replace(/ of .*/, ''),
    onLaid: (id, from, to) => {
      // The strip lies where it was let go; what follows from that comes in a task of its own.
      setTimeout(() => {
        onChoose(id);
        if (from !== to) onMove(from, to);
      });
    },
  });
  const live = useRef({ onChoose, onKey, ids, carry });
  live.current = { onChoose, onKey, ids, carry };
  const focused = useRef<{ id: string; at: number }>(undefined);
  const choose = useCallback((id: string) => live.current.onChoose(id), []);
  const key = useCallback((id: string, event: KeyboardEvent) => {
    const { ids: all, carry } = live.current;
    if (carry(id, event)) return;
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
  const how = useId();
  const stop = chosen !== undefined && ids.includes(chosen) ? chosen : ids[0];
  return (
    <div className="contents" {...(sortable ? bind() : {})}>
      {handles.map((handle, i) => (
        <StripHandle
          key={handle.id}
          {...handle}
          nth={i + 1}
          chosen={handle.id === chosen}
          stop={handle.id === stop}
          how={sortable ? how : undefined}
          onChoose={choose}
          onKey={key}
          onFocused={onFocused}
          keep={keep}
        />
      ))}
      <span id={how} hidden>
        {HOW}
      </span>
      <span ref={said} className="sr-only" role="status" aria-live="assertive" data-testid="carrying" />
    </div>
  );
}

interface HandleProps extends Handle {
  nth: number;
  chosen: boolean;
  /** The one that the Tab key comes to. */
  stop: boolean;
  /** What says how it is carried; undefined where it is not. */
  how: string | undefined;
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
  stop,
  how,
  onChoose,
  onKey,
  onFocused,
  keep,
}: HandleProps) {
  const hold = useCallback((button: HTMLButtonElement | null) => keep(id, button), [keep, id]);
  const tall = height > width;
  return (
    <button
      ref={hold}
      type="button"
      tabIndex={stop ? 0 : -1}
      aria-describedby={how}
      data-strip={nth}
      data-id={id}
      aria-pressed={chosen}
      aria-label={name}
      className={`drawn group data-carried:z-20 data-carried:shadow-lg data-carried:will-change-transform absolute touch-pan-x touch-pan-y border-0 select-none bg-transparent p-0 ${chosen ? 'ring-chalk z-10 ring-2' : 'hover:ring-chalk/60 hover:ring-1'}`}
      style={{
        left,
        top,
        width,
        height,
        cursor: how === undefined ? 'pointer' : 'grab',
      }}
      onClick={() => onChoose(id)}
      onFocus={(event) => {
        onFocused(id);
        if (event.currentTarget.matches(':focus-visible')) onChoose(id);
      }}
      onKeyDown={(event) => onKey(id, event)}
    >
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
