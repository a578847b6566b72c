/** One value that is not the same in two documents. */
export interface Difference {
  path: string;
  there: string;
  here: string;
}

const isPlain = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null;
const show = (value: unknown): string =>
  value === undefined
    ? 'absent'
    : isPlain(value)
      ? Array.isArray(value)
        ? `${value.length} entries`
        : 'there'
      : typeof value === 'number'
        ? String(Math.round(value * 1000) / 1000)
        : String(value);
/** Entries of a list are compared by their id where they have one, so that one removal does not shift all the rest. */
const nameOf = (value: unknown, index: string): string =>
  isPlain(value) ? String(value.id ?? value.piece ?? index) : index;

/** Every place where two documents differ, as a path of names. */
export function differences(there: unknown, here: unknown, path = ''): Difference[] {
  if (there === here) return [];
  if (!isPlain(there) || !isPlain(here))
    return [{ path: path.replace(/^ › /, ''), there: show(there), here: show(here) }];
  const entries = (value: Record<string, unknown>) =>
    new Map(
      Object.entries(value).map(([key, inner]) => [Array.isArray(value) ? nameOf(inner, key) : key, inner]),
    );
  const [a, b] = [entries(there), entries(here)];
  return [...new Set([...a.keys(), ...b.keys()])].flatMap((key) =>
    differences(a.get(key), b.get(key), `${path} › ${key}`),
  );
}
