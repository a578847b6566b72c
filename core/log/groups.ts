import type { Row } from './estimate';

/** Ids of means and spreads that rows link, in groups that have nothing to do with each other. */
export function groups(rows: readonly Row[]): number[][] {
  const root = new Map<string, string>();
  const find = (id: string): string => {
    let at = id;
    while ((root.get(at) ?? at) !== at) at = root.get(at) ?? at;
    return at;
  };
  const idsOf = ({ a, b }: Row) => [...Object.keys(a), ...Object.keys(b)];
  for (const row of rows) {
    const [first, ...rest] = idsOf(row);
    if (first === undefined) continue;
    if (!root.has(first)) root.set(first, first);
    for (const id of rest) {
      if (!root.has(id)) root.set(id, id);
      root.set(find(id), find(first));
    }
  }
  const out = new Map<string, number[]>();
  rows.forEach((row, i) => {
    const [first] = idsOf(row);
    if (first === undefined) return;
    const at = find(first);
    out.set(at, [...(out.get(at) ?? []), i]);
  });
  return [...out.values()];
}
