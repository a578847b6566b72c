/** A cabinetmaker's triangle across the parts as they lie, with its point to the far edge. */
export function TriangleMark({ width, height }: { width: number; height: number }) {
  const base = Math.min(width * 0.5, height * 1.2);
  const left = (width - base) / 2;
  return (
    <svg
      aria-hidden
      className="pointer-events-none absolute inset-0 overflow-visible"
      width={width}
      height={height}
    >
      <path
        d={`M${left} ${height}L${width / 2} 0L${left + base} ${height}`}
        className="stroke-graphite fill-none"
        strokeWidth="1.6"
        strokeDasharray="7 2 3 2"
      />
    </svg>
  );
}
