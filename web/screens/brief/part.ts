import type { Brief } from '../../../core/document';
import type { ShopSnapshot } from '../../../core/kit';
import type { Display } from '../../../core/units';

/** What every part of a brief's form is given. */
export interface BriefPart {
  brief: Brief;
  shop: ShopSnapshot;
  display: Display;
  onChange: (change: Partial<Brief>) => void;
}
