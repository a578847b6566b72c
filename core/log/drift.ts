/** What is let pass of each reading, and where an alarm is given, in standard deviations. */
const SLACK = 0.75;
const ALARM = 6;
const CLIPPED = 3;

/** Two sums that grow while readings lie to one side: above, and below. */
export interface Drift {
  above: number;
  below: number;
}

/** Nothing has gone to one side yet. */
export const NO_DRIFT: Drift = { above: 0, below: 0 };

/** The sums after one more reading, by how far it lies off in standard deviations (Page 1954); one gross error counts as three. */
export function driftAfter({ above, below }: Drift, z: number): Drift {
  const held = Math.min(CLIPPED, Math.max(-CLIPPED, z));
  return { above: Math.max(0, above + held - SLACK), below: Math.max(0, below - held - SLACK) };
}

/** Whether a blade, a scale or a habit has changed, and to which side; undefined where it has not. */
export const hasDrifted = ({ above, below }: Drift): 'above' | 'below' | undefined =>
  above > ALARM ? 'above' : below > ALARM ? 'below' : undefined;
