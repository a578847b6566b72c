import { counted } from '../../../core/units';

/** The most marks that are drawn apart. */
const MOST_MARKS = 14;

/** Where a job stands on its stick: one mark a step, dark as far as the work is done. */
export function TinyStick({ steps, done }: { steps: number; done: number }) {
  const mark = Math.min(14, (MOST_MARKS * 8) / Math.max(1, steps));
  const width = steps * mark + 8;
  return (
    <svg width={width} height="12" role="img" aria-label={`${done} of ${counted(steps, 'step')} done`}>
      <rect
        x="0.5"
        y="1.5"
        width={width - 1}
        height="9"
        rx="1.5"
        fill="var(--color-lath)"
        stroke="var(--color-lath-line)"
      />
      {done > 0 && <rect x="0.5" y="1.5" width={done * mark} height="9" fill="var(--color-lath-dark)" />}
      {/* One path for all marks: a list of three hundred jobs has thousands of them. */}
      <path
        d={Array.from({ length: steps }, (_, i) => `M${i * mark + mark / 2 + 1} 2v8`).join('')}
        stroke="#6d6046"
      />
    </svg>
  );
}
