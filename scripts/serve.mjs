import { spawn } from 'node:child_process';

const sleep = (ms) => new Promise((done) => setTimeout(done, ms));

/** Starts the built server as a process of its own and waits until it answers at all. */
export async function startServer({ port, host = '127.0.0.1', database, quiet = false }) {
  const child = spawn(process.execPath, ['--enable-source-maps', 'dist/server.mjs'], {
    stdio: ['ignore', quiet ? 'ignore' : 'inherit', 'inherit'],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      JUNTA_PORT: String(port),
      JUNTA_HOST: host,
      JUNTA_WEB: `${process.cwd()}/dist/web`,
      JUNTA_DB_PORT: String(database.port),
      JUNTA_DB_PASSWORD: database.password,
      JUNTA_DB_NAME: database.database,
    },
  });
  let exited = false;
  const gone = new Promise((done) =>
    child.on('exit', () => {
      exited = true;
      done();
    }),
  );
  for (let i = 0; i < 200; i++) {
    if (exited) throw new Error('The server stopped at once; its message stands above.');
    try {
      await fetch(`http://127.0.0.1:${port}/api/schema`);
      break;
    } catch {
      await sleep(50);
    }
  }
  const end = async (signal) => {
    child.kill(signal);
    await gone;
  };
  return {
    child,
    gone,
    url: `http://127.0.0.1:${port}`,
    stop: () => end('SIGTERM'),
    kill: () => end('SIGKILL'),
  };
}
