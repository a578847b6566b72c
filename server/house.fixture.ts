import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Express } from 'express';
import request from 'supertest';
// @ts-expect-error plain JavaScript without declarations
import { startDatabase } from '../scripts/database.mjs';
// @ts-expect-error plain JavaScript without declarations
import { freePort } from '../scripts/ports.mjs';
import { createApp, type AppSettings } from './app';
import { connect, type Connection, type DatabaseSettings } from './database';
import { demo } from '../demo';
import { seedWith } from './seed';

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
  const connection = connect(database.settings, seedWith(demo));
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
