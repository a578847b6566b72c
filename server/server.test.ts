import { usualMachine, usualSaw } from '../core/kit';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demo } from '../demo';
import { demoJobs } from '../demo/jobs';
import { createApp } from './app';
import { connect, dataSourceFor } from './database';
import { openServer, type TestServer } from './house.fixture';
import { isDatabaseAway } from './problems';
import { seedWith } from './seed';

let house: TestServer;
let app: TestServer['app'];
let connection: TestServer['connection'];

beforeAll(async () => {
  house = await openServer({ fast: false });
  ({ app, connection } = house);
});
afterAll(() => house?.close());

const api = () => house.api();
const someJob = async () =>
  (await api().get('/api/jobs')).body.find((job: any) => job.name === 'Galley chopping block').id as string;
const load = async (id: string) => (await api().get(`/api/jobs/${id}`)).body;

describe('the database', () => {
  it('after the migrations is exactly what the entities say', async () => {
    await connection.get();
    const source = dataSourceFor(house.settings);
    await source.initialize();
    const { upQueries } = await source.driver.createSchemaBuilder().log();
    expect(upQueries.map((query) => query.query)).toEqual([]);
    await source.destroy();
  });
  it('is migrated and filled once, however many servers start at it', async () => {
    const others = [1, 2, 3].map(() => connect(house.settings, seedWith(demo)));
    await Promise.all(others.map((other) => other.get()));
    await Promise.all(others.map((other) => other.close()));
    expect((await api().get('/api/jobs')).body).toHaveLength(demoJobs.length);
  });
});

describe('the gluing kit', () => {
  it('is kept with the shop: an empty rack stays empty, an unknown one unknown', async () => {
    const { version, shop } = (await api().get('/api/kit')).body;
    expect(shop.clamps.map((set: any) => set.id)).toEqual(['long', 'short', 'pipe', 'bar']);
    const { adhesives: _, ...bare } = shop;
    const stored = await api()
      .put('/api/kit')
      .send({ version, shop: { ...bare, clamps: [], climate: { temperatureC: 15, humidityPct: 60 } } });
    expect(stored.status).toBe(200);
    const read = (await api().get('/api/kit')).body;
    expect(read.shop.clamps).toEqual([]);
    expect(read.shop.adhesives).toBeUndefined();
    expect(read.shop.climate).toEqual({ temperatureC: 15, humidityPct: 60 });
    const twice = await api()
      .put('/api/kit')
      .send({ version: read.version, shop: { ...shop, clamps: [shop.clamps[0], shop.clamps[0]] } });
    expect(twice.status).toBe(422);
    expect((await api().put('/api/kit').send({ version: read.version, shop })).status).toBe(200);
  });
  it('and the builds of all jobs are read for the calendar at once', async () => {
    const { jobs: builds } = (await api().get('/api/builds')).body;
    expect(builds.length).toBeGreaterThanOrEqual(demoJobs.length);
    expect(builds[0].build.steps.length).toBeGreaterThan(3);
  });
});

describe('jobs', () => {
  it('come back exactly as they were stored', async () => {
    for (const build of demoJobs) {
      const made = await api().post('/api/jobs').send({ build });
      expect(made.status).toBe(201);
      expect((await load(made.body.id)).build).toEqual(JSON.parse(JSON.stringify(build)));
    }
  });
  it('are stored only over the version they were made from; both sides of a conflict are kept', async () => {
    const id = await someJob();
    const { build, version } = await load(id);
    const mine = { ...build, name: 'mine' };
    const theirs = { ...build, name: 'theirs' };
    const [a, b] = await Promise.all(
      [mine, theirs].map((changed) => api().put(`/api/jobs/${id}`).send({ build: changed, version })),
    );
    expect([a.status, b.status].sort()).toEqual([200, 409]);
    const lost = a.status === 409 ? a : b;
    const won = await load(id);
    expect(won.version).toBe(version + 1);
    expect(lost.type).toBe('application/problem+json');
    expect(lost.body.current.build.name).toBe(won.name);
    const kept = await api().get(`/api/jobs/${id}/revisions/${lost.body.aside}`);
    expect([kept.body.name, won.name].sort()).toEqual(['mine', 'theirs']);
    const revisions = (await api().get(`/api/jobs/${id}/revisions`)).body;
    expect(revisions.filter((r: any) => r.aside)).toHaveLength(1);
    expect(revisions.map((r: any) => r.version)).toContain(1);
  });
  it('a save repeated after a lost answer is no conflict', async () => {
    const id = await someJob();
    const { build, version } = await load(id);
    const changed = { ...build, name: 'sent twice' };
    expect((await api().put(`/api/jobs/${id}`).send({ build: changed, version })).status).toBe(200);
    const again = await api().put(`/api/jobs/${id}`).send({ build: changed, version });
    expect(again.status).toBe(200);
    expect(again.body.version).toBe(version + 1);
  });
});

describe('the kit', () => {
  it('keeps machines with limits of their own, bits and supplies, and gives them back as they came', async () => {
    const { version, shop } = (await api().get('/api/kit')).body;
    const changed = {
      ...shop,
      machines: [
        ...shop.machines,
        usualMachine('drill press', 'drill-2'),
        usualMachine('computer-guided router', 'guided'),
      ],
      saws: [...shop.saws, usualSaw('mitre saw', 'mitre')],
      bits: [
        {
          id: 'b',
          name: 'Forstner',
          kind: 'forstner',
          diameter: { mm: 25.4 },
          shank: { mm: 9.5 },
          topRpm: 900,
        },
      ],
      supplies: [
        {
          id: 's',
          name: 'Dowels',
          kind: 'dowel',
          size: '8 x 30',
          onHand: 40,
          priceMinor: 6,
          currency: 'EUR',
        },
      ],
    };
    const put = await api().put('/api/kit').send({ version, shop: changed });
    expect(put.status).toBe(200);
    expect((await api().get('/api/kit')).body.shop).toEqual(JSON.parse(JSON.stringify(changed)));
    const same = { ...changed, bits: [...changed.bits, { ...changed.bits[0], id: 'B' }] };
    const refused = await api().put('/api/kit').send({ version: put.body.version, shop: same });
    expect([refused.status, JSON.stringify(refused.body)]).toEqual([
      422,
      expect.stringContaining('shop.bits[1].id'),
    ]);
    expect((await api().put('/api/kit').send({ version: put.body.version, shop })).status).toBe(200);
  });
  it('is changed as a whole, and not over somebody else’s change', async () => {
    const { version, shop } = (await api().get('/api/kit')).body;
    const changed = { ...shop, saws: shop.saws.map((saw: any) => ({ ...saw, kerf: { mm: 2.2 } })) };
    expect((await api().put('/api/kit').send({ version, shop: changed })).body.shop.saws[0].kerf).toEqual({
      mm: 2.2,
    });
    expect((await api().put('/api/kit').send({ version, shop })).status).toBe(409);
    expect((await api().get('/api/kit')).body).toMatchObject({ version: version + 1, shop: changed });
    const twice = { ...shop, saws: [shop.saws[0], shop.saws[0]] };
    expect(
      (
        await api()
          .put('/api/kit')
          .send({ version: version + 1, shop: twice })
      ).status,
    ).toBe(422);
  });
});

describe('bad input is answered with the place and the reason', () => {
  it.each([
    ['extra fields', { build: { ...demoJobs[0], colour: 1 } }, 422, 'colour'],
    ['a newer version', { build: { ...demoJobs[0], version: 9 } }, 422, 'newer Junta'],
    ['no build', { jobs: [] }, 422, 'build'],
    [
      'a wrong unit',
      { build: { ...demoJobs[0], targets: [{ ...demoJobs[0].targets[0], quantity: -1 }] } },
      422,
      'build.targets[0].quantity',
    ],
  ])('%s', async (_name, body, status, words) => {
    const answer = await api().post('/api/jobs').send(body);
    expect(answer.status).toBe(status);
    expect(answer.type).toBe('application/problem+json');
    expect(JSON.stringify(answer.body)).toContain(words);
  });
  it('too much, not JSON, nowhere, from elsewhere', async () => {
    const big = await api()
      .post('/api/jobs')
      .set('Content-Type', 'application/json')
      .send(`{"a":"${'x'.repeat(5_000_000)}"}`);
    expect(big.status).toBe(413);
    expect(big.body.detail).toContain('4 MB');
    const broken = await api().post('/api/jobs').set('Content-Type', 'application/json').send('{"a":');
    expect(broken.status).toBe(400);
    expect((await api().get('/api/nothing')).status).toBe(404);
    expect((await api().get('/api/jobs/..%2Fx')).status).toBe(404);
    expect((await api().get('/api/jobs').set('Origin', 'https://elsewhere.example')).status).toBe(403);
    expect((await api().get('/api/jobs').set('Origin', 'null')).status).toBe(403);
  });
});

describe('a database that goes away', () => {
  it('is answered with 503, and works again when it is back', async () => {
    await house.kill();
    const away = await api().get('/api/jobs');
    expect(away.status).toBe(503);
    expect(away.body.detail).toContain('does not answer');
    const fresh = createApp(connect(house.settings, seedWith(demo)));
    expect((await request(fresh).get('/api/jobs')).status).toBe(503);
    await house.restart();
    expect((await api().get('/api/jobs')).status).toBe(200);
    expect((await request(fresh).get('/api/jobs')).body.length).toBeGreaterThan(0);
  });
  it('is told apart from a wrong question', () => {
    expect(isDatabaseAway({ code: 'ER_NO_SUCH_TABLE', message: 'Table x does not exist' })).toBe(false);
  });
});

describe('several servers before one database', () => {
  it('of many saves from one version exactly one wins, and all the others are kept', async () => {
    const other = connect(house.settings, seedWith(demo));
    const second = createApp(other);
    const made = await api().post('/api/jobs').send({ build: demoJobs[1] });
    const { id, version, build } = made.body;
    const answers = await Promise.all(
      Array.from({ length: 8 }, (_, i) =>
        request(i % 2 ? app : second)
          .put(`/api/jobs/${id}`)
          .set('Junta-Client', 'tests')
          .send({ version, build: { ...build, name: `from ${i}` } }),
      ),
    );
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409, 409, 409, 409, 409, 409, 409]);
    const revisions = (await api().get(`/api/jobs/${id}/revisions`)).body;
    expect(new Set(revisions.map((r: any) => r.name)).size).toBe(9);
    expect(revisions.filter((r: any) => r.aside)).toHaveLength(7);
    const winner = answers.findIndex(({ status }) => status === 200);
    expect((await load(id)).name).toBe(`from ${winner}`);
    await other.close();
  });
  it('a job and a version that are not there are answered as such', async () => {
    const nobody = '00000000-0000-4000-8000-000000000000';
    expect((await api().get(`/api/jobs/${nobody}`)).body).toMatchObject({
      status: 404,
      title: 'No such job',
    });
    expect((await api().get('/api/jobs/x/version')).status).toBe(404);
    const id = await (await api().post('/api/jobs').send({ build: demoJobs[2] })).body.id;
    expect((await api().get(`/api/jobs/${id}/revisions/${nobody}`)).body).toMatchObject({
      status: 404,
      title: 'No such version',
    });
    expect((await api().get(`/api/jobs/${id}/version`)).body).toEqual({ version: 1 });
    expect((await api().put(`/api/jobs/${nobody}`).send({ version: 1, build: demoJobs[2] })).status).toBe(
      404,
    );
  });
  it('lists jobs with what the list shows, the last changed first', async () => {
    const id = (
      await api()
        .post('/api/jobs')
        .send({ build: { ...demoJobs[3], name: 'newest of all' } })
    ).body.id;
    const list = (await api().get('/api/jobs')).body;
    expect(list[0]).toMatchObject({ id, name: 'newest of all', version: 1 });
    expect(Object.keys(list[0]).sort()).toEqual(['changed', 'gist', 'id', 'name', 'tags', 'use', 'version']);
    expect(list.map((job: any) => job.changed)).toEqual(
      list
        .map((job: any) => job.changed)
        .toSorted()
        .toReversed(),
    );
  });
});

describe('the server as a whole', () => {
  it('serves the schema, security headers and compressed answers', async () => {
    const schema = await api().get('/api/schema');
    expect(schema.body.title).toContain('Junta job');
    expect(schema.headers['content-security-policy']).toContain("script-src 'self' 'wasm-unsafe-eval'");
    expect(schema.headers['content-encoding']).toBe('gzip');
    expect(schema.headers).not.toHaveProperty('x-powered-by');
  });
  it('is healthy while the database answers', async () => {
    expect((await api().get('/api/health')).body).toEqual({ ok: true, open: false });
  });
  it('keeps text as it is: quotes, tags and other scripts', async () => {
    const name = `"Bänk" <b>'; DROP TABLE job; -- 柜台 🪵`;
    const made = await api()
      .post('/api/jobs')
      .send({ build: { ...demoJobs[3], name } });
    expect((await load(made.body.id)).build.name).toBe(name);
    expect((await api().get('/api/jobs')).status).toBe(200);
  });
});
