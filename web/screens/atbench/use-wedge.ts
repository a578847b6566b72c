import { useEffect } from 'react';

/** What a number begins with, as a gauge that types like a keyboard sends it. */
const BEGINS = /^[\d.,-]$/;

/** Whether somebody types already, or a window is open that waits for something else. */
const isTaken = (target: EventTarget | null): boolean =>
  (target instanceof HTMLElement &&
    (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName))) ||
  document.querySelector('[role="dialog"], [role="listbox"]') !== null;

/**
 * A gauge that types like a keyboard, or a hand that does, writes into the field that waits without anybody having touched the
 * screen: the first figure of a number goes there, and what follows with it. `field` gives that field as it is just then.
 */
export function useWedge(field: () => HTMLInputElement | null | undefined, waits: boolean): void {
  useEffect(() => {
    if (!waits) return;
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || !BEGINS.test(event.key) || isTaken(event.target))
        return;
      // Focused before the key takes effect, the field gets this figure, too.
      field()?.focus({ preventScroll: true });
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  });
}
