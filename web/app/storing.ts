import type { JobReply } from '../../contract/api';
import type { BuildDocument } from '../../core/document';
import { asCurrent } from '../../core/steps';
import { api } from './api';
import { isListening, onTold } from './events';
import type { Draft } from './drafts';
import { jobActions } from './job';
import {
  draftsOf,
  keepChange,
  leaveStream,
  onOutbox,
  resume,
  sendAll,
  settleConflict,
  standing,
} from './outbox';
import { listener } from './listener';
import { openJobState, type RootState, store } from './store';

/** Pause between looks for other tabs' changes, ms: where the server tells of them, one now and then is enough. */
const LOOK_MS = 1500;
const SELDOM_MS = 15_000;

/** Whether a draft is what is shown: the newest one of the open job. */
const isShown = (draft: Draft): boolean => {
  const { id } = openJobState();
  return draft.subject === id && draftsOf('job', id).at(-1)?.key === draft.key;
};

const isBehind = async (id: string): Promise<boolean> => {
  const { data } = await store.dispatch(
    api.endpoints.jobVersion.initiate(id, { forceRefetch: true, subscribe: false }),
  );
  const job = openJobState();
  return data !== undefined && job.id === id && job.keeping === 'stored' && data.version > job.version;
};

/** Looks once whether another tab or device stored the open job. */
async function look(): Promise<void> {
  const { id, keeping } = openJobState();
  if (id && keeping === 'stored' && (await isBehind(id))) await readAgain(id);
}

/** An idle tab follows what another tab or device stored. */
async function follow(): Promise<void> {
  let waited = 0;
  for (;;) {
    await new Promise((done) => setTimeout(done, LOOK_MS));
    waited += LOOK_MS;
    if (isListening() && waited < SELDOM_MS) continue;
    waited = 0;
    await look();
  }
}

/** Reads a job from the server. An answer that was invalidated as it came is nothing at all, and asked for again. */
async function readJob(id: string): Promise<{ data?: JobReply; error?: unknown }> {
  for (let tries = 0; tries < 5; tries++) {
    const { data, error } = await store.dispatch(
      api.endpoints.job.initiate(id, { forceRefetch: true, subscribe: false }),
    );
    if (data !== undefined || error !== undefined) return { data, error };
  }
  return { error: { status: 'FETCH_ERROR' } };
}

async function readAgain(id: string): Promise<void> {
  const { data } = await readJob(id);
  const job = openJobState();
  if (data && job.id === id && job.keeping === 'stored' && data.version > job.version)
    store.dispatch(jobActions.opened(data));
}

/** Shows a draft over the stored job: as an edit that can be undone, or as the conflict it is. */
function showDraft(draft: Draft, stored: JobReply): void {
  // Another release may have kept it.
  const build = asCurrent(draft.content) as BuildDocument;
  resume(draft);
  const there = draft.state === 'conflict' ? standing(draft) : undefined;
  if (there) {
    const theirs = { ...stored, version: there.version, build: there.content as BuildDocument };
    store.dispatch(jobActions.conflicted({ mine: build, theirs }));
    return;
  }
  store.dispatch(jobActions.draftShown(build));
  if (draft.state === 'refused') store.dispatch(jobActions.refusedByServer(draft.reason ?? ''));
  else store.dispatch(jobActions.keptHere());
}

/**
 * Opens a job. What this browser keeps unsent, of this tab or of one that is gone, is sent first; what could not be
 * sent is shown on top of the stored version, and where the job moved on meanwhile, both are put before the maker.
 * Gives the server's error when the job cannot be read.
 */
export async function openJob(id: string): Promise<unknown> {
  const open = openJobState();
  if (open.id === id && open.build) return undefined;
  // A server that takes long holds up opening for a moment only.
  await Promise.race([sendAll(), new Promise((done) => setTimeout(done, 4000))]);
  const result = await readJob(id);
  if (!result.data) return result.error;
  leaveStream('job', id);
  store.dispatch(jobActions.opened(result.data));
  const last = draftsOf('job', id).at(-1);
  if (last) showDraft(last, result.data);
  return undefined;
}

/** Starts keeping every edit: first in this browser, then on the server. */
export function startStoring(): void {
  onOutbox('job', {
    stored: (draft, { version }) => {
      const { subject: id, content } = draft;
      store.dispatch(jobActions.stored({ id, version, build: content as BuildDocument }));
      // An older draft of the job may have been stored just now: the open one must not say that it is all.
      if (openJobState().id === id && draftsOf('job', id).length > 0)
        store.dispatch(jobActions.notAllStored());
    },
    conflicted: (draft, current) => {
      if (isShown(draft))
        store.dispatch(
          jobActions.conflicted({ mine: draft.content as BuildDocument, theirs: current as JobReply }),
        );
    },
    refused: (draft, reason) => {
      if (isShown(draft)) store.dispatch(jobActions.refusedByServer(reason));
    },
    waiting: (draft) => {
      if (isShown(draft)) store.dispatch(jobActions.keptHere());
    },
    keptNowhere: (draft) => {
      if (isShown(draft)) store.dispatch(jobActions.keptNowhere());
    },
  });
  listener.startListening({
    predicate: (action, now, before) => {
      // A conflict that was settled is sent by its own listener, from the version that stands.
      if (jobActions.conflictSettled.match(action)) return false;
      const [a, b] = [(now as RootState).job, (before as RootState).job];
      return a.id === b.id && a.build !== b.build && a.keeping === 'storing';
    },
    effect: () => {
      const { id, version, build } = openJobState();
      if (id && build) keepChange('job', id, { name: build.name, version, content: build });
    },
  });
  listener.startListening({
    actionCreator: jobActions.conflictSettled,
    effect: async ({ payload }) => {
      const { id } = openJobState();
      const draft = id && draftsOf('job', id).findLast(({ state }) => state === 'conflict');
      if (draft) await settleConflict(draft, payload);
    },
  });
  onTold(({ kind, subject }) => {
    if (kind === 'again' || ((kind === 'job' || kind === 'boards') && subject === openJobState().id))
      void look();
  });
  void follow();
}
