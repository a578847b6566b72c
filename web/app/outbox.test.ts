import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { openDB } from 'idb';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Draft } from './drafts';

/* The outbox against a server that is played here, in tabs that come and go over one browser's database. */
interface Write {
  path: string;
  key: string;
  version: number;
  content: any;
}
interface Server {
  away: boolean;
  /** Answers are lost although the write is carried out. */
  deaf: boolean;
  full: boolean;
  version: number;
  content: any;
  writer?: string;
  receipts: Map<string, number>;
  writes: Write[];
  /** Carries out a change of another device. */
  elsewhere: (content: object) => void;
}

const played = (): Server => {
  const server: Server = {
    away: false,
    deaf: false,
    full: false,
    version: 1,
    content: { name: 'start' },
    receipts: new Map(),
    writes: [],
    elsewhere: (content) => Object.assign(server, { version: server.version + 1, content, writer: 'other' }),
  };
  return server;
};

const answer = (body: unknown, status = 200) => new Response(JSON.stringify(body), { status });

function respond(server: Server, path: string, init: RequestInit | undefined): Response {
  if (path === '/api/health') return answer({ ok: true, open: false });
  if (path.endsWith('/photo')) {
    server.writes.push({ path, key: '', version: 0, content: (init?.body as ArrayBuffer).byteLength });
    return answer({ id: 'n', version: 1 });
  }
  const body = JSON.parse(String(init?.body));
  const key = (init?.headers as Record<string, string>)['Idempotency-Key'];
  const content = body.build ?? body.shop ?? body.board ?? body.note;
  server.writes.push({ path, key, version: body.version, content });
  if (server.full) return answer({ detail: 'The disk is full.' }, 507);
  const before = server.receipts.get(key);
  if (before !== undefined) return answer({ version: before });
  if (content.name === 'refused') return answer({ detail: 'name: no' }, 422);
  if (body.version !== server.version) {
    const current = {
      version: server.version,
      ...(body.shop ? { shop: server.content } : { build: server.content }),
    };
    return answer({ status: 409, current, write: server.writer }, 409);
  }
  server.version += 1;
  Object.assign(server, { content, writer: key });
  server.receipts.set(key, server.version);
  return answer({ version: server.version });
}

/** Channels between tabs; a tab that is closed hears nothing more. */
class Channel extends EventTarget {
  static readonly all = new Set<Channel>();
  constructor() {
    super();
    Channel.all.add(this);
  }
  postMessage(data: unknown) {
    for (const other of Channel.all)
      if (other !== this) setTimeout(() => other.dispatchEvent(new MessageEvent('message', { data })), 1);
  }
}

const opened: { close: () => void }[] = [];
/** Opens a tab: the modules anew over the same database. What its page does at its end is called by hand. */
async function tab(server: Server) {
  vi.resetModules();
  const leaving: (() => void)[] = [];
  vi.stubGlobal('addEventListener', (what: string, act: () => void) => {
    if (what === 'pagehide') leaving.push(act);
  });
  const state = { closed: false };
  const others = new Set(Channel.all);
  vi.stubGlobal('fetch', async (path: string, init?: RequestInit) => {
    if (server.away) throw new TypeError('fetch failed');
    const said = respond(server, path, init);
    if (server.deaf || state.closed) throw new TypeError('the answer was lost');
    return said;
  });
  const outbox = await import('./outbox');
  const told: string[] = [];
  outbox.onOutbox('job', {
    stored: (draft, { version }) => told.push(`${(draft.content as any).name} is ${version}`),
    conflicted: (draft) => told.push(`${(draft.content as any).name} conflicts`),
    refused: (_draft, reason) => told.push(reason),
    waiting: () => told.push('waits'),
  });
  const edit = (name: string, version = 1, id = 'a') =>
    outbox.keepChange('job', id, { name, version, content: { name } });
  const page = {
    outbox,
    told,
    edit,
    /** Closed without a word, or with its last request. */
    close: (last = false) => {
      if (last) leaving.forEach((act) => act());
      state.closed = true;
      for (const own of Channel.all) if (!others.has(own)) Channel.all.delete(own);
      vi.clearAllTimers();
    },
  };
  opened.push(page);
  return page;
}
const settle = (ms = 800) => vi.advanceTimersByTimeAsync(ms);
/** Time for the database alone. */
const moment = () => settle(20);
const kept = async (): Promise<Draft[]> => {
  const db = await openDB('junta');
  const all = db.objectStoreNames.contains('drafts') ? await db.getAll('drafts') : [];
  db.close();
  return all;
};

/** Takes the database back to what it held: what was written to it since had not arrived when the page ended. */
const backTo = async (drafts: readonly Draft[]): Promise<void> => {
  const db = await openDB('junta');
  await db.clear('drafts');
  for (const draft of drafts) await db.put('drafts', draft);
  db.close();
};
/** What a browser keeps at once: its names are its own keys. */
const pockets = (): object =>
  Object.defineProperties(
    {},
    {
      getItem: {
        value(this: Record<string, string>, name: string) {
          return this[name] ?? null;
        },
      },
      setItem: {
        value(this: Record<string, string>, name: string, text: string) {
          this[name] = text;
        },
      },
      removeItem: {
        value(this: Record<string, string>, name: string) {
          delete this[name];
        },
      },
    },
  );

beforeEach(() => {
  vi.stubGlobal('localStorage', pockets());
  vi.stubGlobal('indexedDB', new IDBFactory());
  vi.stubGlobal('BroadcastChannel', Channel);
  vi.useFakeTimers({ shouldAdvanceTime: true });
});
afterEach(() => {
  opened.splice(0).forEach((page) => page.close());
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

/*
 * The clock of the tests is played, the stand-in for the browser's database answers by the real one: on a busy machine the two
 * may miss each other. What is wrong is wrong four times.
 */
describe('a change on its way', { retry: 3 }, () => {
  it('is kept here at once, sent a moment later with those that followed, and forgotten when it is stored', async () => {
    const server = played();
    const page = await tab(server);
    page.edit('one');
    page.edit('two');
    await moment();
    expect((await kept()).map(({ content }) => content)).toEqual([{ name: 'two' }]);
    expect(server.writes).toEqual([]);
    await settle();
    expect(server.writes.map(({ content, version }) => [content.name, version])).toEqual([['two', 1]]);
    expect(page.told).toEqual(['two is 2']);
    await vi.waitFor(async () => expect(await kept()).toEqual([]));
    expect(page.outbox.unsent()).toEqual([]);
  });
  it('of several jobs, the kit and boards goes out when the server is back, whatever is open', async () => {
    const server = played();
    server.away = true;
    const page = await tab(server);
    page.edit('first', 1, 'a');
    page.edit('second', 1, 'b');
    page.outbox.keepChange('kit', 'kit', { name: 'the kit', version: 1, content: { name: 'kit' } });
    page.outbox.keepChange('board', 'p', { name: 'board 7', version: 1, content: { name: 'board' } });
    await settle();
    expect(page.outbox.unsent().map(({ name }) => name)).toEqual(['first', 'second', 'the kit', 'board 7']);
    server.away = false;
    await settle(2500);
    const paths = server.writes.map(({ path }) => path);
    expect(new Set(paths)).toEqual(new Set(['/api/jobs/a', '/api/jobs/b', '/api/kit', '/api/boards/p']));
  });
  it('that is a photo goes out after its note, whole, and survives the tab it was taken in', async () => {
    const server = played();
    server.away = true;
    const page = await tab(server);
    const take = (id: string, words: string) => {
      page.outbox.keepChange('note', id, { name: 'a note', version: 1, content: { name: words } });
      page.outbox.keepChange('photo', id, {
        name: 'a photo',
        version: 0,
        content: { type: 'image/jpeg', bytes: new Uint8Array(2000).buffer },
      });
    };
    take('n', 'tear-out');
    await settle();
    page.close();
    server.away = false;
    const next = await tab(server);
    await Promise.all([next.outbox.sendAll(), settle()]);
    await settle(2500);
    expect(server.writes.map(({ path, content }) => [path, content])).toEqual([
      ['/api/notes/n', { name: 'tear-out' }],
      ['/api/notes/n/photo', 2000],
    ]);
    await vi.waitFor(async () => expect(await kept()).toEqual([]));
  });
  it('that is the photo of a note which is refused waits for it, and goes out once that is taken', async () => {
    const server = played();
    const page = await tab(server);
    page.outbox.keepChange('note', 'n', { name: 'a note', version: 1, content: { name: 'refused' } });
    const photo = { type: 'image/jpeg', bytes: new Uint8Array(9).buffer };
    page.outbox.keepChange('photo', 'n', { name: 'a photo', version: 0, content: photo });
    await settle(9000);
    expect(server.writes.map(({ path }) => path)).toEqual(['/api/notes/n']);
    page.outbox.keepChange('note', 'n', { name: 'a note', version: 1, content: { name: 'mended' } });
    await settle(3000);
    expect(server.writes.map(({ path }) => path)).toEqual([
      '/api/notes/n',
      '/api/notes/n',
      '/api/notes/n/photo',
    ]);
  });
  it('is never replaced by a later state that does not contain it', async () => {
    const server = played();
    server.away = true;
    const page = await tab(server);
    page.edit('offline');
    await settle();
    // The stored version is shown again, and edited.
    page.outbox.leaveStream('job', 'a');
    page.edit('made from the stored one');
    await moment();
    expect((await kept()).map(({ content }: any) => content.name).toSorted()).toEqual([
      'made from the stored one',
      'offline',
    ]);
    server.away = false;
    await settle(2500);
    expect(server.writes[0].content.name).toBe('offline');
    expect(page.told).toEqual(expect.arrayContaining(['offline is 2', 'made from the stored one conflicts']));
  });
  it('waits while the disk is full, and is stored when there is room', async () => {
    const server = played();
    server.full = true;
    const page = await tab(server);
    page.edit('full');
    await settle();
    expect(page.told).toEqual(['waits']);
    server.full = false;
    await settle(2500);
    expect(page.told.at(-1)).toBe('full is 2');
  });
  it('that is refused stays, with the reason, until it is changed or thrown away', async () => {
    const server = played();
    const page = await tab(server);
    page.edit('refused');
    await settle();
    expect(page.told).toEqual(['name: no']);
    expect(page.outbox.unsent()[0]).toMatchObject({ state: 'refused', reason: 'name: no' });
    page.edit('better');
    await settle();
    expect(page.told.at(-1)).toBe('better is 2');
    expect(page.outbox.unsent()).toEqual([]);
  });
});

describe('a tab that is closed', { retry: 3 }, () => {
  it('in the middle of an edit leaves it to the next one', async () => {
    const server = played();
    server.away = true;
    const page = await tab(server);
    page.edit('last word');
    await moment();
    page.close();
    server.away = false;
    const next = await tab(server);
    await Promise.all([next.outbox.sendAll(), settle()]);
    expect(next.told).toEqual(['last word is 2']);
  });
  it('before its last state was kept is no conflict with itself, nor is that state lost', async () => {
    for (const arrives of [true, false]) {
      const server = played();
      const page = await tab(server);
      page.edit('one');
      await moment();
      const before = await kept();
      // What another page left there cannot be read: it stands in the way of nothing.
      localStorage.setItem('junta-last-x', '{');
      page.edit('two');
      server.away = !arrives;
      page.close(true);
      await moment();
      await backTo(before);
      server.away = false;
      const next = await tab(server);
      await Promise.all([next.outbox.sendAll(), settle()]);
      expect(next.told).toEqual(['two is 2']);
      expect(server.content.name).toBe('two');
      expect(Object.keys(localStorage)).toEqual(['junta-last-x']);
      next.close();
    }
  });
  it('whose last request arrived, after which another device saved, is no conflict', async () => {
    const server = played();
    const page = await tab(server);
    page.edit('mine');
    await moment();
    page.close(true);
    await moment();
    expect(server.version).toBe(2);
    server.elsewhere({ name: 'theirs' });
    const next = await tab(server);
    await Promise.all([next.outbox.sendAll(), settle()]);
    expect(next.told).toEqual(['mine is 2']);
    expect(server.content.name).toBe('theirs');
  });
  it('after a lost answer and one more edit goes on from the version its own write made', async () => {
    const server = played();
    const page = await tab(server);
    server.deaf = true;
    page.edit('arrived');
    await settle();
    page.edit('and more');
    await moment();
    page.close();
    server.deaf = false;
    const next = await tab(server);
    await Promise.all([next.outbox.sendAll(), settle()]);
    expect(next.told).toEqual(['and more is 3']);
    expect(server.content.name).toBe('and more');
  });
  it('that lives keeps its own drafts, also where a page has no locks: it answers when it is called', async () => {
    const server = played();
    server.away = true;
    const page = await tab(server);
    page.edit('mine still');
    await moment();
    const other = await tab(server);
    await Promise.all([other.outbox.sendAll(), settle()]);
    expect(other.outbox.unsent()).toEqual([]);
    expect((await kept()).map(({ name }) => name)).toEqual(['mine still']);
  });
  it('of a release before this one has its drafts read', async () => {
    const db = await openDB('junta', 1, {
      upgrade: (old) => void old.createObjectStore('drafts', { keyPath: 'key' }),
    });
    await db.put('drafts', { key: 'a:old', jobId: 'a', tab: 'old', version: 1, build: { name: 'of old' } });
    db.close();
    const server = played();
    const page = await tab(server);
    await Promise.all([page.outbox.sendAll(), settle()]);
    expect(page.told).toEqual(['of old is 2']);
  });
});

describe('a conflict', { retry: 3 }, () => {
  const conflicting = async () => {
    const server = played();
    const page = await tab(server);
    server.elsewhere({ name: 'theirs' });
    page.edit('mine');
    await settle();
    expect(page.told).toEqual(['mine conflicts']);
    const [draft] = page.outbox.unsent();
    expect(page.outbox.standing(draft)).toEqual({ version: 2, content: { name: 'theirs' } });
    return { server, page, draft };
  };
  it('settled for mine stores it over the version that stood', async () => {
    const { server, page, draft } = await conflicting();
    await Promise.all([page.outbox.settleConflict(draft, 'mine'), settle()]);
    expect([server.version, server.content.name]).toEqual([3, 'mine']);
    expect(page.outbox.unsent()).toEqual([]);
  });
  it('settled for theirs lets mine go', async () => {
    const { server, page, draft } = await conflicting();
    await page.outbox.settleConflict(draft, 'theirs');
    expect([server.version, server.content.name]).toEqual([2, 'theirs']);
    await vi.waitFor(async () => expect(await kept()).toEqual([]));
  });
  it('is kept through a reload and asked again', async () => {
    const { server, page } = await conflicting();
    page.close();
    const next = await tab(server);
    await Promise.all([next.outbox.sendAll(), settle()]);
    expect(next.told).toEqual(['mine conflicts']);
  });
});

describe('ids', { retry: 3 }, () => {
  it('need no secure context', async () => {
    const { getRandomValues } = crypto;
    vi.stubGlobal('crypto', { getRandomValues: getRandomValues.bind(crypto) });
    const { newId } = await import('./ids');
    const many = new Set(Array.from({ length: 1000 }, newId));
    expect(many.size).toBe(1000);
    for (const id of many) expect(id).toMatch(/^[0-9a-f]{32}$/);
  });
});
