import type { Bit } from '../kit';
import { type Feature, type Guide, kindOf } from '../steps';

/** Of the shank that the collet must hold, mm: three quarters of an inch (common practice). */
export const LEAST_GRIP = 19;

/** What a bushing in a template or jig makes of a cut. mm. */
export interface GuideReport {
  guide: Guide;
  /** For a router: how much larger all round than the cut an opening in the template is. */
  offset?: number;
  /** The least radius that an inner corner of the cut can have: the bushing turns about its own. */
  leastRadius?: number;
  /** For a drill: how loosely it sits in the bushing once its tip is through, and how far its tip may wander at the floor. */
  play?: number;
  wander?: number;
  /** It does not pass through the bushing: by so much. */
  stuck?: number;
}

/**
 * How a bushing guides a cut. Router: the template stands (outer - cutter) / 2 off the line. Drill: its body, thinner than its tip or not,
 * plays in the bushing by inner - body; leaning from rim to rim of a bushing so long, its tip wanders by play (1/2 + depth / length) (geometry).
 */
export function guideReport(feature: Feature, depth: number, bit: Bit | undefined): GuideReport | undefined {
  const { guide } = feature;
  if (!guide) return undefined;
  const kind = kindOf(feature);
  const cutter = bit?.diameter.mm ?? kind.bitMm?.(feature);
  if (cutter === undefined) return { guide };
  const stuck = cutter - guide.inner.mm;
  const out: GuideReport = { guide, ...(stuck > 1e-6 ? { stuck } : {}) };
  if (kind.by === 'drill') {
    const play = guide.inner.mm - (bit?.body?.mm ?? bit?.shank?.mm ?? cutter);
    return play < 0 || guide.thick.mm <= 0
      ? out
      : { ...out, play, wander: play * (0.5 + depth / guide.thick.mm) };
  }
  return { ...out, offset: (guide.outer.mm - cutter) / 2, leastRadius: cutter / 2 };
}

/** How far the cutter must stand out to reach the floor, mm: the depth, and the template or jig that it works through. */
export const standsOut = ({ guide }: Feature, depth: number): number => depth + (guide?.thick.mm ?? 0);

/** How far a bit can stand out with enough of its shank held, mm; undefined where its whole length is not known. */
export const colletReach = ({ whole }: Bit): number | undefined => whole && whole.mm - LEAST_GRIP;
