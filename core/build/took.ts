import type { BuildDocument, Step } from './document';

/** What a step takes away, for the line under the stick: from what, and how much in mm. */
export interface Took {
  from: string;
  mm: number;
}

/**
 * The amounts a step takes by its settings. Slicing counts the kerf of every slice that is cut, and one more where a head
 * is cut off; slices that do not fit are not cut. `cut` is how many came of each blank, all that were asked for if missing.
 */
export function tookBy(step: Step, build: BuildDocument, cut?: number): Took[] {
  const kerf = (id: string) => build.shop.saws.find((saw) => saw.id === id)?.kerf.mm ?? 0;
  const list: Took[] = [];
  if (step.kind === 'rip') list.push({ from: 'kerf', mm: kerf(step.saw) });
  if (step.kind === 'mill')
    list.push({ from: 'faces', mm: 2 * step.face.mm }, { from: 'edges', mm: 2 * step.edge.mm });
  if (step.kind === 'flatten') list.push({ from: 'faces', mm: step.top.mm + step.bottom.mm });
  if (step.kind === 'joint') list.push({ from: 'edges', mm: step.near.mm + step.far.mm });
  if (step.kind === 'slice')
    list.push({ from: 'kerfs', mm: ((cut ?? step.count) + (step.head.mm > 0 ? 1 : 0)) * kerf(step.saw) });
  if (step.kind === 'oblique' && !step.ends)
    list.push({ from: 'kerfs', mm: ((cut ?? step.count) + 1) * kerf(step.saw) });
  if (step.kind === 'oblique' && step.ends) list.push({ from: 'kerf', mm: kerf(step.saw) });
  if (step.kind === 'resaw') list.push({ from: 'kerfs', mm: (step.leaves - 1) * kerf(step.saw) });
  if (step.kind === 'shape' && step.saw) list.push({ from: 'kerf', mm: kerf(step.saw) });
  if (step.kind === 'crosscut') list.push({ from: 'kerf', mm: kerf(step.saw) });
  if (step.kind === 'trim')
    list.push(
      { from: 'ends', mm: step.start.mm + step.end.mm },
      { from: 'edges', mm: step.near.mm + step.far.mm },
    );
  return list.filter(({ mm }) => mm > 0);
}
