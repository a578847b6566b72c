import 'fake-indexeddb/auto';
import { describe, expect, it, vi } from 'vitest';
import type { RackBoard } from '../../contract/board';
import { answer, eachAlone, playServer, settle } from './played.fixture';

/* The rack's edits against a server that is played here: it keeps versions, refuses late ones, and can be away. */
const board = (): RackBoard => ({
  id: 'b1',
  label: '7',
  species: 'ash_white',
  length: { mm: 1800 },
  width: { mm: 150 },
  thickness: { mm: 38 },
  version: 1,
  history: [{ when: '2026-11-01T00:00:00Z', what: 'came onto the rack' }],
  reserved: { job: 'j', name: 'a shelf' },
});

interface Played {
  /** Reading is answered with what stood when it was asked, and only once this is done. */
  reading?: Promise<void>;
  stored: RackBoard;
  saves: { version: number; board: Partial<RackBoard> }[];
  away: boolean;
}

async function open() {
  vi.resetModules();
  const server: Played = { stored: board(), saves: [], away: false };
  playServer({
    isAway: () => server.away,
    read: async () => {
      const now = [server.stored];
      await server.reading;
      return answer(now);
    },
    write: (body) => {
      const save = body as Played['saves'][number];
      server.saves.push(save);
      if (save.version !== server.stored.version)
        return answer({ status: 409, detail: 'changed in another tab', current: server.stored }, 409);
      if (save.board.label === 'taken') return answer({ status: 409, detail: 'Number taken' }, 409);
      server.stored = { ...server.stored, ...save.board, version: save.version + 1 };
      return answer(server.stored);
    },
  });
  const [{ api }, { store }, rack] = await Promise.all([
    import('./api'),
    import('./store'),
    import('./rack'),
  ]);
  await store.dispatch(api.endpoints.boards.initiate());
  const shown = () => api.endpoints.boards.select()(store.getState()).data?.[0] as RackBoard;
  const told: string[] = [];
  rack.onRackTrouble((reason) => reason && told.push(reason));
  const outbox = await import('./outbox');
  const readAnew = () => store.dispatch(api.endpoints.boards.initiate(undefined, { forceRefetch: true }));
  return { server, rack, shown, told, outbox, readAnew };
}

eachAlone();

describe('a board that is edited', () => {
  it('is not taken back by an answer that was on its way before the change was stored', async () => {
    const { server, rack, shown, readAnew } = await open();
    let come = (): void => {};
    server.reading = new Promise((done) => (come = done));
    const reading = readAnew();
    rack.changeBoard('b1', { moisturePct: 9 });
    await settle();
    expect(server.stored.version).toBe(2);
    come();
    await reading;
    expect(shown()).toMatchObject({ moisturePct: 9, version: 2 });
    rack.changeBoard('b1', { moisturePct: 10 });
    await settle();
    expect(server.stored).toMatchObject({ moisturePct: 10, version: 3 });
  });

  it('changes on the screen at once and on the server a moment later, as one change', async () => {
    const { server, rack, shown } = await open();
    rack.changeBoard('b1', { moisturePct: 9 });
    rack.changeBoard('b1', { moisturePct: 9.5 });
    expect(shown().moisturePct).toBe(9.5);
    expect(server.saves).toEqual([]);
    await settle();
    expect(server.saves).toHaveLength(1);
    expect(server.stored).toMatchObject({ moisturePct: 9.5, version: 2 });
    expect(shown()).toMatchObject({ version: 2, moisturePct: 9.5 });
  });
  it('sends what a board is, not what only the rack knows of it', async () => {
    const { server, rack, shown } = await open();
    rack.changeBoard('b1', { grain: 'rift' });
    await settle();
    expect(Object.keys(server.saves[0].board).toSorted()).toEqual([
      'grain',
      'label',
      'length',
      'species',
      'thickness',
      'width',
    ]);
    expect(shown().reserved?.name).toBe('a shelf');
    expect(shown().history).toHaveLength(1);
  });
  it('goes from version to version, also when one change follows another while it is sent', async () => {
    const { server, rack } = await open();
    for (const mm of [100, 110, 120]) {
      rack.changeBoard('b1', { width: { mm } });
      await settle();
    }
    expect(server.saves.map(({ version }) => version)).toEqual([1, 2, 3]);
    expect(server.stored.width.mm).toBe(120);
  });
  it('forgets a field that was set back to “not looked at”', async () => {
    const { server, rack } = await open();
    rack.changeBoard('b1', { colour: '#aabbcc' });
    await settle();
    rack.changeBoard('b1', { colour: undefined });
    await settle();
    expect('colour' in server.saves[1].board).toBe(false);
  });
  it('undoes and redoes; typing in one field is one step; a new change ends redo', async () => {
    const { rack, shown, server } = await open();
    for (const label of ['7a', '7ab', '7abc']) rack.changeBoard('b1', { label }, 'label');
    rack.changeBoard('b1', { moisturePct: 12 });
    expect(rack.undoBoard()).toBe('b1');
    expect(shown()).toMatchObject({ label: '7abc' });
    expect(shown().moisturePct).toBeUndefined();
    rack.undoBoard();
    expect(shown().label).toBe('7');
    rack.redoBoard();
    expect(shown().label).toBe('7abc');
    rack.changeBoard('b1', { grain: 'flat' });
    expect(rack.redoBoard()).toBeUndefined();
    await settle();
    expect(server.stored).toMatchObject({ label: '7abc', grain: 'flat' });
  });
  it('that was changed elsewhere is a conflict: kept here until one of the two is chosen', async () => {
    const { server, rack, shown, outbox } = await open();
    server.stored = { ...server.stored, version: 5, moisturePct: 20 };
    rack.changeBoard('b1', { moisturePct: 9 });
    await settle();
    const [draft] = outbox.unsent();
    expect(draft).toMatchObject({ name: 'board 7', state: 'conflict', content: { moisturePct: 9 } });
    expect(outbox.standing(draft)).toMatchObject({ version: 5, content: { moisturePct: 20 } });
    await outbox.settleConflict(draft, 'mine');
    expect(server.stored).toMatchObject({ version: 6, moisturePct: 9 });
    expect(shown()).toMatchObject({ version: 6, moisturePct: 9 });
  });
  it('that the server refuses is shown as the server has it, and the reason is said', async () => {
    const { rack, told, shown, outbox } = await open();
    rack.changeBoard('b1', { label: 'taken' });
    await settle();
    expect(told).toEqual(['Number taken']);
    await vi.waitFor(() => expect(shown().label).toBe('7'));
    expect(outbox.unsent()).toEqual([]);
  });
  it('keeps its change while the server is away, and sends it when it is back', async () => {
    const { server, rack, shown, outbox } = await open();
    server.away = true;
    rack.changeBoard('b1', { moisturePct: 11 });
    await settle();
    expect(shown().moisturePct).toBe(11);
    expect(outbox.unsent()).toHaveLength(1);
    server.away = false;
    await settle(2500);
    await vi.waitFor(() => expect(server.stored.moisturePct).toBe(11));
    expect(shown()).toMatchObject({ version: 2, moisturePct: 11 });
  });
  it('that is not on the rack changes nothing', async () => {
    const { server, rack } = await open();
    rack.changeBoard('gone', { moisturePct: 9 });
    await settle();
    expect(server.saves).toEqual([]);
    expect(rack.undoBoard()).toBeUndefined();
  });
});
