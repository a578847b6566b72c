import { upwards } from '../../core/units';

/** A finger hits nothing smaller, CSS px. */
export const FINGER_PX = 44;

/** How wide what lies at these places is taken hold of, px: as a finger, or no further than halfway to where the next one lies. */
export function gripWidth(places: readonly number[]): number {
  const inOrder = places.toSorted(upwards);
  const gaps = inOrder.map((at, i) => at - (inOrder[i - 1] ?? -Infinity)).filter((gap) => gap > 0);
  return Math.min(FINGER_PX, ...gaps);
}

/**
 * Lets fingers drag the parts of a drawing that carry `data-grip`: to be given as the drawing's `ref`. Without it a browser takes the
 * finger for the page's, which then slides and the drag is cancelled: what touch-action says on parts within an svg counts for nothing
 * (seen in Chromium). Everywhere else on the drawing the page slides as before.
 */
export function gripped(drawing: SVGSVGElement | null) {
  if (!drawing) return undefined;
  const keep = (event: TouchEvent) => {
    if (event.touches.length === 1 && (event.target as Element).closest('[data-grip]'))
      event.preventDefault();
  };
  drawing.addEventListener('touchstart', keep, { passive: false });
  return () => drawing.removeEventListener('touchstart', keep);
}
