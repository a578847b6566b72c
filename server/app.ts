import compression from 'compression';
import express, { type Express } from 'express';
import { rateLimit } from 'express-rate-limit';
import helmet from 'helmet';
import type * as yup from 'yup';
import { MOST_BYTES } from '../contract/bounds';
import { newJobBody, saveJobBody } from '../contract/bodies';
import { notThisFormat } from '../contract/build';
import { checkWith } from '../contract/check';
import { jobFileSchema } from '../contract/jsonschema';
import { kitBody } from '../contract/shop';
import type { Connection } from './database';
import { routeBoards } from './board-routes';
import {
  createJob,
  listBuilds,
  listJobs,
  listRevisions,
  readJob,
  readJobVersion,
  readRevision,
  saveJob,
} from './jobs';
import { readKit, writeKit } from './kit';
import { answerProblems, badFields, problem } from './problems';

const read = <T>(schema: yup.ISchema<T>, body: unknown): T => {
  const inner = (body as { build?: unknown } | undefined)?.build;
  const foreign = inner !== undefined && notThisFormat(inner);
  if (foreign) throw badFields([{ ...foreign, path: `build.${foreign.path}` }]);
  const checked = checkWith(schema, body);
  if (!checked.ok) throw badFields(checked.problems);
  return checked.build;
};

/** Whether a request comes from this very site; an origin that is no address does not. */
const sameHost = (origin: string, host: string | undefined): boolean =>
  URL.canParse(origin) && new URL(origin).host === host;

/** The application: the API under /api and, where given, the built interface. Holds no state of its own. */
export function createApp(connection: Connection, webRoot?: string): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(compression());
  app.use(
    helmet({
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
      strictTransportSecurity: false,
    }),
  );
  app.use('/api', rateLimit({ windowMs: 60_000, limit: 6000, standardHeaders: true, legacyHeaders: false }));
  app.use('/api', (request, _response, next) => {
    const { origin, host } = request.headers;
    next(
      origin && !sameHost(origin, host)
        ? problem(403, 'From elsewhere', 'Requests from other sites are not taken.')
        : undefined,
    );
  });
  app.use('/api', express.json({ limit: MOST_BYTES, strict: true }));

  app.get('/api/health', async (_request, response) => {
    await (await connection.get()).query('SELECT 1');
    response.json({ ok: true });
  });
  app.get('/api/schema', (_request, response) => void response.json(jobFileSchema()));
  app.get('/api/kit', async (_request, response) => {
    const { shopId: _, ...kit } = await readKit((await connection.get()).manager);
    response.json(kit);
  });
  app.put('/api/kit', async (request, response) => {
    const { version, shop } = read(kitBody, request.body);
    response.json(await writeKit(await connection.get(), version, shop));
  });
  routeBoards(app, connection, read);
  app.get(
    '/api/jobs',
    async (_request, response) => void response.json(await listJobs(await connection.get())),
  );
  app.get(
    '/api/builds',
    async (_request, response) => void response.json(await listBuilds(await connection.get())),
  );
  app.post('/api/jobs', async (request, response) => {
    const { build } = read(newJobBody, request.body);
    response.status(201).json(await createJob(await connection.get(), build as never));
  });
  app.get(
    '/api/jobs/:id',
    async (request, response) =>
      void response.json(await readJob((await connection.get()).manager, request.params.id)),
  );
  app.get(
    '/api/jobs/:id/version',
    async (request, response) =>
      void response.json(await readJobVersion(await connection.get(), request.params.id)),
  );
  app.put('/api/jobs/:id', async (request, response) => {
    const { build, version } = read(saveJobBody, request.body);
    response.json(await saveJob(await connection.get(), request.params.id, version, build as never));
  });
  app.get(
    '/api/jobs/:id/revisions',
    async (request, response) =>
      void response.json(await listRevisions(await connection.get(), request.params.id)),
  );
  app.get(
    '/api/jobs/:id/revisions/:revision',
    async (request, response) =>
      void response.json(
        await readRevision(await connection.get(), request.params.id, request.params.revision),
      ),
  );
  app.use('/api', () => {
    throw problem(404, 'No such address', 'The API has nothing at this address.');
  });

  if (webRoot) {
    app.use(
      express.static(webRoot, {
        index: false,
        setHeaders: (response, path) =>
          void (
            /assets\//.test(path) &&
            response.setHeader('Cache-Control', 'public, max-age=31536000, immutable')
          ),
      }),
    );
    app.get('/{*any}', (_request, response) =>
      response.sendFile('index.html', { root: webRoot, headers: { 'Cache-Control': 'no-cache' } }),
    );
  }
  app.use(answerProblems);
  return app;
}
