import { circle } from '../../../curve';
import type { Phrase } from '../../../document';
import { counted, type Length } from '../../../units';
import type { FeatureBase } from '../model';
import { type Cut, type FeatureKind, lengthField, type Refused } from '../kind';

/** A round hole: through, blind, or with a wider seat at its mouth. */
export interface HoleFeature extends FeatureBase {
  kind: 'hole';
  diameter: Length;
  /** To its floor; right through if missing. */
  depth?: Length;
  seat?: Length;
  seatDepth?: Length;
  /** What must pass through it: a bolt, a peg, a bushing. */
  passes?: Length;
  /** Pegs for it, so long, sawn from a stock of another length with a kerf. */
  peg?: Length;
  stock?: Length;
  kerf?: Length;
}

/** How many pieces a stock gives, and what is over of it: n lengths and n - 1 kerfs; within 1e-6 mm they fit. mm. */
export function fromStock(stock: number, length: number, kerf: number): { count: number; over: number } {
  if (!(length > 0) || stock < length) return { count: 0, over: Math.max(0, stock) };
  const count = Math.floor((stock + kerf) / (length + kerf) + 1e-6 / (length + kerf));
  return { count, over: Math.max(0, stock - count * length - (count - 1) * kerf) };
}

export const hole: FeatureKind<HoleFeature> = {
  kind: 'hole',
  name: 'Hole',
  says: 'A round hole, right through or blind, with a wider seat where a head must sink in.',
  fields: {
    diameter: lengthField('Diameter'),
    depth: { ...lengthField('Depth, through if empty'), optional: true },
    seat: { ...lengthField('Seat, diameter'), optional: true },
    seatDepth: { ...lengthField('Seat, depth'), optional: true },
    passes: { ...lengthField('What must pass through, diameter'), optional: true },
    peg: { ...lengthField('Pegs for it, length'), optional: true },
    stock: {
      ...lengthField('Peg stock, length'),
      optional: true,
      when: ({ peg }: HoleFeature) => peg !== undefined,
    },
    kerf: {
      ...lengthField('Kerf between pegs', 0, 10),
      optional: true,
      when: ({ peg }: HoleFeature) => peg !== undefined,
    },
  },
  begin: () => ({ diameter: { mm: 10 } }),
  placed: true,
  cuts: ({ diameter, depth, seat, seatDepth }, { u, v }, { deep }) => {
    const to = Math.min(depth?.mm ?? deep, deep);
    const wide = seat && seatDepth && seat.mm > diameter.mm ? Math.min(seatDepth.mm, to) : 0;
    const at = { x: u, y: v };
    const cuts: Cut[] = [
      ...(wide > 0 && seat ? [{ region: [circle(at, seat.mm / 2)], from: 0, to: wide }] : []),
      { region: [circle(at, diameter.mm / 2)], from: wide, to },
    ];
    return cuts.filter((cut) => cut.to > cut.from);
  },
  refuses: ({ diameter, passes, seat }): Refused | undefined =>
    passes && passes.mm > diameter.mm
      ? {
          words: ['What must pass through is ', passes, ' thick, and the hole is ', diameter, ' wide.'],
          numbers: { passes: passes.mm, diameter: diameter.mm },
        }
      : seat && seat.mm <= diameter.mm
        ? {
            words: ['Its seat of ', seat, ' is no wider than the hole of ', diameter, '.'],
            numbers: { seat: seat.mm, diameter: diameter.mm },
          }
        : undefined,
  makes: ({ peg, stock, kerf }, _side, places) => {
    if (!peg) return [];
    const saw = kerf?.mm ?? 0;
    const needed = places * peg.mm + (places - 1) * saw;
    const words: Phrase[] = [
      `${counted(places, 'peg')} of `,
      peg,
      ': ',
      { mm: needed },
      ' of stock with its kerfs',
    ];
    if (!stock) return [...words, '.'];
    const { count, over } = fromStock(stock.mm, peg.mm, saw);
    return [
      ...words,
      '. ',
      stock,
      ` gives ${count === places ? 'exactly ' : ''}${count}`,
      ...(over < 1e-6 ? [', nothing to spare'] : [', with ', { mm: over }, ' over']),
      ...(count < places ? [`: ${places - count} too few`] : []),
      '.',
    ];
  },
  bits: ['bradPoint', 'forstner', 'twist', 'steppedDrill'],
  bitMm: ({ diameter }) => diameter.mm,
  by: 'drill',
  order: 30,
  caution:
    'Back up the exit; clamp small pieces, never hold them by hand under a drill. The machine’s manual comes first.',
};

declare module '../model' {
  interface FeatureKinds {
    hole: HoleFeature;
  }
}
