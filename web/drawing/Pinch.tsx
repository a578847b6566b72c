import { usePinch } from '@use-gesture/react';
import type { RefObject } from 'react';

/** Two fingers on an element: where they are in the window, how large they make it, and whether they are lifted now. */
export function Pinch({
  target,
  zoom,
  onPinch,
}: {
  target: RefObject<HTMLElement | null>;
  zoom: number;
  onPinch: (pinch: { at: readonly [number, number]; zoom: number; last: boolean }) => void;
}) {
  usePinch(({ origin, offset: [to], last }) => onPinch({ at: origin, zoom: to, last }), {
    target,
    from: () => [zoom, 0],
    pointer: { touch: true },
    eventOptions: { passive: false },
    preventDefault: true,
  });
  return null;
}
