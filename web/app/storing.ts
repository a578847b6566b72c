import type { Problem } from '../../contract/api';
import type { BuildDocument } from '../../core/build';
import { api } from './api';
import { dropDraft, dropOwnDraft, keepDraft, orphanDrafts } from './drafts';
import { jobActions } from './job';
import { listener, openJobState, store, type RootState } from './store';

/** Pause after an edit before it is sent, so that a run of edits is one version. */
const PAUSE_MS = 250;
/** Pause before the server is tried again, and between looks for other tabs' changes. */
const RETRY_MS = 1500;

let timer: ReturnType<typeof setTimeout> | undefined;
let sending = false;

const soon = (ms: number) => {
  clearTimeout(timer);
  timer = setTimeout(() => void send(), ms);
};

/** Sends the present build. On a conflict both versions are put before the maker. */
async function send(): Promise<void> {
  const { id, version, build, keeping } = openJobState();
  if (!id || !build || sending || keeping === 'stored' || keeping === 'conflict') return;
  sending = true;
  const result = await store.dispatch(api.endpoints.saveJob.initiate({ id, version, build }));
  sending = false;
  if ('data' in result && result.data) {
    store.dispatch(jobActions.stored({ id, version: result.data.version, build }));
    if (openJobState().build === build) await dropOwnDraft(id);
    else soon(0);
    return;
  }
  const problem = (result.error as { status?: unknown; data?: Problem } | undefined) ?? {};
  if (problem.status === 409 && problem.data?.current)
    store.dispatch(jobActions.conflicted({ mine: build, theirs: problem.data.current }));
  else if (
    typeof problem.status === 'number' &&
    problem.status >= 400 &&
    problem.status < 500 &&
    problem.status !== 429
  )
    store.dispatch(jobActions.refusedByServer(problem.data?.detail ?? 'The server does not take this job.'));
  else {
    store.dispatch(jobActions.keptHere());
    soon(RETRY_MS);
  }
}

/** Sends what is still open when the page goes away; the draft in this browser is the safety net. */
function sendLast(): void {
  const { id, version, build, keeping } = openJobState();
  if (!id || !build || keeping === 'stored' || keeping === 'conflict') return;
  const body = JSON.stringify({ version, build });
  if (body.length < 60_000)
    void fetch(`/api/jobs/${id}`, {
      method: 'PUT',
      keepalive: true,
      headers: { 'Content-Type': 'application/json' },
      body,
    }).catch(() => {});
}

const isBehind = async (id: string): Promise<boolean> => {
  const { data } = await store.dispatch(
    api.endpoints.jobVersion.initiate(id, { forceRefetch: true, subscribe: false }),
  );
  const job = openJobState();
  return data !== undefined && job.id === id && job.keeping === 'stored' && data.version > job.version;
};

/** An idle tab follows what another tab or device stored. */
async function follow(): Promise<void> {
  const { id, keeping } = openJobState();
  if (id && keeping === 'stored' && (await isBehind(id))) await readJob(id);
  setTimeout(() => void follow(), RETRY_MS);
}

async function readJob(id: string): Promise<void> {
  const { data } = await store.dispatch(
    api.endpoints.job.initiate(id, { forceRefetch: true, subscribe: false }),
  );
  const job = openJobState();
  if (data && (job.id === undefined || (job.id === id && job.keeping === 'stored')))
    store.dispatch(jobActions.opened(data));
}

const same = (a: BuildDocument, b: BuildDocument) => JSON.stringify(a) === JSON.stringify(b);

/**
 * Opens a job: the stored version, and on top of it what a tab that is gone had not stored yet. Where the job moved
 * on meanwhile, both are put before the maker. Gives the server's error when it cannot be read.
 */
export async function openJob(id: string): Promise<unknown> {
  const open = openJobState();
  if (open.id === id && open.build) return undefined;
  const result = await store.dispatch(
    api.endpoints.job.initiate(id, { forceRefetch: true, subscribe: false }),
  );
  if (!result.data) return result.error;
  store.dispatch(jobActions.opened(result.data));
  for (const draft of await orphanDrafts(id)) {
    const job = openJobState();
    if (job.id !== id || !job.build) return undefined;
    if (!same(draft.build, job.build)) {
      await keepDraft(id, draft.version, draft.build);
      if (draft.version === job.version) store.dispatch(jobActions.broughtBack(draft.build));
      else store.dispatch(jobActions.conflicted({ mine: draft.build, theirs: { ...result.data } }));
    }
    await dropDraft(draft.key);
  }
  return undefined;
}

/** Starts keeping every edit: first in this browser, then on the server. */
export function startStoring(): void {
  listener.startListening({
    predicate: (_action, now, before) =>
      (now as RootState).job.build !== (before as RootState).job.build &&
      (now as RootState).job.keeping === 'storing',
    effect: async () => {
      const { id, version, build } = openJobState();
      if (!id || !build) return;
      soon(PAUSE_MS);
      await keepDraft(id, version, build).catch(() => store.dispatch(jobActions.keptNowhere()));
    },
  });
  listener.startListening({
    actionCreator: jobActions.conflictSettled,
    effect: async ({ payload }) => {
      const { id } = openJobState();
      if (payload === 'mine') soon(0);
      else if (id) await dropOwnDraft(id);
    },
  });
  addEventListener('pagehide', sendLast);
  addEventListener('online', () => soon(0));
  setTimeout(() => void follow(), RETRY_MS);
}
