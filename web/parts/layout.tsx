import type { CSSProperties, ReactNode } from 'react';

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

/**
 * Fields, cards or pictures beside one another: as many as their box has room for, each at least so wide, and never more than
 * `most`. The widths are in rem, so that larger text makes fewer columns.
 */
export const Columns = ({
  least,
  most,
  gap = 1,
  list = false,
  children,
  className = '',
}: {
  least: number;
  most: number;
  gap?: number;
  /** What stands in it is a list. */
  list?: boolean;
  children: ReactNode;
  className?: string;
}) => {
  const Box = list ? 'ul' : 'div';
  const style = { '--least': `${least}rem`, '--most': most, '--gap': `${gap}rem` } as CSSProperties;
  return (
    <Box className={`columns-of ${className}`} style={style}>
      {children}
    </Box>
  );
};

/** A drawing or a list and what belongs to it, side by side where their own box has room for both, else one under the other. */
export const Beside = ({ children, broad = false }: { children: ReactNode; broad?: boolean }) => (
  <div className="@container">
    <div
      className={`grid grid-cols-[minmax(0,1fr)] items-start gap-4 ${broad ? '@min-[60rem]:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]' : '@min-[40rem]:grid-cols-[minmax(0,3fr)_minmax(0,2fr)] @min-[40rem]:gap-6'}`}
    >
      {children}
    </div>
  </div>
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
