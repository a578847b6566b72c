import { type ReactNode, useCallback, useRef, useState } from 'react';
import { lazily } from './lazily';

const DroppedDown = lazily(() => import('./DroppedDown'), 'DroppedDown');

/** A button and what drops down from it, fetched when it is first pressed. `children` may close it. */
export function DropDown({
  label,
  named,
  title,
  className = 'action',
  panel = 'p-4',
  button,
  testId,
  children,
}: {
  /** What the panel is called. */
  label: string;
  /** What the button is called, where its content is a sign alone. */
  named?: string;
  title?: string;
  className?: string;
  panel?: string;
  button: ReactNode;
  testId?: string;
  children: (close: () => void) => ReactNode;
}) {
  const from = useRef<HTMLButtonElement>(null);
  const [open, setOpen] = useState(false);
  const close = useCallback(() => setOpen(false), []);
  return (
    <>
      <button
        ref={from}
        type="button"
        className={className}
        aria-label={named}
        title={title}
        aria-haspopup="dialog"
        aria-expanded={open}
        data-testid={testId}
        onClick={() => setOpen(!open)}
      >
        {button}
      </button>
      {open && (
        <DroppedDown label={label} from={from} className={panel} onClose={close}>
          {children(close)}
        </DroppedDown>
      )}
    </>
  );
}
