import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { DatabaseSettings } from '../../server/database';
// @ts-expect-error plain JavaScript without declarations
import { startDatabase } from '../database.mjs';
// @ts-expect-error plain JavaScript without declarations
import { freePort } from '../ports.mjs';
// @ts-expect-error plain JavaScript without declarations
import { startServer } from '../serve.mjs';

/** A database and a built server that can be killed and started again, at addresses that stay. */
export interface Victim {
  url: string;
  settings: DatabaseSettings;
  serverPid: () => number;
  startServer: (patient?: boolean) => Promise<void>;
  killServer: () => Promise<void>;
  startDatabase: () => Promise<void>;
  killDatabase: () => Promise<void>;
  close: () => Promise<void>;
}

/** Opens one; the database keeps its full durability. `server: false` leaves the server to be started. */
export async function openVictim({ server: withServer = true } = {}): Promise<Victim> {
  const dataDir = mkdtempSync(join(tmpdir(), 'junta-torture-'));
  const [port, databasePort] = [await freePort(), await freePort()];
  let database = await startDatabase({ dataDir, port: databasePort });
  let server: { child: { pid: number }; kill: () => Promise<void> } | undefined;
  const victim: Victim = {
    url: `http://127.0.0.1:${port}`,
    settings: database.settings,
    serverPid: () => server?.child.pid ?? 0,
    startServer: async (patient = true) => {
      server = await startServer({
        port,
        database: database.settings,
        log: join(dataDir, 'server.log'),
        patient,
        env: { JUNTA_RATE: '100000000', JUNTA_DATA: dataDir },
      });
    },
    killServer: async () => void (await server?.kill()),
    startDatabase: async () => {
      database = await startDatabase({ dataDir, port: databasePort });
    },
    killDatabase: () => database.kill(),
    close: async () => {
      await server?.kill();
      await database.stop();
      rmSync(dataDir, { recursive: true, force: true });
    },
  };
  if (withServer) await victim.startServer();
  return victim;
}

/** Memory of a process, MB. */
export const memoryOf = (pid: number): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;

/** What was answered; a status of nought where nobody did. */
export interface Answer {
  status: number;
  // eslint-disable-next-line @typescript-eslint/no-explicit-any -- whatever a server under attack may answer
  body: any;
  ms: number;
}

/** Sends a request as a program does. */
export async function send(
  url: string,
  method = 'GET',
  body?: unknown,
  headers: Record<string, string> = {},
): Promise<Answer> {
  const start = performance.now();
  try {
    const answer = await fetch(url, {
      method,
      headers: { 'Junta-Client': 'torture', 'Content-Type': 'application/json', ...headers },
      ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
      signal: AbortSignal.timeout(20_000),
    });
    const text = await answer.text();
    const ms = performance.now() - start;
    try {
      return { status: answer.status, body: JSON.parse(text), ms };
    } catch {
      return { status: answer.status, body: text, ms };
    }
  } catch {
    return { status: 0, body: undefined, ms: performance.now() - start };
  }
}

export const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));
