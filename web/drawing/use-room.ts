import { useLayoutEffect, useRef, useState } from 'react';

/** The room a drawing has, in CSS pixels, kept up to date; zero until it is laid out. Give `room` to the element. */
export function useRoom() {
  const room = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const element = room.current;
    if (!element) return;
    const watch = new ResizeObserver(() =>
      setSize({ width: element.clientWidth, height: element.clientHeight }),
    );
    watch.observe(element);
    return () => watch.disconnect();
  }, []);
  return { room, size, width: size.width };
}
