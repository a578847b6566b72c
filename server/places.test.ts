import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { defaultShop } from '../core/kit';
import { demo } from '../demo';
import { demoJobs } from '../demo/jobs';
import { openServer, type TestServer } from './house.fixture';

let house: TestServer;
beforeAll(async () => {
  house = await openServer({ seed: demo });
});
afterAll(() => house?.close());
const api = () => house.api();
const sql = async (text: string, values: unknown[] = []) =>
  (await house.connection.get()).query(text, values);
const make = async (name: string) =>
  (
    await api()
      .post('/api/jobs')
      .send({ build: { ...demoJobs[1], name } })
  ).body as { id: string; version: number; build: any };
const place = (id: string, body: object) => api().put(`/api/jobs/${id}/place`).send(body);
const listed = async (id: string) =>
  ((await api().get('/api/jobs')).body as { id: string }[]).find((job) => job.id === id);
const DAY = 86_400_000;

describe('a job', () => {
  it('is listed with what can be told of it without its build, also one stored by an earlier release', async () => {
    const { id, build } = await make('gist');
    const before = await listed(id);
    expect(before).toMatchObject({
      tags: [],
      gist: { steps: build.steps.length, done: 0, size: { length: build.targets[0].length.value } },
    });
    await sql('UPDATE job SET gist = NULL WHERE id = ?', [id]);
    expect(await listed(id)).toEqual(before);
    const steps = build.steps.map((step: object, i: number) => (i === 0 ? { ...step, done: true } : step));
    await api()
      .put(`/api/jobs/${id}`)
      .send({ version: 1, build: { ...build, steps } });
    expect(await listed(id)).toMatchObject({ gist: { done: 1 } });
  });

  it('put away is in the list and not in the calendar, keeps its version, and comes out again', async () => {
    const { id } = await make('away');
    const inCalendar = async () =>
      (await api().get('/api/builds')).body.jobs.some((job: { id: string }) => job.id === id);
    expect(await inCalendar()).toBe(true);
    expect((await place(id, { putAway: true })).body).toMatchObject({ version: 1 });
    expect(await listed(id)).toMatchObject({ putAway: expect.any(String) });
    expect(await inCalendar()).toBe(false);
    await place(id, { putAway: false });
    expect(await listed(id)).not.toHaveProperty('putAway');
    expect(await inCalendar()).toBe(true);
  });

  it('has tags, each once; a place says only what is changed', async () => {
    const { id } = await make('tagged');
    await place(id, { tags: ['kitchen', 'for sale', 'kitchen'] });
    await place(id, { putAway: true });
    expect(await listed(id)).toMatchObject({ tags: ['kitchen', 'for sale'], putAway: expect.any(String) });
    expect((await place(id, { tags: ['x'.repeat(31)] })).status).toBe(422);
    expect((await place(id, { tags: Array.from({ length: 13 }, (_, i) => `t${i}`) })).status).toBe(422);
    expect((await place(id, { colour: 'red' })).status).toBe(422);
    expect((await place(randomUUID(), { putAway: true })).status).toBe(404);
  });

  it('with nothing left to do is not in the calendar', async () => {
    const { id, build } = await make('made');
    const steps = build.steps.map((step: object) => ({ ...step, done: true }));
    await api()
      .put(`/api/jobs/${id}`)
      .send({ version: 1, build: { ...build, steps } });
    const { jobs } = (await api().get('/api/builds')).body;
    expect(jobs.some((job: { id: string }) => job.id === id)).toBe(false);
  });
});

describe('a deleted job', () => {
  it('is gone everywhere with a reason, frees its boards, and comes back whole', async () => {
    const { id, build } = await make('deleted');
    const board = (await api().get('/api/boards')).body.find((each: any) => !each.reserved);
    await api()
      .put(`/api/jobs/${id}/boards`)
      .send({ boards: [board.id] });
    const reserved = async () =>
      (await api().get('/api/boards')).body.find((each: any) => each.id === board.id).reserved;
    expect(await reserved()).toMatchObject({ job: id });
    await place(id, { deleted: true });
    expect(await reserved()).toBeUndefined();
    expect(await listed(id)).toBeUndefined();
    for (const path of ['', '/version', '/revisions'])
      expect(await api().get(`/api/jobs/${id}${path}`)).toMatchObject({
        status: 410,
        body: { detail: expect.stringContaining('“deleted” was deleted'), deleted: expect.any(String) },
      });
    // Another device that edits it meanwhile is told, and nothing is stored.
    expect(await api().put(`/api/jobs/${id}`).send({ version: 1, build })).toMatchObject({ status: 410 });
    expect((await place(id, { tags: ['no'] })).status).toBe(410);
    const [there] = (await api().get('/api/deleted-jobs')).body;
    expect(there).toMatchObject({ id, name: 'deleted' });
    expect(Date.parse(there.until) - Date.parse(there.deleted)).toBe(30 * DAY);
    await place(id, { deleted: false });
    expect((await api().get(`/api/jobs/${id}`)).body).toMatchObject({ version: 1, build });
    expect((await api().put(`/api/jobs/${id}`).send({ version: 1, build })).status).toBe(200);
  });

  it('is gone for good after 30 days, and not a day before', async () => {
    const [young, old] = [await make('29 days'), await make('31 days')];
    for (const [job, days] of [
      [young, 29],
      [old, 31],
    ] as const) {
      await place(job.id, { deleted: true });
      await sql('UPDATE job SET deleted_at = ? WHERE id = ?', [new Date(Date.now() - days * DAY), job.id]);
    }
    const names = (await api().get('/api/deleted-jobs')).body.map((job: any) => job.name);
    expect(names).toContain('29 days');
    expect(names).not.toContain('31 days');
    expect((await place(old.id, { deleted: false })).status).toBe(404);
    expect((await place(young.id, { deleted: false })).status).toBe(200);
  });
});

describe('several shops', () => {
  const shops = async () => (await api().get('/api/shops')).body;

  it('stand side by side: each has its own kit, jobs and boards, and a request that names none is asked which', async () => {
    const [demoShop] = (await shops()).shops;
    expect(demoShop).toMatchObject({ demo: true, name: demo.shop.name, boards: demo.boards.length });
    const key = randomUUID();
    const shop = { ...defaultShop('Own'), machines: [], clamps: [], currency: 'JPY', paper: 'a4' };
    const send = () => api().post('/api/shops').set('Idempotency-Key', key).send({ shop });
    const made = await send();
    expect(made).toMatchObject({ status: 201, body: { name: 'Own', demo: false, jobs: 0, boards: 0 } });
    expect((await send()).body.id).toBe(made.body.id);
    expect((await shops()).shops).toHaveLength(2);
    const asked = await api().get('/api/jobs');
    expect(asked).toMatchObject({ status: 400, body: { title: 'Which shop?' } });
    const own = (path: string) => api().get(path).set('Junta-Shop', made.body.id);
    expect((await own('/api/jobs')).body).toEqual([]);
    expect((await own('/api/kit')).body).toMatchObject({ id: made.body.id, shop });
    const theirs = (await api().get('/api/jobs').set('Junta-Shop', demoShop.id)).body[0].id;
    expect((await own(`/api/jobs/${theirs}`)).status).toBe(404);
    await api().put(`/api/shops/${made.body.id}`).send({ removed: true });
  });

  it('the demo is removed with all that is in it, put there as new, and the old one comes back after that', async () => {
    const [first] = (await shops()).shops;
    const { id } = await make('made in the demo');
    const counted = (await shops()).shops[0].jobs;
    expect((await api().post('/api/shops/demo')).status).toBe(409);
    await api().put(`/api/shops/${first.id}`).send({ removed: true });
    expect(await api().get(`/api/jobs/${id}`).set('Junta-Shop', first.id)).toMatchObject({
      status: 404,
      body: { title: 'No such shop' },
    });
    const removed = (await shops()).removed.find((shop: any) => shop.id === first.id);
    expect(removed).toMatchObject({ jobs: counted, demo: true });
    const fresh = await api().post('/api/shops/demo');
    expect(fresh).toMatchObject({ status: 201, body: { demo: true, jobs: demoJobs.length } });
    expect((await api().put(`/api/shops/${first.id}`).send({ removed: false })).status).toBe(409);
    await api().put(`/api/shops/${fresh.body.id}`).send({ removed: true });
    expect((await api().put(`/api/shops/${first.id}`).send({ removed: false })).status).toBe(200);
    expect((await api().get(`/api/jobs/${id}`)).body.name).toBe('made in the demo');
    expect((await api().put(`/api/shops/${randomUUID()}`).send({ removed: true })).status).toBe(404);
  });

  it('a shop removed 31 days ago is gone for good', async () => {
    const made = (
      await api()
        .post('/api/shops')
        .send({ shop: defaultShop('Old') })
    ).body;
    await api().put(`/api/shops/${made.id}`).send({ removed: true });
    await sql('UPDATE shop SET removed_at = ? WHERE id = ?', [new Date(Date.now() - 31 * DAY), made.id]);
    expect((await shops()).removed.some((shop: any) => shop.id === made.id)).toBe(false);
    expect((await api().put(`/api/shops/${made.id}`).send({ removed: false })).status).toBe(404);
  });
});
