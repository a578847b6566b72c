import { randomUUID } from 'node:crypto';
import { Writable } from 'node:stream';
import { pino } from 'pino';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ENDPOINTS } from '../contract/endpoints';
import { FORMAT_VERSION } from '../core/document';
import { demoJobs } from '../demo/jobs';
import { createApp } from './app';
import { openServer, type TestServer } from './house.fixture';

let house: TestServer;
beforeAll(async () => {
  house = await openServer();
});
afterAll(() => house?.close());

const api = () => house.api();
const sql = async (statement: string, values: unknown[] = []) =>
  (await house.connection.get()).query(statement, values);

describe('the API and its description', () => {
  it('every address that is described is served, and every address served is described', async () => {
    const layers = (house.app as any).router.stack.filter((layer: any) =>
      layer.route?.path.startsWith('/api'),
    );
    const served = layers.flatMap(({ route }: any) =>
      Object.keys(route.methods).map((method) => `${method} ${route.path}`),
    );
    const described = Object.values(ENDPOINTS).map(({ method, path }) => `${method} ${path}`);
    expect(served.toSorted()).toEqual(described.toSorted());
    const { body } = await api().get('/api/openapi');
    const listed = Object.entries<object>(body.paths).flatMap(([path, methods]) =>
      Object.keys(methods).map((method) => `${method} ${path.replaceAll(/\{(\w+)\}/g, ':$1')}`),
    );
    expect(listed.toSorted()).toEqual(described.toSorted());
    expect(body.openapi).toBe('3.1.0');
    expect(body.components.schemas.Job.properties.steps).toBeDefined();
    expect(JSON.stringify(body.paths['/api/jobs'].post)).toContain('#/components/schemas/Job');
  });
  it('every body that is described is refused when it is none', async () => {
    for (const endpoint of Object.values(ENDPOINTS)) {
      if (!('body' in endpoint)) continue;
      const path = endpoint.path.replace(':id', randomUUID()).replace(':revision', randomUUID());
      const answer = await api()[endpoint.method](path).send({ nonsense: 1 });
      expect(answer.status, path).toBe(422);
      expect(answer.body.errors.length).toBeGreaterThan(0);
    }
  });
});

describe('callers', () => {
  it('are written into the history of jobs and boards', async () => {
    const { body: made } = await api().post('/api/jobs').send({ build: demoJobs[0] });
    const { body: kept } = await api().get(`/api/jobs/${made.id}/revisions`);
    expect(kept[0]).toMatchObject({ version: 1, by: 'tests' });
    const board = {
      label: 'by-1',
      species: 'ash_white',
      length: { mm: 900 },
      width: { mm: 90 },
      thickness: { mm: 22 },
    };
    await api()
      .post('/api/boards')
      .send({ boards: [board] });
    const { body: rack } = await api().get('/api/boards');
    expect(rack.find(({ label }: any) => label === 'by-1').history).toEqual([
      expect.objectContaining({ what: 'came onto the rack', by: 'tests' }),
    ]);
  });
  it('of several shops must say which; nothing of another shop is seen or changed', async () => {
    const other = randomUUID();
    const [{ id: own }] = await sql('SELECT id FROM shop');
    await sql("INSERT INTO shop (id, name, version, settings) VALUES (?, 'Other', 1, '{}')", [other]);
    // Shops are known for two seconds.
    await new Promise((done) => setTimeout(done, 2100));
    try {
      const nobody = await api().get('/api/jobs');
      expect(nobody.status).toBe(400);
      expect(nobody.body.detail).toContain('2 shops');
      expect((await api().get('/api/jobs').set('Junta-Shop', other)).body).toEqual([]);
      const mine = (await api().get('/api/jobs').set('Junta-Shop', own)).body;
      expect(mine.length).toBeGreaterThan(0);
      expect((await api().get(`/api/jobs/${mine[0].id}`).set('Junta-Shop', other)).status).toBe(404);
      const stolen = { version: mine[0].version, build: demoJobs[1] };
      const put = await api().put(`/api/jobs/${mine[0].id}`).set('Junta-Shop', other).send(stolen);
      expect(put.status).toBe(404);
      for (const shop of [randomUUID(), "x' OR 1=1 --"])
        expect((await api().get('/api/jobs').set('Junta-Shop', shop)).status).toBe(404);
    } finally {
      await sql('DELETE FROM shop WHERE id = ?', [other]);
      await new Promise((done) => setTimeout(done, 2100));
    }
  });
});

describe('rows of earlier versions and rows damaged by hand', () => {
  it('a job stored by version 1 is read as this version, by every door', async () => {
    const { body: made } = await api().post('/api/jobs').send({ build: demoJobs[0] });
    const old = JSON.stringify({ ...demoJobs[0], version: 1 }).replace(
      `"version":${FORMAT_VERSION}`,
      '"version":1',
    );
    await sql('UPDATE job_revision SET build = ?, digest = SHA2(?, 256) WHERE job_id = ?', [
      old,
      old,
      made.id,
    ]);
    const { body } = await api().get(`/api/jobs/${made.id}`);
    expect(body.build).toEqual(JSON.parse(JSON.stringify(demoJobs[0])));
    expect(body).not.toHaveProperty('damaged');
    const { body: kept } = await api().get(`/api/jobs/${made.id}/revisions`);
    expect((await api().get(`/api/jobs/${made.id}/revisions/${kept[0].id}`)).body.version).toBe(
      FORMAT_VERSION,
    );
    const { body: builds } = await api().get('/api/builds');
    expect(builds.jobs.find(({ id }: any) => id === made.id).build.version).toBe(FORMAT_VERSION);
  });
  it('a body written by version 1 is taken, and stored as this version', async () => {
    const { body } = await api()
      .post('/api/jobs')
      .send({ build: { ...demoJobs[0], version: 1 } });
    expect(body.build.version).toBe(FORMAT_VERSION);
  });
  it('a damaged saw is named and left out, a damaged allowance is the usual one', async () => {
    const before = (await api().get('/api/kit')).body;
    const [saw] = before.shop.saws;
    const [row] = await sql('SELECT details FROM saw WHERE code = ?', [saw.id]);
    await sql("UPDATE saw SET details = '{ not JSON' WHERE code = ?", [saw.id]);
    await sql(`UPDATE allowance SET details = '{"name":"millFace"}' WHERE code = 'millFace'`);
    const { body } = await api().get('/api/kit');
    expect(body.damaged).toEqual(['allowance “millFace”', `saw “${saw.id}”`]);
    expect(body.shop.saws).toHaveLength(before.shop.saws.length - 1);
    expect(body.shop.allowances.millFace.mm).toBeGreaterThan(0);
    await sql('UPDATE saw SET details = ? WHERE code = ?', [row.details, saw.id]);
    expect((await api().get('/api/kit')).body.shop.saws).toEqual(before.shop.saws);
  });
  it('a board with damaged details keeps its wood and size, and says so', async () => {
    const [first] = (await api().get('/api/boards')).body;
    await sql("UPDATE board SET details = '[1', history = 'x' WHERE id = ?", [first.id]);
    const board = (await api().get('/api/boards')).body.find(({ id }: any) => id === first.id);
    expect(board).toMatchObject({
      label: first.label,
      species: first.species,
      length: { mm: first.length.mm },
    });
    expect(board.history).toEqual([expect.objectContaining({ what: expect.stringContaining('damaged') })]);
  });
});

describe('the log', () => {
  it('has one line for a request with the id that the caller got, and neither body nor headers', async () => {
    const lines: string[] = [];
    const into = new Writable({ write: (chunk, _encoding, done) => (lines.push(String(chunk)), done()) });
    const app = createApp(house.connection, { log: pino({ level: 'info', base: null }, into) });
    const answer = await request(app).get('/api/jobs').set('Cookie', 'secret-of-mine').expect(200);
    await new Promise((done) => setImmediate(done));
    expect(lines).toHaveLength(1);
    const line = JSON.parse(lines[0]);
    expect(line.req).toEqual({ id: answer.headers['junta-request'], method: 'GET', url: '/api/jobs' });
    expect(line.res).toEqual({ status: 200 });
    expect(line.responseTime).toBeGreaterThanOrEqual(0);
    expect(lines[0]).not.toContain('secret-of-mine');
  });
});
