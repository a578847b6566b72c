import { useDrag } from '@use-gesture/react';
import { type KeyboardEvent, type RefObject, useEffect, useRef } from 'react';
import { beside, type Lying, makingWay, placeOver } from './carried';
import { holdPictures } from './pictures';

interface Carrying<T extends Lying> {
  handles: readonly T[];
  enabled: boolean;
  /** Strips stand side by side. */
  upright: boolean;
  /** The face as drawn, from which the pictures of what moves are cut. */
  face: RefObject<HTMLCanvasElement | null>;
  button: (id: string) => HTMLElement | undefined;
  say: (text: string) => void;
  nameOf: (handle: T) => string;
  /** Laid down, at another place or at its own, counted from 0. */
  onLaid: (id: string, from: number, to: number) => void;
}

interface Carried {
  id: string;
  from: number;
  to: number;
  row: readonly Lying[];
  /** How far each strip has moved along the row, px. */
  by: readonly number[];
  /** The face as it was, and the picture in the hand; undefined where nothing is drawn yet. */
  shown:
    | { face: HTMLCanvasElement; was: OffscreenCanvas; scale: number; inHand: HTMLCanvasElement }
    | undefined;
  over: AbortController;
}

/** How far a mouse goes before it carries, px: less is a press. */
const THRESHOLD = 4;
/** How long a finger rests before it carries, ms, and how far it may tremble meanwhile, px: sooner or farther is scrolling. */
const REST_MS = 120;
const TREMBLE = 8;

const isSame = (a: readonly Lying[], b: readonly Lying[]): boolean =>
  a.length === b.length &&
  a.every(({ id, left, top, width, height }, i) => {
    const other = b[i];
    return (
      id === other.id &&
      left === other.left &&
      top === other.top &&
      width === other.width &&
      height === other.height
    );
  });

/** A strip's own picture, cut from the drawn face. */
function pictureOf(face: HTMLCanvasElement, at: Lying, k: number, upright: boolean): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  canvas.ariaHidden = 'true';
  canvas.className = 'absolute inset-0 h-full w-full';
  canvas.width = Math.max(1, Math.round(at.width * k));
  canvas.height = Math.max(1, Math.round(at.height * k));
  const context = canvas.getContext('2d', { willReadFrequently: true });
  // Upright, what is at x from the left and y from the top of the picture lies y from the left, its width less x from the top.
  if (upright) context?.setTransform(0, -1, 1, 0, -at.left * k, face.width - at.top * k);
  else context?.setTransform(1, 0, 0, 1, -at.left * k, -at.top * k);
  context?.drawImage(face, 0, 0);
  return canvas;
}

/** The face and what is needed to draw it in another order. */
function showing(face: HTMLCanvasElement | null, at: Lying, upright: boolean): Carried['shown'] {
  const scale = face?.clientWidth ? face.width / face.clientWidth : 0;
  if (!face || !(scale > 0)) return undefined;
  const was = new OffscreenCanvas(face.width, face.height);
  was.getContext('2d', { willReadFrequently: true })?.drawImage(face, 0, 0);
  return { face, was, scale, inHand: pictureOf(face, at, scale, upright) };
}

/** Draws the strips that moved where they are now, those that did not move left alone: strips lie down the face, upright or not. */
function paintMoved(
  { face, was, scale }: NonNullable<Carried['shown']>,
  row: readonly Lying[],
  before: readonly number[],
  by: readonly number[],
  upright: boolean,
): void {
  const context = face.getContext('2d');
  const moved = row.map((_, i) => i).filter((i) => before[i] !== by[i]);
  if (!context || moved.length === 0) return;
  /** From where to where a strip lies down the face, whole pixels: what ends where another begins leaves no line between them. */
  const span = (i: number, off: number): readonly [number, number] => {
    const { left, top, width, height } = row[i];
    const start = (upright ? left : top) + off;
    return [Math.round(start * scale), Math.round((start + (upright ? width : height)) * scale)];
  };
  const spans = moved.flatMap((i) => [span(i, before[i]), span(i, by[i])]);
  const top = Math.min(...spans.map(([start]) => start));
  context.clearRect(0, top, face.width, Math.max(...spans.map(([, end]) => end)) - top);
  for (const i of moved) {
    const [[from, to], [start, end]] = [span(i, 0), span(i, by[i])];
    if (to > from) context.drawImage(was, 0, from, was.width, to - from, 0, start, was.width, end - start);
  }
}

/**
 * Carrying strips along their row, by mouse, finger or keys. While one is carried nothing is rendered anew: the drawn face shows the
 * row as it would lie, and its handles follow by their transforms. What changes meanwhile, the size of the window or another strip,
 * puts it back.
 */
export function useCarrying<T extends Lying>(props: Carrying<T>) {
  const live = useRef(props);
  live.current = props;
  const carried = useRef<Carried>(undefined);

  const clear = (): void => {
    const { current } = carried;
    if (!current) return;
    carried.current = undefined;
    current.over.abort();
    current.shown?.inHand.remove();
    for (const { id } of current.row) {
      const button = live.current.button(id);
      if (!button) continue;
      button.style.transform = '';
      delete button.dataset.carried;
    }
    holdPictures(false);
  };
  const told = ({ id }: Carried): string => {
    const handle = live.current.handles.find((each) => each.id === id);
    return handle ? live.current.nameOf(handle) : 'The strip';
  };
  const putBack = (): void => {
    const { current } = carried;
    if (!current) return;
    live.current.say(`${told(current)} put back to place ${current.from + 1}.`);
    if (current.shown) {
      const { row, by, shown } = current;
      paintMoved(
        shown,
        row,
        by,
        by.map(() => 0),
        live.current.upright,
      );
    }
    clear();
  };
  const place = (current: Carried, i: number, x: number, y: number): void => {
    const button = live.current.button(current.row[i].id);
    if (button) button.style.transform = x === 0 && y === 0 ? '' : `translate(${x}px, ${y}px)`;
  };
  /** The strips in between make way; `hand` is where a pointer has the carried one, px. */
  const bring = (current: Carried, to: number, hand?: readonly [number, number]): void => {
    const { upright, say } = live.current;
    if (hand) place(current, current.from, hand[0], hand[1]);
    if (to === current.to) return;
    const { row, by: before, shown, from } = current;
    const by = makingWay(row, from, to, upright);
    by.forEach((off, i) => {
      if (off !== before[i] && (i !== from || !hand)) place(current, i, upright ? off : 0, upright ? 0 : off);
    });
    if (shown) paintMoved(shown, row, before, by, upright);
    Object.assign(current, { to, by });
    say(`${told(current)} is over place ${to + 1} of ${row.length}.`);
  };
  const take = (id: string, cancel?: () => void): Carried | undefined => {
    const { handles, face, button, say, upright } = live.current;
    const from = handles.findIndex((each) => each.id === id);
    const own = button(id);
    if (from < 0 || !own || !live.current.enabled) return undefined;
    const over = new AbortController();
    const row = handles;
    const shown = showing(face.current, row[from], upright);
    carried.current = { id, from, to: from, row, by: row.map(() => 0), shown, over };
    if (shown) own.prepend(shown.inHand);
    own.dataset.carried = '';
    holdPictures(true);
    const leave = () => {
      putBack();
      cancel?.();
    };
    const { signal } = over;
    window.addEventListener('resize', leave, { signal });
    document.addEventListener('visibilitychange', leave, { signal });
    if (cancel) window.addEventListener('keydown', (event) => event.key === 'Escape' && leave(), { signal });
    else own.addEventListener('blur', leave, { signal });
    say(`${told(carried.current)} taken up from place ${from + 1}.`);
    return carried.current;
  };
  const layDown = (): void => {
    const { current } = carried;
    if (!current) return;
    live.current.say(`${told(current)} laid down at place ${current.to + 1} of ${current.row.length}.`);
    live.current.onLaid(current.id, current.from, current.to);
    clear();
  };
  // What is drawn anew under the hand is another drawing.
  useEffect(() => {
    if (carried.current && !isSame(carried.current.row, props.handles)) putBack();
  });
  const leaves = useRef(putBack);
  leaves.current = putBack;
  useEffect(() => () => leaves.current(), []);

  const bind = useDrag(
    ({ event, first, last, canceled, xy, initial, touches, cancel }) => {
      if (first) {
        const id = (event.target as Element).closest<HTMLElement>('[data-id]')?.dataset.id;
        if (id === undefined || touches > 1 || !take(id, cancel)) return cancel();
      }
      const { current } = carried;
      if (!current) return;
      // A pen that was lifted before it rested long enough hovers: it has nothing in hand.
      const lifted = event.type === 'pointermove' && (event as PointerEvent).buttons === 0;
      if (canceled || lifted || event.type === 'pointercancel' || touches > 1) {
        putBack();
        if (!last) cancel();
        return;
      }
      const hand = [xy[0] - initial[0], xy[1] - initial[1]] as const;
      const { upright } = live.current;
      bring(current, placeOver(current.row, current.from, upright ? hand[0] : hand[1], upright), hand);
      if (!last) return;
      // What was carried is not pressed as well.
      const pressed = new AbortController();
      const stop = (click: Event) => click.stopPropagation();
      window.addEventListener('click', stop, { capture: true, signal: pressed.signal });
      setTimeout(() => pressed.abort());
      layDown();
    },
    {
      enabled: props.enabled,
      threshold: THRESHOLD,
      pointer: { keys: false },
      preventScroll: REST_MS,
      preventScrollAxis: 'xy',
      axisThreshold: { touch: TREMBLE, pen: TREMBLE },
    },
  );

  /** Takes a key that has to do with carrying; false for any other. The space bar takes up and lays down. */
  const key = (id: string, event: KeyboardEvent): boolean => {
    const { current } = carried;
    if (event.ctrlKey || event.metaKey || event.altKey) return false;
    if (!current) {
      if (event.code !== 'Space' || !take(id)) return false;
      event.preventDefault();
      return true;
    }
    // In the hand it is the hand's: other keys wait.
    if (event.key === 'Tab') return false;
    event.preventDefault();
    if (event.key === 'Escape') putBack();
    else if (event.code === 'Space' || event.key === 'Enter') layDown();
    else {
      const count = current.row.length;
      const to = beside(event.key, current.to, count);
      if (to !== undefined) bring(current, Math.min(count - 1, Math.max(0, to)));
    }
    return true;
  };
  return { bind, key };
}
