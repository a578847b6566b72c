import { type ReactNode, useEffect, useId, useRef, useState } from 'react';
import type { BoardStock } from '../../core/document';
import { askForPictures, paintRows } from './pictures';

/** What of a board changes its picture; everything else about it may change without drawing it again. */
const looks = ({
  id,
  species,
  length,
  width,
  thickness,
  log,
  grain,
  pith,
  ringRadius,
}: BoardStock): BoardStock => ({
  ...{ id, label: '', species, length, width, thickness, log, grain, pith, ringRadius },
});

/** One face of a board as wood at a scale in CSS pixels per mm, with what is drawn on it as children. */
export function BoardPicture({
  board,
  face = 'up',
  pxPerMm,
  children,
}: {
  board: BoardStock;
  face?: 'up' | 'down';
  pxPerMm: number;
  children?: ReactNode;
}) {
  const asker = useId();
  const canvas = useRef<HTMLCanvasElement>(null);
  const box = useRef<HTMLDivElement>(null);
  const [seen, setSeen] = useState(false);
  useEffect(() => {
    if (!box.current) return;
    const sight = new IntersectionObserver(([entry]) => entry.isIntersecting && setSeen(true));
    sight.observe(box.current);
    return () => sight.disconnect();
  }, []);
  const key = JSON.stringify(looks(board));
  useEffect(() => {
    if (!seen || !(pxPerMm > 0)) return;
    const density = Math.min(2, window.devicePixelRatio || 1);
    const view = face === 'up' ? 'face' : 'underside';
    const wish = { view, pxMm: 1 / pxPerMm / density } as const;
    return askForPictures(asker, { board: JSON.parse(key) as BoardStock }, [wish], (rows) => {
      if (canvas.current) paintRows(canvas.current, rows);
    });
  }, [asker, key, face, pxPerMm, seen]);
  const size = { width: board.length.mm * pxPerMm, height: board.width.mm * pxPerMm };
  return (
    <div ref={box} className="relative shrink-0 shadow-[0_1px_2px_rgb(0_0_0/0.35)]" style={size}>
      <canvas ref={canvas} aria-hidden width="0" height="0" className="absolute inset-0 h-full w-full" />
      {children}
    </div>
  );
}
