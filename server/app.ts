import compression from 'compression';
import express, { type Express, type Request, type Response } from 'express';
import { rateLimit } from 'express-rate-limit';
import helmet from 'helmet';
import type * as yup from 'yup';
import type { HealthReply } from '../contract/api';
import { markBody, newJobBody, saveJobBody } from '../contract/bodies';
import { MOST_BYTES, tooMuch } from '../contract/bounds';
import { notThisFormat } from '../contract/build';
import { checkWith } from '../contract/check';
import { jobFileSchema } from '../contract/jsonschema';
import { kitBody } from '../contract/shop';
import { routeBoards } from './board-routes';
import type { Connection } from './database';
import { ENTITIES } from './entities';
import { onlyOwn, ownHosts } from './hosts';
import {
  createJob,
  listBuildsText,
  listJobs,
  listRevisions,
  markRevision,
  readJobText,
  readJobVersion,
  readRevisionText,
  saveJob,
} from './jobs';
import { readKit, writeKit } from './kit';
import { answerProblems, badFields, problem, type RoomLeft } from './problems';
import { writeOf } from './receipts';

/** What a server is told about where it stands. */
export interface AppSettings {
  /** The built interface, served beside the API. */
  webRoot?: string;
  /** Host names it answers to; those of loopback if missing. */
  hosts?: readonly string[];
  /** It listens on more than this machine. */
  open?: boolean;
  roomLeft?: RoomLeft;
  /** Requests a minute from one address. */
  mostPerMinute?: number;
}

const read = <T>(schema: yup.ISchema<T>, body: unknown): T => {
  const inner = (body as { build?: unknown } | undefined)?.build;
  const foreign = inner !== undefined && notThisFormat(inner);
  if (foreign) throw badFields([{ ...foreign, path: `build.${foreign.path}` }]);
  const checked = checkWith(schema, body);
  if (!checked.ok) throw badFields(checked.problems);
  return checked.build;
};

/** Reads JSON bodies: too large, too deep or too much is refused before anything is built of it. */
const jsonBody = express.json({
  limit: MOST_BYTES,
  strict: true,
  verify: (_request, _response, bytes) => {
    const flood = tooMuch(bytes);
    if (flood) throw problem(413, 'Too much', `This body ${flood}. It was not read.`);
  },
});

const onlyJson = (request: Request, _response: Response, next: (error?: unknown) => void) => {
  const length = request.headers['content-length'];
  const empty =
    (length === undefined || length === '0') && request.headers['transfer-encoding'] === undefined;
  next(
    empty || request.is('json')
      ? undefined
      : problem(
          415,
          'Not JSON',
          `A body is JSON, sent as application/json; this is “${(request.headers['content-type'] ?? 'of no type').slice(0, 60)}”.`,
        ),
  );
};

/** Sends JSON that is text already. */
const sendText = (response: Response, text: string): void =>
  void response.type('application/json').send(text);

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

function routeJobs(app: Express, connection: Connection): void {
  app.get(
    '/api/jobs',
    async (_request, response) => void response.json(await listJobs(await connection.get())),
  );
  app.get('/api/builds', async (_request, response) =>
    sendText(response, await listBuildsText(await connection.get())),
  );
  app.post('/api/jobs', async (request, response) => {
    const { build } = read(newJobBody, request.body);
    const made = await createJob(await connection.get(), build as never, writeOf(request));
    response.status(201).json(made);
  });
  app.get('/api/jobs/:id', async (request, response) =>
    sendText(response, await readJobText(await connection.get(), request.params.id)),
  );
  app.get(
    '/api/jobs/:id/version',
    async (request, response) =>
      void response.json(await readJobVersion(await connection.get(), request.params.id)),
  );
  app.put('/api/jobs/:id', async (request, response) => {
    const { build, version } = read(saveJobBody, request.body);
    response.json(
      await saveJob(await connection.get(), request.params.id, version, build as never, writeOf(request)),
    );
  });
  app.get(
    '/api/jobs/:id/revisions',
    async (request, response) =>
      void response.json(await listRevisions(await connection.get(), request.params.id)),
  );
  app.get('/api/jobs/:id/revisions/:revision', async (request, response) => {
    const { id, revision } = request.params;
    sendText(response, await readRevisionText(await connection.get(), id, revision));
  });
  app.put('/api/jobs/:id/revisions/:revision', async (request, response) => {
    const { marked } = read(markBody, request.body);
    const { id, revision } = request.params;
    response.json(await markRevision(await connection.get(), id, revision, marked));
  });
}

/** The application: the API under /api and, where given, the built interface. Holds no state of its own. */
export function createApp(connection: Connection, settings: AppSettings = {}): Express {
  const { webRoot, hosts = ownHosts('127.0.0.1'), open = false, mostPerMinute = 6000 } = settings;
  const app = express();
  app.disable('x-powered-by');
  app.use(onlyOwn(hosts));
  app.use(compression());
  app.use(securityHeaders);
  app.use(
    '/api',
    rateLimit({ windowMs: 60_000, limit: mostPerMinute, standardHeaders: true, legacyHeaders: false }),
    onlyJson,
    jsonBody,
  );
  app.get('/api/health', async (_request, response) => {
    const source = await connection.get();
    // A row of every table: that the database answers at all says nothing of a table that is damaged.
    for (const { options } of ENTITIES) await source.query(`SELECT 1 FROM \`${options.name}\` LIMIT 1`);
    response.json({ ok: true, open } satisfies HealthReply);
  });
  app.get('/api/schema', (_request, response) => void response.json(jobFileSchema()));
  app.get('/api/kit', async (_request, response) => {
    const { shopId: _, ...kit } = await readKit((await connection.get()).manager);
    response.json(kit);
  });
  app.put('/api/kit', async (request, response) => {
    const { version, shop } = read(kitBody, request.body);
    response.json(await writeKit(await connection.get(), version, shop, writeOf(request)));
  });
  routeBoards(app, connection, read);
  routeJobs(app, connection);
  app.use('/api', () => {
    throw problem(404, 'No such address', 'The API has nothing at this address.');
  });
  if (webRoot) routeInterface(app, webRoot);
  app.use(answerProblems(settings.roomLeft ?? (() => undefined)));
  return app;
}

function routeInterface(app: Express, webRoot: string): void {
  app.use(
    express.static(webRoot, {
      index: false,
      setHeaders: (response, path) =>
        void (
          /assets\//.test(path) && response.setHeader('Cache-Control', 'public, max-age=31536000, immutable')
        ),
    }),
  );
  app.get('/{*any}', (_request, response) =>
    response.sendFile('index.html', { root: webRoot, headers: { 'Cache-Control': 'no-cache' } }),
  );
}
