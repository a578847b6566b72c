import type { Finding, Step } from '../document';
import { extents } from '../solid';
import { noiseOf, type ResawStep, resawFromEdges, roomOf } from '../steps';
import { counted } from '../units';
import type { ReviewContext } from './context';

/** Leaves of a resaw that runs off the middle, against the thickness each must have. */
export function leafMargins(step: Step, { before, build }: ReviewContext): Finding[] {
  const { wanted, offMiddle, leaves, edgesDeep, raise, saw: id } = step as Partial<ResawStep>;
  const entered = before(step);
  if (!roomOf(step).each?.measured || leaves === undefined || entered.length === 0) return [];
  const saw = build.shop.saws.find((each) => each.id === id);
  const sizes = entered.map(({ blank }) => extents(blank));
  const thick = Math.min(...sizes.map((size) => size[2]));
  const leaf = (thick - (leaves - 1) * (saw?.kerf.mm ?? 0)) / leaves;
  const off = offMiddle?.mm ?? 0;
  const out: Finding[] = [];
  const spare = leaf - off - (wanted?.mm ?? 0);
  const short = spare < -noiseOf(build.shop);
  if (wanted && wanted.mm > 0)
    out.push({
      code: 'leaf-margin',
      step: step.id,
      severity: short ? 'warning' : 'note',
      dimension: 'thickness',
      message: [
        'A leaf comes out at ',
        { mm: leaf },
        ...(off > 0 ? [', and at ', { mm: leaf - off }, ' where the saw runs off by ', { mm: off }] : []),
        '; it must have ',
        { mm: wanted.mm },
        ...(short ? [': short by ', { mm: -spare }, '.'] : [': ', { mm: Math.max(0, spare) }, ' to spare.']),
      ],
      numbers: { leaf, off, wanted: wanted.mm, spare },
      fixes:
        short && leaves > 2
          ? [
              {
                label: `Saw ${leaves - 1} leaves`,
                edit: { do: 'setStep', step: step.id, change: { leaves: leaves - 1 } },
              },
            ]
          : [],
    });
  if (edgesDeep && edgesDeep.mm > 0) {
    const high = Math.max(...sizes.map((size) => size[1]));
    const { heights, cuts, leftMm } = resawFromEdges(high, edgesDeep.mm, raise?.mm ?? 0);
    out.push({
      code: 'resawn-from-edges',
      step: step.id,
      severity: 'note',
      dimension: 'width',
      message: [
        'From both edges, ',
        { mm: edgesDeep.mm },
        ` deep: ${counted(heights, 'height')} of the blade, ${counted(cuts, 'cut')} for each leaf line, and of `,
        { mm: high },
        leftMm > 1e-6 ? ' there stay ' : ' nothing stays',
        ...(leftMm > 1e-6 ? [{ mm: leftMm }, ' for the other saw.'] : ['.']),
      ],
      numbers: { high, deep: edgesDeep.mm, heights, cuts, left: leftMm },
      fixes: [],
      caution:
        'The same face against the fence for both edges, a high fence, and the blade no higher each time than the saw takes. What is left standing holds both leaves together until the last cut.',
    });
  }
  return out;
}

declare module '../document/finding' {
  interface FindingCodes {
    /** What a leaf has over or lacks where the saw runs off the middle. */
    'leaf-margin': true;
    /** Resawing from both edges: heights, cuts, and what is left. */
    'resawn-from-edges': true;
  }
}
