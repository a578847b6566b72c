import { newBoardsBody } from '../contract/board';
import { checkWith } from '../contract/check';
import { readDocument, readShop } from '../contract/read';
import { defaultShop } from '../core/kit';
import { makeLog } from './log';
import { type Seed, seedWith } from './seed';
import { readFileSync, statfsSync } from 'node:fs';
import { createServer as createPlain } from 'node:http';
import { createServer as createSecure } from 'node:https';
import { createApp } from './app';
import { connect } from './database';
import { ownHosts } from './hosts';

/*
 * The server process. Settings come from the environment; loopback only unless JUNTA_HOST says otherwise. Stays up
 * when the database is away, and answers 503 until it is back. Tells its parent, if it has one, when it listens.
 */
const env = process.env;
const port = Number(env.JUNTA_PORT ?? 4180);
const host = env.JUNTA_HOST ?? '127.0.0.1';
/** A shop of its own for a new installation that brings none. */
const emptyShop: Seed = { shop: defaultShop('Our shop'), boards: [], jobs: [] };

/** What a new installation begins with, from a file: checked as everything that comes in. */
function seedFile(file: string): Seed {
  const { shop, boards, jobs } = JSON.parse(readFileSync(file, 'utf8')) as Record<keyof Seed, unknown>;
  const checked = [
    readShop(shop),
    checkWith(newBoardsBody, { boards }),
    ...(jobs as unknown[]).map(readDocument),
  ];
  const bad = checked.find(({ ok }) => !ok);
  if (bad && !bad.ok)
    throw new Error(`${file}: ${bad.problems.map(({ path, reason }) => `${path}: ${reason}`).join('; ')}`);
  return { shop, boards, jobs, demo: true } as Seed;
}
const log = makeLog(env.JUNTA_LOG);
const seed = env.JUNTA_SEED ? seedFile(env.JUNTA_SEED) : undefined;
const connection = connect(
  {
    host: env.JUNTA_DB_HOST ?? '127.0.0.1',
    port: Number(env.JUNTA_DB_PORT ?? 4181),
    user: 'junta',
    password: env.JUNTA_DB_PASSWORD ?? '',
    database: env.JUNTA_DB_NAME ?? 'junta',
  },
  seedWith(seed ?? emptyShop),
);
/** Room on the disk of the data, MB. */
function roomLeft(): number | undefined {
  try {
    const { bavail, bsize } = statfsSync(env.JUNTA_DATA ?? '.data');
    return (bavail * bsize) / 1024 / 1024;
  } catch {
    return undefined;
  }
}
const loopback = ['localhost', '127.0.0.1', '::1'].includes(host) || host.startsWith('127.');
const app = createApp(connection, {
  ...(env.JUNTA_WEB ? { webRoot: env.JUNTA_WEB } : {}),
  hosts: ownHosts(host, env.JUNTA_HOSTS),
  open: !loopback,
  ...(seed ? { seed } : {}),
  roomLeft,
  log,
  mostPerMinute: Number(env.JUNTA_RATE ?? 6000),
  mostPhotoBytes: Number(env.JUNTA_PHOTOS_MB ?? 2000) * 1024 * 1024,
});
const { JUNTA_CERT: cert, JUNTA_KEY: key } = env;
const server =
  cert && key ? createSecure({ cert: readFileSync(cert), key: readFileSync(key) }, app) : createPlain(app);
// Longer than those who ask keep an idle connection for their next question: else it meets one that is just being closed.
server.keepAliveTimeout = 65_000;
server.on('error', (error) => {
  console.error(`Junta cannot listen on ${host}:${port}: ${error.message}`);
  process.exit(1);
});
server.listen(port, host, () => {
  console.log(`Junta listens on ${cert && key ? 'https' : 'http'}://${host}:${port}`);
  // A starter that ended meanwhile hears nothing any more: its channel is closed, and 'disconnect' ends this process.
  if (process.connected) process.send?.('listening', () => {});
});
connection.get().catch((error: Error) => console.error(`The database does not answer yet: ${error.message}`));

for (const signal of ['SIGTERM', 'SIGINT'] as const)
  process.on(signal, () => {
    server.close(() => void connection.close().finally(() => process.exit(0)));
    server.closeIdleConnections();
    (app.locals.endStreams as () => void)();
    setTimeout(() => process.exit(0), 3000).unref();
  });
// A starter that was killed leaves no server behind.
process.on('disconnect', () => process.kill(process.pid, 'SIGTERM'));
