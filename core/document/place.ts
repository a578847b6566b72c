import type { Air, Climate } from '../kit';
import type { MovementRelation } from '../wood';

/** Where the finished piece will stand, as far as its wood feels it. */
export interface PlaceOfUse extends Air {
  /** The air of each month from January on, where it was measured: in the place of the two. */
  months?: Climate[];
  /** Moisture of the wood when it is fitted, %; the shop’s if missing. */
  fittedPct?: number;
  /** By what movement is told; by coefficients if missing. */
  relation?: MovementRelation;
}
