import { create } from 'qrcode';
import { useMemo } from 'react';

/** Modules of white around it, as its standard wants (ISO/IEC 18004). */
const QUIET = 4;

/** An address as a square code: a phone that looks at it opens the record. */
export function SquareCode({ text, label }: { text: string; label: string }) {
  const { size, path } = useMemo(() => {
    const { modules } = create(text, { errorCorrectionLevel: 'M' });
    let drawn = '';
    for (let y = 0; y < modules.size; y++)
      for (let x = 0; x < modules.size; x++)
        if (modules.get(y, x)) drawn += `M${x + QUIET} ${y + QUIET}h1v1h-1z`;
    return { size: modules.size + 2 * QUIET, path: drawn };
  }, [text]);
  return (
    <svg
      viewBox={`0 0 ${size} ${size}`}
      role="img"
      aria-label={label}
      className="h-28 w-28 bg-white"
      shapeRendering="crispEdges"
    >
      <path d={path} fill="#000" />
    </svg>
  );
}
