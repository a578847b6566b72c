import { useEffect, useId, useRef } from 'react';
import type { BuildDocument } from '../../core/document';
import type { Placed } from './layout';
import { askForPictures, paintRows } from './pictures';

/** So many pixels all views of a step have at most: 60 MB of picture. */
const MOST_PX = 15e6;

/** The views of a step drawn as wood. The last picture stays, stretched, until the new one covers it. */
export function WoodViews({
  build,
  step,
  layout,
  canvasRef,
}: {
  build: BuildDocument;
  step: string | undefined;
  layout: { mmPerPx: number; views: readonly Placed[]; upright?: boolean };
  canvasRef?: (canvas: HTMLCanvasElement | null) => void;
}) {
  const asker = useId();
  const canvases = useRef(new Map<string, HTMLCanvasElement>());
  const { views } = layout;
  useEffect(() => {
    const px = views.reduce((sum, { width, height }) => sum + width * height, 0);
    // A very large drawing is as fine as memory allows, not as fine as the screen.
    const density = Math.min(2, window.devicePixelRatio || 1, Math.sqrt(MOST_PX / Math.max(1, px)));
    const wishes = views.map(({ view }) => ({ view, pxMm: layout.mmPerPx / density }));
    return askForPictures(asker, { build, step }, wishes, (rows) => {
      const canvas = canvases.current.get(slotOf(rows.view));
      if (canvas) paintRows(canvas, rows);
      if (
        canvas &&
        rows.last &&
        rows.view === views[views.length - 1].view &&
        rows.from + rows.rgba.length / 4 / rows.width >= rows.height
      )
        canvas.dataset.done = String(rows.wish);
    });
  }, [asker, build, step, views, layout.mmPerPx]);
  return views.map((place) => (
    <canvas
      key={slotOf(place.view)}
      aria-hidden
      className="absolute"
      style={layout.upright ? upright(place) : across(place)}
      ref={(canvas) => {
        if (canvas) canvases.current.set(slotOf(place.view), canvas);
        if (slotOf(place.view) === 'face') canvasRef?.(canvas);
      }}
    />
  ));
}

const slotOf = (view: string) => (view === 'underside' ? 'face' : view);
const across = ({ left, top, width, height }: Placed) => ({ left, top, width, height });
/** The picture is made as the piece lies and turned a quarter against the clock about its upper left corner. */
const upright = ({ left, top, width, height }: Placed) => ({
  left,
  top: top + height,
  width: height,
  height: width,
  transform: 'rotate(-90deg)',
  transformOrigin: '0 0',
});
