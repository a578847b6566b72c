import { openDB } from 'idb';
import type { BuildDocument } from '../../core/build';

/** An edit not yet stored on the server, kept in this browser. */
export interface Draft {
  key: string;
  jobId: string;
  tab: string;
  version: number;
  build: BuildDocument;
}

/** Names this tab among the browser's tabs; a tab holds a lock of its name while it lives. */
export const thisTab = crypto.randomUUID();
const lockName = (tab: string) => `junta-tab-${tab}`;
if ('locks' in navigator) void navigator.locks.request(lockName(thisTab), () => new Promise(() => {}));

const database = openDB('junta', 1, {
  upgrade: (db) => void db.createObjectStore('drafts', { keyPath: 'key' }),
});

/** Keeps an edit in this browser before it is sent anywhere. */
export async function keepDraft(jobId: string, version: number, build: BuildDocument): Promise<void> {
  const draft: Draft = { key: `${jobId}:${thisTab}`, jobId, tab: thisTab, version, build };
  await (await database).put('drafts', draft);
}

/** Forgets a draft that the server has. */
export const dropDraft = async (key: string): Promise<void> => (await database).delete('drafts', key);
export const dropOwnDraft = (jobId: string): Promise<void> => dropDraft(`${jobId}:${thisTab}`);

/** Drafts of a job whose tab is gone: closed or crashed in the middle of an edit. */
export async function orphanDrafts(jobId: string): Promise<Draft[]> {
  const all = (await (await database).getAll('drafts')) as Draft[];
  const held = 'locks' in navigator ? ((await navigator.locks.query()).held ?? []) : [];
  const alive = new Set(held.map(({ name }) => name));
  return all.filter(
    (draft) => draft.jobId === jobId && draft.tab !== thisTab && !alive.has(lockName(draft.tab)),
  );
}
