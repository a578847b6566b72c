import { greatestSize } from '../sizes';
import { counted } from '../../units';
import type { StepRoom } from '../room';
import type { StepBase } from '../../document';
import { emptyLedger, type Turn, turnBlank } from '../../solid';

import type { Outcome } from '../context';
import type { WorkPiece } from '../timeline';
import type { Errors } from '../tolerance';

/** A named turn of every piece. */
export interface TurnStep extends StepBase {
  kind: 'turn';
  turn: Turn;
}

export const TURN_NAMES: Record<Turn, string> = {
  standOnEnd: 'Stand on end',
  tipOnEdge: 'Tip on edge',
  endForEnd: 'End for end',
  rollOver: 'Roll over',
};

/** What a turn does to the sizes of a piece. */
export const TURN_WORDS: Record<Turn, string> = {
  standOnEnd: 'length and thickness change places',
  tipOnEdge: 'width and thickness change places',
  endForEnd: 'no size changes',
  rollOver: 'no size changes',
};

/** A named turn: sizes change places, nothing is taken. */
export function runTurn(step: TurnStep, inputs: readonly WorkPiece[]): Outcome {
  const permuted = (e: readonly [Errors, Errors, Errors]): readonly [Errors, Errors, Errors] => {
    if (step.turn === 'standOnEnd') return [e[2], e[1], e[0]];
    return step.turn === 'tipOnEdge' ? [e[0], e[2], e[1]] : e;
  };
  const pieces = inputs.map((piece) => ({
    ...piece,
    blank: turnBlank(piece.blank, step.turn),
    errors: permuted(piece.errors),
  }));
  return { pieces, lost: emptyLedger() };
}

/** The room of turning. */
export const turn: StepRoom<TurnStep> = {
  kind: 'turn',
  name: 'Turn',
  group: 'Turn',
  says: 'Turns every piece, so that sizes change places; nothing is taken off.',
  title: ({ turn: how }) => TURN_NAMES[how],
  subtitle: ({ turn: how }, { count }) =>
    `${count === undefined ? '–' : counted(count, 'piece')}: ${TURN_WORDS[how]}`,
  fields: {
    turn: {
      is: 'choice',
      label: 'Turn',
      options: (Object.keys(TURN_NAMES) as Turn[]).map((value) => ({
        value,
        label: `${TURN_NAMES[value]}: ${TURN_WORDS[value]}`,
      })),
    },
  },
  flow: { turns: true },
  begin: (at) => ({
    // Slices lie with their ends to the sides: they are stood up. Anything else is laid on its edge.
    turn:
      greatestSize(at.pieces, 'length') < greatestSize(at.pieces, 'thickness') ? 'standOnEnd' : 'tipOnEdge',
  }),
  run: runTurn,
  operations: (step, { entry }) => [
    {
      say: [
        `${TURN_NAMES[step.turn]}: ${counted(entry.pieces.length, 'piece')}. ${TURN_WORDS[step.turn][0].toUpperCase()}${TURN_WORDS[step.turn].slice(1)}.`,
      ],
    },
  ],
  labour: { setUp: 0, each: 0 },
};

declare module '../../document/step' {
  interface StepKinds {
    turn: TurnStep;
  }
}
