import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Express } from 'express';
import request from 'supertest';
// @ts-expect-error plain JavaScript without declarations
import { startDatabase } from '../scripts/database.mjs';
import { createApp, type AppSettings } from './app';
import { connect, type Connection, type DatabaseSettings } from './database';
import { seedDemo } from './seed';

/** A port of loopback that nobody listens on. */
export const freePort = (): Promise<number> =>
  new Promise((done) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => done(port));
    });
  });

/** A database of its own with the demo in it, and a server before it. */
export interface TestServer {
  app: Express;
  connection: Connection;
  settings: DatabaseSettings;
  /** Asks the server as a program does. */
  api: () => ReturnType<typeof request.agent>;
  kill: () => Promise<void>;
  restart: () => Promise<void>;
  close: () => Promise<void>;
}

/** Opens one; `fast` gives up durability. */
export async function openServer({
  fast = true,
  ...settings
}: AppSettings & { fast?: boolean } = {}): Promise<TestServer> {
  const dataDir = mkdtempSync(join(tmpdir(), 'junta server '));
  const port = await freePort();
  let database = await startDatabase({ dataDir, port, fast });
  const connection = connect(database.settings, seedDemo);
  const app = createApp(connection, settings);
  return {
    app,
    connection,
    settings: database.settings,
    api: () => request.agent(app).set('Junta-Client', 'tests'),
    kill: () => database.kill(),
    restart: async () => {
      database = await startDatabase({ dataDir, port, fast });
    },
    close: async () => {
      await connection.close();
      await database.stop();
      rmSync(dataDir, { recursive: true, force: true });
    },
  };
}
