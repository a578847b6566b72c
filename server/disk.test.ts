import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import request from 'supertest';
import { afterAll, describe, expect, it } from 'vitest';
// @ts-expect-error plain JavaScript without declarations
import { startDatabase } from '../scripts/database.mjs';
// @ts-expect-error plain JavaScript without declarations
import { freePort } from '../scripts/ports.mjs';
import { createApp } from './app';
import { connect } from './database';
import { demo } from '../demo';
import { seedWith } from './seed';

/* A disk that really is full needs a disk of its own: one in memory, where this user may mount one. */
const folder = mkdtempSync(join(tmpdir(), 'junta-disk-'));
const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=260M', 'tmpfs', folder]).status === 0;
afterAll(() => {
  if (mounted) spawnSync('umount', ['-l', folder]);
  rmSync(folder, { recursive: true, force: true });
});

describe.skipIf(!mounted)('a full disk', () => {
  it('is said as such, by the server and by the next start, and nothing stored is lost', async () => {
    const dataDir = join(folder, 'data');
    const free = () => {
      const { bavail, bsize } = statfsSync(folder);
      return bavail * bsize;
    };
    const port = await freePort();
    let database = await startDatabase({ dataDir, port });
    const connection = connect(database.settings, seedWith(demo));
    const app = createApp(connection, { roomLeft: () => free() / 1024 / 1024 });
    const api = () => request.agent(app).set('Junta-Client', 'tests');
    const [{ id }] = (await api().get('/api/jobs')).body;
    const { build } = (await api().get(`/api/jobs/${id}`)).body;
    const save = (version: number, name: string) =>
      api()
        .put(`/api/jobs/${id}`)
        .send({ version, build: { ...build, name } });
    expect((await save(1, 'before')).status).toBe(200);
    writeFileSync(join(folder, 'fill'), Buffer.alloc(free()));
    let version = 2;
    let last = await save(version, 'full');
    for (let i = 0; last.status === 200 && i < 2000; i++)
      last = await save((version = last.body.version), `full ${i}`);
    expect(last).toMatchObject({ status: 507, body: { title: 'The disk is full' } });
    await database.kill();
    expect((await api().get('/api/health')).status).toBe(507);
    await expect(startDatabase({ dataDir, port })).rejects.toThrow(/The disk is full: \d+ MB are left/);
    rmSync(join(folder, 'fill'));
    database = await startDatabase({ dataDir, port });
    const read = await api().get(`/api/jobs/${id}`);
    expect(read.status).toBe(200);
    expect(read.body.version).toBeGreaterThanOrEqual(version);
    await connection.close();
    await database.stop();
  }, 120_000);
});
