import type { NewBoard, RackBoard } from '../../contract/board';
import { api } from './api';
import { keepChange, onOutbox, throwAway } from './outbox';
import { bare } from './sending';
import { store } from './store';

const MOST_UNDO = 100;

interface Change {
  id: string;
  before: NewBoard;
  mark?: string;
}

let past: Change[] = [];
let future: Change[] = [];
let complain: (reason: string | undefined) => void = () => {};

/** Who is told when a board could not be stored, and with nothing when one was. */
export const onRackTrouble = (tell: (reason: string | undefined) => void): void => void (complain = tell);

const boards = () => api.endpoints.boards.select()(store.getState()).data;
const find = (id: string) => boards()?.find((board) => board.id === id);

const put = (id: string, next: Partial<RackBoard>) =>
  store.dispatch(
    api.util.updateQueryData('boards', undefined, (list) => {
      const at = list.findIndex((board) => board.id === id);
      if (at >= 0) list[at] = next as never;
    }),
  );

onOutbox('board', {
  stored: ({ subject: id }, { version, latest, reply }) => {
    complain(undefined);
    const now = find(id);
    if (!now) return;
    const { version: _, ...whole } = reply as RackBoard;
    put(id, latest ? { ...now, ...whole, version } : { ...now, version });
  },
  conflicted: () => complain(undefined),
  refused: (draft, reason) => {
    complain(reason);
    void throwAway(draft).then(() => store.dispatch(api.util.invalidateTags(['Boards'])));
  },
  keptNowhere: () => complain('This browser cannot keep unsent changes; they are safe once they are stored.'),
});

function apply(id: string, next: NewBoard): void {
  const board = find(id);
  if (!board) return;
  const { version, reserved, history } = board;
  put(id, { ...next, id, version, history, ...(reserved ? { reserved } : {}) });
  keepChange('board', id, { name: `board ${next.label}`, version, content: next });
}

/**
 * Changes a board: at once on the screen, a moment later on the server. Changes with the same mark, one after the
 * other, are one step of undo. A change the server refuses brings back what the server has.
 */
export function changeBoard(id: string, change: Partial<NewBoard>, mark?: string): void {
  const board = find(id);
  if (!board) return;
  const before = bare(board);
  const last = past.at(-1);
  if (!(mark && last?.id === id && last.mark === mark))
    past = [...past.slice(-MOST_UNDO + 1), { id, before, mark }];
  future = [];
  const next = Object.entries({ ...before, ...change }).filter(([, value]) => value !== undefined);
  apply(id, Object.fromEntries(next) as unknown as NewBoard);
}

function step(from: Change[], to: Change[]): string | undefined {
  const change = from.pop();
  const board = change && find(change.id);
  if (!change || !board) return undefined;
  to.push({ id: change.id, before: bare(board) });
  apply(change.id, change.before);
  return change.id;
}

/** Takes the last change of a board back, or carries it out again; gives the board's id. */
export const undoBoard = (): string | undefined => step(past, future);
export const redoBoard = (): string | undefined => step(future, past);
