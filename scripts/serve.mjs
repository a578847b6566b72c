import { spawn } from 'node:child_process';
import { closeSync, openSync } from 'node:fs';
import { request as plain } from 'node:http';
import { request as secure } from 'node:https';
import { PATIENCE_MS } from './patience.mjs';

const sleep = (ms) => new Promise((done) => setTimeout(done, ms));

/** What a server says of its health: its status and body, or undefined where nobody answers. */
export const health = (url, timeoutMs = 4000) =>
  new Promise((done) => {
    const ask = url.startsWith('https:') ? secure : plain;
    // The certificate is for other machines' names; this asks over loopback.
    const asked = ask(`${url}/api/health`, { rejectUnauthorized: false, timeout: timeoutMs }, (answer) => {
      let text = '';
      answer.setEncoding('utf8').on('data', (part) => (text += part));
      answer.on('end', () => {
        try {
          done({ status: answer.statusCode, body: JSON.parse(text) });
        } catch {
          done({ status: answer.statusCode, body: {} });
        }
      });
    });
    asked.on('timeout', () => asked.destroy());
    asked.on('error', () => done(undefined));
    asked.end();
  });

/** How a name stands in an address. */
const inUrl = (host) => (host.includes(':') && !host.startsWith('[') ? `[${host}]` : host);

/**
 * Starts the built server as a process of its own and waits until it listens and answers that it is well, or, with
 * `patient: false`, until it listens. Refuses with its own words where its database is not for it. `log` is a file
 * that gets what it writes; `env` adds settings.
 */
export async function startServer({
  port,
  host = '127.0.0.1',
  database,
  quiet = false,
  log,
  patient = true,
  env = {},
}) {
  const out = log ? openSync(log, 'a') : quiet ? 'ignore' : 'inherit';
  const child = spawn(process.execPath, ['--enable-source-maps', 'dist/server.mjs'], {
    stdio: ['ignore', out, log ? out : 'inherit', 'ipc'],
    env: {
      ...process.env,
      ...env,
      NODE_ENV: 'production',
      JUNTA_PORT: String(port),
      JUNTA_HOST: host,
      JUNTA_WEB: `${process.cwd()}/dist/web`,
      JUNTA_SEED: `${process.cwd()}/dist/demo.json`,
      JUNTA_DB_PORT: String(database.port),
      JUNTA_DB_PASSWORD: database.password,
      JUNTA_DB_NAME: database.database,
    },
  });
  if (log) closeSync(out);
  let exited = false;
  const gone = new Promise((done) =>
    child.on('exit', () => {
      exited = true;
      done();
    }),
  );
  let listening = false;
  child.on('message', (message) => (listening ||= message === 'listening'));
  const settings = { ...process.env, ...env };
  const scheme = settings.JUNTA_CERT && settings.JUNTA_KEY ? 'https' : 'http';
  const local = ['0.0.0.0', '::'].includes(host) ? '127.0.0.1' : host;
  const url = `${scheme}://${inUrl(local)}:${port}`;
  const end = async (signal) => {
    child.kill(signal);
    await gone;
  };
  const server = { child, gone, url, stop: () => end('SIGTERM'), kill: () => end('SIGKILL') };
  let said;
  // A machine with much else to do takes long; a server that cannot start ends by itself, and is heard of at once.
  const until = Date.now() + PATIENCE_MS;
  while (Date.now() < until) {
    if (exited)
      throw new Error(`The server stopped at once; its message stands ${log ? `in ${log}` : 'above'}.`);
    if (listening) {
      if (!patient) return server;
      said = await health(url);
      if (said?.status === 200) return server;
      if (said?.body.title === 'Made by a newer Junta') break;
    }
    await sleep(50);
  }
  await end('SIGTERM');
  throw new Error(said?.body.detail ?? `The server did not answer within ${PATIENCE_MS / 1000} s.`);
}
