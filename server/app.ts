import compression from 'compression';
import packedStatic from 'express-static-gzip';
import express, { type Express } from 'express';
import helmet from 'helmet';
import { rateLimit } from 'express-rate-limit';
import type { Logger } from 'pino';
import type { Connection } from './database';
import { onlyOwn, ownHosts } from './hosts';
import { requestLog } from './log';
import { streamEvents } from './events';
import { answerProblems, problem, type RoomLeft } from './problems';
import { routeApi } from './routes';
import type { Seed } from './seed';

const MB = 1024 * 1024;

/** What a server is told about where it stands. */
export interface AppSettings {
  /** The built interface, served beside the API. */
  webRoot?: string;
  /** Host names it answers to; those of loopback if missing. */
  hosts?: readonly string[];
  /** It listens on more than this machine. */
  open?: boolean;
  roomLeft?: RoomLeft;
  /** The demo shop that comes with this installation. */
  seed?: Seed;
  /** Where requests are written, one line each; nowhere if missing. */
  log?: Logger;
  /** Requests a minute from one address. */
  mostPerMinute?: number;
  /** The room that the photos of one shop may take. */
  mostPhotoBytes?: number;
}

const securityHeaders = helmet({
  contentSecurityPolicy: {
    directives: {
      defaultSrc: ["'self'"],
      scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
      workerSrc: ["'self'", 'blob:'],
      fontSrc: ["'self'"],
      styleSrc: ["'self'", "'unsafe-inline'"],
      imgSrc: ["'self'", 'data:', 'blob:'],
      connectSrc: ["'self'"],
      upgradeInsecureRequests: null,
    },
  },
  // Over plain HTTP from another host a browser only warns about these on the console: they need a secure page.
  crossOriginOpenerPolicy: false,
  originAgentCluster: false,
  strictTransportSecurity: false,
});

/** The application: the API under /api and, where given, the built interface. Holds no state of its own. */
export function createApp(connection: Connection, settings: AppSettings = {}): Express {
  const {
    webRoot,
    hosts = ownHosts('127.0.0.1'),
    open = false,
    mostPerMinute = 6000,
    mostPhotoBytes = 2000 * MB,
  } = settings;
  const app = express();
  app.disable('x-powered-by');
  if (settings.log) app.use('/api', requestLog(settings.log));
  app.use(onlyOwn(hosts));
  app.use(compression());
  app.use(securityHeaders);
  app.use(
    '/api',
    rateLimit({ windowMs: 60_000, limit: mostPerMinute, standardHeaders: true, legacyHeaders: false }),
  );
  app.locals.endStreams = streamEvents(app, connection);
  routeApi(app, connection, { open, seed: settings.seed, mostPhotoBytes });
  app.use('/api', () => {
    throw problem(404, 'No such address', 'The API has nothing at this address.');
  });
  if (webRoot) routeInterface(app, webRoot);
  app.use(answerProblems(settings.roomLeft ?? (() => undefined)));
  return app;
}

function routeInterface(app: Express, webRoot: string): void {
  app.use(
    // What the build has packed goes out as it lies there.
    packedStatic(webRoot, {
      index: false,
      enableBrotli: true,
      orderPreference: ['br', 'gz'],
      serveStatic: {
        setHeaders: (response, path) =>
          void (
            /assets\//.test(path) &&
            response.setHeader('Cache-Control', 'public, max-age=31536000, immutable')
          ),
      },
    }),
  );
  app.get('/{*any}', (_request, response) =>
    response.sendFile('index.html', { root: webRoot, headers: { 'Cache-Control': 'no-cache' } }),
  );
}
