import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoJobs } from '../demo/jobs';
import { openServer, type TestServer } from './house.fixture';
import { MIGRATIONS } from './migrations';

let house: TestServer;
beforeAll(async () => {
  house = await openServer();
});
afterAll(() => house?.close());
const api = () => house.api();
const write = (): string => randomUUID();
const make = async (name: string) =>
  (
    await api()
      .post('/api/jobs')
      .send({ build: { ...demoJobs[1], name } })
  ).body as {
    id: string;
    version: number;
    build: any;
  };
const put = (id: string, body: object, key = write()) =>
  api().put(`/api/jobs/${id}`).set('Idempotency-Key', key).send(body);
const sql = async (text: string, values: unknown[] = []) =>
  (await house.connection.get()).query(text, values);

describe('a write repeated after its answer was lost', () => {
  it('of a job is answered with the version it made, also when another device saved after it', async () => {
    const { id, build } = await make('repeated');
    const key = write();
    const mine = { version: 1, build: { ...build, name: 'mine' } };
    expect((await put(id, mine, key)).body.version).toBe(2);
    expect((await put(id, { version: 2, build: { ...build, name: 'theirs' } })).body.version).toBe(3);
    expect(await put(id, mine, key)).toMatchObject({ status: 200, body: { version: 2 } });
    // A program without ids is known by its content in the history.
    expect(await api().put(`/api/jobs/${id}`).send(mine)).toMatchObject({
      status: 200,
      body: { version: 2 },
    });
    expect((await api().get(`/api/jobs/${id}`)).body).toMatchObject({ version: 3, name: 'theirs' });
    // The same content from a version after it is a change like any other.
    expect((await put(id, { version: 3, build: mine.build })).body.version).toBe(4);
  });
  it('of a kit and a board is answered likewise, and a true conflict names what stands and who made it', async () => {
    const kit = (await api().get('/api/kit')).body;
    const key = write();
    const change = (name: string, version: number) => ({ version, shop: { ...kit.shop, name } });
    const save = (body: object, by = write()) => api().put('/api/kit').set('Idempotency-Key', by).send(body);
    expect((await save(change('mine', kit.version), key)).body.version).toBe(kit.version + 1);
    const other = write();
    expect((await save(change('theirs', kit.version + 1), other)).status).toBe(200);
    expect(await save(change('mine', kit.version), key)).toMatchObject({
      status: 200,
      body: { version: kit.version + 1 },
    });
    expect(await save(change('theirs', kit.version))).toMatchObject({ status: 200 });
    const lost = await save(change('third', kit.version));
    expect(lost).toMatchObject({
      status: 409,
      body: { write: other, current: { version: kit.version + 2, shop: { name: 'theirs' } } },
    });
    const { ids } = (
      await api()
        .post('/api/boards')
        .send({ boards: [board('r1')] })
    ).body;
    const saveBoard = (body: object, by = write()) =>
      api().put(`/api/boards/${ids[0]}`).set('Idempotency-Key', by).send(body);
    const first = { version: 1, board: board('r1', 9) };
    expect((await saveBoard(first, key + '-b')).body.version).toBe(2);
    expect((await saveBoard({ version: 2, board: board('r1', 10) })).body.version).toBe(3);
    expect(await saveBoard(first, key + '-b')).toMatchObject({ status: 200, body: { version: 2 } });
    expect(await saveBoard({ version: 1, board: board('r1', 11) })).toMatchObject({
      status: 409,
      body: { current: { version: 3, moisturePct: 10 } },
    });
  });
  it('makes no second job and brings no board twice', async () => {
    const key = write();
    const send = () =>
      api()
        .post('/api/jobs')
        .set('Idempotency-Key', key)
        .send({ build: { ...demoJobs[1], name: 'once' } });
    const [a, b] = [await send(), await send()];
    expect([b.status, b.body.id]).toEqual([201, a.body.id]);
    const bring = () =>
      api()
        .post('/api/boards')
        .set('Idempotency-Key', `${key}-b`)
        .send({ boards: [board('once')] });
    expect((await bring()).body).toEqual((await bring()).body);
  });
  it('with an id that is none is refused', async () => {
    expect(
      await api().post('/api/jobs').set('Idempotency-Key', 'x y').send({ build: demoJobs[1] }),
    ).toMatchObject({
      status: 400,
      body: { detail: expect.stringContaining('this has 3') },
    });
  });
});

const board = (label: string, moisturePct = 8) => ({
  label,
  species: 'oak_white',
  length: { mm: 1800 },
  width: { mm: 160 },
  thickness: { mm: 40 },
  moisturePct,
});

describe('two jobs that want one board', () => {
  it('are told apart by the database: of 40 races each gives one yes and one no, and none breaks', async () => {
    const [one, two] = [await make('one'), await make('two')];
    const answers: string[] = [];
    for (let i = 0; i < 40; i++) {
      const labels = [`race-${i}-a`, `race-${i}-b`];
      const { ids } = (
        await api()
          .post('/api/boards')
          .send({ boards: labels.map((l) => board(l)) })
      ).body;
      const [a, b] = await Promise.all(
        [one, two].map(({ id }, j) =>
          api()
            .put(`/api/jobs/${id}/boards`)
            .send({ boards: j ? ids.toReversed() : ids }),
        ),
      );
      answers.push([a.status, b.status].toSorted().join());
      const held: any[] = await sql('SELECT job_id FROM board WHERE id IN (?)', [ids]);
      expect(new Set(held.map((row) => row.job_id)).size).toBe(1);
    }
    expect(new Set(answers)).toEqual(new Set(['200,409']));
  });
});

describe('kept versions', () => {
  it('of one stale write are one, however often it is sent', async () => {
    const { id, build } = await make('stale');
    await put(id, { version: 1, build: { ...build, name: 'won' } });
    const late = { version: 1, build: { ...build, name: 'late' } };
    const answers = await Promise.all(Array.from({ length: 4 }, () => put(id, late)));
    for (let i = 0; i < 16; i++) answers.push(await put(id, late));
    expect(answers.every(({ status }) => status === 409)).toBe(true);
    const asides = (await api().get(`/api/jobs/${id}/revisions`)).body.filter((r: any) => r.aside);
    expect(new Set(answers.map(({ body }) => body.aside)).size).toBe(asides.length);
    expect(asides.length).toBeLessThanOrEqual(4);
  });
  it('are thinned as they grow old, except what is marked; the newest stays', async () => {
    const { id, build } = await make('old');
    for (let version = 1; version < 25; version++) {
      if (version === 24) {
        // Twenty-three versions, made ten minutes apart forty days ago, and one of them marked.
        await sql(
          "UPDATE job_revision SET created_at = TIMESTAMP('2026-01-10 10:00:00') + INTERVAL version * 10 MINUTE WHERE job_id = ?",
          [id],
        );
        const third = (await api().get(`/api/jobs/${id}/revisions`)).body.find((r: any) => r.version === 3);
        const mark = api().put(`/api/jobs/${id}/revisions/${third.id}`);
        expect((await mark.send({ marked: true })).body).toEqual({ marked: true });
      }
      await put(id, { version, build: { ...build, name: `v${version}` } });
    }
    const versions = (await api().get(`/api/jobs/${id}/revisions`)).body.map((r: any) => r.version);
    expect(versions.toSorted((a: number, b: number) => a - b)).toEqual([3, 24, 25]);
  });
  it('that are damaged take nothing else down: the job opens at the version before, builds name it, the list shows it', async () => {
    const { id, build } = await make('to be damaged');
    await put(id, { version: 1, build: { ...build, name: 'damaged later' } });
    await sql('UPDATE job_revision SET build = LEFT(build, 400) WHERE job_id = ? AND version = 2', [id]);
    const builds = await api().get('/api/builds');
    expect(builds.status).toBe(200);
    expect(builds.body.damaged).toEqual([{ id, name: 'damaged later', version: 2 }]);
    expect(builds.body.jobs.length).toBeGreaterThan(3);
    const read = (await api().get(`/api/jobs/${id}`)).body;
    expect(read).toMatchObject({
      version: 2,
      damaged: { version: 2, instead: 1 },
      build: { name: 'to be damaged' },
    });
    const list = (await api().get(`/api/jobs/${id}/revisions`)).body;
    expect(list.map((r: any) => r.damaged === true)).toEqual([true, false]);
    expect(await api().get(`/api/jobs/${id}/revisions/${list[0].id}`)).toMatchObject({ status: 410 });
    expect((await put(id, { version: 2, build })).body.version).toBe(3);
    expect((await api().get('/api/builds')).body.damaged).toEqual([]);
    // Changed by hand but still a job: read whole and shown.
    await sql(
      "UPDATE job_revision SET build = REPLACE(build, 'to be damaged', 'by hand') WHERE job_id = ? AND version = 3",
      [id],
    );
    expect((await api().get(`/api/jobs/${id}`)).body.build.name).toBe('by hand');
  });
});

describe('health', () => {
  it('tells of a table it needs that is gone', async () => {
    expect((await api().get('/api/health')).body).toEqual({ ok: true, open: false });
    await sql('RENAME TABLE adhesive TO adhesive_away');
    const answer = await api().get('/api/health');
    await sql('RENAME TABLE adhesive_away TO adhesive');
    expect(answer).toMatchObject({ status: 503, body: { detail: expect.stringContaining('adhesive') } });
    expect((await api().get('/api/health')).status).toBe(200);
  });
  it('of a database that a newer Junta made is a clear refusal, and nothing is changed', async () => {
    await sql("INSERT INTO migrations (timestamp, name) VALUES (1999000000000, 'Later1999000000000')");
    const { connect } = await import('./database');
    const { seedWith } = await import('./seed');
    const { demo } = await import('../demo');
    const late = connect(house.settings, seedWith(demo));
    await expect(late.get()).rejects.toThrow(
      new RegExp(`newer Junta: 1 of its ${MIGRATIONS.length + 1} migrations, Later1999000000000`),
    );
    await sql("DELETE FROM migrations WHERE name = 'Later1999000000000'");
    await late.get();
    await late.close();
  });
});
