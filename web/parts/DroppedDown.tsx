import { Popover } from 'radix-ui';
import type { ReactNode, RefObject } from 'react';

/** What has dropped down from a button: closed by Escape, by a press beside it, or by the button; the focus goes back there. */
export function DroppedDown({
  label,
  from,
  className,
  onClose,
  children,
}: {
  label: string;
  from: RefObject<HTMLButtonElement | null>;
  className: string;
  onClose: () => void;
  children: ReactNode;
}) {
  return (
    <Popover.Root open onOpenChange={(open) => !open && onClose()}>
      <Popover.Anchor virtualRef={from as RefObject<HTMLButtonElement>} />
      <Popover.Portal>
        <Popover.Content
          aria-label={label}
          align="end"
          sideOffset={4}
          className={`sheet z-50 flex max-h-[80dvh] max-w-[calc(100vw-16px)] flex-col overflow-auto shadow-lg ${className}`}
          onInteractOutside={(event) => {
            // The button closes it by itself.
            if (event.target instanceof Node && from.current?.contains(event.target)) event.preventDefault();
          }}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            // Where what was pressed opened a window of its own, the focus stays there.
            const { activeElement } = document;
            if (!activeElement || activeElement === document.body) from.current?.focus();
          }}
        >
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
