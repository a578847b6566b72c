import type { BuildDocument } from '../document';

/** Which wood a share is a share of: that of whole boards once strips have their places on them, else that of the strips. */
const woodOf = ({ assemblies }: BuildDocument): string =>
  assemblies.some(({ slots }) => slots.some(({ strip }) => strip?.at !== undefined)) ? 'boards' : 'strips';

/** How much of the wood is in the finished piece, in words, as everywhere; undefined where there is none. */
export function woodShare(
  build: BuildDocument,
  woodInMm3: number,
  finishedMm3: number,
): { pct: number; words: string } | undefined {
  if (!(woodInMm3 > 0)) return undefined;
  const pct = Math.round((100 * finishedMm3) / woodInMm3);
  return { pct, words: `of the ${woodOf(build)}, ${pct} % is in the piece` };
}
