import { createServer } from 'node:net';

/** A port of loopback that nobody listens on just now. */
export const freePort = () =>
  new Promise((done) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address();
      probe.close(() => done(port));
    });
  });
