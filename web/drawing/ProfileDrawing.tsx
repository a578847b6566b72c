import { type ProfileName, profileLine } from '../../core/steps';

/** How large a profile is drawn, px. */
const SIDE = 84;
/** Wood that is shown beside and below the cut, as a part of it. */
const MORE = 0.6;

/** The section of an edge as a profile leaves it: wood hatched, what is cut away open. */
export function ProfileDrawing({
  profile,
  size,
  step,
}: {
  profile: ProfileName;
  size: number;
  step: number;
}) {
  const line = profileLine({ profile, size, step });
  const [wide, high] = [size * (1 + MORE), (size + step) * (1 + MORE)];
  const scale = SIDE / Math.max(wide, high, 1e-9);
  const at = ({ x, y }: { x: number; y: number }) => `${x * scale + 1} ${y * scale + 1}`;
  const wood = [...line, { x: 0, y: high }, { x: wide, y: high }, { x: wide, y: 0 }];
  return (
    <svg
      width={wide * scale + 2}
      height={high * scale + 2}
      role="img"
      aria-label="Section of the shaped edge"
      className="block"
    >
      <path
        d={`M${wood.map(at).join('L')}Z`}
        fill="var(--color-lath)"
        stroke="var(--color-lath-line)"
        strokeWidth={1}
      />
      <path d={`M${line.map(at).join('L')}`} fill="none" stroke="var(--color-ink)" strokeWidth={2} />
    </svg>
  );
}
