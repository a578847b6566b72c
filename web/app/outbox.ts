import type { JobSummary, Problem } from '../../contract/api';
import {
  adoptOrphans,
  type Draft,
  type DraftKind,
  dropDraft,
  dropLast,
  keepDraft,
  keepLast,
  thisTab,
} from './drafts';
import { newId } from './ids';
import { onReturn, serverAway, serverHere } from './reach';
import { SentPhoto, STORING } from './sending';
import { currentShop, shopHeaders } from './shop-choice';

/*
 * Everything that is edited here leaves through one door. A change is kept in this browser first, as the draft of an
 * edit stream, and stays there until the server has acknowledged it; drafts of every job, of the kit and of every board
 * are sent, not only those of what is open. A stream's draft is replaced only by a later state of the same stream, which
 * contains it. Each state carries the id of its write, so that a repeated one is known by the server.
 */

/** What happened to a draft. `latest` says that nothing was changed here since it was sent. */
export interface OutboxEvents {
  stored: (draft: Draft, answer: { version: number; latest: boolean; reply: unknown }) => void;
  conflicted: (draft: Draft, current: unknown) => void;
  refused: (draft: Draft, reason: string) => void;
  /** The server does not answer; the draft waits. */
  waiting: (draft: Draft, reason: string) => void;
  /** This browser keeps nothing: private windows, a full disk. */
  keptNowhere: (draft: Draft) => void;
}

interface Stream {
  draft: Draft;
  /** The state of it that this browser's database has for certain. */
  safe?: Draft;
  /** What stands on the server, where the two differ. */
  current?: unknown;
  timer?: ReturnType<typeof setTimeout>;
  sending?: Promise<void>;
}

const streams = new Map<string, Stream>();
/** The stream that edits of a thing go on in: `kind:subject`. */
const open = new Map<string, Stream>();
const listeners: Record<DraftKind, Partial<OutboxEvents>[]> = {
  job: [],
  kit: [],
  board: [],
  note: [],
  photo: [],
};

let watchers: (() => void)[] = [];

/** Pause before the server is tried again by itself, ms; its return is heard of sooner. */
const RETRY_MS = 5000;
const TIMEOUT_MS = 15_000;
/** The largest body a page that goes away may still send. */
const MOST_KEEPALIVE = 60_000;
const MOST_TRIED = 40;

const nameOf = (kind: DraftKind, subject: string) => `${kind}:${subject}`;
const told = () => watchers.forEach((watch) => watch());

/** Who is told what happens to drafts of a kind. */
export const onOutbox = (kind: DraftKind, events: Partial<OutboxEvents>): void =>
  void listeners[kind].push(events);
/** Tells all who listen to a kind. */
const tell = (kind: DraftKind): OutboxEvents => ({
  stored: (...said) => listeners[kind].forEach((each) => each.stored?.(...said)),
  conflicted: (...said) => listeners[kind].forEach((each) => each.conflicted?.(...said)),
  refused: (...said) => listeners[kind].forEach((each) => each.refused?.(...said)),
  waiting: (...said) => listeners[kind].forEach((each) => each.waiting?.(...said)),
  keptNowhere: (...said) => listeners[kind].forEach((each) => each.keptNowhere?.(...said)),
});
/** Calls back whenever what waits has changed; gives the way to stop it. */
export function watchOutbox(watch: () => void): () => void {
  watchers = [...watchers, watch];
  return () => void (watchers = watchers.filter((each) => each !== watch));
}

let shown: Draft[] = [];
/** Everything that is not stored yet, the oldest first. The same list until something changes. */
export function unsent(): readonly Draft[] {
  const now = [...streams.values()].map(({ draft }) => draft).toSorted((a, b) => a.at - b.at);
  if (now.length !== shown.length || now.some((draft, i) => draft !== shown[i])) shown = now;
  return shown;
}

/** The drafts of one thing, the oldest first. */
export const draftsOf = (kind: DraftKind, subject: string): readonly Draft[] =>
  unsent().filter((draft) => draft.kind === kind && draft.subject === subject);

/** What stands on the server instead of a draft in conflict. */
export const standing = (draft: Draft): { version: number; content: unknown } | undefined => {
  const current = streams.get(draft.key)?.current;
  return current === undefined ? undefined : STORING[draft.kind].current(current as never);
};

/** Drafts are written one after the other, so that an older state never lands over a newer one. */
const writing = new Map<string, Promise<void>>();
function keep(stream: Stream): void {
  const { draft } = stream;
  const before = writing.get(draft.key) ?? Promise.resolve();
  const now = before
    .then(async () => {
      if (streams.get(draft.key)?.draft !== draft) return;
      await keepDraft(draft);
      stream.safe = draft;
    })
    .catch(() => tell(draft.kind).keptNowhere(draft))
    .then(() => {
      if (draft.kind !== 'photo' || draft.kept || streams.get(draft.key)?.draft !== draft) return;
      stream.draft = { ...draft, kept: true };
      told();
    });
  writing.set(draft.key, now);
}

async function forget(stream: Stream): Promise<void> {
  const { key, kind, subject } = stream.draft;
  clearTimeout(stream.timer);
  streams.delete(key);
  if (open.get(nameOf(kind, subject)) === stream) open.delete(nameOf(kind, subject));
  told();
  const last = (writing.get(key) ?? Promise.resolve()).then(() => dropDraft(key)).catch(() => {});
  writing.set(key, last);
  await last;
  if (writing.get(key) === last) writing.delete(key);
}

const change = (stream: Stream, next: Partial<Draft>): void => {
  stream.draft = { ...stream.draft, ...next };
  keep(stream);
  told();
};

/**
 * Keeps a change: at once in this browser, a moment later on the server. It goes on in the open stream of its thing,
 * whose content it must contain; where there is none, it begins one made from `version`.
 */
export function keepChange(
  kind: DraftKind,
  subject: string,
  { name, version, content }: { name: string; version: number; content: unknown },
): void {
  let stream = open.get(nameOf(kind, subject));
  if (stream) {
    const { write, tried } = stream.draft;
    stream.draft = {
      ...stream.draft,
      name,
      content,
      write: newId(),
      tried: [...tried, write].slice(-MOST_TRIED),
      ...(stream.draft.state === 'refused' ? { state: 'waiting' as const } : {}),
    };
  } else {
    stream = {
      draft: {
        key: newId(),
        kind,
        subject,
        name,
        tab: thisTab,
        ...(currentShop() === undefined ? {} : { shop: currentShop() }),
        version,
        content,
        write: newId(),
        tried: [],
        at: Date.now(),
        state: 'waiting',
      },
    };
    streams.set(stream.draft.key, stream);
    open.set(nameOf(kind, subject), stream);
  }
  keep(stream);
  if (stream.draft.state === 'waiting') soon(stream, STORING[kind].pauseMs);
  told();
}

/** Ends the open stream of a thing: another state of it is shown now, and edits of that one begin a stream of their own. */
export const leaveStream = (kind: DraftKind, subject: string): void => {
  const stream = open.get(nameOf(kind, subject));
  if (!stream) return;
  open.delete(nameOf(kind, subject));
  soon(stream, 0);
};

/** Goes on with a draft that is shown: edits from now on contain it. */
export function resume(draft: Draft): void {
  const stream = streams.get(draft.key);
  if (stream) open.set(nameOf(draft.kind, draft.subject), stream);
}

const soon = (stream: Stream, ms: number): void => {
  clearTimeout(stream.timer);
  if (stream.draft.state !== 'waiting') return;
  stream.timer = setTimeout(() => void send(stream), ms);
};

interface Answer {
  status: number;
  body: Partial<Problem> & Partial<JobSummary>;
}

/** What goes along with a write of a draft. */
const headersOf = ({ write, shop }: Draft): Record<string, string> => ({
  'Content-Type': 'application/json',
  'Idempotency-Key': write,
  ...shopHeaders(shop),
});

async function post(draft: Draft): Promise<Answer | undefined> {
  const { kind, subject, version, content } = draft;
  const { url, body, timeoutMs = TIMEOUT_MS } = STORING[kind];
  try {
    const sent = body(version, content);
    const isPhoto = sent instanceof SentPhoto;
    const answer = await fetch(url(subject), {
      method: 'PUT',
      headers: { ...headersOf(draft), ...(isPhoto ? { 'Content-Type': sent.type } : {}) },
      body: isPhoto ? sent.bytes : JSON.stringify(sent),
      signal: AbortSignal.timeout(timeoutMs),
    });
    return { status: answer.status, body: (await answer.json()) as Answer['body'] };
  } catch {
    return undefined;
  }
}

/** Sends a stream's draft; drafts of one thing go one after the other. */
function send(stream: Stream): Promise<void> {
  clearTimeout(stream.timer);
  stream.sending ??= (async () => {
    const { kind, subject } = stream.draft;
    const { after } = STORING[kind];
    // An older stream of the same thing goes first: what it holds was made first. So does what it hangs on.
    const older = [
      ...(after ? draftsOf(after, subject).filter(({ state }) => state === 'waiting') : []),
      ...draftsOf(kind, subject).filter(
        ({ key, at, state }) => state === 'waiting' && at < stream.draft.at && key !== stream.draft.key,
      ),
    ];
    for (const { key } of older) {
      const before = streams.get(key);
      if (before) await send(before);
    }
    // Still not there: it goes out as soon as that is stored.
    if (after && draftsOf(after, subject).some(({ state }) => state !== 'conflict')) return;
    await sendNow(stream);
  })().finally(() => {
    stream.sending = undefined;
  });
  return stream.sending;
}

async function sendNow(stream: Stream): Promise<void> {
  for (let tries = 0; tries < 5 && streams.has(stream.draft.key); tries++) {
    const { draft } = stream;
    if (draft.state !== 'waiting') return;
    const answer = await post(draft);
    if (!settleAnswer(stream, draft, answer)) return;
  }
}

/** Deals with an answer; true where the draft goes out again at once. */
function settleAnswer(stream: Stream, sent: Draft, answer: Answer | undefined): boolean {
  const events = tell(sent.kind);
  const { status = 0, body = {} } = answer ?? {};
  if (status === 0 || status >= 500 || status === 429 || status === 408) {
    const reason = body.detail ?? 'The server does not answer.';
    // A server that broke on this one is not away: it is asked again, more slowly.
    if (status !== 500) serverAway(reason);
    events.waiting(stream.draft, reason);
    stream.timer = setTimeout(() => void send(stream), RETRY_MS);
    return false;
  }
  serverHere();
  if (status < 300 && typeof body.version === 'number') {
    const latest = stream.draft.write === sent.write;
    if (latest) void forget(stream);
    else change(stream, { version: body.version });
    events.stored(sent, { version: body.version, latest, reply: body });
    for (const other of streams.values())
      if (STORING[other.draft.kind].after === sent.kind && other.draft.subject === sent.subject)
        soon(other, 0);
    return !latest;
  }
  if (status === 409 && body.current !== undefined) {
    const { version, content } = STORING[sent.kind].current(body.current as never);
    // What stands was made by this very stream, by a write whose answer was lost: it goes on from there.
    if (body.write && [...stream.draft.tried, sent.write].includes(body.write)) {
      change(stream, { version });
      return true;
    }
    if (JSON.stringify(content) === JSON.stringify(stream.draft.content)) {
      void forget(stream);
      events.stored(sent, { version, latest: true, reply: body.current });
      return false;
    }
    stream.current = body.current;
    change(stream, { state: 'conflict' });
    events.conflicted(stream.draft, body.current);
    return false;
  }
  const reason = body.detail ?? 'The server does not take this.';
  if (stream.draft.write !== sent.write) return true;
  change(stream, { state: 'refused', reason, deleted: body.deleted !== undefined });
  events.refused(stream.draft, reason);
  return false;
}

/**
 * Settles a conflict. `mine` is sent again, from the version that stands; `theirs` lets the draft go, which the server
 * keeps aside where it is a job.
 */
export async function settleConflict(draft: Draft, side: 'mine' | 'theirs'): Promise<void> {
  const stream = streams.get(draft.key);
  if (!stream) return;
  const there = standing(draft);
  if (side === 'theirs' || !there) return forget(stream);
  stream.current = undefined;
  const { write, tried } = stream.draft;
  // Refused before, its write is no longer the same: it is made from another version now.
  change(stream, { state: 'waiting', version: there.version, write: newId(), tried: [...tried, write] });
  await send(stream);
}

/** Sends a draft once more that was refused: what stood in its way may be gone. */
export async function sendAgain(draft: Draft): Promise<void> {
  const stream = streams.get(draft.key);
  if (stream?.draft.state !== 'refused') return;
  const { write, tried } = stream.draft;
  change(stream, { state: 'waiting', write: newId(), tried: [...tried, write] });
  await send(stream);
}

/** Lets a draft go for good. */
export const throwAway = (draft: Draft): Promise<void> => {
  const stream = streams.get(draft.key);
  return stream ? forget(stream) : Promise.resolve();
};

/** Takes over what tabs that are gone had not stored, and sends everything that waits. Ends when each was tried once. */
export async function sendAll(): Promise<void> {
  const adopting = adoptOrphans()
    .catch((): Draft[] => [])
    .then((orphans) => {
      // A conflict is asked about anew: what stands may be another by now.
      for (const draft of orphans)
        if (!streams.has(draft.key)) {
          const stream: Stream = {
            draft: draft.state === 'conflict' ? { ...draft, state: 'waiting' } : draft,
          };
          streams.set(draft.key, stream);
          soon(stream, 0);
        }
      told();
    });
  // A database of the browser that an old page holds up must not hold up what is made here.
  await Promise.race([adopting, new Promise((done) => setTimeout(done, 2000))]);
  const waiting = [...streams.values()].filter(({ draft }) => draft.state === 'waiting');
  await Promise.all(waiting.map((stream) => send(stream)));
}

let first: Promise<void> | undefined;
/** The first sending of this page: what is read from the server after it contains what this browser had kept. */
export const firstSent = (): Promise<void> => {
  // A server that takes long holds up reading for a moment only.
  first ??= Promise.race([sendAll(), new Promise<void>((done) => setTimeout(done, 3000))]);
  return first;
};

/** Sends what still waits when the page goes away; the drafts in this browser are the safety net, each in its last state. */
function sendLast(): void {
  for (const stream of streams.values()) {
    const { kind, subject, version, content, state } = stream.draft;
    if (kind !== 'photo' && stream.safe !== stream.draft) keepLast(stream.draft);
    if (state !== 'waiting') continue;
    const sent = STORING[kind].body(version, content);
    if (sent instanceof SentPhoto) continue;
    const body = JSON.stringify(sent);
    if (body.length >= MOST_KEEPALIVE) continue;
    void fetch(STORING[kind].url(subject), {
      method: 'PUT',
      keepalive: true,
      headers: headersOf(stream.draft),
      body,
    }).catch(() => {});
  }
}
onReturn(() => void sendAll());
addEventListener('pagehide', sendLast);
// Brought back from the browser's store of pages, it asks what became of what was sent last.
addEventListener('pageshow', (event) => {
  if (!(event as PageTransitionEvent).persisted) return;
  for (const key of streams.keys()) dropLast(key);
  void sendAll();
});
