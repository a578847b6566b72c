import type { Length } from '../../../units';
import {
  fitLength,
  type FittingKind,
  type FitProblem,
  HELD_AT,
  heldFast,
  type HeldAt,
  placeMoves,
  sideMoves,
  slotFor,
  TAKEN_UP_MM,
} from '../kind';
import type { FittingBase } from '../model';

/** A member across the end of a panel, on a tenon: it keeps the panel flat and lets it move. */
export interface Breadboard extends FittingBase {
  kind: 'breadboard';
  ends: 'both' | 'one';
  /** Width of the member, and how far the tenon goes into it. */
  width: Length;
  tenon: Length;
  held: HeldAt;
  /** Room past the tenon at each free end of its groove. */
  relief: Length;
  /** Pins or bolts besides the one where it is held: diameter, how far out the outermost is, how long its slot. */
  pin: Length;
  outermost: Length;
  slot: Length;
  spare: Length;
  /** The whole, ends and all, where it must be something. */
  whole?: Length;
  /** How far the hole in the tenon is set back, to draw it tight. */
  drawbore?: Length;
  /** When its ends are made flush with the edges. */
  flush: 'fitting' | 'dry' | 'damp';
}

/** A core within this of what it must be is as long as it must be, mm. */
const SAME_MM = 0.5;
/** A tenon’s hole is set back by no more than this share of the pin, or the pin breaks (common practice). */
const MOST_DRAWBORE = 0.25;

export const breadboard: FittingKind<Breadboard> = {
  kind: 'breadboard',
  name: 'Breadboard end',
  says: 'A member across the end of a panel: glued in the middle, pinned through slots, so that the panel can move.',
  fields: {
    ends: {
      is: 'choice',
      label: 'At',
      options: [
        { value: 'both', label: 'Both ends' },
        { value: 'one', label: 'One end' },
      ],
    },
    whole: { ...fitLength('Whole length wanted, with its ends', 30_000), optional: true },
    held: HELD_AT,
    width: fitLength('Width of the member', 1000, 1),
    tenon: fitLength('Tenon into it', 500),
    relief: fitLength('Relief at each free end', 200),
    pin: fitLength('Pin or bolt', 100, 0.5),
    outermost: fitLength('Outermost pin, from where it is held'),
    slot: fitLength('Its slot, in all', 300),
    spare: fitLength('To spare in a slot', 50),
    drawbore: { ...fitLength('Drawbore offset', 20), optional: true },
    flush: {
      is: 'choice',
      label: 'Made flush',
      options: [
        { value: 'fitting', label: 'When it is fitted' },
        { value: 'dry', label: 'In the driest month' },
        { value: 'damp', label: 'In the dampest month' },
      ],
    },
  },
  begin: (at) => {
    const [, width, thickness] = at.size;
    const own = { held: 'middle' as const };
    const outermost = width / 2 - Math.min(60, width / 6);
    const pin = thickness > 20 ? 10 : 6;
    return {
      ends: 'both',
      ...own,
      width: { mm: Math.min(110, Math.max(50, width / 8)) },
      tenon: { mm: Math.min(45, Math.max(20, width / 18)) },
      relief: { mm: at.up(sideMoves('middle', at).out + 0.5) },
      pin: { mm: pin },
      outermost: { mm: outermost },
      slot: { mm: at.up(slotFor(pin, placeMoves('middle', outermost, at), 1)) },
      spare: { mm: 1 },
      flush: 'fitting',
    };
  },
  report: (own, at) => {
    const { ends, width, tenon, whole, held, relief, pin, outermost, slot, spare, drawbore, flush } = own;
    const [length, wide] = at.size;
    const n = ends === 'both' ? 2 : 1;
    const side = sideMoves(held, at);
    const all = at.moves(1);
    const needs = slotFor(pin.mm, placeMoves(held, outermost.mm, at), spare.mm);
    const problems: FitProblem<Breadboard>[] = [];
    const core = whole && whole.mm > 0 ? coreLength(whole.mm, width.mm, tenon.mm, n) : length;
    if (whole && Math.abs(core - length) > SAME_MM)
      problems.push({
        code: 'does-not-fit',
        severity: 'warning',
        message: [
          'For a whole of ',
          whole,
          ' the core must be ',
          { mm: core },
          ' long, tenons and all; it is ',
          { mm: length },
          '.',
        ],
        numbers: { core, length, whole: whole.mm },
        fixes: [
          {
            label: 'Plan the core as long as it must be',
            edit: { do: 'replan', change: { length: { aim: 'fixed', value: { mm: core } } } },
          },
          {
            label: 'Take the whole as it comes',
            change: { whole: { mm: length + n * (width.mm - tenon.mm) } },
          },
        ],
      });
    const fast = held === 'all' && all.out + all.in > TAKEN_UP_MM;
    if (fast)
      problems.push(
        heldFast('The breadboard end', all, [
          { label: 'Glue it in the middle only', change: { held: 'middle' } },
        ]),
      );
    else {
      if (relief.mm + 1e-9 < side.out)
        problems.push({
          code: 'relief-short',
          severity: 'warning',
          message: [
            'Held ',
            held === 'middle' ? 'in the middle' : `at the ${held} edge`,
            ', the tenon goes ',
            { mm: side.out },
            ' out at its free end in the dampest month, and the relief is ',
            relief,
            ': short by ',
            { mm: side.out - relief.mm },
            '.',
          ],
          numbers: { needed: side.out, relief: relief.mm, short: side.out - relief.mm },
          fixes: [
            { label: 'Cut the relief as long as it moves', change: { relief: { mm: at.up(side.out) } } },
          ],
        });
      if (slot.mm + 1e-9 < needs)
        problems.push({
          code: 'slot-short',
          severity: 'warning',
          message: [
            'The slot of the outermost pin must be ',
            { mm: needs },
            ' long for the pin, the movement both ways and what is to spare; it is ',
            slot,
            ': short by ',
            { mm: needs - slot.mm },
            '.',
          ],
          numbers: { needed: needs, slot: slot.mm, short: needs - slot.mm },
          fixes: [{ label: 'Cut the slot as long as it must be', change: { slot: { mm: at.up(needs) } } }],
        });
    }
    if (drawbore && drawbore.mm > MOST_DRAWBORE * pin.mm)
      problems.push({
        code: 'does-not-fit',
        severity: 'warning',
        message: [
          'A hole set back by ',
          drawbore,
          ' is more than a quarter of a pin of ',
          pin,
          ': the pin breaks instead of drawing the shoulder tight.',
        ],
        numbers: { offset: drawbore.mm, pin: pin.mm },
        fixes: [
          {
            label: 'Set it back by an eighth of the pin',
            change: { drawbore: { mm: pin.mm / 8 } },
          },
        ],
      });
    const spareAt = flush === 'damp' ? all.out : 0;
    return {
      problems,
      facts: [
        {
          name: `With ${n === 2 ? 'both ends' : 'one end'} the whole is`,
          says: [
            { mm: length + n * (width.mm - tenon.mm) },
            ' long; the core, tenons and all, ',
            { mm: length },
          ],
        },
        {
          name: 'The core against its ends',
          says: [
            'stands out by up to ',
            { mm: side.out },
            ' a side when damp, back by ',
            { mm: side.in },
            ' when dry',
          ],
          state: side.out + side.in < TAKEN_UP_MM ? 'met' : 'close',
        },
        {
          name: 'Relief at each free end',
          says: ['needs ', { mm: side.out }, ', has ', relief],
          state: relief.mm + 1e-9 < side.out ? 'broken' : 'met',
        },
        {
          name: 'Slot of the outermost pin',
          says: ['needs ', { mm: needs }, ', has ', slot],
          state: slot.mm + 1e-9 < needs ? 'broken' : 'met',
        },
        {
          name: 'Length of the member',
          says:
            flush === 'fitting'
              ? [{ mm: wide }, ', as wide as the core when it is fitted']
              : flush === 'damp'
                ? [
                    { mm: wide + spareAt },
                    ': ',
                    { mm: spareAt },
                    ' to spare, made flush in the dampest month',
                  ]
                : [{ mm: wide }, ': made flush in the driest month, ', { mm: all.in }, ' comes off'],
        },
        ...(drawbore && drawbore.mm > 0
          ? [
              {
                name: 'Drawbore',
                says: ['hole in the tenon ', drawbore, ' nearer to the shoulder; only the middle pin draws'],
              },
            ]
          : []),
      ],
    };
  },
};

declare module '../model' {
  interface FittingKinds {
    breadboard: Breadboard;
  }
}

/** Length of the core of a piece so long in all, with members so wide on tenons so deep: L - n b + n t, mm. */
export const coreLength = (wholeMm: number, memberMm: number, tenonMm: number, ends = 2): number =>
  wholeMm - ends * memberMm + ends * tenonMm;
