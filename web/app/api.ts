import { createApi, fetchBaseQuery } from '@reduxjs/toolkit/query/react';
import type { JobReply, JobSummary, Problem, RevisionSummary } from '../../contract/api';
import type { NewBoard, RackBoard } from '../../contract/board';
import type { KitReply } from '../../contract/shop';
import type { BuildDocument } from '../../core/build';

/** What the server said when it did not do as asked, in words for the screen. */
export function problemText(error: unknown): string {
  const { data, status } = (error ?? {}) as { data?: Problem; status?: number | string };
  if (data?.detail) return data.detail;
  if (status === 'FETCH_ERROR' || status === 'TIMEOUT_ERROR')
    return 'The server does not answer. What you do here is kept in this browser until it does.';
  return 'The server gave an answer that Junta does not understand.';
}

/** The server's side of Junta. */
export const api = createApi({
  baseQuery: fetchBaseQuery({
    baseUrl: '/api',
    timeout: 15_000,
    responseHandler: async (response) =>
      response.headers.get('content-type')?.includes('json') ? response.json() : null,
  }),
  tagTypes: ['Jobs', 'Job', 'Kit', 'Boards'],
  endpoints: (build) => ({
    jobs: build.query<JobSummary[], void>({ query: () => '/jobs', providesTags: ['Jobs'] }),
    job: build.query<JobReply, string>({
      query: (id) => `/jobs/${id}`,
      providesTags: (_r, _e, id) => [{ type: 'Job', id }],
    }),
    builds: build.query<JobReply[], void>({
      query: () => '/builds',
      providesTags: ['Jobs'],
      keepUnusedDataFor: 0,
    }),
    jobVersion: build.query<{ version: number }, string>({ query: (id) => `/jobs/${id}/version` }),
    revisions: build.query<RevisionSummary[], string>({
      query: (id) => `/jobs/${id}/revisions`,
      keepUnusedDataFor: 0,
    }),
    revision: build.query<BuildDocument, { id: string; revision: string }>({
      query: ({ id, revision }) => `/jobs/${id}/revisions/${revision}`,
    }),
    newJob: build.mutation<JobReply, BuildDocument>({
      query: (body) => ({ url: '/jobs', method: 'POST', body: { build: body } }),
      invalidatesTags: ['Jobs'],
    }),
    saveJob: build.mutation<JobSummary, { id: string; version: number; build: BuildDocument }>({
      query: ({ id, ...body }) => ({ url: `/jobs/${id}`, method: 'PUT', body }),
      invalidatesTags: (result, _e, { id }) => (result ? ['Jobs', { type: 'Job', id }] : []),
    }),
    kit: build.query<KitReply, void>({ query: () => '/kit', providesTags: ['Kit'] }),
    boards: build.query<RackBoard[], void>({ query: () => '/boards', providesTags: ['Boards'] }),
    addBoards: build.mutation<{ ids: string[] }, NewBoard[]>({
      query: (boards) => ({ url: '/boards', method: 'POST', body: { boards } }),
      invalidatesTags: ['Boards'],
    }),
    saveBoard: build.mutation<RackBoard, { id: string; version: number; board: NewBoard }>({
      query: ({ id, ...body }) => ({ url: `/boards/${id}`, method: 'PUT', body }),
    }),
    removeBoards: build.mutation<{ removed: number }, { ids: string[]; force: boolean }>({
      query: (body) => ({ url: '/boards/remove', method: 'POST', body }),
      invalidatesTags: ['Boards'],
    }),
    reserveBoards: build.mutation<RackBoard[], { id: string; boards: string[] }>({
      query: ({ id, boards }) => ({ url: `/jobs/${id}/boards`, method: 'PUT', body: { boards } }),
      invalidatesTags: ['Boards'],
    }),
    cutBoards: build.mutation<{ used: number; offcuts: string[] }, string>({
      query: (id) => ({ url: `/jobs/${id}/cut`, method: 'POST' }),
      invalidatesTags: ['Boards'],
    }),
    saveKit: build.mutation<KitReply, KitReply>({ query: (body) => ({ url: '/kit', method: 'PUT', body }) }),
  }),
});

export const {
  useJobsQuery,
  useJobQuery,
  useBuildsQuery,
  useSaveJobMutation,
  useRevisionsQuery,
  useLazyRevisionQuery,
  useNewJobMutation,
  useKitQuery,
  useBoardsQuery,
  useAddBoardsMutation,
  useRemoveBoardsMutation,
  useCutBoardsMutation,
  useReserveBoardsMutation,
} = api;
