import { type Brief, type BuildDocument, MOST_STRIPS } from '../document';
import type { ShopSnapshot } from '../kit';
import { CannotFit } from './patterns/parts';
import { patternOf } from './patterns/patterns';

/**
 * Plans a build backwards from a brief. Run forward, the build ends at exactly the size asked. Throws CannotFit,
 * with the reason in words, where no such build exists in this shop.
 */
export function fit(brief: Brief, shop: ShopSnapshot, about: { name: string; use: string }): BuildDocument {
  if (brief.woods.length === 0) throw new CannotFit('Choose at least one wood.');
  const most = Math.max(brief.length.value?.mm ?? 0, brief.width.value?.mm ?? 0) / brief.module.mm;
  if (most > MOST_STRIPS)
    throw new CannotFit(
      `That would be ${Math.ceil(most)} strips or slices; Junta plans up to ${MOST_STRIPS} in one piece.`,
    );
  const pattern = patternOf(brief.pattern);
  const build = pattern.plan({ brief, shop, pattern, ...about });
  const parts = build.assemblies.reduce((sum, assembly) => sum + assembly.slots.length, 0);
  if (parts > MOST_STRIPS)
    throw new CannotFit(`That would be ${parts} strips; Junta plans up to ${MOST_STRIPS} in one piece.`);
  return build;
}
