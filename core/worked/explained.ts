import type { FindingCode } from '../document';

/**
 * Findings whose numbers are sums that can be shown: each of these always has one (core/worked/finding.ts). The others name what
 * was entered, a limit of the kit or a place, and stand as they are.
 */
const EXPLAINED: ReadonlySet<FindingCode> = new Set([
  'chamfer-gone',
  'cross-grain-joint',
  'cut-below-tolerance',
  'cutter-too-short',
  'edges-out-of-square',
  'face-short',
  'feature-too-deep',
  'flattening-misses',
  'leaf-margin',
  'lopsided-trim',
  'margin-below-tolerance',
  'more-than-went-in',
  'no-clamps',
  'reserve-below-expected',
  'saw-cannot-reach',
  'shorter-than-machine',
  'size-missed',
  'slices-do-not-fit',
  'slower-than-glue',
  'smaller-than-reached',
  'snipe-stays',
  'target-not-reached',
  'target-overshot',
  'too-few-clamps',
  'too-few-slices',
  'trim-thinner-than-kerf',
  'wider-than-crosscut',
  'wider-than-machine',
  'wider-than-rip',
]);

/** Whether it can be shown how the numbers of a finding came about. */
export const isExplained = (code: FindingCode): boolean => EXPLAINED.has(code);
