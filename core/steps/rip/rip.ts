import { type BoardStock, type Finding, LONGEST_BOARD_MM, type Slot, Refusal } from '../../document';
import { narrowRipOf, type Saw } from '../../kit';
import {
  across,
  type Blank,
  blankVolume,
  book,
  boxBlank,
  emptyLedger,
  type Ledger,
  mergeLedgers,
  type Origin,
  sawCut,
  splitBlank,
  toOrigin,
} from '../../solid';
import { counted } from '../../units';
import { isStopped, type Outcome, type RunContext, sawOf, stopAt, thinnerSaws } from '../context';
import { perSize } from '../operation';
import type { StepRoom } from '../room';
import type { WorkPiece } from '../timeline';
import { noiseOf, settingErrors } from '../tolerance';
import { cutBoard, faultsOnStrips } from './boards';
import { boardBlank, placeInLog, seedOf } from './log';
import type { RipStep } from './step';

/** Rips an assembly's strips: from the boards named, or from wood not yet chosen, which then counts as wood in. */
export function runRip(step: RipStep, context: RunContext): Outcome {
  const assembly = context.build.assemblies.find(({ id }) => id === step.assembly);
  if (!assembly)
    return stopAt(step, 'no-such-assembly', [`There is no lay-up “${step.assembly}” to rip strips for.`], {
      numbers: {
        assemblies: context.build.assemblies.length,
      },
    });
  if (assembly.slots.length === 0)
    return stopAt(step, 'no-strips', [`“${assembly.name}” has no strips. Add one to go on.`], {
      numbers: { strips: 0 },
      fixes: [{ label: 'Add a strip', edit: { do: 'addStrip', step: step.id } }],
    });
  const saw = sawOf(step, step.saw, context);
  if (isStopped(saw)) return saw;
  const pieces: WorkPiece[] = [];
  let lost = emptyLedger();
  let woodInMm3 = 0;
  const sawn = new Map<string, BoardState>();
  const notes = stripNotes(step, assembly.slots, saw, context);
  for (const [index, slot] of assembly.slots.entries()) {
    const bad = checkSlot(step, slot, index);
    if (bad) return bad;
    const board = slot.strip?.board
      ? context.build.boards.find(({ id }) => id === slot.strip?.board)
      : undefined;
    if (slot.strip?.board && !board)
      return stopAt(
        step,
        'no-such-board',
        [`Strip ${index + 1} is to come from board “${slot.strip.board}”, which is not on this job.`],
        { numbers: { strip: index + 1 } },
      );
    let blank: Blank;
    if (board && slot.strip?.at) {
      let cut = context.cutBoards.get(board.id);
      if (!cut) {
        const sawn = cutBoard(step, board, context);
        if ('stop' in sawn) return sawn;
        cut = sawn;
        context.cutBoards.set(board.id, cut);
        context.notes.push(...faultsOnStrips(step, board, context));
        woodInMm3 += cut.woodInMm3;
        lost = mergeLedgers(lost, cut.lost);
      }
      const waiting = cut.strips.get(slot.id);
      if (!waiting) throw new Error(`run: board ${board.id} has no strip ${slot.id}`);
      blank = waiting;
      woodInMm3 += blankVolume(blank);
    } else if (board) {
      let state = sawn.get(board.id);
      if (!state) {
        state = startBoard(board);
        woodInMm3 += blankVolume(state.rest);
        sawn.set(board.id, state);
      }
      const taken = takeStrip(step, state, { slot, index, saw });
      if ('stop' in taken) return taken;
      blank = taken.blank;
      lost = taken.lost(lost);
    } else {
      blank = looseStrip(slot);
      woodInMm3 += blankVolume(blank);
    }
    pieces.push({ id: slot.id, blank, errors: stripErrors(step, slot, saw, context) });
  }
  context.notes.push(...notes);
  for (const { rest } of sawn.values()) lost = book(lost, 'offcut', rest);
  return { pieces, lost, woodInMm3 };
}

function checkSlot(step: RipStep, slot: Slot, index: number) {
  for (const name of ['length', 'width', 'thickness'] as const) {
    const mm = slot[name].mm;
    if (!(Number.isFinite(mm) && mm > 0))
      return stopAt(step, 'no-size', [`Strip ${index + 1} has no ${name}.`], {
        numbers: { strip: index + 1, [name]: mm },
        fixes: [
          {
            label: `Remove strip ${index + 1}`,
            edit: { do: 'removeStrip', step: step.id, strip: slot.id },
          },
        ],
      });
  }
  return undefined;
}

/** Strips as numbers in words: “Strip 3”, “4 strips”, the one that is worst named with the number. */
const theseStrips = (found: readonly number[]): string =>
  found.length === 1 ? `Strip ${found[0]} is` : `${found.length} strips are`;

/** Strips that ask for care, once for each reason, with the worst of them: narrow ones, and longer ones than are sold. */
function stripNotes(step: RipStep, slots: readonly Slot[], saw: Saw, { build }: RunContext): Finding[] {
  const narrow = narrowRipOf(build.shop).mm;
  const numbered = slots.map((slot, i) => ({ strip: i + 1, width: slot.width.mm, length: slot.length.mm }));
  const out: Finding[] = [];
  const dust = numbered.filter(({ width }) => saw.kerf.mm > width);
  const thin = numbered.filter(({ width }) => saw.kerf.mm <= width && width < narrow - noiseOf(build.shop));
  const long = numbered.filter(({ length }) => length > LONGEST_BOARD_MM);
  const least = (list: typeof numbered) => list.reduce((a, b) => (b.width < a.width ? b : a));
  const these = (list: typeof numbered) => theseStrips(list.map(({ strip }) => strip));
  if (dust.length > 0) {
    const { strip, width } = least(dust);
    out.push({
      code: 'kerf-thicker-than-strip',
      step: step.id,
      severity: 'warning',
      dimension: 'width',
      message: [
        `${these(dust)} narrower than the kerf of ${saw.name}, `,
        { mm: saw.kerf.mm },
        ': the narrowest is ',
        { mm: width },
        '. More wood becomes dust than strip.',
      ],
      numbers: { kerf: saw.kerf.mm, width, strip, strips: dust.length },
      caution:
        'Very thin strips can be drawn into the blade slot: cut them on the far side of the blade against a stop, with a zero-clearance insert. The saw’s manual comes first.',
      fixes: thinnerSaws(step.id, saw, width, build.shop.saws),
    });
  }
  if (thin.length > 0) {
    const { strip, width } = least(thin);
    out.push({
      code: 'thin-strip',
      step: step.id,
      severity: 'note',
      dimension: 'width',
      message: [
        `${these(thin)} ripped to less than `,
        { mm: narrow },
        thin.length === 1 ? ': ' : ', the narrowest to ',
        { mm: width },
        '.',
      ],
      numbers: { width, thin: narrow, strip, strips: thin.length },
      caution:
        'Rip it on the far side of the blade against a thin-strip stop, or plane a thicker one down on a carrier; a thin strip between blade and fence can be thrown back. The saw’s manual comes first.',
      fixes: [],
    });
  }
  if (long.length > 0) {
    const longest = Math.max(...long.map(({ length }) => length));
    out.push({
      code: 'longer-than-boards',
      step: step.id,
      severity: 'warning',
      dimension: 'length',
      message: [
        `${these(long)} to be up to `,
        { mm: longest },
        ' long; boards are seldom sold longer than ',
        { mm: LONGEST_BOARD_MM },
        '. Make it in two panels, or butt lengths end to end.',
      ],
      numbers: { length: longest, longest: LONGEST_BOARD_MM, strip: long[0].strip, strips: long.length },
      fixes: [],
    });
  }
  return out;
}

interface BoardState {
  board: BoardStock;
  rest: Blank;
  used: number;
  strips: number;
}

const startBoard = (board: BoardStock): BoardState => ({
  board,
  rest: boardBlank(board),
  used: 0,
  strips: 0,
});

function takeStrip(
  step: RipStep,
  state: BoardState,
  { slot, index, saw }: { slot: Slot; index: number; saw: Saw },
) {
  const { board } = state;
  for (const name of ['length', 'width', 'thickness'] as const) {
    const room = board[name].mm - (name === 'width' ? state.used : 0);
    if (slot[name].mm <= room + 1e-6) continue;
    const before =
      name === 'width' && state.strips > 0 ? `, after ${state.strips} strips and their kerfs` : '';
    return stopAt(
      step,
      'strip-larger-than-board',
      [
        `Strip ${index + 1} needs `,
        { mm: slot[name].mm },
        ` of ${name}, but board ${board.label} has `,
        { mm: Math.max(0, room) },
        `${before}: short by `,
        { mm: slot[name].mm - room },
        '.',
      ],
      {
        numbers: { strip: index + 1, needed: slot[name].mm, available: room, short: slot[name].mm - room },
        dimension: name,
        fixes: [
          {
            label: `Take strip ${index + 1} from wood not yet chosen`,
            edit: { do: 'setSlot', step: step.id, strip: slot.id, change: { strip: {} } },
          },
          ...(room > 0
            ? [
                {
                  label: `Make strip ${index + 1} fit the board`,
                  edit: {
                    do: 'setSlot' as const,
                    step: step.id,
                    strip: slot.id,
                    change: { [name]: { mm: room } },
                  },
                },
              ]
            : []),
        ],
      },
    );
  }
  const near = state.used;
  const ripped = sawCut(state.rest, across(1, near + slot.width.mm), saw.kerf.mm);
  const cut = sawCut(ripped.before, across(0, slot.length.mm), saw.kerf.mm);
  const [kept, above] = splitBlank(cut.before, across(2, slot.thickness.mm));
  state.rest = ripped.after;
  state.used += slot.width.mm + saw.kerf.mm;
  state.strips += 1;
  const lost = (ledger: Ledger) =>
    book(
      book(book(book(ledger, 'kerf', ripped.kerf), 'kerf', cut.kerf), 'offcut', cut.after),
      'shaving',
      above,
    );
  return {
    blank: toOrigin({ cells: kept.cells.map((cell) => ({ ...cell, id: `${board.id}/${slot.id}` })) }),
    lost,
  };
}

function looseStrip(slot: Slot): Blank {
  const seed = slot.strip?.seed ?? seedOf(slot.id);
  const size = [slot.length.mm, slot.width.mm, slot.thickness.mm] as const;
  const origin: Origin = { board: `wood for ${slot.id}`, species: slot.species, seed, shade: seed };
  return boxBlank(size, placeInLog(seed, size[1], size[2], slot), origin, slot.id);
}

function stripErrors(step: RipStep, slot: Slot, saw: Saw, { sources }: RunContext) {
  const fence = step.fence === 'shared' ? slot.width.mm.toFixed(4) : slot.id;
  const where = step.fence === 'shared' ? 'one fence setting' : 'its own fence setting';
  return [
    settingErrors(sources, `${step.id}:length`, 'length as crosscut', saw.setting, saw.id),
    settingErrors(sources, `${step.id}:fence:${fence}`, `ripped at ${where}`, saw.setting, saw.id),
    settingErrors(sources, `${step.id}:thickness`, 'thickness as bought', saw.setting),
  ] as const;
}

/** The room of ripping. */
export const rip: StepRoom<RipStep> = {
  kind: 'rip',
  name: 'Rip',
  group: 'Stock',
  says: 'Saws the strips of a lay-up from their boards, along the grain.',
  subtitle: (_step, { strips }) => counted(strips, 'strip'),
  sawing: { work: () => ['rip'], through: () => 'thickness', setBy: 'fence' },
  fields: {
    assembly: { is: 'id', of: 'assembly' },
    saw: { is: 'id', of: 'saw', label: 'Saw', carried: true },
    fence: {
      is: 'choice',
      label: 'Fence',
      fallback: 'shared',
      carried: true,
      options: [
        { value: 'shared', label: 'One setting a width' },
        { value: 'separate', label: 'Set for each' },
      ],
    },
  },
  flow: { source: true },
  begin: () => {
    throw new Refusal(['Strips begin a line of their own: choose their wood and sizes first.']);
  },
  run: (step, _inputs, context) => runRip(step, context),
  took: (_step, kerfMm) => [{ from: 'kerf', mm: kerfMm }],
  operations: (_step, played) =>
    perSize(played, 1, { verb: 'Rip', noun: ['strip', 'strips'], dial: 'fence at' }),
  labour: { setUp: 10, each: 2 },
  caution:
    'Riving knife, guard and push stick; never stand behind the strip. The saw’s manual and local rules come first.',
};

declare module '../../document/finding' {
  interface FindingCodes {
    /** There is no lay-up to rip strips for. */
    'no-such-assembly': true;
    /** A lay-up has no strips. */
    'no-strips': true;
    /** A strip or slice has no size. */
    'no-size': true;
    /** A strip is to come from a board that is not on the job. */
    'no-such-board': true;
    /** A strip is narrower than the kerf that frees it. */
    'kerf-thicker-than-strip': true;
    /** A strip is ripped narrower than the shop rips without care. */
    'thin-strip': true;
    /** Strips are longer than boards are sold. */
    'longer-than-boards': true;
    /** A strip is larger than what its board has left. */
    'strip-larger-than-board': true;
  }
}
