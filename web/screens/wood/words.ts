import type { Goal } from '../../../core/document';
import type { CutKind } from '../../../core/stock';

/* The breakdown's words. */
export const GOAL_NAMES: Record<Goal, string> = {
  leastWaste: 'Least waste',
  fewestBoards: 'Fewest boards',
  cheapest: 'Cheapest',
  offcutsFirst: 'Offcuts first',
  keepWide: 'Keep wide boards whole',
  colour: 'Best colour match',
};
export const CUT_NAMES: Record<CutKind, string> = {
  'clean end': 'Clean the end',
  crosscut: 'Crosscut rough',
  'clean edge': 'Straighten an edge',
  rip: 'Rip',
  resaw: 'Resaw',
  'to length': 'Cut to length',
};
