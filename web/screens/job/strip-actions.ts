import type { BuildDocument, Edit, Step } from '../../../core/document';
import { asGlueUp, assemblyOf, glueOf, roomOf, sparesOf } from '../../../core/steps';
import { layingOut, partChanged } from '../../../core/view';

/** What can be done to the chosen strip or slice, each with its key. */
export interface PieceAction {
  name: string;
  key: string;
  keyLabel: string;
  edit: Edit;
}

const TURN_KEYS = {
  endForEnd: { name: 'End for end', key: 'e', keyLabel: 'E' },
  rollOver: { name: 'Roll over', key: 'r', keyLabel: 'R' },
  quarter: { name: 'Quarter turn', key: 'q', keyLabel: 'Q' },
} as const;

/** The actions on a piece at a step; none where the step does not lay up pieces. */
export function pieceActions(
  build: BuildDocument,
  step: Step,
  piece: string,
  laid?: readonly string[],
): PieceAction[] {
  const held = laid && asGlueUp(step) ? layingOut(build, { step: step.id, laid, piece }) : undefined;
  const back: PieceAction[] =
    held && (laid?.length ?? 0) > 1 ? [{ name: 'Hold back', key: 'h', keyLabel: 'H', edit: held }] : [];
  const own = ownActions(build, step, piece);
  const byHand = own.length === 0 && laid ? handActions(build, step, piece, laid) : [];
  return [...own, ...byHand, ...back];
}

/** What can be done to a part that came to its glue-up from some line of its own. */
function handActions(
  build: BuildDocument,
  step: Step,
  piece: string,
  laid: readonly string[],
): PieceAction[] {
  const of = { step: step.id, laid, piece };
  const at = laid.indexOf(piece);
  const all: (Omit<PieceAction, 'edit'> & { edit: Edit | undefined })[] = [
    { ...TURN_KEYS.endForEnd, edit: partChanged(build, of, { turn: 'endForEnd' }) },
    { ...TURN_KEYS.rollOver, edit: partChanged(build, of, { turn: 'rollOver' }) },
    { name: 'Move up', key: '[', keyLabel: '[', edit: partChanged(build, of, { to: at - 1 }) },
    { name: 'Move down', key: ']', keyLabel: ']', edit: partChanged(build, of, { to: at + 1 }) },
  ];
  return all.flatMap(({ edit, ...action }) => (edit ? [{ ...action, edit }] : []));
}

function ownActions(build: BuildDocument, step: Step, piece: string): PieceAction[] {
  const isStrip = assemblyOf(build, step.id)?.slots.some(({ id }) => id === piece);
  const glue = glueOf(build, step.id, piece);
  if (isStrip && glue)
    return [
      {
        name: 'End for end',
        key: 'e',
        keyLabel: 'E',
        edit: { do: 'turnPart', step: glue.id, piece, turn: 'endForEnd' },
      },
      {
        name: 'Roll over',
        key: 'r',
        keyLabel: 'R',
        edit: { do: 'turnPart', step: glue.id, piece, turn: 'rollOver' },
      },
      {
        name: 'Duplicate',
        key: 'd',
        keyLabel: 'D',
        edit: { do: 'duplicateStrip', step: glue.id, strip: piece },
      },
      { name: 'Lock', key: 'l', keyLabel: 'L', edit: { do: 'lockPart', step: glue.id, piece } },
      {
        name: 'Remove',
        key: 'Delete',
        keyLabel: 'Del',
        edit: { do: 'removeStrip', step: glue.id, strip: piece },
      },
      ...moves(build, glue.id, piece),
    ];
  if (roomOf(step).each)
    return [
      {
        name: step.spoilt?.includes(piece) ? 'Good after all' : 'Spoilt',
        key: 'x',
        keyLabel: 'X',
        edit: { do: 'spoil', step: step.id, piece },
      },
    ];
  const own = asGlueUp(step);
  const spare: PieceAction[] =
    own?.parts?.some((part) => part.piece === piece) && sparesOf(build, own).length > 0
      ? [
          {
            name: 'Swap with a spare',
            key: 's',
            keyLabel: 'S',
            edit: { do: 'swapSpare', step: step.id, piece },
          },
        ]
      : [];
  if (own?.turns) {
    const part = Number(piece.split('.').at(-1));
    const nth = own.parts ? own.parts.findIndex((p) => p.piece === piece) + 1 : part;
    if (nth > 0)
      return [
        {
          ...TURN_KEYS[own.turns.turn],
          edit: { do: 'flipSlice', step: step.id, part: nth },
        },
        ...spare,
      ];
  }
  return spare;
}

function moves(build: BuildDocument, glue: string, piece: string): PieceAction[] {
  const step = glueOf(build, glue);
  const order =
    step?.parts?.map((part) => part.piece) ?? assemblyOf(build, glue)?.slots.map(({ id }) => id) ?? [];
  const at = order.indexOf(piece);
  const move = (to: number, name: string, key: string, keyLabel: string): PieceAction[] =>
    at < 0 || to < 0 || to >= order.length
      ? []
      : [{ name, key, keyLabel, edit: { do: 'moveStrip', step: glue, from: at, to } }];
  return [...move(at - 1, 'Move up', '[', '['), ...move(at + 1, 'Move down', ']', ']')];
}

/** The action that a key stands for on a piece. */
export const pieceAction = (
  build: BuildDocument,
  step: Step,
  piece: string,
  { key, laid }: { key: string; laid?: readonly string[] | undefined },
): PieceAction | undefined =>
  pieceActions(build, step, piece, laid).find(
    (action) => action.key === (key.length === 1 ? key.toLowerCase() : key === 'Backspace' ? 'Delete' : key),
  );
