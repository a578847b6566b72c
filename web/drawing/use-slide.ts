import { type RefObject, useEffect, useLayoutEffect, useState } from 'react';
import { rising } from '../../core/units/series';

/** So long a sliding lath must rest until the mark under the pin is the chosen one, ms. */
const REST_MS = 140;
/** A lath that lies so near to where it belongs lies there, px. */
const NEAR_PX = 2;

/** A lath as it is drawn now. */
interface Drawn {
  /** Where the pin stands still, px from the left; undefined where it stands on its mark. */
  pin: number | undefined;
  /** Where on the lath the chosen mark lies, px. */
  under: number | undefined;
  marks: readonly { id: string; x: number }[];
  onChoose: (id: string) => void;
}

/** What happens to a lath that slides, from event to event. */
function sliding(box: RefObject<HTMLDivElement | null>) {
  let drawn: Drawn | undefined;
  /** Where it is on its way to by itself, px. */
  let goal: number | undefined;
  let held = false;
  let moved = false;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const waitForRest = () => {
    clearTimeout(timer);
    if (drawn?.pin !== undefined) timer = setTimeout(rest, REST_MS);
  };
  const slide = (left: number, behavior: ScrollBehavior) => {
    const view = box.current;
    if (!view) return;
    goal = Math.max(0, Math.min(left, view.scrollWidth - view.clientWidth));
    view.scrollTo({ left: goal, behavior });
    // One that lies there already tells of no sliding.
    waitForRest();
  };
  function rest(): void {
    const view = box.current;
    if (!view || held || drawn?.pin === undefined) return;
    const { pin, under, marks, onChoose } = drawn;
    if (goal !== undefined) {
      if (Math.abs(view.scrollLeft - goal) <= NEAR_PX) goal = undefined;
      else slide(goal, 'instant');
      return;
    }
    const at = view.scrollLeft + pin;
    const nearest = marks.toSorted(rising(({ x }) => Math.abs(x - at)))[0];
    if (!nearest) return;
    if (nearest.x !== under) onChoose(nearest.id);
    else if (Math.abs(nearest.x - at) > NEAR_PX) slide(nearest.x - pin, 'smooth');
  }
  const letGo = () => {
    held = false;
    waitForRest();
  };
  return {
    know: (now: Drawn) => {
      drawn = now;
    },
    /** The chosen mark comes under the pin: the first at once, those after it in sight. */
    follow: (left: number) => {
      const still = !moved || matchMedia('(prefers-reduced-motion: reduce)').matches;
      moved = true;
      slide(left, still ? 'instant' : 'smooth');
    },
    end: () => clearTimeout(timer),
    handlers: {
      onScroll: waitForRest,
      onTouchStart: () => {
        held = true;
        goal = undefined;
      },
      onTouchEnd: letGo,
      onTouchCancel: letGo,
      onWheel: () => {
        goal = undefined;
      },
    },
  };
}

/**
 * Keeps a lath and a pin that stands still together: the chosen mark slides under the pin, and the mark that a hand slides
 * there is chosen once the lath rests, and drawn up to the pin. A lath that is on its way to the chosen mark chooses nothing,
 * wherever it is stopped, until a hand takes it up. Gives what the lath does when it slides and when it is touched.
 */
export function useSlide(box: RefObject<HTMLDivElement | null>, drawn: Drawn) {
  const { pin, under } = drawn;
  const [lath] = useState(() => sliding(box));
  useLayoutEffect(() => lath.know(drawn));
  useLayoutEffect(() => {
    if (pin !== undefined && under !== undefined) lath.follow(under - pin);
  }, [lath, pin, under]);
  useEffect(() => lath.end, [lath]);
  return lath.handlers;
}
