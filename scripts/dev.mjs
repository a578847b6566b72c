import { spawn } from 'node:child_process';
import { startDatabase } from './database.mjs';
import { takeLock } from './lock.mjs';
import { giveUp, needDatabase } from './machine.mjs';
import { needPackages } from './packages.mjs';
import { writeDemo } from './build.mjs';

/* npm run dev: the server restarted on change, the interface served by Vite with hot reload. */
const lock = await takeLock('.data', () => ({ url: 'npm run dev' }));
if (!lock.held)
  giveUp(`The data in .data is in use by process ${lock.holder?.pid ?? '?'}. Nothing was changed.`);
needPackages();
needDatabase();
const database = await startDatabase({ dataDir: '.data', port: Number(process.env.JUNTA_DB_PORT ?? 4181) });
await writeDemo();
const env = {
  ...process.env,
  JUNTA_SEED: `${process.cwd()}/dist/demo.json`,
  JUNTA_DB_PORT: String(database.settings.port),
  JUNTA_DB_PASSWORD: database.settings.password,
};
const children = [
  spawn(process.execPath, ['node_modules/tsx/dist/cli.mjs', 'watch', 'server/main.ts'], {
    stdio: 'inherit',
    env,
  }),
  spawn(process.execPath, ['node_modules/vite/bin/vite.js'], { stdio: 'inherit', env }),
];
for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => {
    for (const child of children) child.kill();
    void database.stop().then(() => process.exit(0));
  });
