import { openDB, unwrap, type IDBPDatabase } from 'idb';
import { newId } from './ids';

/** What is edited here and stored on the server. */
export type DraftKind = 'job' | 'kit' | 'board' | 'note' | 'photo';

/** Changes not yet acknowledged by the server: one stream of edits of one thing, in one tab. */
export interface Draft {
  /** The stream's own id. */
  key: string;
  kind: DraftKind;
  /** Id of the job, board or note; of the kit, its shop; of a photo, its note. */
  subject: string;
  /** What a person calls it. */
  name: string;
  tab: string;
  /** The shop it belongs to; the only one there was, if missing. */
  shop?: string | undefined;
  /** Version of the stored state that the content was made from. */
  version: number;
  content: unknown;
  /** Id of the write that will store this content, and the ids of earlier writes of this stream that may have arrived. */
  write: string;
  tried: string[];
  /** When the stream began, ms. */
  at: number;
  /** On its way or waiting for the server; changed elsewhere too; or refused, with the reason. */
  state: 'waiting' | 'conflict' | 'refused';
  reason?: string;
  /** A photo is kept in this browser, or cannot be: it is shown from then on. */
  kept?: boolean;
  /** Refused because the job was deleted meanwhile: it can be brought back. */
  deleted?: boolean;
}

/** Names this tab among the browser's tabs. */
export const thisTab = newId();

/* A living tab is told by a lock of its name; where a page has no locks, by its answer to a call on a channel. */
const lockName = (tab: string) => `junta-tab-${tab}`;
const hasLocks = typeof navigator !== 'undefined' && 'locks' in navigator;
if (hasLocks) void navigator.locks.request(lockName(thisTab), () => new Promise(() => {}));
const channel = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('junta-tabs');
// In Node a channel would keep a test's process alive.
(channel as { unref?: () => void } | undefined)?.unref?.();
channel?.addEventListener('message', ({ data }: MessageEvent<{ call?: string; here?: string }>) => {
  if (data.call) channel.postMessage({ here: thisTab });
});
/** How long a tab is waited for, ms. */
const ANSWER_MS = 400;

/** The tabs of this browser that live, this one included. */
async function livingTabs(): Promise<Set<string>> {
  if (hasLocks) {
    const { held = [] } = await navigator.locks.query();
    return new Set([thisTab, ...held.map(({ name }) => (name ?? '').replace(lockName(''), ''))]);
  }
  const living = new Set([thisTab]);
  const hear = ({ data }: MessageEvent<{ here?: string }>) => data.here && living.add(data.here);
  channel?.addEventListener('message', hear);
  channel?.postMessage({ call: thisTab });
  await new Promise((done) => setTimeout(done, ANSWER_MS));
  channel?.removeEventListener('message', hear);
  return living;
}

/** A draft as the first release kept it, of a job only. */
interface FirstDraft {
  key: string;
  jobId: string;
  tab: string;
  version: number;
  build: { name?: string };
}

let opened: Promise<IDBPDatabase> | undefined;
const database = (): Promise<IDBPDatabase> => {
  opened ??= openDB('junta', 2, {
    upgrade(db, from, _to, transaction) {
      if (from < 1) db.createObjectStore('drafts', { keyPath: 'key' });
      if (from !== 1) return;
      // Written in the answer's own turn: a transaction lives no longer than that for certain.
      const store = unwrap(transaction).objectStore('drafts');
      const read = store.getAll() as IDBRequest<FirstDraft[]>;
      read.onsuccess = () => {
        for (const old of read.result)
          store.put({
            key: old.key,
            kind: 'job',
            subject: old.jobId,
            name: old.build.name ?? '',
            tab: old.tab,
            version: old.version,
            content: old.build,
            write: newId(),
            tried: [],
            at: Date.now(),
            state: 'waiting',
          } satisfies Draft);
      };
    },
    // Another tab opened a newer Junta: it must not wait for this one.
    blocking: (_now, _wanted, event) => (event.target as IDBDatabase).close(),
  });
  return opened;
};

/** Keeps a draft in this browser. Fails where the browser keeps nothing. */
export const keepDraft = async (draft: Draft): Promise<void> =>
  void (await (await database()).put('drafts', draft));

/** Forgets a draft that the server has. */
export const dropDraft = async (key: string): Promise<void> => (await database()).delete('drafts', key);

/* A page that goes away writes what the database has not got yet where writing is done at once. */
const LAST = 'junta-last-';

/** Keeps a draft in the moment the page goes away. What a browser does not keep there, it keeps as it was a moment before. */
export function keepLast(draft: Draft): void {
  try {
    localStorage.setItem(LAST + draft.key, JSON.stringify(draft));
  } catch {
    // Full, or none: the state before is in the database, and this one went to the server.
  }
}

/** Forgets what was kept in the moment a page went away: it came back, or the draft was taken over. */
export function dropLast(key: string): void {
  try {
    localStorage.removeItem(LAST + key);
  } catch {
    // A browser that keeps nothing has nothing to forget.
  }
}

/** The names under which this browser keeps something at once; none where it keeps nothing. */
function keptNames(): string[] {
  try {
    return Object.keys(localStorage);
  } catch {
    return [];
  }
}

/** What pages kept in the moment they went away. One that cannot be read stands in the way of no other. */
function lastKept(): Draft[] {
  return keptNames()
    .filter((name) => name.startsWith(LAST))
    .flatMap((name) => {
      try {
        return [JSON.parse(localStorage.getItem(name) ?? '') as Draft];
      } catch {
        return [];
      }
    });
}

/**
 * Takes over the drafts whose tab is gone, closed or crashed in the middle of an edit, and gives them; of two tabs
 * that try, one gets each. What a page kept in its last moment goes before what the database has of it. The oldest comes first.
 */
export async function adoptOrphans(): Promise<Draft[]> {
  const db = await database();
  if ((await db.count('drafts')) === 0 && lastKept().length === 0) return [];
  const living = await livingTabs();
  const transaction = db.transaction('drafts', 'readwrite');
  const byKey = new Map(((await transaction.store.getAll()) as Draft[]).map((draft) => [draft.key, draft]));
  const last = lastKept().filter(({ tab }) => !living.has(tab));
  for (const draft of last) {
    const taken = byKey.get(draft.key);
    if (!taken || !living.has(taken.tab)) byKey.set(draft.key, draft);
  }
  const orphans = [...byKey.values()]
    .filter(({ tab }) => !living.has(tab))
    .map((draft) => ({ ...draft, tab: thisTab, kept: true }));
  await Promise.all(orphans.map((draft) => transaction.store.put(draft)));
  await transaction.done;
  for (const { key } of last) dropLast(key);
  return orphans.toSorted((a, b) => a.at - b.at);
}
