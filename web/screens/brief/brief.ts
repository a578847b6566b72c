import { fit, patternOf, type Brief, type BuildDocument, type PatternId } from '../../../core/build';
import type { ShopSnapshot } from '../../../core/kit';
import { parseLength, type Length } from '../../../core/units';

const size = (text: string): Length => {
  const parsed = parseLength(text, 'inch');
  if (!parsed.ok) throw new Error(`size: “${text}”: ${parsed.reason}`);
  return parsed.length;
};

/** The brief a pattern begins with in this shop. */
export function startingBrief(id: PatternId, shop: ShopSnapshot, keep?: Partial<Brief>): Brief {
  const { start } = patternOf(id);
  const known = (wanted: string, list: readonly { id: string }[]) =>
    list.some((item) => item.id === wanted) ? wanted : (list[0]?.id ?? '');
  const saw = keep?.saw ?? known('table-full', shop.saws);
  return {
    pattern: id,
    length: { aim: 'fixed', value: size(start.length) },
    width: { aim: 'fixed', value: size(start.width) },
    thickness: { aim: 'fixed', value: size(start.thickness) },
    woods: start.woods,
    module: size(start.module),
    saw,
    flattenWith: keep?.flattenWith ?? known('planer', shop.machines),
    trimWith: keep?.trimWith ?? { saw },
    chequer: true,
    extraSlices: 0,
    sections: 0,
  };
}

/** A plan, or why there is none. */
export type Plan = { build: BuildDocument; reason?: undefined } | { build?: undefined; reason: string };

/** Plans a brief; what cannot be planned is answered with its reason. */
export function planFor(brief: Brief, shop: ShopSnapshot, about: { name: string; use: string }): Plan {
  try {
    return { build: fit(brief, shop, about) };
  } catch (error) {
    return { reason: (error as Error).message };
  }
}
