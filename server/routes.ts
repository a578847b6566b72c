import type { Express, Request, Response } from 'express';
import type { DataSource } from 'typeorm';
import type { BrokenDown, HealthReply, ToldKind } from '../contract/api';
import type { NewBoard } from '../contract/board';
import { checkWith } from '../contract/check';
import { type Endpoint, type EndpointName, ENDPOINTS } from '../contract/endpoints';
import { jobFileSchema } from '../contract/jsonschema';
import { openApi } from '../contract/openapi';
import { notThisFormat } from '../contract/read';
import type { GaugeReading } from '../core/bench';
import type { BuildDocument } from '../core/document';
import type { ShopSnapshot } from '../core/kit';
import type { NoteContent } from '../core/notes';
import { asCurrent } from '../core/steps';
import { bringBoards, cutBoards, listBoards, removeBoards, reserveBoards, saveBoard } from './boards';
import { type Caller, callerOf, memberOf, NO_SHOP } from './caller';
import type { Connection } from './database';
import { ENTITIES } from './entities';
import { listBuildsText, listDeletedJobs, listJobs, type Place, placeJob } from './joblists';
import { listCosts } from './costs';
import { readJobText, readJobVersion } from './jobs';
import { tell } from './events';
import { takeReading } from './gauges';
import { readKit, writeKit } from './kit';
import { filterOf, readLog, readLogCsv, readLogRows } from './logread';
import { keepPhoto, listNotes, readKept, saveNote } from './notes';
import { bodyOf } from './bodies';
import { badFields } from './problems';
import { writeOf } from './receipts';
import { listRevisions, markRevision, readRevisionText } from './revisions';
import { createJob, saveJob } from './savejob';
import type { Seed } from './seed';
import { hearTimer, keepTimers, listTimers } from './timers';
import { listShops, newDemo, newShop, removeShop } from './shops';

/** What a handler is given: who asks, the database, what stands in the address, the checked body, the name of the write. */
interface Asked {
  source: DataSource;
  caller: Caller;
  id: string;
  revision: string;
  body: unknown;
  write: string | undefined;
  query: Request['query'];
}
/** What the server is told about where it stands. */
interface Settings {
  open: boolean;
  seed: Seed | undefined;
  mostPhotoBytes: number;
}
/** A picture. */
interface Picture {
  image: Buffer;
}
/** JSON that is text already. */
interface JsonText {
  text: string;
}

/** A body of a job with its build as this version writes it; one of a version to come is refused by name and version. */
function current(body: unknown): unknown {
  const { build, companions } = (body ?? {}) as { build?: unknown; companions?: unknown };
  if (Array.isArray(companions)) return { ...(body as object), companions: companions.map(current) };
  if (build === undefined) return body;
  const foreign = notThisFormat(build);
  if (foreign) throw badFields([{ ...foreign, path: `build.${foreign.path}` }]);
  return { ...(body as object), build: asCurrent(build) };
}

function checked({ body: schema, takes }: Endpoint, body: unknown): unknown {
  if (takes === 'image') return Buffer.isBuffer(body) ? body : Buffer.alloc(0);
  if (!schema) return undefined;
  const result = checkWith(schema, current(body));
  if (!result.ok) throw badFields(result.problems);
  return result.build;
}

/** A body that was checked, as what its schema says. */
const as = <T>(body: unknown): T => body as T;
const text = async (made: Promise<string>): Promise<JsonText> => ({ text: await made });

/** What each address does. One that nobody serves does not compile. */
const SERVE: Record<
  Exclude<EndpointName, 'events'>,
  (asked: Asked, settings: Settings) => Promise<unknown>
> = {
  health: async ({ source }, { open }): Promise<HealthReply> => {
    // A row of every table: that the database answers at all says nothing of a table that is damaged.
    for (const { options } of ENTITIES) await source.query(`SELECT 1 FROM \`${options.name}\` LIMIT 1`);
    return { ok: true, open };
  },
  schema: async () => jobFileSchema(),
  openapi: async () => openApi(),
  shops: ({ source }, { seed }) => listShops(source, seed),
  newShop: ({ source, caller, body, write }) =>
    newShop(source, caller.member, as<{ shop: ShopSnapshot }>(body).shop, write),
  newDemo: ({ source, caller }, { seed }) => newDemo(source, caller.member, seed),
  removeShop: ({ source, id, body }) => removeShop(source, id, as<{ removed: boolean }>(body)),
  kit: ({ source, caller }) => readKit(source.manager, caller),
  saveKit: ({ source, caller, body, write }) => {
    const { version, shop } = as<{ version: number; shop: ShopSnapshot }>(body);
    return writeKit(source, caller, { version, shop, write });
  },
  boards: ({ source, caller }) => listBoards(source.manager, caller),
  addBoards: async ({ source, caller, body, write }) => ({
    ids: await bringBoards(source, caller, as<{ boards: NewBoard[] }>(body).boards, write),
  }),
  saveBoard: ({ source, caller, id, body, write }) =>
    saveBoard(source, caller, { id, write, ...as<{ version: number; board: NewBoard }>(body) }),
  removeBoards: ({ source, caller, body }) =>
    removeBoards(source, caller, as<{ ids: string[]; force: boolean }>(body)),
  reserveBoards: ({ source, caller, id, body }) =>
    reserveBoards(source, caller, { ...as<BrokenDown>(body), job: id }),
  cutBoards: ({ source, caller, id, write }) => cutBoards(source, caller, id, write),
  jobs: ({ source, caller }) => listJobs(source, caller),
  builds: ({ source, caller }) => text(listBuildsText(source, caller)),
  deletedJobs: ({ source, caller }) => listDeletedJobs(source, caller),
  placeJob: ({ source, caller, id, body }) => placeJob(source, caller, id, as<Place>(body)),
  newJob: ({ source, caller, body, write }) =>
    createJob(source, caller, as<{ build: BuildDocument }>(body).build, write),
  job: ({ source, caller, id }) => text(readJobText(source, caller, id)),
  jobVersion: ({ source, caller, id }) => readJobVersion(source, caller, id),
  saveJob: ({ source, caller, id, body, write }) => {
    const { version, build } = as<{ version: number; build: BuildDocument }>(body);
    return saveJob(source, caller, { id, from: version, build, write });
  },
  revisions: ({ source, caller, id }) => listRevisions(source, caller, id),
  revision: ({ source, caller, id, revision }) =>
    text(readRevisionText(source, caller, { job: id, id: revision })),
  markRevision: ({ source, caller, id, revision, body }) =>
    markRevision(source, caller, { job: id, id: revision, ...as<{ marked: boolean }>(body) }),
  gauge: ({ source, caller, body }) => takeReading(source, caller, as<GaugeReading>(body)),
  jobNotes: ({ source, caller, id }, { mostPhotoBytes }) =>
    listNotes(source, caller, { job: id }, mostPhotoBytes),
  boardNotes: ({ source, caller, id }, { mostPhotoBytes }) =>
    listNotes(source, caller, { board: id }, mostPhotoBytes),
  saveNote: ({ source, caller, id, body, write }) =>
    saveNote(source, caller, { id, write, ...as<{ version: number; note: NoteContent }>(body) }),
  keepPhoto: ({ source, caller, id, body }, { mostPhotoBytes }) =>
    keepPhoto(source, caller, { id, bytes: as<Buffer>(body), mostBytes: mostPhotoBytes }),
  photo: async ({ source, caller, id, query }): Promise<Picture> => ({
    image: await readKept(source, caller, id, query.size === 'small' ? 'small' : 'image'),
  }),
  log: ({ source, caller, query }) => readLog(source, caller, filterOf(query)),
  logRows: ({ source, caller }) => readLogRows(source, caller),
  logCosts: ({ source, caller }) => listCosts(source, caller),
  logTable: ({ source, caller, query }) => readLogCsv(source, caller, filterOf(query)),
  timers: ({ source, caller }) => listTimers(source, caller),
  hearTimer: ({ source, caller, body }) => hearTimer(source, caller, as<{ job: string; task: string }>(body)),
};

/**
 * What follows a write once it is answered: what then waits is written down, and open pages are told. Nobody waits for it; where
 * the database is away just then, pages look for themselves now and then.
 */
async function follow(
  tells: ToldKind,
  { source, caller, id, body }: Asked,
  answer: { id?: string; version?: number },
): Promise<void> {
  const { shop } = caller;
  const subject = answer.id ?? (id || undefined);
  await tell(source, { shop, kind: tells, ...(subject ? { subject } : {}) });
  const { build } = (body ?? {}) as { build?: BuildDocument };
  if (!build || !answer.id || answer.version === undefined || tells === 'boards') return;
  if (await keepTimers(source, { id: answer.id, version: answer.version, build }))
    await tell(source, { shop, kind: 'timers' });
}

/** Serves every address of the contract: the body checked, the caller known, the answer sent. */
export function routeApi(app: Express, connection: Connection, settings: Settings): void {
  for (const [name, endpoint] of Object.entries<Endpoint>(ENDPOINTS)) {
    // The stream of events is served by itself (events.ts).
    if (endpoint.streams) continue;
    app[endpoint.method](endpoint.path, ...bodyOf(endpoint), async (request: Request, response: Response) => {
      const body = checked(endpoint, request.body);
      const write = endpoint.method === 'get' ? undefined : writeOf(request);
      const source = await connection.get();
      const caller = endpoint.open
        ? { ...NO_SHOP, member: memberOf(request) }
        : await callerOf(request, source);
      const { id = '', revision = '' } = request.params as Record<string, string>;
      const asked = { source, caller, id, revision, body, write, query: request.query };
      const answer = await SERVE[name as keyof typeof SERVE](asked, settings);
      if (isPicture(answer)) {
        // A photo never changes under its address.
        response.status(endpoint.status).type('image/webp').set('Cache-Control', FOR_GOOD).send(answer.image);
        return;
      }
      if (isTable(answer)) {
        response.status(endpoint.status).type('text/csv').send(answer.csv);
        return;
      }
      response.status(endpoint.status).type('application/json');
      response.send(isText(answer) ? answer.text : JSON.stringify(answer));
      if (endpoint.tells)
        follow(endpoint.tells, asked, (answer ?? {}) as { id?: string; version?: number }).catch(
          () => undefined,
        );
    });
  }
}

const FOR_GOOD = 'private, max-age=31536000, immutable';
const isPicture = (answer: unknown): answer is Picture =>
  typeof answer === 'object' && answer !== null && Buffer.isBuffer((answer as Partial<Picture>).image);
const isTable = (answer: unknown): answer is { csv: string } =>
  typeof answer === 'object' && answer !== null && typeof (answer as { csv?: unknown }).csv === 'string';
const isText = (answer: unknown): answer is JsonText =>
  typeof answer === 'object' && answer !== null && Object.keys(answer).join() === 'text';
