import type { Length } from '../../../units';
import { fitLength, type FittingKind, type FitProblem } from '../kind';
import type { FittingBase } from '../model';

/** A mitred corner of members as wide and of the same wood as the piece: it opens as they grow and shrink. */
export interface MitredCorner extends FittingBase {
  kind: 'mitre';
  /** Width of the members, across their grain. */
  width: Length;
  /** The gap that may be seen. */
  most: Length;
}

/**
 * How far a mitre cut at 45 degrees is off a right angle once its members have grown by a share of their width, degrees: 2 atan(1 + e)
 * - 90; and the gap at one end of it, mm. Geometry.
 */
export function mitreOpening(share: number, widthMm: number): { degrees: number; gapMm: number } {
  const degrees = 2 * ((Math.atan(1 + share) * 180) / Math.PI) - 90;
  return { degrees, gapMm: widthMm * Math.SQRT2 * Math.tan((Math.abs(degrees) * Math.PI) / 180) };
}

export const mitre: FittingKind<MitredCorner> = {
  kind: 'mitre',
  name: 'Mitred corner',
  says: 'Members of this wood meet in a mitre: it opens inside when they grow, outside when they shrink.',
  fields: {
    width: fitLength('Width of the members', 1000, 1),
    most: fitLength('Gap that may be seen', 20),
  },
  begin: ({ size }) => ({ width: { mm: Math.min(60, size[1]) }, most: { mm: 1 } }),
  report: ({ width, most }, { size, moves }) => {
    const { out, in: inwards } = moves(1);
    const [wide, narrow] = [out / size[1], -inwards / size[1]];
    const damp = mitreOpening(wide, width.mm);
    const dry = mitreOpening(narrow, width.mm);
    const gap = Math.max(damp.gapMm, dry.gapMm);
    const broken = gap > most.mm + 1e-9;
    const degrees = (n: number) => `${Math.round(Math.abs(n) * 1000) / 1000} degrees`;
    const problems: FitProblem<MitredCorner>[] = broken
      ? [
          {
            code: 'does-not-fit',
            severity: 'warning',
            message: [
              'Over the year the mitre opens by up to ',
              { mm: gap },
              ', and ',
              most,
              ' may be seen. Make the members narrower, hold it with a spline, or use wood that moves less.',
            ],
            numbers: { gap, most: most.mm },
            fixes: [
              {
                label: 'Members as narrow as the gap allows',
                change: { width: { mm: Math.floor(((width.mm * most.mm) / gap) * 10) / 10 } },
              },
            ],
          },
        ]
      : [];
    return {
      problems,
      facts: [
        {
          name: 'Open inside, dampest month',
          says: [{ mm: damp.gapMm }, `, ${degrees(damp.degrees)}`],
          state: damp.gapMm > most.mm + 1e-9 ? 'broken' : 'met',
        },
        {
          name: 'Open outside, driest month',
          says: [{ mm: dry.gapMm }, `, ${degrees(dry.degrees)}`],
          state: dry.gapMm > most.mm + 1e-9 ? 'broken' : 'met',
        },
      ],
    };
  },
};

declare module '../model' {
  interface FittingKinds {
    mitre: MitredCorner;
  }
}
