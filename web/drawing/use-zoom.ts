import { useMemo, useState } from 'react';
import { useFingers } from '../parts/use-phone';
import { FINGER_PX } from './grip';

/** Narrower than this a drawing is held in the hand. */
const HAND_PX = 660;
const MOST = 16;

/** Whether a drawing's room is that of a phone. */
export const inHand = ({ width }: { width: number }): boolean => width > 0 && width <= HAND_PX;

interface Size {
  width: number;
  height: number;
}

/**
 * How much larger than its room a drawing is: as large as is set, else on a phone or a tablet so large that what can be taken hold of is
 * a finger high. `least` gives the narrow side of the smallest of it, drawn in a room, px.
 */
export function useZoom(room: Size, least: (room: Size) => number | undefined) {
  const [set, setZoom] = useState<number>();
  const fingers = useFingers();
  const own = useMemo(() => {
    if (room.width === 0 || (!fingers && !inHand(room))) return 1;
    const px = least(room);
    return px !== undefined && px > 0 ? Math.min(MOST, Math.max(1, FINGER_PX / px)) : 1;
  }, [room, least, fingers]);
  const zoom = set ?? own;
  const size = useMemo(
    () => ({ width: Math.round(room.width * zoom), height: Math.round(room.height * zoom) }),
    [room, zoom],
  );
  return {
    zoom,
    size,
    /** Whether going to the whole of it, or to what fingers want, changes anything. */
    toggles: zoom > 1 || own > 1,
    larger: () => setZoom(Math.min(MOST, zoom * 1.5)),
    smaller: () => setZoom(Math.max(1, zoom / 1.5)),
    /** As much larger as two fingers say. */
    pinched: (to: number) => setZoom(Math.min(MOST, Math.max(1, to))),
    /** The whole of it, or as large as fingers want. */
    toggle: () => setZoom(zoom > 1 ? 1 : undefined),
  };
}
