import { execFileSync, spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createConnection } from 'mysql2/promise';
import { afterEach, describe, expect, it } from 'vitest';
// @ts-expect-error plain JavaScript without declarations
import { startDatabase } from './database.mjs';
// @ts-expect-error plain JavaScript without declarations
import { takeLock } from './lock.mjs';
// @ts-expect-error plain JavaScript without declarations
import { freePort } from './ports.mjs';
// @ts-expect-error plain JavaScript without declarations
import { keepRunning } from './watch.mjs';

const folders: string[] = [];
const stops: (() => Promise<unknown>)[] = [];
const folder = (name: string): string => {
  const made = mkdtempSync(join(tmpdir(), name));
  folders.push(made);
  return made;
};
const start = async (dataDir: string, port: number) => {
  const database = await startDatabase({ dataDir, port });
  stops.push(() => database.stop());
  return database;
};
const ask = async (settings: any, sql: string): Promise<any> => {
  const connection = await createConnection(settings);
  const [rows] = await connection.query(sql);
  await connection.end();
  return rows;
};

afterEach(async () => {
  for (const stop of stops.splice(0)) await stop();
  for (const path of folders.splice(0)) rmSync(path, { recursive: true, force: true });
});

describe('the project’s own database', () => {
  it('is made where the path has spaces, answers only with its password, and keeps its data through kill -9', async () => {
    const [dataDir, port] = [folder('junta db with spaces '), await freePort()];
    const first = await start(dataDir, port);
    await ask(first.settings, 'CREATE TABLE kept (id INT PRIMARY KEY)');
    await ask(first.settings, 'INSERT INTO kept VALUES (42)');
    await expect(ask({ ...first.settings, password: 'wrong' }, 'SELECT 1')).rejects.toThrow(/Access denied/);
    await expect(ask({ ...first.settings, user: 'root', password: '' }, 'SELECT 1')).rejects.toThrow();
    expect(statSync(join(dataDir, 'password')).mode & 0o777).toBe(0o600);
    await first.kill();
    const again = await start(dataDir, port);
    expect(again.settings.password).toBe(first.settings.password);
    expect(await ask(again.settings, 'SELECT id FROM kept')).toEqual([{ id: 42 }]);
  });
  it('that already runs is adopted, not started twice', async () => {
    const [dataDir, port] = [folder('junta-db-'), await freePort()];
    const first = await start(dataDir, port);
    const second = await startDatabase({ dataDir, port });
    expect([second.adopted, second.pid]).toEqual([true, first.pid]);
  });
  it('says so when its port belongs to another database', async () => {
    const port = await freePort();
    await start(folder('junta-db-'), port);
    await expect(startDatabase({ dataDir: folder('junta-db-'), port })).rejects.toThrow(
      `Port ${port} is taken`,
    );
  });
});

describe('what is said before anything is started', () => {
  it('a half-made database: what is missing, and what to do', async () => {
    const [dataDir, port] = [folder('junta-half-'), await freePort()];
    mkdirSync(join(dataDir, 'mariadb'));
    await expect(startDatabase({ dataDir, port })).rejects.toThrow(
      /half made or damaged: ibdata1 and mysql are missing.*remove that folder/,
    );
  });
  it('a lock is held by one, says who holds it, and is free once its holder is killed', async () => {
    const dataDir = folder('junta-lock-');
    const code = `import('./scripts/lock.mjs').then(async ({ takeLock }) => {
      const { held } = await takeLock(${JSON.stringify(dataDir)}, () => ({ url: 'http://x' }));
      console.log(held); setInterval(() => {}, 1000); })`;
    const holder = spawn(process.execPath, ['-e', code], { stdio: ['ignore', 'pipe', 'inherit'] });
    stops.push(async () => void holder.kill('SIGKILL'));
    expect(
      await new Promise((done) => holder.stdout?.once('data', (data) => done(String(data).trim()))),
    ).toBe('true');
    expect(await takeLock(dataDir, () => ({}))).toEqual({
      held: false,
      holder: { pid: holder.pid, url: 'http://x' },
    });
    const gone = new Promise((done) => holder.on('exit', done));
    holder.kill('SIGKILL');
    await gone;
    const mine = await takeLock(dataDir, () => ({}));
    expect(mine.held).toBe(true);
    mine.free();
  });
});

describe('something kept running', () => {
  const dying = (lives: number[], quickMs: number) => {
    const said: string[] = [];
    let starts = 0;
    const watch = keepRunning({
      name: 'It',
      quickMs,
      pauseMs: 2,
      say: (words: string) => said.push(words),
      start: async () => {
        const life = lives[starts++] ?? 0;
        return { gone: new Promise((done) => setTimeout(done, life)) };
      },
    });
    return { watch, said, starts: () => starts };
  };
  it('is started again with a growing pause, and given up after five quick deaths', async () => {
    const { watch, said, starts } = dying([], 10_000);
    expect(await watch.ended).toContain('stopped 5 times');
    expect(starts()).toBe(5);
    expect(said.map((words) => Number(/in ([\d.]+) s/.exec(words)?.[1]))).toEqual([
      0.002, 0.004, 0.008, 0.016,
    ]);
  });
  it('is not given up for deaths that lie far apart, nor started once it is told to stop', async () => {
    const { watch, starts } = dying([40, 40, 40, 40, 40, 40], 20);
    await expect.poll(starts).toBeGreaterThan(6);
    watch.stop();
    expect(await watch.ended).toSatisfy(
      (reason) => reason === undefined || String(reason).includes('5 times'),
    );
  });
});

describe('npm start', () => {
  const output = (child: ChildProcess, words: string): Promise<string> =>
    new Promise((done, fail) => {
      let all = '';
      const take = (data: Buffer) => {
        all += data;
        if (all.includes(words)) done(all);
      };
      child.stdout?.on('data', take);
      child.stderr?.on('data', take);
      child.on('exit', () => fail(new Error(`ended before “${words}”: ${all}`)));
    });
  it('goes from nothing to the demo shop, brings back a database that dies, and ends everything when told to', async () => {
    const [dataDir, port, databasePort] = [folder('junta-start-'), await freePort(), await freePort()];
    const env = {
      ...process.env,
      JUNTA_PORT: String(port),
      JUNTA_DB_PORT: String(databasePort),
      JUNTA_DATA: dataDir,
    };
    const child = spawn(process.execPath, ['scripts/start.mjs'], { env, stdio: ['ignore', 'pipe', 'pipe'] });
    stops.push(async () => void child.kill('SIGKILL'));
    const ended = new Promise((done) => child.on('exit', done));
    expect(await output(child, 'Junta is ready')).toContain(`http://127.0.0.1:${port}`);
    const jobs = async () => (await fetch(`http://127.0.0.1:${port}/api/jobs`)).json();
    expect((await jobs()).length).toBeGreaterThanOrEqual(4);
    expect(await (await fetch(`http://127.0.0.1:${port}/jobs`)).text()).toContain('<div id="root">');
    const pid = () => Number(readFileSync(join(dataDir, 'mariadb', 'mariadb.pid'), 'utf8'));
    process.kill(pid(), 'SIGKILL');
    await expect
      .poll(async () => (await fetch(`http://127.0.0.1:${port}/api/jobs`)).status, { timeout: 20_000 })
      .toBe(200);
    expect((await jobs()).length).toBeGreaterThanOrEqual(4);
    // The server dies: it comes back too, and its end is said.
    const serverPid = () =>
      Number(
        execFileSync('pgrep', ['-P', String(child.pid), '-f', 'dist/server.mjs'], {
          encoding: 'utf8',
        }).trim(),
      );
    process.kill(serverPid(), 'SIGKILL');
    await expect
      .poll(
        () =>
          fetch(`http://127.0.0.1:${port}/api/health`).then(
            (r) => r.status,
            () => 0,
          ),
        { timeout: 20_000 },
      )
      .toBe(200);
    // A second start at the same data says who holds it and changes nothing; at the same address, that it is in use.
    const second = (change: object) =>
      spawnSync(process.execPath, ['scripts/start.mjs'], { env: { ...env, ...change }, encoding: 'utf8' });
    const other = second({ JUNTA_PORT: String(await freePort()) });
    expect([other.status, other.stderr]).toEqual([
      1,
      expect.stringMatching(
        new RegExp(
          `in use by another npm start, process ${child.pid}, which serves at http://127.0.0.1:${port}`,
        ),
      ),
    ]);
    const same = second({ JUNTA_DATA: folder('junta-second-') });
    expect([same.status, same.stderr]).toEqual([1, expect.stringContaining(`${port}: it is in use`)]);
    expect((await jobs()).length).toBeGreaterThanOrEqual(4);
    const last = pid();
    child.kill('SIGTERM');
    expect(await ended).toBe(0);
    const isThere = () => {
      try {
        return process.kill(last, 0);
      } catch {
        return false;
      }
    };
    await expect.poll(isThere, { timeout: 10_000 }).toBe(false);
    await expect(fetch(`http://127.0.0.1:${port}/api/jobs`)).rejects.toThrow();
  }, 180_000);
});
