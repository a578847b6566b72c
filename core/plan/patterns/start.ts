import type { Brief, PatternId } from '../../document';
import { machinesThat, type ShopSnapshot, typed } from '../../kit';
import { patternOf } from './patterns';

/** The brief a pattern begins with in a shop: its own sizes and woods, the shop's first saw and planer if it has them. */
export function startingBrief(id: PatternId, shop: ShopSnapshot, change: Partial<Brief> = {}): Brief {
  const { start } = patternOf(id);
  const known = (wanted: string, list: readonly { id: string }[]) =>
    list.some((item) => item.id === wanted) ? wanted : (list[0]?.id ?? '');
  const fixed = (text: string) => ({ aim: 'fixed' as const, value: typed(text) });
  const saw = change.saw ?? known('table-full', shop.saws);
  return {
    pattern: id,
    length: fixed(start.length),
    width: fixed(start.width),
    thickness: fixed(start.thickness),
    woods: start.woods,
    module: typed(start.module),
    saw,
    flattenWith: known('planer', machinesThat(shop, 'flatten')),
    trimWith: { saw },
    chequer: true,
    extraSlices: 0,
    sections: 0,
    ...change,
  };
}
