import { useMemo, useState } from 'react';

/** A finger hits nothing smaller, CSS px. */
const FINGER_PX = 44;
/** Narrower than this a drawing is held in the hand. */
const HAND_PX = 660;
const MOST = 8;

interface Size {
  width: number;
  height: number;
}

/**
 * How much larger than its room a drawing is: as large as is set, else on a phone so large that what can be taken hold of is
 * a finger high. `least` gives the height of the smallest of it, drawn in a room, px.
 */
export function useZoom(room: Size, least: (room: Size) => number | undefined) {
  const [set, setZoom] = useState<number>();
  const own = useMemo(() => {
    if (room.width === 0 || room.width > HAND_PX) return 1;
    const px = least(room);
    return px !== undefined && px > 0 ? Math.min(MOST, Math.max(1, FINGER_PX / px)) : 1;
  }, [room, least]);
  const zoom = set ?? own;
  const size = useMemo(
    () => ({ width: Math.round(room.width * zoom), height: Math.round(room.height * zoom) }),
    [room, zoom],
  );
  return {
    zoom,
    size,
    larger: () => setZoom(Math.min(MOST, zoom * 1.5)),
    smaller: () => setZoom(Math.max(1, zoom / 1.5)),
    /** The whole of it, or as large as fingers want. */
    toggle: () => setZoom(zoom > 1 ? 1 : undefined),
  };
}
