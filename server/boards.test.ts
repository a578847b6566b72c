import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { NewBoard, RackBoard } from '../contract/board';
import { mustEdit } from '../core/edit';
import { answerEdit, problemFor, settingsOf, solveNow } from '../core/stock';
import { openServer, type TestServer } from './house.fixture';

let house: TestServer;
beforeAll(async () => {
  house = await openServer();
});
afterAll(() => house?.close());

const api = () => house.api();
const rack = async () => (await api().get('/api/boards')).body as RackBoard[];
const board = (label: string, change: Partial<NewBoard> = {}): NewBoard => ({
  label,
  species: 'oak_white',
  length: { mm: 1800 },
  width: { mm: 160 },
  thickness: { mm: 40 },
  ...change,
});
const add = (...boards: NewBoard[]) => api().post('/api/boards').send({ boards });
const named = async (label: string) => (await rack()).find((b) => b.label === label) as RackBoard;

describe('the rack', () => {
  it('keeps a board exactly, with its faults and its history', async () => {
    const whole = board('t1', {
      sold: 'rough',
      price: { minor: 1250, currency: 'EUR', per: 'boardFoot' },
      warp: { cup: { mm: 2 } },
      faults: [{ id: 'f', kind: 'knot', face: 'up', x: 10, y: 20, length: 30, width: 40 }],
    });
    expect((await add(whole)).status).toBe(201);
    const { id: _, version, history, ...stored } = await named('t1');
    expect(stored).toEqual(whole);
    expect([version, history.length]).toEqual([1, 1]);
  });
  it('refuses a number that is taken, with the next free one, and then stores none of the batch', async () => {
    const before = (await rack()).length;
    const answer = await add(board('t2'), board('t1'));
    expect(answer.status).toBe(409);
    expect(answer.body.detail).toBe('Number t1 is on another board already. t1a is free.');
    expect((await rack()).length).toBe(before);
  });
  it.each([
    [
      'a fault larger than its board',
      { faults: [{ id: 'f', kind: 'knot', face: 'up', x: 0, y: 0, length: 5000, width: 10 }] },
      'faults[0]',
    ],
    ['a price without a currency', { price: { minor: 5, per: 'board' } }, 'currency'],
    ['no width', { width: { mm: 0 } }, 'width'],
    ['a colour that is none', { colour: 'brown' }, 'colour'],
  ])('answers %s with the place', async (_name, change, place) => {
    const answer = await add({ ...board('t9'), ...(change as object) });
    expect(answer.status).toBe(422);
    expect(answer.body.detail).toContain(place);
  });
  it('a board is changed only over the version it was made from', async () => {
    const { id, version } = await named('t1');
    const save = (body: object) => api().put(`/api/boards/${id}`).send(body);
    expect((await save({ version, board: board('t1', { moisturePct: 9 }) })).body).toMatchObject({
      version: 2,
      moisturePct: 9,
    });
    const late = await save({ version, board: board('t1') });
    expect([late.status, late.body.detail]).toEqual([
      409,
      expect.stringContaining('is at version 2; your change was made from version 1'),
    ]);
    expect((await named('t1')).moisturePct).toBe(9);
  });
  it('2,000 boards come in one request and are listed in their order', async () => {
    const many = Array.from({ length: 2000 }, (_, i) => board(`m${i}`));
    expect((await add(...many)).status).toBe(201);
    const labels = (await rack()).map(({ label }) => label).filter((label) => label.startsWith('m'));
    expect(labels).toEqual(many.map(({ label }) => label));
    const ids = (await rack()).filter(({ label }) => label.startsWith('m')).map(({ id }) => id);
    expect((await api().post('/api/boards/remove').send({ ids, force: false })).body).toEqual({
      removed: 2000,
    });
  });
});

describe('boards and jobs', () => {
  const plan = async () => {
    const list = (await api().get('/api/jobs')).body;
    const { id } = list.find(({ name }: any) => name === 'Tower stair tread');
    const { build, version } = (await api().get(`/api/jobs/${id}`)).body;
    const bare = {
      ...build,
      boards: [],
      assemblies: build.assemblies.map((a: any) => ({
        ...a,
        slots: a.slots.map(({ strip: _, ...slot }: any) => slot),
      })),
    };
    await add(
      board('w1', { length: { mm: 2600 }, width: { mm: 240 } }),
      board('w2', { length: { mm: 2400 }, width: { mm: 200 } }),
    );
    const boards = (await rack()).filter(({ label }) => label.startsWith('w'));
    const { problem, demand } = problemFor([bare], boards);
    const answer = solveNow(problem, 3000);
    const placed = mustEdit(
      bare,
      answerEdit(problem, demand, answer, { job: 0, settings: settingsOf(bare) }),
    );
    return { id, version, placed };
  };
  it('are reserved, held against removal and other jobs, cut up, and leave their offcuts with their history', async () => {
    const { id, version, placed } = await plan();
    const ids = placed.boards.map((b: any) => b.id);
    const reserve = (job: string, boards: string[]) => api().put(`/api/jobs/${job}/boards`).send({ boards });
    expect((await reserve(id, ids)).status).toBe(200);
    const held = (await rack()).filter(({ reserved }) => reserved?.job === id);
    expect(held.map((b) => b.id).toSorted()).toEqual(ids.toSorted());

    const refused = await api().post('/api/boards/remove').send({ ids, force: false });
    expect([refused.status, refused.body.detail]).toEqual([
      409,
      expect.stringContaining('Tower stair tread'),
    ]);
    const other = (await api().get('/api/jobs')).body.find(({ id: j }: any) => j !== id).id;
    expect((await reserve(other, ids)).status).toBe(409);
    expect((await reserve(id, ['00000000-0000-4000-8000-000000000000'])).body.title).toBe('Gone');

    expect((await api().put(`/api/jobs/${id}`).send({ version, build: placed })).status).toBe(200);
    const cut = (await api().post(`/api/jobs/${id}/cut`)).body;
    expect(cut.used).toBe(ids.length);
    expect(cut.offcuts.length).toBeGreaterThan(0);
    const offcut = await named(cut.offcuts[0]);
    expect(offcut).toMatchObject({
      sold: 'offcut',
      species: 'oak_white',
      history: [{ what: 'left over from “Tower stair tread”' }],
    });
    expect(await named('w1')).toBeUndefined();
    // The job keeps its own copy and still runs.
    expect((await api().get(`/api/jobs/${id}`)).body.build.boards).toHaveLength(ids.length);
    // The number of a board that is gone may be given again.
    expect((await add(board('w1'))).status).toBe(201);
  });
  it('one breakdown is one command: boards and the jobs beside it, all or nothing; by hand reserved ones stay', async () => {
    await add(
      board('c1', { length: { mm: 2000 }, width: { mm: 200 } }),
      board('c2', { length: { mm: 2000 }, width: { mm: 200 } }),
      board('c3', { length: { mm: 2000 }, width: { mm: 200 } }),
    );
    const [c1, c2, c3] = await Promise.all(['c1', 'c2', 'c3'].map(async (label) => (await named(label)).id));
    const [main, beside] = (await api().get('/api/jobs')).body;
    const { build, version } = (await api().get(`/api/jobs/${beside.id}`)).body;
    const write = (body: object) => api().put(`/api/jobs/${main.id}/boards`).send(body);
    const ofMain = async () =>
      (await rack()).filter(({ reserved }) => reserved?.job === main.id).map(({ label }) => label);
    const companion = { id: beside.id, version, build: { ...build, name: 'Beside' } };

    expect((await write({ boards: [c1, c2], companions: [companion] })).status).toBe(200);
    expect(await ofMain()).toEqual(['c1', 'c2']);
    expect((await api().get(`/api/jobs/${beside.id}`)).body).toMatchObject({
      version: version + 1,
      name: 'Beside',
    });
    expect((await api().get(`/api/jobs/${beside.id}/revisions`)).body[0].version).toBe(version + 1);

    // The companion moved on: its old version is refused by name, and the boards stay as they were.
    const late = await write({ boards: [c3], freed: [c1, c2], companions: [companion] });
    expect(late.status).toBe(409);
    expect(late.body.detail).toContain('“Beside” is at version');
    expect(await ofMain()).toEqual(['c1', 'c2']);
    // A board that is gone: the companion is not stored either.
    const gone = '00000000-0000-4000-8000-000000000000';
    const next = { ...companion, version: version + 1, build: { ...build, name: 'Never' } };
    expect((await write({ boards: [gone], companions: [next] })).status).toBe(409);
    expect((await api().get(`/api/jobs/${beside.id}`)).body).toMatchObject({
      version: version + 1,
      name: 'Beside',
    });
    // Only the plan before took c1; c2 was reserved by hand and stays, whatever the case of its letters.
    expect((await write({ boards: [c3], freed: [c1.toUpperCase()] })).status).toBe(200);
    expect((await ofMain()).toSorted()).toEqual(['c2', 'c3']);
    const four = Array.from({ length: 4 }, () => next);
    expect((await write({ boards: [], companions: four })).status).toBe(422);
    const newer = await write({ boards: [], companions: [{ ...next, build: { ...build, version: 99 } }] });
    expect([newer.status, JSON.stringify(newer.body)]).toEqual([422, expect.stringContaining('newer Junta')]);
    expect((await write({ boards: [] })).status).toBe(200);
    expect(await ofMain()).toEqual([]);
  });
  it('a board taken away by force leaves the job its copy', async () => {
    const { id } = await named('w1');
    expect(
      (
        await api()
          .post('/api/boards/remove')
          .send({ ids: [id], force: true })
      ).body,
    ).toEqual({ removed: 1 });
    expect(
      (
        await api()
          .put(`/api/boards/${id}`)
          .send({ version: 1, board: board('w1') })
      ).status,
    ).toBe(404);
  });
});
