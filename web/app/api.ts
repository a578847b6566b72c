import { type Draft, original } from '@reduxjs/toolkit';
import {
  type BaseQueryFn,
  copyWithStructuralSharing,
  createApi,
  type FetchArgs,
  fetchBaseQuery,
  type FetchBaseQueryError,
} from '@reduxjs/toolkit/query/react';
import {
  type BrokenDown,
  type BuildsReply,
  type DeletedJob,
  type JobReply,
  type JobSummary,
  type NotesReply,
  NO_SUCH_SHOP,
  type Problem,
  type RevisionSummary,
  type ShopsReply,
  type ShopSummary,
  type TimersReply,
  WHICH_SHOP,
} from '../../contract/api';
import type { NewBoard, RackBoard } from '../../contract/board';
import type { CostsReply, LogFilter, LogReply, LogRowsReply } from '../../contract/log';
import type { KitReply } from '../../contract/shop';
import type { GaugeReading } from '../../core/bench';
import type { BuildDocument } from '../../core/document';
import type { ShopSnapshot } from '../../core/kit';
import { KEPT_HEADER } from '../workers/kept';
import { heardClock } from './clock';
import { laterBoards, laterKit } from './later';
import { draftsOf, firstSent } from './outbox';
import { theKit } from './sending';
import { serverAway, serverHere } from './reach';
import { forgetShop, isShopless, rememberShop, shopHeaders } from './shop-choice';

/** What the server said when it did not do as asked, in words for the screen. */
export function problemText(error: unknown): string {
  const { data, status } = (error ?? {}) as { data?: Problem; status?: number | string };
  if (data?.detail) return data.detail;
  if (status === 'FETCH_ERROR' || status === 'TIMEOUT_ERROR') return 'The server does not answer.';
  return 'The server gave an answer that Junta does not understand.';
}

/** Whether the server answered, and said no: what it did not hear may still be done later. */
export function isAnswered(error: unknown): boolean {
  const { status } = error as { status?: unknown };
  return typeof status === 'number' && status < 500;
}

const plainQuery = fetchBaseQuery({
  baseUrl: '/api',
  timeout: 15_000,
  prepareHeaders: (headers) => {
    for (const [name, value] of Object.entries(shopHeaders())) headers.set(name, value);
  },
  responseHandler: async (response) =>
    response.headers.get('content-type')?.includes('json') ? response.json() : null,
});

/** Asks the server once what this browser had kept is sent, and notes whether it answered. */
const query: BaseQueryFn<string | FetchArgs, unknown, FetchBaseQueryError> = async (args, context, extra) => {
  await firstSent();
  const result = await plainQuery(args, context, extra);
  const status = result.error?.status;
  const { title } = (result.error?.data ?? {}) as Partial<Problem>;
  // The answer of before, kept in this browser: the server did not give it.
  if (result.meta?.response?.headers.has(KEPT_HEADER)) {
    serverAway('The server does not answer.');
    return result;
  }
  heardClock(result.meta?.response?.headers.get('date'));
  // Loaded anew at the list of shops: nothing of a shop that is gone is left on the page.
  if (title === NO_SUCH_SHOP || title === WHICH_SHOP) {
    forgetShop();
    if (!isShopless(location.pathname)) location.assign('/shops');
  }
  if (status === undefined || (typeof status === 'number' && status < 500)) serverHere();
  else if (status === 'FETCH_ERROR' || status === 'TIMEOUT_ERROR' || typeof status === 'number')
    if (status !== 500) serverAway(problemText(result.error));
  return result;
};

/** A write that may be carried out only once, however often it is sent: its id goes along. */
const once = (write: string) => ({ headers: { 'Idempotency-Key': write } });

/**
 * What the server has, with what was changed here and is not stored yet laid over it. What reads drafts of older versions
 * is loaded where there is one: the first screen does without.
 */
const kitWithDraft = async (kit: KitReply): Promise<KitReply> => {
  rememberShop(kit.id);
  const find = () => draftsOf('kit', theKit()).findLast(({ state }) => state !== 'refused');
  if (!find()) return kit;
  const { withUsualShop } = await import('../../core/kit');
  // While that was fetched it may have been stored, or changed further.
  const draft = find();
  return draft ? { ...kit, shop: withUsualShop(draft.content) as KitReply['shop'] } : kit;
};
const buildsWithDrafts = async (builds: BuildsReply): Promise<BuildsReply> => {
  const drafts = new Map(
    builds.jobs.flatMap(({ id }) => {
      const draft = draftsOf('job', id).findLast(({ state }) => state !== 'refused');
      return draft ? [[id, draft.content] as const] : [];
    }),
  );
  if (drafts.size === 0) return builds;
  const { asCurrent } = await import('../../core/steps');
  return {
    ...builds,
    jobs: builds.jobs.map((job) =>
      drafts.has(job.id) ? { ...job, build: asCurrent(drafts.get(job.id)) as BuildDocument } : job,
    ),
  };
};
const boardsWithDrafts = (boards: RackBoard[]): RackBoard[] =>
  boards.map((board) => {
    const draft = draftsOf('board', board.id).findLast(({ state }) => state !== 'refused');
    if (!draft) return board;
    const { id, version, history, reserved } = board;
    return { ...(draft.content as NewBoard), id, version, history, ...(reserved ? { reserved } : {}) };
  });

/** What is shown after something was read anew; what is alike stays the same object, so that nobody computes it again. */
const sharing = <T extends object>(shown: T, read: T, later: (shown: T, read: T) => T): T => {
  const before = original(shown as Draft<T>) as T | undefined;
  return before === undefined ? read : copyWithStructuralSharing(before, later(before, read));
};

/** Whose notes are read. */
export type NotesOf = { job: string } | { board: string };

/** The server's side of Junta. */
export const api = createApi({
  baseQuery: query,
  tagTypes: ['Jobs', 'Job', 'Revisions', 'Kit', 'Boards', 'Shops', 'Timers', 'Notes', 'Log'],
  endpoints: (build) => ({
    jobs: build.query<JobSummary[], void>({ query: () => '/jobs', providesTags: ['Jobs'] }),
    job: build.query<JobReply, string>({
      query: (id) => `/jobs/${id}`,
      providesTags: (_r, _e, id) => [{ type: 'Job', id }],
    }),
    builds: build.query<BuildsReply, void>({
      query: () => '/builds',
      transformResponse: buildsWithDrafts,
      providesTags: ['Jobs'],
      keepUnusedDataFor: 0,
    }),
    deletedJobs: build.query<DeletedJob[], void>({ query: () => '/deleted-jobs', providesTags: ['Jobs'] }),
    placeJob: build.mutation<
      JobSummary,
      { id: string; putAway?: boolean; deleted?: boolean; tags?: string[] }
    >({
      query: ({ id, ...body }) => ({ url: `/jobs/${id}/place`, method: 'PUT', body }),
      invalidatesTags: (_r, _e, { id, deleted }) => [
        'Jobs',
        ...(deleted === undefined ? [] : ['Boards' as const, { type: 'Job' as const, id }]),
      ],
    }),
    shops: build.query<ShopsReply, void>({ query: () => '/shops', providesTags: ['Shops'] }),
    newShop: build.mutation<ShopSummary, { shop: ShopSnapshot; write: string }>({
      query: ({ shop, write }) => ({ url: '/shops', method: 'POST', body: { shop }, ...once(write) }),
      invalidatesTags: ['Shops'],
    }),
    newDemo: build.mutation<ShopSummary, void>({
      query: () => ({ url: '/shops/demo', method: 'POST' }),
      invalidatesTags: ['Shops'],
    }),
    removeShop: build.mutation<{ removed: boolean }, { id: string; removed: boolean }>({
      query: ({ id, removed }) => ({ url: `/shops/${id}`, method: 'PUT', body: { removed } }),
      invalidatesTags: ['Shops'],
    }),
    jobVersion: build.query<{ version: number }, string>({ query: (id) => `/jobs/${id}/version` }),
    revisions: build.query<RevisionSummary[], string>({
      query: (id) => `/jobs/${id}/revisions`,
      providesTags: (_r, _e, id) => [{ type: 'Revisions', id }],
      keepUnusedDataFor: 0,
    }),
    revision: build.query<BuildDocument, { id: string; revision: string }>({
      query: ({ id, revision }) => `/jobs/${id}/revisions/${revision}`,
    }),
    markRevision: build.mutation<{ marked: boolean }, { id: string; revision: string; marked: boolean }>({
      query: ({ id, revision, marked }) => ({
        url: `/jobs/${id}/revisions/${revision}`,
        method: 'PUT',
        body: { marked },
      }),
      invalidatesTags: (_r, _e, { id }) => [{ type: 'Revisions', id }],
    }),
    newJob: build.mutation<JobReply, { build: BuildDocument; write: string }>({
      query: ({ build: body, write }) => ({
        url: '/jobs',
        method: 'POST',
        body: { build: body },
        ...once(write),
      }),
      invalidatesTags: ['Jobs'],
    }),
    kit: build.query<KitReply, void>({
      query: () => '/kit',
      transformResponse: kitWithDraft,
      merge: (shown, read) => sharing(shown, read, laterKit),
      providesTags: ['Kit'],
    }),
    timers: build.query<TimersReply, void>({ query: () => '/timers', providesTags: ['Timers'] }),
    notes: build.query<NotesReply, NotesOf>({
      query: (of) => ('job' in of ? `/jobs/${of.job}/notes` : `/boards/${of.board}/notes`),
      providesTags: ['Notes'],
    }),
    sendReading: build.mutation<{ told: true }, GaugeReading>({
      query: (body) => ({ url: '/gauges', method: 'POST', body }),
    }),
    hearTimer: build.mutation<{ heard: boolean }, { job: string; task: string }>({
      query: (body) => ({ url: '/timers', method: 'PUT', body }),
      invalidatesTags: ['Timers'],
    }),
    log: build.query<LogReply, LogFilter>({
      query: (filter) => ({ url: '/log', params: filter }),
      keepUnusedDataFor: 0,
      providesTags: ['Log'],
    }),
    logRows: build.query<LogRowsReply, void>({
      query: () => '/log/rows',
      keepUnusedDataFor: 0,
      providesTags: ['Log'],
    }),
    logCosts: build.query<CostsReply, void>({
      query: () => '/log/costs',
      keepUnusedDataFor: 0,
      providesTags: ['Log', 'Kit'],
    }),
    boards: build.query<RackBoard[], void>({
      query: () => '/boards',
      transformResponse: boardsWithDrafts,
      merge: (shown, read) => sharing(shown, read, laterBoards),
      providesTags: ['Boards'],
    }),
    addBoards: build.mutation<{ ids: string[] }, { boards: NewBoard[]; write: string }>({
      query: ({ boards, write }) => ({ url: '/boards', method: 'POST', body: { boards }, ...once(write) }),
      invalidatesTags: ['Boards'],
    }),
    removeBoards: build.mutation<{ removed: number }, { ids: string[]; force: boolean }>({
      query: (body) => ({ url: '/boards/remove', method: 'POST', body }),
      invalidatesTags: ['Boards'],
    }),
    reserveBoards: build.mutation<RackBoard[], BrokenDown & { id: string }>({
      query: ({ id, ...body }) => ({ url: `/jobs/${id}/boards`, method: 'PUT', body }),
      invalidatesTags: (result, _e, { companions = [] }) =>
        result
          ? ['Boards', 'Jobs', ...companions.map(({ id }) => ({ type: 'Job' as const, id }))]
          : ['Boards'],
    }),
    cutBoards: build.mutation<{ used: number; offcuts: string[] }, { id: string; write: string }>({
      query: ({ id, write }) => ({ url: `/jobs/${id}/cut`, method: 'POST', ...once(write) }),
      invalidatesTags: ['Boards'],
    }),
  }),
});

export const {
  useJobsQuery,
  useJobQuery,
  useBuildsQuery,
  useRevisionsQuery,
  useRevisionQuery,
  useLazyRevisionQuery,
  useMarkRevisionMutation,
  useNewJobMutation,
  useDeletedJobsQuery,
  usePlaceJobMutation,
  useShopsQuery,
  useNewShopMutation,
  useNewDemoMutation,
  useRemoveShopMutation,
  useKitQuery,
  useLogQuery,
  useLogRowsQuery,
  useLogCostsQuery,
  useBoardsQuery,
  useNotesQuery,
  useTimersQuery,
  useHearTimerMutation,
  useSendReadingMutation,
  useAddBoardsMutation,
  useRemoveBoardsMutation,
  useCutBoardsMutation,
  useReserveBoardsMutation,
} = api;
