import { type RefObject, useEffect, useLayoutEffect, useRef } from 'react';

/** So long a sliding lath must rest until the mark under the pin is the chosen one, ms. */
const REST_MS = 140;

/**
 * Keeps a lath and a pin that stands still together: the chosen mark slides under the pin, and the mark that a finger slides
 * there is chosen once the lath rests. Gives what the lath does when it slides.
 */
export function useSlide(
  box: RefObject<HTMLDivElement | null>,
  {
    pin,
    under,
    marks,
    onChoose,
  }: {
    pin: number | undefined;
    under: number | undefined;
    marks: readonly { id: string; x: number }[];
    onChoose: (id: string) => void;
  },
): () => void {
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const moved = useRef(false);
  useLayoutEffect(() => {
    if (pin === undefined || under === undefined) return;
    const still = !moved.current || matchMedia('(prefers-reduced-motion: reduce)').matches;
    moved.current = true;
    box.current?.scrollTo({ left: under - pin, behavior: still ? 'instant' : 'smooth' });
  }, [box, pin, under]);
  useEffect(() => () => clearTimeout(timer.current), []);
  return () => {
    if (pin === undefined) return;
    clearTimeout(timer.current);
    timer.current = setTimeout(() => {
      const at = (box.current?.scrollLeft ?? 0) + pin;
      const nearest = marks.toSorted((a, b) => Math.abs(a.x - at) - Math.abs(b.x - at))[0];
      if (nearest && nearest.x !== under) onChoose(nearest.id);
    }, REST_MS);
  };
}
