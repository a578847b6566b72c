import { giveUp, needDatabase } from './machine.mjs';
import { needPackages } from './packages.mjs';

/*
 * npm start: packages, database, build, demo shop, serve. Settings: JUNTA_PORT (4180), JUNTA_DB_PORT (4181),
 * JUNTA_DATA (.data), JUNTA_HOST (127.0.0.1: this machine only). The database is restarted should it die.
 */
const port = Number(process.env.JUNTA_PORT ?? 4180);
const databasePort = Number(process.env.JUNTA_DB_PORT ?? 4181);
const dataDir = process.env.JUNTA_DATA ?? '.data';

needPackages();
needDatabase();
const { startDatabase } = await import('./database.mjs');
const { build } = await import('./build.mjs');
const { startServer } = await import('./serve.mjs');

let database;
/** The start of the database that is under way, or was last: an end waits for it, or it would be left behind. */
let opening;
let server;
let ending = false;
async function end(code) {
  if (ending) return;
  ending = true;
  await opening?.catch(() => undefined);
  await server?.stop();
  await database?.stop();
  process.exit(code);
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void end(0));

const openDatabase = () => {
  opening = startDatabase({ dataDir, port: databasePort }).then((started) => {
    database = started;
    database.child?.on('exit', () => {
      if (ending) return;
      console.error('The database stopped; starting it again.');
      openDatabase().catch((error) => void end(1).then(() => console.error(error.message)));
    });
  });
  return opening;
};

try {
  await openDatabase();
  await build();
  server = await startServer({
    port,
    host: process.env.JUNTA_HOST,
    database: database.settings,
    quiet: true,
  });
} catch (error) {
  ending = true;
  await server?.stop();
  await database?.stop();
  giveUp(error.message);
}
console.log(`\nJunta is ready: ${server.url}\nStop it with Ctrl-C.\n`);
await server.gone;
await end(1);
