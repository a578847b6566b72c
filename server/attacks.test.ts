import { request as plain } from 'node:http';
import type { AddressInfo } from 'node:net';
import { createServer, type Server } from 'node:http';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoJobs } from '../demo/jobs';
import { openServer, type TestServer } from './house.fixture';
import { ownHosts } from './hosts';
import { isDiskFull } from './problems';

let house: TestServer;
let server: Server;
let id: string;
beforeAll(async () => {
  house = await openServer({ hosts: ownHosts('127.0.0.1', 'shop.test') });
  server = createServer(house.app).listen(0, '127.0.0.1');
  id = (await house.api().get('/api/jobs')).body[0].id;
});
afterAll(async () => {
  server.close();
  await house.close();
});

/** One request with exactly these headers. */
const ask = (
  method: string,
  path: string,
  headers: Record<string, string> = {},
  body?: string | Buffer,
): Promise<{ status: number; text: string; headers: any }> =>
  new Promise((done, fail) => {
    const { port } = server.address() as AddressInfo;
    const asked = plain({ port, host: '127.0.0.1', method, path, headers }, (answer) => {
      let text = '';
      answer.setEncoding('utf8').on('data', (part) => (text += part));
      answer.on('end', () => done({ status: answer.statusCode ?? 0, text, headers: answer.headers }));
    });
    asked.on('error', fail);
    asked.end(body);
  });
const JSON_TYPE = { 'Content-Type': 'application/json' };
const newJob = JSON.stringify({ build: { ...demoJobs[1], name: 'sent' } });
const post = (headers: Record<string, string>, body: string | Buffer = newJob) =>
  ask('POST', '/api/jobs', { ...JSON_TYPE, ...headers }, body);

describe('host names', () => {
  it.each([
    'evil.test',
    'evil.test:4180',
    'localhost.evil.test',
    '127.0.0.1.evil.test',
    '127.0.0.1@evil.test',
  ])('“%s” is answered 421, for reading and for writing, page or API', async (host) => {
    for (const [method, path] of [
      ['GET', '/api/jobs'],
      ['GET', '/'],
      ['PUT', '/api/kit'],
    ])
      expect((await ask(method, path, { Host: host, Origin: `http://${host}` })).status).toBe(421);
  });
  it.each([
    'localhost:1',
    '127.0.0.1',
    '[::1]:80',
    'shop.test',
    'SHOP.test:99',
  ])('“%s” is its own', async (host) =>
    expect((await ask('GET', '/api/jobs', { Host: host })).status).toBe(200));
  it('are those of loopback, of the address it listens on, and those named', () => {
    expect(ownHosts('10.1.2.3', 'a.test, B.test')).toEqual([
      'localhost',
      '127.0.0.1',
      '[::1]',
      '10.1.2.3',
      'a.test',
      'b.test',
    ]);
    expect(ownHosts('fd00::1')).toContain('[fd00::1]');
    expect(ownHosts('0.0.0.0')).not.toContain('0.0.0.0');
  });
});

describe('who may change something', () => {
  const host = { Host: 'shop.test' };
  it.each<[string, Record<string, string>, number]>([
    ['a page of its own', { ...host, 'Sec-Fetch-Site': 'same-origin', Origin: 'http://shop.test' }, 201],
    ['a page of its own over plain HTTP', { ...host, Origin: 'http://shop.test' }, 201],
    ['a program that says who it is', { ...host, 'Junta-Client': 'a script' }, 201],
    ['a program that does not', host, 403],
    ['another site', { ...host, 'Sec-Fetch-Site': 'cross-site', 'Junta-Client': 'x' }, 403],
    [
      'another port of this machine',
      { ...host, 'Sec-Fetch-Site': 'same-site', Origin: 'http://shop.test' },
      403,
    ],
    ['another origin where no site is said', { ...host, Origin: 'http://shop.test:81' }, 403],
    ['a sandboxed frame', { ...host, Origin: 'null', 'Junta-Client': 'x' }, 403],
    ['a typed address', { ...host, 'Sec-Fetch-Site': 'none', 'Junta-Client': 'x' }, 403],
  ])('%s', async (_who, headers, status) => expect((await post(headers)).status).toBe(status));
  it('anybody reads who may see the address, except other sites', async () => {
    expect((await ask('GET', '/api/jobs', host)).status).toBe(200);
    expect((await ask('GET', '/api/jobs', { ...host, Origin: 'http://evil.test' })).status).toBe(403);
  });
});

describe('a body made to hurt', () => {
  const client = { 'Junta-Client': 'tests' };
  const sent = (build: object) => JSON.stringify({ build: { ...demoJobs[1], ...build } });
  it.each<[string, () => string, number, string]>([
    ['1.3 million targets', () => sent({ targets: Array(1_300_000).fill(0) }), 413, '300,000 values'],
    ['60,000 elements', () => sent({ targets: Array(60_000).fill({}) }), 422, '60000'],
    ['60,000 steps of nothing', () => sent({ steps: Array(60_000).fill([]) }), 422, 'steps'],
    [
      '60,000 fields',
      () => sent(Object.fromEntries(Array.from({ length: 60_000 }, (_, i) => [`f${i}`, 0]))),
      413,
      '600 fields',
    ],
    ['a million levels', () => `{"build":${'['.repeat(1_000_000)}`, 413, '24 levels'],
    ['a name of 3 MB', () => sent({ name: 'x'.repeat(3_000_000) }), 422, 'name'],
  ])('%s is refused and named', async (_what, body, status, words) => {
    const answer = await post(client, body());
    expect(answer.status).toBe(status);
    expect(answer.text).toContain(words);
    expect(answer.text.length).toBeLessThan(8000);
    expect(JSON.parse(answer.text).errors?.length ?? 0).toBeLessThanOrEqual(20);
  });
  it.each<[string, string, Record<string, string>, string | undefined, number]>([
    ['text/plain', 'POST', { 'Content-Type': 'text/plain' }, newJob, 415],
    ['a form', 'POST', { 'Content-Type': 'application/x-www-form-urlencoded' }, 'build=1', 415],
    ['no type', 'POST', {}, newJob, 415],
    ['nothing at all', 'POST', JSON_TYPE, undefined, 422],
    ['a string', 'POST', JSON_TYPE, '"x"', 400],
    ['null', 'POST', JSON_TYPE, 'null', 400],
    ['a charset nobody has', 'POST', { 'Content-Type': 'application/json; charset=klingon' }, newJob, 415],
    ['a length that lies', 'POST', { ...JSON_TYPE, 'Content-Encoding': 'gzip' }, 'no gzip', 400],
  ])('%s is answered as what it is', async (_what, method, headers, body, status) =>
    expect((await ask(method, '/api/jobs', { ...client, ...headers }, body)).status).toBe(status));
  it('a version past what the database counts, ids with another case, and paths that are none', async () => {
    const put = (path: string, body: object) =>
      ask('PUT', path, { ...client, ...JSON_TYPE }, JSON.stringify(body));
    expect((await put(`/api/jobs/${id}`, { version: 2 ** 31, build: demoJobs[1] })).status).toBe(422);
    expect((await put(`/api/jobs/${'-'.repeat(36)}`, { version: 1, build: demoJobs[1] })).status).toBe(404);
    expect((await put(`/api/boards/${'-'.repeat(36)}`, { version: 1, board: {} })).status).toBe(422);
    const kit = JSON.parse((await ask('GET', '/api/kit')).text);
    const saws = [kit.shop.saws[0], { ...kit.shop.saws[0], id: kit.shop.saws[0].id.toUpperCase() }];
    const twice = await put('/api/kit', { version: kit.version, shop: { ...kit.shop, saws } });
    expect([twice.status, twice.text]).toEqual([422, expect.stringContaining('whatever the case')]);
    const boards = (await ask('GET', '/api/boards')).text;
    const [first] = JSON.parse(boards);
    expect((await put(`/api/jobs/${id}/boards`, { boards: [first.id, first.id.toUpperCase()] })).status).toBe(
      200,
    );
    for (const path of [
      '/api/jobs/%FF',
      '/api/jobs/%00',
      `/api/jobs/${'a'.repeat(5000)}`,
      '/api/jobs/..%2f..%2fetc',
    ])
      expect([400, 404]).toContain((await ask('GET', path)).status);
  });
  it('a board with forty letters for a number can still be cut: its offcut’s number makes room', async () => {
    const { freeNumber } = await import('../core/stock');
    const long = 'x'.repeat(40);
    expect(freeNumber(long, new Set())).toBe(`${'x'.repeat(39)}a`);
    const taken = new Set(Array.from('abcdefghijklmnopqrstuvwxyz', (c) => 'x'.repeat(39) + c));
    expect(freeNumber(long, taken)).toBe(`${'x'.repeat(38)}-2`);
  });
});

describe('a full disk', () => {
  it('is told from a database that is away', () => {
    expect(
      isDiskFull({
        code: 'ER_DISK_FULL',
        message:
          'Disk full (table); waiting for someone to free some space... (errno: 28 "No space left on device")',
      }),
    ).toBe(true);
    expect(isDiskFull({ code: 'ER_RECORD_FILE_FULL', message: 'The table is full' })).toBe(true);
    expect(isDiskFull({ code: 'ECONNREFUSED', message: 'connect ECONNREFUSED' })).toBe(false);
  });
});

describe('a list asked for again', () => {
  it('is answered 304 while nothing changed', async () => {
    for (const path of ['/api/jobs', `/api/jobs/${id}`, '/api/builds']) {
      const { headers } = await ask('GET', path);
      const again = await ask('GET', path, { 'If-None-Match': headers.etag });
      expect([again.status, again.text]).toEqual([304, '']);
    }
  });
});
