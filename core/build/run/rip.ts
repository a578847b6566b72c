import type { Saw } from '../../kit';
import {
  across,
  blankVolume,
  book,
  boxBlank,
  emptyLedger,
  sawCut,
  splitBlank,
  toOrigin,
  type Blank,
  type Ledger,
  type Origin,
  type Rigid,
} from '../../solid';
import { chance, hash } from '../../wood';
import type { BoardStock, GrainCut, RipStep, Slot } from '../document';
import { settingErrors } from '../tolerance';
import type { WorkPiece } from '../timeline';
import { isStopped, sawOf, stopAt, type Outcome, type RunContext } from './context';

/** A whole number from a text, the same on every machine. */
export const seedOf = (text: string): number => {
  let h = 7;
  for (let i = 0; i < text.length; i++) h = hash(h, text.charCodeAt(i));
  return h % 9973;
};

const GRAIN_TURN: Record<GrainCut, [number, number]> = {
  flat: [-0.18, 0.18],
  rift: [0.6, 0.95],
  quarter: [1.38, 1.72],
};

/**
 * Where in its log a board lay: the pith under the middle of its face (flat-sawn) or beside its edge (quartersawn),
 * at a distance that the seed decides. Wood whose log nobody has looked at is drawn from such a guess.
 */
export function placeInLog(seed: number, width: number, thickness: number, grain?: GrainCut): Rigid {
  const pick = chance(seed, 1);
  const cut: GrainCut = grain ?? (pick < 0.55 ? 'flat' : pick < 0.8 ? 'rift' : 'quarter');
  const [from, to] = GRAIN_TURN[cut];
  const turned = from + (to - from) * chance(seed, 2) + (chance(seed, 3) < 0.5 ? 0 : Math.PI);
  const c = Math.cos(turned);
  const s = Math.sin(turned);
  const reach = Math.hypot(width, thickness) / 2;
  const pith = reach + 25 + 90 * chance(seed, 4);
  return [
    0,
    c,
    -s,
    (-c * width + s * thickness) / 2,
    0,
    s,
    c,
    pith - (s * width + c * thickness) / 2,
    1,
    0,
    0,
    400 * chance(seed, 5),
  ];
}

/** Rips an assembly's strips: from the boards named, or from wood not yet chosen, which then counts as wood in. */
export function runRip(step: RipStep, context: RunContext): Outcome {
  const assembly = context.build.assemblies.find(({ id }) => id === step.assembly);
  if (!assembly)
    return stopAt(step, 'no-such-assembly', [`There is no lay-up “${step.assembly}” to rip strips for.`], {});
  if (assembly.slots.length === 0)
    return stopAt(
      step,
      'no-strips',
      [`“${assembly.name}” has no strips. Add one to go on.`],
      { strips: 0 },
      {
        fixes: [{ label: 'Add a strip', edit: { do: 'addStrip', step: step.id } }],
      },
    );
  const saw = sawOf(step, step.saw, context);
  if (isStopped(saw)) return saw;
  const pieces: WorkPiece[] = [];
  let lost = emptyLedger();
  let woodInMm3 = 0;
  const sawn = new Map<string, BoardState>();
  for (const [index, slot] of assembly.slots.entries()) {
    const bad = checkSlot(step, slot, index, saw, context);
    if (bad) return bad;
    const board = slot.strip?.board
      ? context.build.boards.find(({ id }) => id === slot.strip?.board)
      : undefined;
    if (slot.strip?.board && !board)
      return stopAt(
        step,
        'no-such-board',
        [`Strip ${index + 1} is to come from board “${slot.strip.board}”, which is not on this job.`],
        { strip: index + 1 },
      );
    let blank: Blank;
    if (board) {
      let state = sawn.get(board.id);
      if (!state) {
        state = startBoard(board);
        woodInMm3 += blankVolume(state.rest);
        sawn.set(board.id, state);
      }
      const taken = takeStrip(step, state, slot, index, saw);
      if ('stop' in taken) return taken;
      blank = taken.blank;
      lost = taken.lost(lost);
    } else {
      blank = looseStrip(slot);
      woodInMm3 += blankVolume(blank);
    }
    pieces.push({ id: slot.id, blank, errors: stripErrors(step, slot, saw, context) });
  }
  for (const { rest } of sawn.values()) lost = book(lost, 'offcut', rest);
  return { pieces, lost, woodInMm3 };
}

function checkSlot(step: RipStep, slot: Slot, index: number, saw: Saw, context: RunContext) {
  for (const name of ['length', 'width', 'thickness'] as const) {
    const mm = slot[name].mm;
    if (!(Number.isFinite(mm) && mm > 0))
      return stopAt(
        step,
        'no-size',
        [`Strip ${index + 1} has no ${name}.`],
        { strip: index + 1, [name]: mm },
        {
          fixes: [
            {
              label: `Remove strip ${index + 1}`,
              edit: { do: 'removeStrip', step: step.id, piece: slot.id },
            },
          ],
        },
      );
  }
  if (saw.kerf.mm > slot.width.mm)
    context.notes.push({
      code: 'kerf-thicker-than-strip',
      step: step.id,
      severity: 'warning',
      axis: 1,
      message: [
        `The kerf of ${saw.name}, `,
        { mm: saw.kerf.mm },
        `, is more than the width of strip ${index + 1}, `,
        { mm: slot.width.mm },
        ': more wood becomes dust than strip.',
      ],
      numbers: { kerf: saw.kerf.mm, width: slot.width.mm, strip: index + 1 },
      caution:
        'Very thin strips can be drawn into the blade slot: cut them on the far side of the blade against a stop, with a zero-clearance insert. The saw’s manual comes first.',
      fixes: thinnerSaws(step.id, saw, slot.width.mm, context),
    });
  return undefined;
}

/** Saws of the shop whose kerf is below a limit, as fixes. */
export const thinnerSaws = (step: string, saw: Saw, limitMm: number, context: RunContext) =>
  context.build.shop.saws
    .filter((other) => other.id !== saw.id && other.kerf.mm <= limitMm)
    .map((other) => ({ label: `Use ${other.name}`, edit: { do: 'useSaw' as const, step, saw: other.id } }));

interface BoardState {
  board: BoardStock;
  rest: Blank;
  used: number;
  strips: number;
}

function startBoard(board: BoardStock): BoardState {
  const seed = seedOf(board.log ?? board.id);
  const origin: Origin = { board: board.id, species: board.species, seed, shade: seedOf(board.id) };
  const size = [board.length.mm, board.width.mm, board.thickness.mm] as const;
  const rest = boxBlank(
    size,
    placeInLog(seed + seedOf(board.id), size[1], size[2], 'flat'),
    origin,
    board.id,
  );
  return { board, rest, used: 0, strips: 0 };
}

function takeStrip(step: RipStep, state: BoardState, slot: Slot, index: number, saw: Saw) {
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
      { strip: index + 1, needed: slot[name].mm, available: room, short: slot[name].mm - room },
      {
        axis: name === 'length' ? 0 : name === 'width' ? 1 : 2,
        fixes: [
          {
            label: `Take strip ${index + 1} from wood not yet chosen`,
            edit: { do: 'setSlot', step: step.id, piece: slot.id, change: { strip: {} } },
          },
          ...(room > 0
            ? [
                {
                  label: `Make strip ${index + 1} fit the board`,
                  edit: {
                    do: 'setSlot' as const,
                    step: step.id,
                    piece: slot.id,
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
  return boxBlank(size, placeInLog(seed, size[1], size[2], slot.grain), origin, slot.id);
}

function stripErrors(step: RipStep, slot: Slot, saw: Saw, { sources }: RunContext) {
  const fence = step.fence === 'shared' ? slot.width.mm.toFixed(4) : slot.id;
  const where = step.fence === 'shared' ? 'one fence setting' : 'its own fence setting';
  return [
    settingErrors(sources, `${step.id}:length`, 'length as crosscut', saw.setting),
    settingErrors(sources, `${step.id}:fence:${fence}`, `ripped at ${where}`, saw.setting),
    settingErrors(sources, `${step.id}:thickness`, 'thickness as bought', saw.setting),
  ] as const;
}
