/** A cabinetmaker's triangle across the parts as they lie, with its point to the far edge. */
export function TriangleMark({
  width,
  height,
  upright,
}: {
  width: number;
  height: number;
  upright: boolean;
}) {
  const [along, across] = upright ? [height, width] : [width, height];
  const base = Math.min(along * 0.5, across * 1.2);
  const from = (along - base) / 2;
  const at = (u: number, v: number) => (upright ? `${v} ${height - u}` : `${u} ${v}`);
  return (
    <svg
      aria-hidden
      className="pointer-events-none absolute inset-0 overflow-visible"
      width={width}
      height={height}
    >
      <path
        d={`M${at(from, across)}L${at(along / 2, 0)}L${at(from + base, across)}`}
        className="stroke-graphite fill-none"
        strokeWidth="1.6"
        strokeDasharray="7 2 3 2"
      />
    </svg>
  );
}
