import { X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { type ReactNode, useRef } from 'react';

/** A window over the page, closed by Escape, the cross, or a click beside it; `stay` leaves only its own buttons. */
export function Window({
  title,
  description,
  open,
  onClose,
  children,
  wide = false,
  broad = false,
  stay = false,
}: {
  title: string;
  description?: string;
  open: boolean;
  onClose: () => void;
  children: ReactNode;
  wide?: boolean;
  /** As broad as the screen allows: a drawing with its settings beside it. */
  broad?: boolean;
  stay?: boolean;
}) {
  const from = useRef<Element>(null);
  return (
    <Dialog.Root open={open} onOpenChange={(next) => !next && !stay && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="bg-ink/30 fixed inset-0 z-40" />
        <Dialog.Content
          aria-describedby={description ? undefined : ''}
          onOpenAutoFocus={() => {
            from.current = document.activeElement;
          }}
          onCloseAutoFocus={(event) => {
            // Back to where it was opened from; where that is gone, to the screen's heading.
            const { current } = from;
            const back =
              current instanceof HTMLElement && current.isConnected && current !== document.body
                ? current
                : document.querySelector<HTMLElement>('main h1');
            if (!back) return;
            event.preventDefault();
            back.focus({ preventScroll: true });
          }}
          className={`sheet fixed top-1/2 left-1/2 z-50 max-h-[88vh] w-[92vw] -translate-x-1/2 -translate-y-1/2 overflow-auto p-5 shadow-xl ${broad ? 'max-w-6xl' : wide ? 'max-w-3xl' : 'max-w-lg'}`}
        >
          <div className="flex items-start justify-between gap-4 pb-3">
            <Dialog.Title className="text-lg font-semibold">{title}</Dialog.Title>
            {!stay && (
              <Dialog.Close className="text-graphite hover:text-ink -m-1 p-1" aria-label="Close">
                <X size={18} />
              </Dialog.Close>
            )}
          </div>
          {description && (
            <Dialog.Description className="text-graphite pb-3">{description}</Dialog.Description>
          )}
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
