import { Measure } from '../parts/Measure';
import type { Display } from '../../core/units';

/** A dimension line with slanted ends and its value in the middle. */
export function DimensionLine({
  from,
  length,
  at,
  vertical = false,
  mm,
  display,
}: {
  from: number;
  length: number;
  at: number;
  vertical?: boolean;
  mm: number;
  display: Display;
}) {
  const box = vertical
    ? { left: at - 12, top: from, width: 24, height: length }
    : { left: from, top: at - 12, width: length, height: 24 };
  const tick = <path d="M-5 5 L5 -5" stroke="currentColor" strokeWidth="1.6" />;
  return (
    <div className="text-ink pointer-events-none absolute" style={box}>
      <svg width="100%" height="100%" className="absolute inset-0 overflow-visible" aria-hidden>
        {vertical ? (
          <>
            <line x1="12" y1="0" x2="12" y2={length} stroke="currentColor" strokeWidth="0.9" />
            <g transform="translate(12 0)">{tick}</g>
            <g transform={`translate(12 ${length})`}>{tick}</g>
          </>
        ) : (
          <>
            <line x1="0" y1="12" x2={length} y2="12" stroke="currentColor" strokeWidth="0.9" />
            <g transform="translate(0 12)">{tick}</g>
            <g transform={`translate(${length} 12)`}>{tick}</g>
          </>
        )}
      </svg>
      <span
        className={`bg-sheet absolute top-1/2 left-1/2 -translate-x-1/2 -translate-y-1/2 px-1.5 text-[16px] leading-none ${vertical ? '-rotate-90' : ''}`}
      >
        <Measure value={mm} display={display} />
      </span>
    </div>
  );
}
