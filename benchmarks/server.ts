import { fork } from 'node:child_process';
import { closeSync, fdatasyncSync, mkdtempSync, openSync, rmSync, writeSync } from 'node:fs';
import { Agent, request } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createConnection } from 'mysql2/promise';
// @ts-expect-error plain JavaScript without declarations
import { startDatabase } from '../scripts/database.mjs';
// @ts-expect-error plain JavaScript without declarations
import { freePort } from '../scripts/ports.mjs';
// @ts-expect-error plain JavaScript without declarations
import { startServer } from '../scripts/serve.mjs';
import type { Row } from './timing';

const CONNECTIONS = 10;
const FOR_MS = 2500;
const WARM_MS = 700;

interface Asked {
  status: number;
  text: string;
  etag?: string;
}
const agent = new Agent({ keepAlive: true, maxSockets: CONNECTIONS });

const ask = (
  url: string,
  method = 'GET',
  headers: Record<string, string> = {},
  body?: string,
): Promise<Asked> =>
  new Promise((done, fail) => {
    const sent = request(url, { method, agent, headers }, (answer) => {
      const parts: Buffer[] = [];
      answer.on('data', (part: Buffer) => parts.push(part));
      answer.on('end', () =>
        done({
          status: answer.statusCode ?? 0,
          text: Buffer.concat(parts).toString(),
          ...(answer.headers.etag ? { etag: answer.headers.etag } : {}),
        }),
      );
    });
    sent.on('error', fail);
    sent.end(body);
  });

/** Requests a second over ten connections; every one must be answered as wanted. */
async function perSecond(one: (connection: number) => Promise<Asked>, wanted: number): Promise<number> {
  const loop = async (ms: number) => {
    const end = performance.now() + ms;
    let count = 0;
    await Promise.all(
      Array.from({ length: CONNECTIONS }, async (_, connection) => {
        while (performance.now() < end) {
          const { status, text } = await one(connection);
          if (status !== wanted) throw new Error(`${status} instead of ${wanted}: ${text.slice(0, 200)}`);
          count += 1;
        }
      }),
    );
    return (count / ms) * 1000;
  };
  await loop(WARM_MS);
  return loop(FOR_MS);
}

/** How often a second the disk under the data takes a flush. */
function flushesPerSecond(folder: string): number {
  const file = join(folder, 'flush');
  const handle = openSync(file, 'w');
  const end = performance.now() + 1000;
  let count = 0;
  while (performance.now() < end) {
    writeSync(handle, Buffer.alloc(512), 0, 512, 0);
    fdatasyncSync(handle);
    count += 1;
  }
  closeSync(handle);
  rmSync(file);
  return count;
}

interface Bare {
  port: number;
  stop: () => void;
}
const startBare = (bodies: object): Promise<Bare> =>
  new Promise((done) => {
    const child = fork('benchmarks/bare.mjs', { env: { ...process.env, NODE_ENV: 'production' } });
    child.once('message', (port) => done({ port: Number(port), stop: () => child.kill() }));
    child.send(bodies);
  });

/** The server against a bare Express of the same run that answers the same bodies. */
export async function serverRows(): Promise<Row[]> {
  const dataDir = mkdtempSync(join(tmpdir(), 'junta-bench-'));
  const [port, databasePort] = [await freePort(), await freePort()];
  const database = await startDatabase({ dataDir, port: databasePort });
  const server = await startServer({
    port,
    database: database.settings,
    quiet: true,
    env: { JUNTA_RATE: '100000000' },
  });
  let bare: Bare | undefined;
  try {
    const list = JSON.parse((await ask(`${server.url}/api/jobs`)).text) as { id: string }[];
    const jobs = await Promise.all(
      Array.from({ length: CONNECTIONS }, async (_, i) => {
        const source = JSON.parse((await ask(`${server.url}/api/jobs/${list[i % list.length].id}`)).text);
        const made = await ask(
          `${server.url}/api/jobs`,
          'POST',
          { 'Content-Type': 'application/json', 'Junta-Client': 'bench' },
          JSON.stringify({ build: { ...source.build, name: `bench ${i}` } }),
        );
        return JSON.parse(made.text) as { id: string; version: number; build: object };
      }),
    );
    const all = await ask(`${server.url}/api/jobs`);
    const one = await ask(`${server.url}/api/jobs/${jobs[0].id}`);
    const { build: _, ...saved } = jobs[0];
    const mine = await startBare({ list: JSON.parse(all.text), job: JSON.parse(one.text), saved });
    bare = mine;
    const bareUrl = `http://127.0.0.1:${mine.port}`;
    const JSON_TYPE = { 'Content-Type': 'application/json', 'Junta-Client': 'bench' };
    const body = (i: number, version: number) => JSON.stringify({ version, build: jobs[i].build });
    const write = async (i: number): Promise<Asked> => {
      const answer = await ask(
        `${server.url}/api/jobs/${jobs[i].id}`,
        'PUT',
        JSON_TYPE,
        body(i, jobs[i].version),
      );
      jobs[i].version += 1;
      return answer;
    };
    const ratios: [string, number, number, number][] = [
      [
        'GET /api/jobs',
        await perSecond(() => ask(`${server.url}/api/jobs`), 200),
        await perSecond(() => ask(`${bareUrl}/list`), 200),
        0.25,
      ],
      [
        'GET /api/jobs, unchanged (304)',
        await perSecond(() => ask(`${server.url}/api/jobs`, 'GET', { 'If-None-Match': all.etag ?? '' }), 304),
        await perSecond(() => ask(`${bareUrl}/list`), 200),
        0.25,
      ],
      [
        `GET one job (${(one.text.length / 1024).toFixed(0)} kB)`,
        await perSecond((i) => ask(`${server.url}/api/jobs/${jobs[i].id}`), 200),
        await perSecond(() => ask(`${bareUrl}/job`), 200),
        0.33,
      ],
      [
        'PUT one job, conditional',
        await perSecond(write, 200),
        await perSecond((i) => ask(`${bareUrl}/job`, 'PUT', JSON_TYPE, body(i, 1)), 200),
        0.15,
      ],
    ];
    const connection = await createConnection(database.settings);
    const [rows] = await connection.query("SHOW VARIABLES LIKE 'innodb_flush_log_at_trx_commit'");
    await connection.end();
    const setting = (rows as { Value: string }[])[0]?.Value;
    const flushes = flushesPerSecond(dataDir);
    return ratios.map(([what, ours, theirs, goal]) => ({
      what: `${what}, 10 connections, to bare Express`,
      measured: `${(ours / theirs).toFixed(3)} (${ours.toFixed(0)}/s of ${theirs.toFixed(0)}/s${what.startsWith('PUT') ? `; flush at commit ${setting}, disk ${flushes} flushes/s` : ''})`,
      wanted: `${goal} or more`,
      met: ours / theirs >= goal,
    }));
  } finally {
    bare?.stop();
    agent.destroy();
    await server.stop();
    await database.stop();
    rmSync(dataDir, { recursive: true, force: true });
  }
}
