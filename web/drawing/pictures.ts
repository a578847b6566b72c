import type { PictureRows, PictureSubject, PictureWish, ViewWish } from '../workers/picture.worker';

const worker = new Worker(new URL('../workers/picture.worker.ts', import.meta.url), { type: 'module' });
const askers = new Map<string, (rows: PictureRows) => void>();
let wishes = 0;
worker.onmessage = ({ data }: MessageEvent<PictureRows>) => askers.get(data.asker)?.(data);

/** Asks for pictures of a step or a board; rows come in as they are ready. Gives a function that calls it off. */
export function askForPictures(
  asker: string,
  subject: PictureSubject,
  views: ViewWish[],
  onRows: (rows: PictureRows) => void,
): () => void {
  const wish = ++wishes;
  askers.set(asker, (rows) => rows.wish === wish && onRows(rows));
  worker.postMessage({ asker, wish, subject, views } satisfies PictureWish);
  return () => {
    askers.delete(asker);
    worker.postMessage({ asker, cancel: true });
  };
}

/** Lets drawing rest while a strip is dragged, and go on when it lies. */
export const holdPictures = (hold: boolean): void => worker.postMessage({ hold });

/** Canvases in plain memory: one that lies with the graphics card is read back at a hundred times the cost. */
const IN_MEMORY: CanvasRenderingContext2DSettings = { willReadFrequently: true };

// The first canvas of a page costs a tenth of a second to set up: better now, while nobody waits, than in a drag.
(globalThis.requestIdleCallback ?? setTimeout)(() => {
  const first = document.createElement('canvas');
  [first.width, first.height] = [64, 64];
  const small = new OffscreenCanvas(32, 32);
  small.getContext('2d', IN_MEMORY)?.putImageData(new ImageData(32, 32), 0, 0);
  const context = first.getContext('2d', IN_MEMORY);
  context?.drawImage(small, 0, 0, 64, 64);
  context?.putImageData(new ImageData(64, 64), 0, 0);
});

/** Paints rows onto a canvas: the preview stretched, the full picture as it is. What stood there stays until painted over. */
export function paintRows(canvas: HTMLCanvasElement, rows: PictureRows): void {
  // Kept in plain memory: rows come in by the hundred, and a dragged strip takes its picture from here.
  const context = canvas.getContext('2d', IN_MEMORY);
  if (!context) return;
  const [width, height] = [rows.width * rows.scale, rows.height * rows.scale];
  if (rows.scale === 1 && (canvas.width !== width || canvas.height !== height))
    keepWhileResizing(canvas, context, width, height);
  const image = new ImageData(rows.rgba, rows.width);
  if (rows.scale === 1) {
    context.putImageData(image, 0, rows.from);
    return;
  }
  const small = new OffscreenCanvas(rows.width, image.height);
  small.getContext('2d', IN_MEMORY)?.putImageData(image, 0, 0);
  if (rows.from === 0 && Math.abs(canvas.width - width) > 2)
    keepWhileResizing(canvas, context, width, height);
  const k = canvas.height / rows.height;
  context.clearRect(0, rows.from * k, canvas.width, image.height * k);
  context.drawImage(small, 0, rows.from * k, canvas.width, image.height * k);
}

function keepWhileResizing(
  canvas: HTMLCanvasElement,
  context: CanvasRenderingContext2D,
  width: number,
  height: number,
): void {
  const old =
    canvas.width > 0 && canvas.height > 0 ? new OffscreenCanvas(canvas.width, canvas.height) : undefined;
  old?.getContext('2d', IN_MEMORY)?.drawImage(canvas, 0, 0);
  canvas.width = width;
  canvas.height = height;
  if (old) context.drawImage(old, 0, 0, width, height);
}
