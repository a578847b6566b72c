import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { defaultShop } from '../core/kit';
import { demoJobs } from '../demo/jobs';
import { createApp } from './app';
import { openServer, type TestServer } from './house.fixture';
import request from 'supertest';

/* Notes and photos on a real database. */

let house: TestServer;
const api = () => house.api();
beforeAll(async () => {
  house = await openServer();
});
afterAll(() => house.close());

const DAY = 86_400_000;
const [build] = demoJobs;
const sql = async (text: string, values: unknown[]) =>
  (await house.connection.get()).query(text, values as never[]);
const newJob = async (name: string) =>
  (
    await api()
      .post('/api/jobs')
      .send({ build: { ...build, name } })
  ).body as { id: string; version: number };
const said = (job: string, words = 'tear-out at the left end') => ({
  job,
  step: 'flatten',
  words,
  marks: [{ kind: 'arrow', x1: 0.1, y1: 0.2, x2: 0.5, y2: 0.6 }],
  at: '2026-03-02T09:30:00.000Z',
  who: 'Ines',
});
const write = (id: string, version: number, note: object, key?: string) => {
  const sent = api().put(`/api/notes/${id}`);
  if (key) sent.set('Idempotency-Key', key);
  return sent.send({ version, note });
};
const picture = (colour: string, width = 200) =>
  sharp({ create: { width, height: 100, channels: 3, background: colour } })
    .jpeg()
    .toBuffer();
const attach = (id: string, bytes: Buffer, app = api()) =>
  app.put(`/api/notes/${id}/photo`).set('Content-Type', 'image/jpeg').send(bytes);
const listed = async (job: string) => (await api().get(`/api/jobs/${job}/notes`)).body;

describe('a note', () => {
  it('is written once however often it is sent, changed from the version that stands, and both are there where two changed it', async () => {
    const job = await newJob('notes');
    const [id, key] = [randomUUID(), randomUUID()];
    const note = said(job.id);
    for (let times = 0; times < 3; times++)
      expect(await write(id, 0, note, key)).toMatchObject({ status: 200, body: { ...note, id, version: 1 } });
    // Without its receipt too: what stands is what was sent.
    expect(await write(id, 0, note)).toMatchObject({ status: 200, body: { version: 1 } });
    expect(await write(id, 1, { ...note, words: 'worse than it looked' })).toMatchObject({
      status: 200,
      body: { version: 2, words: 'worse than it looked' },
    });
    expect(await write(id, 1, { ...note, words: 'of another phone' })).toMatchObject({
      status: 409,
      body: { current: { version: 2, words: 'worse than it looked' } },
    });
    expect((await listed(job.id)).notes).toMatchObject([{ id, version: 2, step: 'flatten' }]);
  });
  it('sent by two at once is there once', async () => {
    const job = await newJob('at once');
    const id = randomUUID();
    const answers = await Promise.all(Array.from({ length: 6 }, () => write(id, 0, said(job.id))));
    expect(answers.map(({ status }) => status)).toEqual(Array(6).fill(200));
    expect((await listed(job.id)).notes).toHaveLength(1);
  });
  it('that nobody can place is refused with its field', async () => {
    const job = await newJob('refusals');
    const note = said(job.id);
    const bad: [object, RegExp][] = [
      [{ ...note, job: undefined }, /a job or to a board/],
      [{ ...note, board: randomUUID() }, /one of them only/],
      [{ ...note, job: undefined, board: randomUUID() }, /only where it belongs to a job/],
      [{ ...note, at: 'yesterday' }, /must be a time/],
      [{ ...note, words: 'x'.repeat(2001) }, /2000/],
      [{ ...note, marks: [{ kind: 'star', x1: 0, y1: 0, x2: 1, y2: 1 }] }, /arrow, circle, line/],
      [{ ...note, marks: [{ kind: 'line', x1: 0, y1: 0, x2: 1.2, y2: 1 }] }, /less than or equal to 1/],
      [{ ...note, photo: 'none' }, /does not know/],
    ];
    for (const [body, why] of bad)
      expect(await write(randomUUID(), 0, body)).toMatchObject({
        status: 422,
        body: { detail: expect.stringMatching(why) },
      });
    expect((await write(randomUUID(), 0, { ...note, job: randomUUID() })).status).toBe(404);
    // The last has the form of a UUID, but is of no version: the database would not take it.
    for (const wrong of ['not-an-id', '8e45cb60-f041-e635-2dbb-0aa99ce7d093'])
      expect((await write(wrong, 0, note)).status).toBe(422);
    expect((await write(randomUUID(), 3, note)).status).toBe(404);
    const id = randomUUID();
    await write(id, 0, note);
    const other = await newJob('another');
    expect(await write(id, 1, { ...note, job: other.id })).toMatchObject({ status: 422 });
  });
  it('of a board lies with the board', async () => {
    const [board] = (await api().get('/api/boards')).body;
    const id = randomUUID();
    const note = { board: board.id, words: 'worm holes', marks: [], at: '2026-03-02T09:30:00Z' };
    expect((await write(id, 0, note)).status).toBe(200);
    expect((await api().get(`/api/boards/${board.id}/notes`)).body.notes).toMatchObject([
      { id, words: 'worm holes' },
    ]);
    expect((await write(randomUUID(), 0, { ...note, board: randomUUID() })).status).toBe(404);
  });
});

describe('a photo', () => {
  it('is kept once, given whole and small, and stays whatever becomes of the build', async () => {
    const job = await newJob('photographed');
    const id = randomUUID();
    const bytes = await picture('#a63', 900);
    // Before its note is there it has no place.
    expect((await attach(id, bytes)).status).toBe(404);
    await write(id, 0, said(job.id));
    for (let times = 0; times < 2; times++)
      expect(await attach(id, bytes)).toMatchObject({
        status: 200,
        body: { id, version: 1, photo: { widthPx: 900, heightPx: 100 } },
      });
    expect((await attach(id, await picture('#00f'))).status).toBe(409);
    const whole = await api().get(`/api/notes/${id}/photo`);
    expect(whole.headers).toMatchObject({
      'content-type': 'image/webp',
      'cache-control': expect.stringContaining('immutable'),
    });
    expect(await sharp(whole.body).metadata()).toMatchObject({ format: 'webp', width: 900 });
    const small = await api().get(`/api/notes/${id}/photo?size=small`);
    expect(await sharp(small.body).metadata()).toMatchObject({ width: 480 });
    // The step it was taken at goes, and comes back: the photo lies beside the job.
    const { body: now } = await api().get(`/api/jobs/${job.id}`);
    const without = { ...now.build, steps: now.build.steps.slice(0, -1) };
    await api().put(`/api/jobs/${job.id}`).send({ version: 1, build: without });
    await api().put(`/api/jobs/${job.id}`).send({ version: 2, build: now.build });
    expect((await listed(job.id)).notes).toMatchObject([{ id, photo: { widthPx: 900 } }]);
  });
  it('of nothing, of another kind, too large, or sent as something else is refused, and the note stays without', async () => {
    const job = await newJob('no photo');
    const id = randomUUID();
    await write(id, 0, said(job.id));
    expect(await attach(id, Buffer.alloc(0))).toMatchObject({
      status: 422,
      body: { detail: expect.stringMatching(/0 bytes/) },
    });
    expect((await attach(id, Buffer.from('<svg/>'))).status).toBe(422);
    expect(await attach(id, Buffer.alloc(13 * 1024 * 1024))).toMatchObject({
      status: 413,
      body: { detail: expect.stringMatching(/12 MB/) },
    });
    expect(
      (await api().put(`/api/notes/${id}/photo`).set('Content-Type', 'text/html').send('<p>')).status,
    ).toBe(415);
    expect((await api().get(`/api/notes/${id}/photo`)).status).toBe(404);
    expect((await listed(job.id)).notes).toMatchObject([{ id }]);
  });
  it('finds no room beyond the quota: what is used and what may be is said', async () => {
    const job = await newJob('full');
    const before = (await listed(job.id)).usedBytes;
    const small = createApp(house.connection, { mostPhotoBytes: before + 2000 });
    const tight = () => request.agent(small).set('Junta-Client', 'tests');
    const [one, two] = [randomUUID(), randomUUID()];
    for (const id of [one, two]) await write(id, 0, said(job.id));
    expect((await attach(one, await picture('#123'), tight())).status).toBe(200);
    const noisy = await sharp({
      create: {
        width: 300,
        height: 300,
        channels: 3,
        noise: { type: 'gaussian', mean: 128, sigma: 50 },
      } as never,
    })
      .jpeg()
      .toBuffer();
    expect(await attach(two, noisy, tight())).toMatchObject({
      status: 413,
      body: { title: 'No room for photos', detail: expect.stringMatching(/take .* MB of .* MB/) },
    });
    const { notes, usedBytes, mostBytes } = (await tight().get(`/api/jobs/${job.id}/notes`)).body;
    expect(notes.map(({ photo }: any) => photo !== undefined)).toEqual([true, false]);
    expect(usedBytes).toBe(before + notes[0].photo.bytes);
    expect(mostBytes).toBe(before + 2000);
  });
  it('taken away is brought back within 30 days, and gone after; one of a deleted job goes with the job', async () => {
    const job = await newJob('goes');
    const id = randomUUID();
    const note = said(job.id);
    await write(id, 0, note);
    await attach(id, await picture('#456'));
    await write(id, 1, { ...note, removed: true });
    expect((await listed(job.id)).notes).toMatchObject([{ id, removed: true }]);
    await sql('UPDATE note SET removed_at = ? WHERE id = ?', [new Date(Date.now() - 29 * DAY), id]);
    expect((await write(id, 2, note)).body).toMatchObject({ version: 3, photo: { widthPx: 200 } });
    await write(id, 3, { ...note, removed: true });
    await sql('UPDATE note SET removed_at = ? WHERE id = ?', [new Date(Date.now() - 31 * DAY), id]);
    expect((await listed(job.id)).notes).toEqual([]);
    expect(await sql('SELECT 1 FROM photo WHERE note_id = ?', [id])).toEqual([]);
    // A job that is deleted keeps its photos as long as it can be brought back.
    const later = randomUUID();
    await write(later, 0, note);
    await attach(later, await picture('#789'));
    await api().put(`/api/jobs/${job.id}/place`).send({ deleted: true });
    expect((await write(randomUUID(), 0, note)).status).toBe(410);
    await api().put(`/api/jobs/${job.id}/place`).send({ deleted: false });
    expect((await listed(job.id)).notes).toMatchObject([{ id: later, photo: {} }]);
    await api().put(`/api/jobs/${job.id}/place`).send({ deleted: true });
    await sql('UPDATE job SET deleted_at = ? WHERE id = ?', [new Date(Date.now() - 31 * DAY), job.id]);
    await api().get('/api/deleted-jobs');
    expect(await sql('SELECT 1 FROM photo WHERE note_id = ?', [later])).toEqual([]);
  });
  it('is of one shop: another one neither sees nor changes it, and an address says whose it is', async () => {
    const { id: other } = (
      await api()
        .post('/api/shops')
        .send({ shop: defaultShop('Next door') })
    ).body;
    const [demo] = (await api().get('/api/shops')).body.shops;
    const own = () => api().set('Junta-Shop', demo.id);
    const job = (
      await own()
        .post('/api/jobs')
        .send({ build: { ...build, name: 'ours' } })
    ).body;
    const id = randomUUID();
    await own()
      .put(`/api/notes/${id}`)
      .send({ version: 0, note: said(job.id) });
    await attach(id, await picture('#abc'), own());
    const theirs = () => api().set('Junta-Shop', other);
    expect((await theirs().get(`/api/notes/${id}/photo`)).status).toBe(404);
    expect((await theirs().get(`/api/jobs/${job.id}/notes`)).body.notes).toEqual([]);
    expect(
      (
        await theirs()
          .put(`/api/notes/${id}`)
          .send({ version: 1, note: said(job.id) })
      ).status,
    ).toBe(404);
    expect(
      (
        await theirs()
          .put(`/api/notes/${id}`)
          .send({ version: 0, note: said(job.id) })
      ).status,
    ).toBe(404);
    expect((await attach(id, await picture('#000'), theirs())).status).toBe(404);
    // As a browser shows it: by the address alone.
    expect((await api().get(`/api/notes/${id}/photo?shop=${demo.id}`)).status).toBe(200);
    expect((await api().get(`/api/notes/${id}/photo?shop=${other}`)).status).toBe(404);
    expect((await api().get(`/api/notes/${id}/photo`)).status).toBe(400);
  });
});
