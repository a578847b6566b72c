import { IDBFactory } from 'fake-indexeddb';
import { afterEach, beforeEach, vi } from 'vitest';

/* The page around edits that are sent to a server which a test plays. */

export const answer = (body: unknown, status = 200) =>
  new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } });

/** Answers what the page asks: `read` what it reads, `write` what it puts. It is well as long as nobody says otherwise. */
export function playServer({
  read,
  write,
  isAway = () => false,
}: {
  read: () => Promise<Response>;
  write: (body: unknown) => Response;
  isAway?: () => boolean;
}): void {
  const Plain = Request;
  vi.stubGlobal('addEventListener', () => {});
  // The page's own address stands before relative ones; here there is no page.
  vi.stubGlobal(
    'Request',
    class extends Plain {
      constructor(input: RequestInfo | URL, init?: RequestInit) {
        super(typeof input === 'string' ? `http://junta.test${input}` : input, init);
      }
    },
  );
  vi.stubGlobal('fetch', async (request: Request | string, init?: RequestInit) => {
    if (isAway()) throw new TypeError('fetch failed');
    if (request === '/api/health') return answer({ ok: true, open: false });
    return typeof request === 'string' ? write(JSON.parse(String(init?.body))) : read();
  });
}

/** A browser of its own for each test of a file, with a clock that the test turns. */
export function eachAlone(): void {
  beforeEach(() => {
    vi.stubGlobal('indexedDB', new IDBFactory());
    vi.useFakeTimers({ shouldAdvanceTime: true });
  });
  afterEach(() => {
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });
}
export const settle = (ms = 600) => vi.advanceTimersByTimeAsync(ms);
