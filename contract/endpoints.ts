import type * as yup from 'yup';
import { newBoardsBody, removeBoardsBody, saveBoardBody } from './board';
import {
  gaugeBody,
  hearBody,
  markBody,
  newJobBody,
  newShopBody,
  placeBody,
  removeShopBody,
  reserveBoardsBody,
  saveJobBody,
} from './bodies';
import { EVENTS_PATH, type ToldKind } from './api';
import { noteBody } from './note';
import { kitBody } from './shop';

/** One address of the API: what it does, what it takes, what it answers with where all is well. */
export interface Endpoint {
  method: 'get' | 'post' | 'put';
  /** With `:name` for what stands in the address. */
  path: string;
  says: string;
  body?: yup.ISchema<unknown>;
  status: 200 | 201;
  /** Answers without knowing whose shop asks. */
  open?: true;
  /** What pages that are open are told once it is done. */
  tells?: ToldKind;
  /** Goes on answering, as server-sent events. */
  streams?: true;
  /** Takes a picture for a body; answers with one, or with a table. */
  takes?: 'image';
  gives?: 'image' | 'csv';
}

/** Every address of the API. The server serves each of them, and its description is made of them. */
export const ENDPOINTS = {
  health: {
    method: 'get',
    path: '/api/health',
    says: 'Whether the server and its tables are well.',
    status: 200,
    open: true,
  },
  schema: {
    method: 'get',
    path: '/api/schema',
    says: 'The JSON Schema of a job file.',
    status: 200,
    open: true,
  },
  openapi: { method: 'get', path: '/api/openapi', says: 'This description.', status: 200, open: true },
  shops: {
    method: 'get',
    path: '/api/shops',
    says: 'The shops here, and those that were removed and can be brought back.',
    status: 200,
    open: true,
  },
  newShop: {
    method: 'post',
    path: '/api/shops',
    says: 'Makes a shop of one’s own, with its kit.',
    body: newShopBody,
    status: 201,
    open: true,
  },
  newDemo: {
    method: 'post',
    path: '/api/shops/demo',
    says: 'Puts the demo shop there, as new, where it is not there already.',
    status: 201,
    open: true,
  },
  removeShop: {
    method: 'put',
    path: '/api/shops/:id',
    says: 'Removes a shop with all that is in it, or brings it back within 30 days.',
    body: removeShopBody,
    status: 200,
    open: true,
  },
  kit: { method: 'get', path: '/api/kit', says: 'The shop’s kit and settings.', status: 200 },
  saveKit: {
    method: 'put',
    path: '/api/kit',
    says: 'Changes the kit, if nobody else did since the version it was made from; 409 with the kit that stands otherwise.',
    body: kitBody,
    status: 200,
    tells: 'kit',
  },
  boards: { method: 'get', path: '/api/boards', says: 'The boards on the rack.', status: 200 },
  addBoards: {
    method: 'post',
    path: '/api/boards',
    says: 'Puts boards on the rack, all of them or none.',
    body: newBoardsBody,
    status: 201,
    tells: 'boards',
  },
  saveBoard: {
    method: 'put',
    path: '/api/boards/:id',
    says: 'Changes a board, if nobody else did since the version it was made from.',
    body: saveBoardBody,
    status: 200,
    tells: 'boards',
  },
  removeBoards: {
    method: 'post',
    path: '/api/boards/remove',
    says: 'Takes boards off the rack; those that a job has reserved only when forced.',
    body: removeBoardsBody,
    status: 200,
    tells: 'boards',
  },
  reserveBoards: {
    method: 'put',
    path: '/api/jobs/:id/boards',
    says: 'Reserves boards for a job and stores the jobs broken down with it, all of it or nothing; 409 says what stands in the way.',
    body: reserveBoardsBody,
    status: 200,
    tells: 'boards',
  },
  cutBoards: {
    method: 'post',
    path: '/api/jobs/:id/cut',
    says: 'The boards of a job are cut: they leave the rack, and what is left of them comes onto it.',
    status: 200,
    tells: 'boards',
  },
  jobs: {
    method: 'get',
    path: '/api/jobs',
    says: 'The jobs of the shop, the last changed first, without their builds.',
    status: 200,
  },
  builds: {
    method: 'get',
    path: '/api/builds',
    says: 'The newest builds of the jobs with a step left to do that are not put away, and those whose newest build is damaged.',
    status: 200,
  },
  deletedJobs: {
    method: 'get',
    path: '/api/deleted-jobs',
    says: 'The jobs that were deleted in the last 30 days, the last one first.',
    status: 200,
  },
  placeJob: {
    method: 'put',
    path: '/api/jobs/:id/place',
    says: 'Puts a job away or takes it out, deletes it or brings it back within 30 days, gives it tags. A deleted job frees its boards.',
    body: placeBody,
    status: 200,
    tells: 'jobs',
  },
  newJob: {
    method: 'post',
    path: '/api/jobs',
    says: 'Makes a job.',
    body: newJobBody,
    status: 201,
    tells: 'jobs',
  },
  job: { method: 'get', path: '/api/jobs/:id', says: 'A job with its newest build.', status: 200 },
  jobVersion: {
    method: 'get',
    path: '/api/jobs/:id/version',
    says: 'The version of a job alone.',
    status: 200,
  },
  saveJob: {
    method: 'put',
    path: '/api/jobs/:id',
    says: 'Stores a build made from a version; where the job moved on, the build is kept aside and answered with 409.',
    body: saveJobBody,
    status: 200,
    tells: 'job',
  },
  revisions: {
    method: 'get',
    path: '/api/jobs/:id/revisions',
    says: 'The kept versions of a job, the newest first.',
    status: 200,
  },
  revision: {
    method: 'get',
    path: '/api/jobs/:id/revisions/:revision',
    says: 'One kept version.',
    status: 200,
  },
  markRevision: {
    method: 'put',
    path: '/api/jobs/:id/revisions/:revision',
    says: 'Marks a kept version, so that it stays however old it grows, or takes the mark away.',
    body: markBody,
    status: 200,
  },
  events: {
    method: 'get',
    path: EVENTS_PATH,
    says: 'What happens in the shop, as server-sent events: JSON lines with a `kind` and a `subject`. A browser says its shop by `?shop=`.',
    status: 200,
    streams: true,
  },
  gauge: {
    method: 'post',
    path: '/api/gauges',
    says: 'A gauge has read something: it is offered to the field that waits on the pages that are open, and kept nowhere else.',
    body: gaugeBody,
    status: 200,
  },
  jobNotes: {
    method: 'get',
    path: '/api/jobs/:id/notes',
    says: 'The notes and photos of a job, without the pictures, and the room that the shop’s photos take.',
    status: 200,
  },
  boardNotes: {
    method: 'get',
    path: '/api/boards/:id/notes',
    says: 'The notes and photos of a board, without the pictures.',
    status: 200,
  },
  saveNote: {
    method: 'put',
    path: '/api/notes/:id',
    says: 'Writes a note under an id that the caller gives it, or changes it, if nobody else did since the version it was made from.',
    body: noteBody,
    status: 200,
    tells: 'notes',
  },
  keepPhoto: {
    method: 'put',
    path: '/api/notes/:id/photo',
    says: 'The photo of a note: a JPEG, PNG or WebP of at most 12 MB. It is kept upright, at most 2,000 px along a side, without place and camera.',
    takes: 'image',
    status: 200,
    tells: 'notes',
  },
  photo: {
    method: 'get',
    path: '/api/notes/:id/photo',
    says: 'The photo of a note, as WebP; `?size=small` for a small one. A browser says its shop by `?shop=`.',
    gives: 'image',
    status: 200,
  },
  log: {
    method: 'get',
    path: '/api/log',
    says: 'The log of the shop, the newest lines first: what was read, checked, timed and went wrong at all jobs, with what had been predicted. Narrowed by `?kind=`, `tool`, `wood`, `season`, `stepKind`, `dimension`, `job`, `from`, `to`, `text`; more by `skip`.',
    status: 200,
  },
  logRows: {
    method: 'get',
    path: '/api/log/rows',
    says: 'What the readings of the shop teach of its losses, as rows of means and spreads.',
    status: 200,
  },
  logCosts: {
    method: 'get',
    path: '/api/log/costs',
    says: 'What the jobs cost whose steps are all done, planned and real, by kind, at the prices of today; the last changed first.',
    status: 200,
  },
  logTable: {
    method: 'get',
    path: '/api/log/table',
    says: 'The log as CSV, narrowed alike: sizes in mm, times in minutes.',
    gives: 'csv',
    status: 200,
  },
  timers: {
    method: 'get',
    path: '/api/timers',
    says: 'What waits in the shop and until when, and what was over in the last day and nobody has heard.',
    status: 200,
  },
  hearTimer: {
    method: 'put',
    path: '/api/timers',
    says: 'A wait that was over was heard: it rings nowhere any more.',
    body: hearBody,
    status: 200,
    tells: 'timers',
  },
} as const satisfies Record<string, Endpoint>;

export type EndpointName = keyof typeof ENDPOINTS;
