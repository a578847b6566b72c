import { createApi, fetchBaseQuery } from '@reduxjs/toolkit/query/react';
import type { JobReply, JobSummary, Problem, RevisionSummary } from '../../contract/api';
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
  tagTypes: ['Jobs', 'Job', 'Kit'],
  endpoints: (build) => ({
    jobs: build.query<JobSummary[], void>({ query: () => '/jobs', providesTags: ['Jobs'] }),
    job: build.query<JobReply, string>({
      query: (id) => `/jobs/${id}`,
      providesTags: (_r, _e, id) => [{ type: 'Job', id }],
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
    saveKit: build.mutation<KitReply, KitReply>({ query: (body) => ({ url: '/kit', method: 'PUT', body }) }),
  }),
});

export const {
  useJobsQuery,
  useJobQuery,
  useRevisionsQuery,
  useLazyRevisionQuery,
  useNewJobMutation,
  useKitQuery,
} = api;
