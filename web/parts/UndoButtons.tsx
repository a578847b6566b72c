import { Redo2, Undo2 } from 'lucide-react';

/** Undo and redo, each off where there is nothing to take back or to do again. */
export const UndoButtons = ({
  past,
  future,
  onUndo,
  onRedo,
}: {
  past: number;
  future: number;
  onUndo: () => void;
  onRedo: () => void;
}) => (
  <>
    <button
      type="button"
      className="action px-2"
      aria-label="Undo"
      title="Undo (Ctrl Z)"
      disabled={past === 0}
      onClick={onUndo}
    >
      <Undo2 size={16} />
    </button>
    <button
      type="button"
      className="action px-2"
      aria-label="Redo"
      title="Redo (Ctrl Shift Z)"
      disabled={future === 0}
      onClick={onRedo}
    >
      <Redo2 size={16} />
    </button>
  </>
);
