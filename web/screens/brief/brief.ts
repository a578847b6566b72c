import type { Brief, BuildDocument } from '../../../core/document';
import type { ShopSnapshot } from '../../../core/kit';
import { fit } from '../../../core/plan';

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
