import { KERF_OFF, type Saw, type Spread } from '../kit';

/** A comparison never fires below this share of the shop's step: what is smaller is the noise of arithmetic. */
export const NOISE_SHARE = 0.01;

/** The step in which this shop sets its sizes, mm; 0.1 mm where it says none. */
export const dialStep = ({ settingStep }: { settingStep: { mm: number } }): number =>
  settingStep.mm > 0 ? settingStep.mm : 0.1;

/** The size below which nothing is found in this shop, mm; a hundredth of 0.1 mm where it has no step. */
export const noiseOf = (shop: { settingStep: { mm: number } }): number => NOISE_SHARE * dialStep(shop);

/**
 * How a size depends on settings and removals: for each source of error its share in this size. Two strips ripped at
 * one fence depend on the same source; glued side by side the size depends on it twice.
 */
export type Errors = Readonly<Record<string, number>>;

/** One setting or removal that may be off. */
export interface ErrorSource {
  id: string;
  label: string;
  likelyMm: number;
  worstMm: number;
  basis: string;
  /** What it is alike with, over all jobs: the spread of one saw's or machine's settings, a blade's kerf. Sources of no family teach nothing. */
  family?: SourceFamily;
}

/** The family of a source: what spreads, and of which saw or machine. */
export type SourceFamily = `${'setting' | 'kerf'}:${string}`;

/** A size's tolerance: nine times in ten within `likely`, never beyond `worst`, mm. */
export interface Tolerance {
  likelyMm: number;
  worstMm: number;
}

/** Books of all sources of a run. */
export type Sources = Map<string, ErrorSource>;

/** Enters a source and gives the errors of a size set by it alone. `tool` is the saw or machine that was set, by id. */
export function settingErrors(
  sources: Sources,
  id: string,
  label: string,
  spread: Spread,
  tool?: string,
): Errors {
  sources.set(id, {
    id,
    label,
    likelyMm: spread.likely.mm,
    worstMm: spread.worst.mm,
    basis: spread.basis,
    ...(tool === undefined ? {} : { family: `setting:${tool}` as const }),
  });
  return { [id]: 1 };
}

/** Enters the kerf of a saw, one source for all its cuts, and gives the errors of a size that one kerf goes into. */
export function kerfErrors(sources: Sources, { id: saw, name, kerfOff = KERF_OFF }: Saw): Errors {
  const id = `kerf:${saw}` as const;
  sources.set(id, {
    id,
    label: `kerf of ${name}`,
    likelyMm: kerfOff.likely.mm,
    worstMm: kerfOff.worst.mm,
    basis: kerfOff.basis,
    family: id,
  });
  return { [id]: 1 };
}

/** Errors of a sum of sizes. A difference is a sum with weight -1. */
export function addErrors(...terms: readonly (readonly [Errors, number])[]): Errors {
  const out: Record<string, number> = {};
  for (const [errors, weight] of terms)
    for (const [id, share] of Object.entries(errors)) out[id] = (out[id] ?? 0) + share * weight;
  return out;
}

/** Likely: independent sources in quadrature, each with its share. Worst: all at their limit the same way. */
export function toleranceOf(errors: Errors, sources: Sources): Tolerance {
  let squares = 0;
  let worst = 0;
  for (const [id, share] of Object.entries(errors)) {
    const source = sources.get(id);
    if (!source) continue;
    squares += (share * source.likelyMm) ** 2;
    worst += Math.abs(share) * source.worstMm;
  }
  return { likelyMm: Math.sqrt(squares), worstMm: worst };
}
