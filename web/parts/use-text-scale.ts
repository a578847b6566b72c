import { useEffect, useState } from 'react';

/** A line of the probe at the usual size of text, px. */
const PROBE_PX = 100;

/**
 * How much larger than usual the reader has set text, 1 where it is as designed: for drawings with numbers on them, which grow
 * as a whole, since larger numbers alone would lie over one another.
 */
export function useTextScale(): number {
  const [scale, setScale] = useState(1);
  useEffect(() => {
    const probe = document.createElement('span');
    probe.textContent = '0';
    probe.ariaHidden = 'true';
    probe.style.cssText = `position:absolute;visibility:hidden;font:${PROBE_PX}px/1 monospace`;
    document.body.append(probe);
    const measure = () => setScale(Math.round((10 * probe.offsetHeight) / PROBE_PX) / 10 || 1);
    const watch = new ResizeObserver(measure);
    watch.observe(probe);
    return () => {
      watch.disconnect();
      probe.remove();
    };
  }, []);
  return scale;
}
