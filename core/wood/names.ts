import { plainText, rising } from '../units';
import { SPECIES } from './species';

const byName = new Map(
  SPECIES.flatMap(({ id, common, latin }) =>
    [common, latin, id].map((name) => [plainText(name), id] as const),
  ),
);
const wordsOf = (name: string): string[] =>
  plainText(name)
    .split(/[\s,()/-]+/)
    .filter(Boolean);

/**
 * The woods that a name may mean, those with the shortest names first: one where it is a common name, a Latin one or an
 * id; else every wood whose common name holds all its words, in any order. “Oak” means several.
 */
export function woodsByName(name: string): string[] {
  const plain = plainText(name.trim());
  if (!plain) return [];
  const exact = byName.get(plain);
  if (exact) return [exact];
  const words = wordsOf(plain);
  return SPECIES.filter(({ common }) => {
    const own = wordsOf(common);
    return words.every((word) => own.includes(word));
  })
    .toSorted(rising((a) => a.common.length))
    .map(({ id }) => id);
}

/** Woods in the order in which they are offered: those used last first, the others as they stand. */
export const lastUsedFirst = (woods: readonly string[], used: readonly string[]): string[] => {
  const lately = [...new Set(used.toReversed())];
  const rank = (wood: string) => (lately.includes(wood) ? lately.indexOf(wood) : lately.length);
  return woods.toSorted(rising(rank));
};
