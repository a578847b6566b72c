import { useEffect, useId, useRef, useState } from 'react';
import type { BuildDocument } from '../../core/document';
import { askForPictures, paintRows } from './pictures';

/** The finished piece from above, as large as the room allows, or at a given scale in mm per pixel where it fits. */
export function JobPicture({
  build,
  mmPerPx = 0,
  step,
  pieces,
  view = 'face',
  atOnce = false,
}: {
  build: BuildDocument;
  mmPerPx?: number;
  /** The step to show it after; the last if missing. */
  step?: string;
  /** Only these of its pieces. */
  pieces?: readonly string[];
  /** From above, or from a corner where the layers show. */
  view?: 'face' | 'turning';
  /** Drawn also where it is out of sight, as on a page that is printed. */
  atOnce?: boolean;
}) {
  const asker = useId();
  const canvas = useRef<HTMLCanvasElement>(null);
  const box = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState<{ width: number; height: number }>();
  useEffect(() => {
    if (!box.current) return;
    if (atOnce) {
      const { width, height } = box.current.getBoundingClientRect();
      setRoom({ width, height });
      return;
    }
    // Pictures out of sight are not drawn; a long list costs only what is looked at.
    const sight = new IntersectionObserver(([entry]) => {
      if (!entry.isIntersecting) return;
      const { width, height } = entry.boundingClientRect;
      setRoom({ width, height });
    });
    sight.observe(box.current);
    return () => sight.disconnect();
  }, [atOnce]);
  useEffect(() => {
    if (!room) return;
    const density = Math.min(2, window.devicePixelRatio || 1);
    const within = { width: room.width * density, height: room.height * density };
    return askForPictures(
      asker,
      { build, step, ...(pieces ? { pieces } : {}) },
      [{ view, within, leastPxMm: mmPerPx / density }],
      (rows) => {
        if (!canvas.current) return;
        const { style } = canvas.current;
        style.width = `${(rows.width * rows.scale) / density}px`;
        // In a window that was made narrower it shrinks as a whole until it is drawn anew.
        style.height = 'auto';
        paintRows(canvas.current, rows);
      },
    );
  }, [asker, build, room, mmPerPx, step, pieces, view]);
  return (
    <div ref={box} className="flex h-full w-full items-center justify-center">
      <canvas
        ref={canvas}
        aria-hidden
        width="0"
        height="0"
        className={`max-w-full ${view === 'face' ? 'shadow-[0_1px_3px_rgb(0_0_0/0.25)]' : ''}`}
      />
    </div>
  );
}
