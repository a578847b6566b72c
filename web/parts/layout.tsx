import type { ReactNode } from 'react';

/** The frame of a screen that is read from above to below. */
export const Screen = ({ children, className = '' }: { children: ReactNode; className?: string }) => (
  <main
    id="work"
    tabIndex={-1}
    className={`mx-auto w-full max-w-[1240px] px-5 py-4 max-desk:px-3 print:p-0 ${className}`}
  >
    {children}
  </main>
);

/** The frame of a screen whose parts share the window's height at a desk; on a phone they follow one another. */
export const FullScreen = ({ children, className = '' }: { children: ReactNode; className?: string }) => (
  <main
    id="work"
    tabIndex={-1}
    className={`flex h-[calc(100dvh-var(--head)-var(--hint,0px))] flex-col gap-2.5 px-5 pt-2.5 pb-4 max-desk:h-auto max-desk:min-h-[calc(100dvh-var(--head))] max-desk:px-3 ${className}`}
  >
    {children}
  </main>
);

/** A row of things to press, which breaks into several where there is no room. */
export const Bar = ({ children, className = '' }: { children: ReactNode; className?: string }) => (
  <div className={`flex flex-wrap items-center gap-x-3 gap-y-2 ${className}`}>{children}</div>
);

/** A box that slides sideways by itself where what is in it is wider than the window: a table or a drawing. */
export const Sideways = ({
  label,
  children,
  className = '',
}: {
  label: string;
  children: ReactNode;
  className?: string;
}) => (
  // Focus lets the arrow keys slide it.
  <div
    role="region"
    aria-label={label}
    tabIndex={0}
    className={`relative max-w-full overflow-x-auto ${className}`}
  >
    {children}
  </div>
);

/** Ways past what stands before the work, seen only by those who come to them with the Tab key. */
export const Skips = ({
  label,
  to,
}: {
  label: string;
  to: readonly (readonly [id: string, name: string])[];
}) => (
  <nav aria-label={label} className="contents">
    {to.map(([id, name]) => (
      <button
        key={id}
        type="button"
        className="action not-focus-visible:sr-only fixed top-1 left-1 z-50"
        onClick={() => (document.getElementById(id) ?? document.querySelector('main'))?.focus()}
      >
        {name}
      </button>
    ))}
  </nav>
);
