import { useEffect, useRef } from 'react';

/** Ctrl Z and Ctrl Shift Z (or Ctrl Y) of a screen, but in a field that has an undo of its own. */
export function UndoKeys({ onUndo, onRedo }: { onUndo: () => void; onRedo: () => void }) {
  const now = useRef({ onUndo, onRedo });
  useEffect(() => {
    now.current = { onUndo, onRedo };
  });
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.altKey) return;
      if ((event.target as HTMLElement).closest('input[type="text"], input:not([type]), textarea')) return;
      const key = event.key.toLowerCase();
      if (key !== 'z' && key !== 'y') return;
      event.preventDefault();
      if (key === 'y' || event.shiftKey) now.current.onRedo();
      else now.current.onUndo();
    };
    addEventListener('keydown', press);
    return () => removeEventListener('keydown', press);
  }, []);
  return null;
}
