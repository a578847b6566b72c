import type { NewBoard, RackBoard } from '../../contract/board';
import { api, problemText } from './api';
import { store } from './store';

/** Pause after a change before it is sent, so that typing is one change, ms. */
const PAUSE_MS = 350;
const MOST_UNDO = 100;

interface Change {
  id: string;
  before: NewBoard;
  mark?: string;
}

const timers = new Map<string, ReturnType<typeof setTimeout>>();
const sending = new Map<string, Promise<unknown>>();
let past: Change[] = [];
let future: Change[] = [];
let complain: (reason: string) => void = () => {};

/** Who is told when a board could not be stored. */
export const onRackTrouble = (tell: (reason: string) => void): void => void (complain = tell);

const boards = () => api.endpoints.boards.select()(store.getState()).data;
const find = (id: string) => boards()?.find((board) => board.id === id);

/** A board without what only the rack knows. */
export function bare(board: RackBoard): NewBoard {
  const { id: _, version: _v, reserved: _r, history: _h, taken: _t, ...rest } = board;
  return rest;
}

const put = (id: string, next: Partial<RackBoard>) =>
  store.dispatch(
    api.util.updateQueryData('boards', undefined, (list) => {
      const at = list.findIndex((board) => board.id === id);
      if (at >= 0) list[at] = next as never;
    }),
  );

async function send(id: string): Promise<void> {
  const board = find(id);
  if (!board) return;
  const body = bare(board);
  const result = await store.dispatch(
    api.endpoints.saveBoard.initiate({ id, version: board.version, board: body }),
  );
  const now = find(id);
  if (result.data && now) put(id, { ...now, version: result.data.version });
  else if (result.error) {
    complain(problemText(result.error));
    const { status } = result.error as { status?: unknown };
    // What the server refuses is shown as the server has it; while it is away, the change waits and is sent again.
    if (typeof status === 'number' && status < 500) store.dispatch(api.util.invalidateTags(['Boards']));
    else later(id, 2000);
  }
}

function later(id: string, ms: number): void {
  clearTimeout(timers.get(id));
  timers.set(
    id,
    setTimeout(() => {
      timers.delete(id);
      sending.set(
        id,
        (sending.get(id) ?? Promise.resolve()).then(() => send(id)),
      );
    }, ms),
  );
}

function apply(id: string, next: NewBoard): void {
  const board = find(id);
  if (!board) return;
  const { version, reserved, history } = board;
  put(id, { ...next, id, version, history, ...(reserved ? { reserved } : {}) });
  later(id, PAUSE_MS);
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

/** Sends what is still waiting when the page goes away. */
addEventListener('pagehide', () => {
  for (const [id, timer] of timers) {
    clearTimeout(timer);
    const board = find(id);
    if (board)
      void fetch(`/api/boards/${id}`, {
        method: 'PUT',
        keepalive: true,
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ version: board.version, board: bare(board) }),
      }).catch(() => {});
  }
  timers.clear();
});
