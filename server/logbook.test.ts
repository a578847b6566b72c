import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { LogReply, LogRowsReply } from '../contract/log';
import { demo } from '../demo';
import { demoJobs } from '../demo/jobs';
import { listCosts } from './costs';
import { shopCaller } from './kit';
import { openServer, type TestServer } from './house.fixture';

let house: TestServer;
beforeAll(async () => {
  house = await openServer({ seed: demo });
});
afterAll(() => house?.close());
const api = () => house.api();
const sql = async (text: string, values: unknown[] = []) =>
  (await house.connection.get()).query(text, values);
const log = async (query = ''): Promise<LogReply> => (await api().get(`/api/log${query}`)).body;

const AT = '2026-03-02T10:00:00.000Z';
const base = demoJobs[1] as any;
const rip = base.steps.find(({ kind }: { kind: string }) => kind === 'rip');
const [strip, other] = base.assemblies[0].slots;
const reading = (slot: any, off: number, taken = AT) => ({
  id: `${rip.id}.width.${slot.id}`,
  step: rip.id,
  dimension: 'width',
  piece: slot.id,
  measured: { mm: slot.width.mm + off },
  taken,
  who: 'Ada',
});
const make = async (name: string, part: object) =>
  (
    await api()
      .post('/api/jobs')
      .send({ build: { ...base, name, ...part } })
  ).body as { id: string; version: number; build: any };
const put = async (job: { id: string; version: number; build: any }, part: object) => {
  const build = { ...job.build, ...part };
  const { version } = (await api().put(`/api/jobs/${job.id}`).send({ version: job.version, build })).body;
  return { id: job.id, version, build };
};

describe('what jobs cost that were made', () => {
  const costs = async () => (await api().get('/api/log/costs')).body;
  const done = (build: any) => build.steps.map((step: object) => ({ ...step, done: true, doneAt: AT }));
  it('is told of each whose steps are all done, by today’s prices, and of no other', async () => {
    const kit = (await api().get('/api/kit')).body;
    const { currency: _c, ...free } = kit.shop;
    const shop = { ...free, currency: 'EUR' };
    const setKit = async (next: object) => {
      const { version } = (await api().get('/api/kit')).body;
      expect((await api().put('/api/kit').send({ version, shop: next })).status).toBe(200);
    };
    await setKit(shop);
    const before = (await costs()).made.length;
    const job = await make('costed', {});
    expect((await costs()).made).toHaveLength(before);
    const next = await put(job, { steps: done(job.build) });
    const find = async () => (await costs()).made.find((each: { job: string }) => each.job === job.id);
    const first = await find();
    expect(first).toMatchObject({ name: 'costed', at: AT });
    // Dearer hands, dearer piece: what was worked out before is not told again.
    const rates = { ...shop.rates, handMinor: (shop.rates?.handMinor ?? 0) + 5000 };
    await setKit({ ...shop, rates });
    expect((await find()).plannedMinor).toBeGreaterThan(first.plannedMinor);
    await put(next, { name: 'costed anew' });
    expect((await find()).name).toBe('costed anew');
    // Many are added up a few at a time, one at the least; nothing is told twice, and all are there in the end.
    await Promise.all(['a', 'b', 'c'].map((name) => make(name, { steps: done(base) })));
    const { id } = (await api().get('/api/kit')).body;
    const few = async () => listCosts(await house.connection.get(), shopCaller(id, 'tests'), -1);
    await setKit({ ...shop, rates: { ...rates, taxPct: 1 } });
    const left = [(await few()).pending, (await few()).pending, (await few()).pending];
    expect(left[0]).toBeGreaterThan(1);
    expect(left).toEqual([left[0], left[0] - 1, left[0] - 2]);
    expect(await costs()).toMatchObject({ pending: 0 });
    // A damaged one is named, and takes no other along.
    const whole = (await costs()).made.length;
    await sql('UPDATE job_revision SET build = ? WHERE job_id = ?', ['{', job.id]);
    await setKit(shop);
    expect((await costs()).unread).toEqual(['costed anew']);
    expect((await costs()).made).toHaveLength(whole - 1);
    await api().put(`/api/jobs/${job.id}/place`).send({ deleted: true });
    expect((await costs()).unread).toEqual([]);
    await setKit(free);
    expect(await costs()).toEqual({ made: [], pending: 0, older: 0, unread: [] });
    await setKit(kit.shop);
  });
});

describe('the log', () => {
  it('has the lines of every job as it stands, is made anew when one changes, and forgets one that is deleted', async () => {
    const before = await log();
    const job = await make('logged', { readings: [reading(strip, 0.4)] });
    const one = await log('?text=logged');
    expect(one).toMatchObject({ total: 1, sizes: 1, within: 0 });
    expect(one.lines[0]).toMatchObject({
      job: job.id,
      jobName: 'logged',
      step: rip.id,
      kind: 'size',
      dimension: 'width',
      who: 'Ada',
      at: AT,
      predicted: strip.width.mm,
      measured: strip.width.mm + 0.4,
    });
    const next = await put(job, { readings: [reading(strip, 0.1), reading(other, 0.1)] });
    expect(await log('?text=logged')).toMatchObject({ total: 2, within: 2 });
    // Renamed, its lines follow.
    await put(next, { name: 'another name' });
    expect((await log('?text=logged')).total).toBe(0);
    expect((await log('?text=another%20name')).total).toBe(2);
    await api().put(`/api/jobs/${job.id}/place`).send({ deleted: true });
    expect((await log()).total).toBe(before.total);
    await api().put(`/api/jobs/${job.id}/place`).send({ deleted: false });
    expect((await log('?text=another%20name')).total).toBe(2);
  });
  it('is narrowed by kind, step, saw, wood, dimension, season, day and words, and by nothing it does not know', async () => {
    await make('narrow', {
      readings: [
        reading(strip, 0.1, '2026-01-15T10:00:00.000Z'),
        reading(other, 0.1, '2026-07-15T10:00:00.000Z'),
      ],
      checks: [{ id: 'c', step: rip.id, kind: 'kerf', values: [3.05], taken: AT }],
      failures: [
        {
          id: 'f',
          step: rip.id,
          kind: 'spoiltStrip',
          pieces: [strip.id],
          at: AT,
          words: 'a split 100% through',
        },
      ],
    });
    const count = async (query: string) => (await log(`?text=narrow&${query}`)).total;
    expect(await count('')).toBe(4);
    expect(await count('kind=size')).toBe(2);
    expect(await count('kind=check')).toBe(1);
    expect(await count(`tool=${rip.saw}`)).toBe(4);
    expect(await count('tool=none')).toBe(0);
    expect(await count('stepKind=rip&dimension=width')).toBe(2);
    expect(await count('season=winter')).toBe(1);
    expect(await count('season=summer')).toBe(1);
    expect(await count('from=2026-07-15&to=2026-07-15')).toBe(1);
    expect(await count('from=yesterday')).toBe(4);
    expect(await count('skip=-7')).toBe(4);
    expect(await count('unknown=1')).toBe(4);
    // Signs of the search itself are letters here.
    expect((await log('?text=100%25%20through')).total).toBe(1);
    expect((await log('?text=1%25h')).total).toBe(0);
    expect((await log("?text=' OR 1=1 --")).total).toBe(0);
    const { choices, causes } = await log();
    expect(choices.tools.map(({ id }) => id)).toContain(rip.saw);
    expect(choices.stepKinds).toContain('rip');
    expect(causes).toContainEqual(expect.objectContaining({ cause: 'spoiltStrip', struck: 1 }));
  });
  it('has the notes of a job, until they are taken away', async () => {
    const job = await make('noted', {});
    const id = '6f1f2f0e-6c1c-4a55-8a4e-0d1f6e5f9a11';
    const note = { job: job.id, step: rip.id, words: 'The blade wandered.', marks: [], at: AT, who: 'Ada' };
    const write = (version: number, part: object) =>
      api()
        .put(`/api/notes/${id}`)
        .send({ version, note: { ...note, ...part } });
    expect((await log('?text=noted')).total).toBe(0);
    expect((await write(0, {})).status).toBe(200);
    expect((await log('?kind=note&text=wandered')).lines).toMatchObject([
      { job: job.id, step: rip.id, stepKind: 'rip', words: 'The blade wandered.', who: 'Ada', at: AT },
    ]);
    expect((await write(1, { removed: true })).status).toBe(200);
    expect((await log('?kind=note&text=wandered')).total).toBe(0);
  });
  it('gives rows to learn from, each with its job and its time', async () => {
    const job = await make('rows', {
      checks: [{ id: 'c', step: rip.id, kind: 'kerf', values: [3.05], taken: AT }],
    });
    const { rows, older } = (await api().get('/api/log/rows')).body as LogRowsReply;
    expect(older).toBe(0);
    expect(rows.find((row) => row.job === job.id)).toMatchObject({
      at: AT,
      a: { [`kerf:${rip.saw}`]: 1 },
      tool: rip.saw,
    });
  });
  it('is saved as a table that no spreadsheet takes for formulas', async () => {
    await make('=cmd()', { readings: [reading(strip, 0.2)] });
    const answer = await api().get('/api/log/table?text=cmd');
    expect(answer.headers['content-type']).toMatch(/text\/csv/);
    const [heads, line] = answer.text.split('\r\n');
    expect(heads).toMatch(/^taken,job,step,/);
    expect(line).toContain(`'=cmd()`);
    expect(line).toContain(String(strip.width.mm + 0.2));
  });
  it('names a job that cannot be read, keeps what was known of it, and shows all others', async () => {
    const job = await make('damaged', { readings: [reading(strip, 0.1)] });
    expect((await log('?text=damaged')).total).toBe(1);
    await sql('UPDATE job_revision SET build = ? WHERE job_id = ?', ['{"format":"junta-build"', job.id]);
    await sql('UPDATE job SET version = 2 WHERE id = ?', [job.id]);
    const after = await log();
    expect(after.unread).toContain('damaged');
    expect(after.total).toBeGreaterThan(1);
    await sql('DELETE FROM job WHERE id = ?', [job.id]);
    expect((await log()).unread).toEqual([]);
    // What a job leaves behind goes with it.
    expect(await sql('SELECT 1 FROM log_line WHERE job_id = ?', [job.id])).toEqual([]);
  });
  it('what was taken over from it is kept in the kit, with rules and prices, and travels in no job but for the rules', async () => {
    const { version, shop } = (await api().get('/api/kit')).body;
    const own = {
      learned: [
        {
          id: 'kerf:table-full',
          at: AT,
          was: 3.175,
          is: 2.97,
          readings: 20,
          spreadWas: shop.saws[0].setting,
        },
      ],
      renewed: [{ id: 'bias:table-full:fence', at: AT, from: 0 }],
      rates: {
        handMinor: 4000,
        edges: [{ tool: 'planer', minor: 100, metres: 500 }],
        breaks: [{ from: 5, pct: 3 }],
      },
      rules: [
        {
          id: 'r1',
          words: 'Too short.',
          step: 'slice',
          dimension: 'length',
          side: 'below',
          size: { mm: 300 },
        },
      ],
      paces: [{ kind: 'rip', factor: 1.4 }],
      band: 1.2,
    };
    const kerfOff = { likely: { mm: 0.02 }, worst: { mm: 0.05 }, basis: "this shop's log" };
    const saws = shop.saws.map((saw: object, i: number) => (i === 0 ? { ...saw, kerfOff } : saw));
    const answer = await api()
      .put('/api/kit')
      .send({ version, shop: { ...shop, saws, ...own } });
    expect(answer.status).toBe(200);
    expect((await api().get('/api/kit')).body.shop).toMatchObject({
      ...own,
      saws: [{ kerfOff }, ...saws.slice(1)],
    });
    const bad = (part: object) =>
      api()
        .put('/api/kit')
        .send({ version: version + 1, shop: { ...shop, ...part } });
    for (const part of [
      { band: 3 },
      { paces: [{ kind: 'rip', factor: 0 }] },
      { learned: [{ ...own.learned[0], id: 'kerf' }] },
      { rates: { handMinor: -1 } },
      { rates: { breaks: [{ from: 1, pct: 5 }] } },
      { rules: [{ ...own.rules[0], side: 'beside' }] },
    ])
      expect((await bad(part)).status, JSON.stringify(part)).toBe(422);
    await bad({});
  });
  it('is the same when two ask at once', async () => {
    const job = await make('at once', { readings: [reading(strip, 0.1), reading(other, 0.1)] });
    await Promise.all(Array.from({ length: 6 }, () => log()));
    expect(await sql('SELECT COUNT(*) AS many FROM log_line WHERE job_id = ?', [job.id])).toEqual([
      { many: '2' },
    ]);
  });
  it('shows pages of the newest lines first', async () => {
    const many = Array.from({ length: 450 }, (_, i) => ({
      id: `c${i}`,
      step: rip.id,
      kind: 'kerf',
      values: [3],
      taken: new Date(Date.parse(AT) + i * 60_000).toISOString(),
    }));
    await make('pages', { checks: many });
    const first = await log('?text=pages');
    expect(first).toMatchObject({ total: 450 });
    expect(first.lines).toHaveLength(200);
    const last = await log('?text=pages&skip=400');
    expect(last.lines).toHaveLength(50);
    expect(last.lines.at(-1)?.id).toBe('check:c0');
    expect(first.lines[0].id).toBe('check:c449');
  });
  // From here on every request must say whose shop it means.
  it('belongs to its shop', async () => {
    const { body: shop } = await api()
      .post('/api/shops')
      .send({ shop: { ...base.shop, name: 'Other' } });
    const foreign = (path: string) => api().get(path).set('Junta-Shop', shop.id);
    expect((await foreign('/api/log')).body).toMatchObject({ total: 0, lines: [], causes: [] });
    expect((await foreign('/api/log/rows')).body).toEqual({ rows: [], boards: [], older: 0 });
    expect((await foreign('/api/log/table')).text.trim().split('\r\n')).toHaveLength(1);
  });
});
