import { existsSync, statSync, truncateSync } from 'node:fs';
import { createServer } from 'node:net';
import { networkInterfaces } from 'node:os';
import { join, resolve } from 'node:path';
import { takeLock } from './lock.mjs';
import { giveUp, needDatabase } from './machine.mjs';
import { needPackages } from './packages.mjs';

/*
 * npm start: packages, database, build, demo shop, serve. Settings: JUNTA_PORT (4180), JUNTA_DB_PORT (4181),
 * JUNTA_DATA (.data), JUNTA_HOST (127.0.0.1: this machine only), JUNTA_HOSTS (more names it answers to), JUNTA_CERT and
 * JUNTA_KEY (files: it serves TLS). Database and server are started again should they die. What can be said before
 * anything is started is said first: who holds the data, and which address is in use.
 */
const { env } = process;
const port = Number(env.JUNTA_PORT ?? 4180);
const databasePort = Number(env.JUNTA_DB_PORT ?? 4181);
const dataDir = env.JUNTA_DATA ?? '.data';
const host = env.JUNTA_HOST ?? '127.0.0.1';
const everywhere = ['0.0.0.0', '::'].includes(host);
const log = join(dataDir, 'server.log');
let url;

const lock = await takeLock(dataDir, () => ({ url, since: new Date().toISOString() })).catch((error) =>
  giveUp(`The data directory ${dataDir} cannot be used: ${error.message}`),
);
if (!lock.held) {
  const { pid, url: at } = lock.holder ?? {};
  giveUp(
    `The data in ${resolve(dataDir)} is in use by another npm start${pid ? `, process ${pid}` : ''}, ${at ? `which serves at ${at}` : 'which is still starting'}. Nothing was changed.`,
  );
}

/** Why an address cannot be listened on, or undefined. */
const inTheWay = (atPort, atHost) =>
  new Promise((done) => {
    const probe = createServer();
    probe.once('error', (error) => done(error.code === 'EADDRINUSE' ? 'it is in use' : error.message));
    probe.listen(atPort, atHost, () => probe.close(() => done(undefined)));
  });

const taken = await inTheWay(port, host);
if (taken)
  giveUp(
    `Junta cannot listen on ${host}:${port}: ${taken}. Nothing was started. Set JUNTA_PORT to a free port.`,
  );
const { greets, roomLeft, runningPid, startDatabase } = await import('./database.mjs');
if (!runningPid(resolve(dataDir)) && (await inTheWay(databasePort, '127.0.0.1')))
  giveUp(
    `Port ${databasePort} is taken${(await greets(databasePort)) ? ' by another database server' : ''}. Nothing was started. Set JUNTA_DB_PORT to a free port.`,
  );
if (Boolean(env.JUNTA_CERT) !== Boolean(env.JUNTA_KEY))
  giveUp('TLS needs both JUNTA_CERT and JUNTA_KEY, the files of a certificate and of its key.');
for (const name of ['JUNTA_CERT', 'JUNTA_KEY'])
  if (env[name] && !existsSync(env[name])) giveUp(`${name} names ${env[name]}, which is not there.`);

needPackages();
needDatabase();
const { build } = await import('./build.mjs');
const { health, startServer } = await import('./serve.mjs');
const { keepRunning } = await import('./watch.mjs');

let database;
let server;
/** The starts that are under way: an end waits for them, or what they start would be left behind. */
const opening = new Set();
const during = (work) => {
  opening.add(work);
  return work.finally(() => opening.delete(work));
};
const watches = [];
let ending = false;
async function end(code, message) {
  if (ending) return;
  ending = true;
  for (const watch of watches) watch.stop();
  await Promise.allSettled([...opening]);
  await server?.stop();
  await database?.stop();
  if (message) console.error(`\n${message}\n`);
  process.exit(code);
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void end(0));

const openDatabase = () =>
  during(
    startDatabase({ dataDir, port: databasePort }).then((started) => {
      database = started;
      const gone = started.child ? new Promise((done) => started.child.on('exit', done)) : started.gone();
      return { gone };
    }),
  );
const openServer = (patient) =>
  during(
    startServer({
      port,
      host,
      database: database.settings,
      log,
      patient,
      env: { JUNTA_DATA: resolve(dataDir) },
    }).then((started) => {
      server = started;
      return started;
    }),
  );

/** The addresses of this machine's networks at which this server really answers. */
async function answering() {
  const addresses = Object.values(networkInterfaces())
    .flatMap((all) => all ?? [])
    .filter(({ internal, scopeid }) => !internal && !scopeid)
    .map(({ address, family }) => (family === 'IPv6' ? `[${address}]` : address));
  const urls = addresses.map((address) => `${new URL(server.url).protocol}//${address}:${port}`);
  const answers = await Promise.all(urls.map(async (each) => (await health(each, 1500))?.status === 200));
  return urls.filter((_, i) => answers[i]);
}

let databaseGone;
try {
  databaseGone = await openDatabase();
  await build();
  if (existsSync(log) && statSync(log).size > 5_000_000) truncateSync(log);
  await openServer(true);
} catch (error) {
  await end(1, error.message);
}
if (!ending) {
  ({ url } = server);
  const loopback = /^(127\.|localhost$|::1$)/.test(host);
  console.log(`\nJunta is ready: ${url}`);
  if (!loopback) {
    const others = everywhere ? await answering() : [];
    for (const each of others) console.log(`                and ${each}`);
    console.log(
      '\nAnybody on this network is the shop: there is no sign-in yet, and whoever reaches this address\nreads and changes everything in it.',
    );
  }
  console.log('Stop it with Ctrl-C.\n');
  const say = (message) => {
    const room = roomLeft(dataDir);
    console.error(room < 8 ? `${message} The disk is full: ${room.toFixed(1)} MB are left.` : message);
  };
  watches.push(
    keepRunning({ name: 'The database', start: openDatabase, first: databaseGone, say }),
    keepRunning({ name: 'The server', start: () => openServer(false), first: server, say }),
  );
  const [why, where] = await Promise.race([
    watches[0].ended.then((reason) => [reason, join(dataDir, 'mariadb.log')]),
    watches[1].ended.then((reason) => [reason, log]),
  ]);
  if (why) await end(1, `${why} Junta stops. Look into ${where}.`);
}
