import { createHash } from 'node:crypto';
import { mkdirSync, realpathSync } from 'node:fs';
import { connect, createServer } from 'node:net';

/*
 * One lock on a data directory, held by the starter. It is a socket in Linux's abstract space named after the
 * directory: binding it succeeds for one process only, and the kernel frees it however that process ends, so that no
 * stale lock can stand in the way after a kill. Who asks the socket is told who holds it and where it serves.
 */
const nameOf = (dataDir) =>
  `\0junta-${createHash('sha256').update(realpathSync(dataDir)).digest('hex').slice(0, 32)}`;

/** What the holder of a lock says of itself, or undefined where it says nothing within a second. */
const askHolder = (name) =>
  new Promise((done) => {
    const socket = connect(name);
    let text = '';
    const end = () => {
      socket.destroy();
      try {
        done(JSON.parse(text));
      } catch {
        done(undefined);
      }
    };
    socket.setEncoding('utf8').setTimeout(1000, end);
    socket.on('data', (part) => (text += part));
    socket.on('end', end);
    socket.on('error', end);
  });

/**
 * Takes the lock of a data directory for as long as this process lives. Gives `{ held: true }`, or `{ held: false,
 * holder }` with what the holder says of itself. `about` is read anew each time somebody asks.
 */
export async function takeLock(dataDir, about) {
  mkdirSync(dataDir, { recursive: true });
  const name = nameOf(dataDir);
  const server = createServer((socket) => {
    socket.on('error', () => {});
    socket.end(JSON.stringify({ pid: process.pid, ...about() }));
  });
  const held = await new Promise((done, fail) => {
    server.once('error', (error) => (error.code === 'EADDRINUSE' ? done(false) : fail(error)));
    server.listen(name, () => done(true));
  });
  // The lock alone keeps no process alive.
  server.unref();
  return held ? { held, free: () => server.close() } : { held, holder: await askHolder(name) };
}
