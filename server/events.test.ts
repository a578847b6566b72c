import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { timersOf } from '../core/bench';
import type { BuildDocument } from '../core/document';
import { createApp } from './app';
import { connect } from './database';
import { openServer, type TestServer } from './house.fixture';
import { seedWith } from './seed';
import { demo } from '../demo';

/* Two servers before one database: what one of them stores, the pages of both are told. */

let house: TestServer;
const servers: http.Server[] = [];
const listen = (app: Parameters<typeof http.createServer>[1]): Promise<string> =>
  new Promise((done) => {
    const server = http.createServer(app);
    servers.push(server);
    server.listen(0, '127.0.0.1', () => done(`http://127.0.0.1:${(server.address() as AddressInfo).port}`));
  });
let urls: string[] = [];
let second: ReturnType<typeof connect>;

beforeAll(async () => {
  house = await openServer({ fast: false });
  second = connect(house.settings, seedWith(demo));
  urls = [await listen(house.app), await listen(createApp(second))];
});
afterAll(async () => {
  for (const server of servers) {
    server.closeAllConnections();
    server.close();
  }
  await second.close();
  await house.close();
});

interface Told {
  kind: string;
  subject?: string;
}
/** A page that listens: all that it was told, and the way to wait for something. */
function page(url: string) {
  const told: Told[] = [];
  let text = '';
  const request = http.get(`${url}/api/events`, (response) => {
    response.setEncoding('utf8');
    response.on('data', (chunk: string) => {
      text += chunk;
      const parts = text.split('\n\n');
      text = parts.pop() ?? '';
      for (const part of parts) {
        const data = part.split('\n').find((line) => line.startsWith('data: '));
        if (data) told.push(JSON.parse(data.slice(6)));
      }
    });
  });
  request.on('error', () => undefined);
  return {
    told,
    until: (wanted: (each: Told) => boolean) =>
      expect.poll(() => told.filter(wanted).length, { timeout: 20_000, interval: 50 }).toBeGreaterThan(0),
    close: () => request.destroy(),
  };
}

const aJob = async () => {
  const { body } = await house.api().get('/api/jobs');
  const { body: job } = await house.api().get(`/api/jobs/${body[0].id}`);
  return job as { id: string; name: string; version: number; build: BuildDocument };
};
/** The job with its first glue-up done so many hours ago. */
const glued = (build: BuildDocument, hours: number): BuildDocument => {
  const at = build.steps.findIndex(({ kind }) => kind === 'glue');
  const doneAt = new Date(Date.now() - hours * 3_600_000).toISOString();
  return {
    ...build,
    steps: build.steps.map((step, i) => (i <= at ? { ...step, done: true, doneAt } : step)),
  };
};
const store = async (job: { id: string; version: number }, build: BuildDocument) => {
  const { status, body } = await house.api().put(`/api/jobs/${job.id}`).send({ version: job.version, build });
  expect(status).toBe(200);
  return body as { id: string; version: number };
};
const timers = async (id: string) =>
  (await house.api().get('/api/timers')).body.timers.filter(({ job }: { job: string }) => job === id);

describe('what happens in a shop', () => {
  it('is told to the pages of every server, once and in order', async () => {
    const pages = urls.map(page);
    for (const each of pages) await each.until(({ kind }) => kind === 'again');
    const job = await aJob();
    const names = ['one', 'two', 'three'];
    let at: { id: string; version: number } = job;
    for (const name of names) at = await store(at, { ...job.build, name });
    for (const each of pages) {
      await expect
        .poll(() => each.told.filter(({ kind, subject }) => kind === 'job' && subject === job.id).length, {
          timeout: 20_000,
        })
        .toBe(names.length);
      expect(each.told.at(-1)).toEqual({ kind: 'job', subject: job.id });
      each.close();
    }
  });
  it('is not told to another shop, and nothing is told of what was refused', async () => {
    const {
      body: { shop },
    } = await house.api().get('/api/kit');
    const { body: other } = await house
      .api()
      .post('/api/shops')
      .send({ shop: { ...shop, name: 'Another' } });
    const first = (await house.api().get('/api/shops')).body.shops.find(
      ({ id }: { id: string }) => id !== other.id,
    );
    const told: string[] = [];
    const request = http.get(`${urls[1]}/api/events?shop=${other.id}`, (response) => {
      response.setEncoding('utf8');
      response.on('data', (chunk: string) => told.push(chunk));
    });
    request.on('error', () => undefined);
    await expect.poll(() => told.join('').includes('again'), { timeout: 20_000 }).toBe(true);
    const api = () => house.api();
    const jobs = await api().get('/api/jobs').set('Junta-Shop', first.id);
    const job = (await api().get(`/api/jobs/${jobs.body[0].id}`).set('Junta-Shop', first.id)).body;
    const refused = await api()
      .put(`/api/jobs/${job.id}`)
      .set('Junta-Shop', first.id)
      .send({ version: job.version - 1, build: { ...job.build, name: 'late' } });
    expect(refused.status).toBe(409);
    const stored = await api()
      .put(`/api/jobs/${job.id}`)
      .set('Junta-Shop', first.id)
      .send({ version: job.version, build: { ...job.build, name: 'in time' } });
    expect(stored.status).toBe(200);
    const own = await api()
      .put('/api/kit')
      .set('Junta-Shop', other.id)
      .send({
        version: 1,
        shop: { ...shop, name: 'Another still' },
      });
    expect(own.status).toBe(200);
    await expect.poll(() => told.join('').includes('"kit"'), { timeout: 20_000 }).toBe(true);
    expect(told.join('')).not.toContain('"job"');
    request.destroy();
    await api().put(`/api/shops/${other.id}`).send({ removed: true });
    expect((await statusOf(`${urls[0]}/api/events?shop=${other.id}`)).status).toBe(404);
    expect((await statusOf(`${urls[0]}/api/events?shop=rubbish`)).status).toBe(404);
  });
});

/** Asks for an address with nothing but its status wanted. */
const statusOf = (url: string): Promise<{ status: number }> =>
  new Promise((done) => {
    const request = http.get(url, ({ statusCode = 0 }) => {
      done({ status: statusCode });
      request.destroy();
    });
    request.on('error', () => undefined);
  });

describe('what waits', () => {
  it('is a row from the moment that work is done, the same after the server was started anew, and gone when it is taken back', async () => {
    const job = await aJob();
    expect(await timers(job.id)).toEqual([]);
    const build = glued(job.build, 0);
    const wanted = timersOf(build, Date.now());
    expect(wanted.length).toBeGreaterThan(0);
    const at = await store(job, build);
    await expect.poll(async () => (await timers(job.id)).length, { timeout: 20_000 }).toBe(wanted.length);
    const rows = await timers(job.id);
    expect(rows.map(({ task, until }: { task: string; until: string }) => [task, until])).toEqual(
      wanted
        .toSorted((a, b) => a.until - b.until)
        .map(({ task, until }) => [task, new Date(until).toISOString()]),
    );
    // A wait that still runs cannot be heard.
    const early = await house.api().put('/api/timers').send({ job: job.id, task: rows[0].task });
    expect(early.body).toEqual({ heard: false });
    await house.kill();
    await house.restart();
    expect(await timers(job.id)).toEqual(rows);
    await store(at, job.build);
    await expect.poll(async () => (await timers(job.id)).length, { timeout: 20_000 }).toBe(0);
  });
  it('that is over is heard once, and rings anew when its end is another', async () => {
    const job = await aJob();
    const at = await store(job, glued(job.build, 23.5));
    await expect.poll(async () => (await timers(job.id)).length, { timeout: 20_000 }).toBeGreaterThan(0);
    const [first] = await timers(job.id);
    expect(Date.parse(first.until)).toBeLessThan(Date.now());
    const hear = async () =>
      (await house.api().put('/api/timers').send({ job: job.id, task: first.task })).body.heard;
    expect(await hear()).toBe(true);
    expect(await hear()).toBe(false);
    const has = async () => (await timers(job.id)).some(({ task }: { task: string }) => task === first.task);
    expect(await has()).toBe(false);
    // Stored once more with nothing else changed it stays heard; done at another hour it rings.
    const later = await store(at, {
      ...glued(job.build, 23.5),
      steps: (await aJobById(job.id)).build.steps,
      name: 'heard',
    });
    await new Promise((done) => setTimeout(done, 1500));
    expect(await has()).toBe(false);
    await store(later, glued(job.build, 23));
    await expect.poll(has, { timeout: 20_000 }).toBe(true);
  });
  it('a year long, of a job that is deleted, or of nonsense: nothing breaks', async () => {
    const job = await aJob();
    await store(job, glued(job.build, -24 * 365));
    const ends = async () => Date.parse((await timers(job.id))[0]?.until ?? 0);
    await expect.poll(ends, { timeout: 20_000 }).toBeGreaterThan(Date.now() + 364 * 24 * 3_600_000);
    for (const body of [
      {},
      { job: 'no', task: 'x' },
      { job: job.id },
      { job: job.id, task: 'x'.repeat(400) },
    ])
      expect((await house.api().put('/api/timers').send(body)).status).toBeLessThan(500);
    await house.api().put(`/api/jobs/${job.id}/place`).send({ deleted: true });
    expect(await timers(job.id)).toEqual([]);
  });
});

describe('gauges', () => {
  const line = { gauge: 'caliper 1', kind: 'caliper', value: 12.7, unit: 'mm' };
  const send = (body: object) => house.api().post('/api/gauges').send(body);
  it('what one reads is told to the pages, and kept nowhere', async () => {
    const each = page(urls[1]);
    await each.until(({ kind }) => kind === 'again');
    expect((await send(line)).status).toBe(200);
    await each.until(({ kind }) => kind === 'reading');
    expect(each.told.find(({ kind }) => kind === 'reading')).toEqual({ kind: 'reading', data: line });
    each.close();
  });
  it.each([
    [{ ...line, unit: 'kg' }, 422, 'not in kg'],
    [{ ...line, value: 900 }, 422, 'lies outside'],
    [{ ...line, value: '12.7' }, 422, 'value'],
    [{ ...line, kind: 'crystal ball' }, 422, 'kind'],
    [{ ...line, gauge: '' }, 422, 'gauge'],
    [{ ...line, gauge: 'x'.repeat(61) }, 422, 'gauge'],
    [{}, 422, 'gauge'],
    [{ ...line, more: 1 }, 422, 'more'],
  ])('rubbish is refused with the reason: %j', async (body, status, words) => {
    const answer = await send(body);
    expect(answer.status).toBe(status);
    expect(answer.body.detail).toContain(words);
  });
  it('one that floods is refused beyond ten in a second, and another one is heard all the same', async () => {
    const flood = await Promise.all(Array.from({ length: 60 }, () => send({ ...line, gauge: 'mad' })));
    const statuses = flood.map(({ status }) => status);
    expect(statuses.filter((status) => status === 200).length).toBeGreaterThanOrEqual(10);
    expect(statuses.filter((status) => status === 429).length).toBeGreaterThan(10);
    expect(new Set(statuses)).toEqual(new Set([200, 429]));
    expect((await send({ ...line, gauge: 'calm' })).status).toBe(200);
  });
});

const aJobById = async (id: string) =>
  (await house.api().get(`/api/jobs/${id}`)).body as { build: BuildDocument; version: number };
