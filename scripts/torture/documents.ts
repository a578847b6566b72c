import { Worker } from 'node:worker_threads';
import type { Fared } from './play';

/** A document longer than this in the core is a failure, ms. */
export const SLOW_MS = 2000;
/** One that does not come back is given up after this, ms. */
const LOST_MS = 20_000;

/** What became of many mutated documents. */
export interface DocumentsFared {
  documents: number;
  accepted: number;
  thrown: { i: number; words: string }[];
  slow: { i: number; ms: number }[];
  /** Those that did not come back. */
  lost: number[];
  slowestMs: number;
  peakMb: number;
}

type Message = { begin: number } | ({ i: number } & Fared) | { end: true };

/** Takes `count` mutated documents through contract and core, in threads of their own. */
export async function tortureDocuments(
  seed: number,
  count: number,
  workerFile: string,
  threads = 2,
): Promise<DocumentsFared> {
  const fared: DocumentsFared = {
    documents: 0,
    accepted: 0,
    thrown: [],
    slow: [],
    lost: [],
    slowestMs: 0,
    peakMb: 0,
  };
  const part = (from: number, to: number): Promise<void> =>
    new Promise((done, fail) => {
      const worker = new Worker(workerFile, {
        workerData: { seed, from, to },
        resourceLimits: { maxOldGenerationSizeMb: 400 },
      });
      let at = from;
      let clock: ReturnType<typeof setTimeout> | undefined;
      const goOn = () => {
        clearTimeout(clock);
        void worker.terminate();
        fared.documents += 1;
        if (at + 1 < to) part(at + 1, to).then(done, fail);
        else done();
      };
      const lost = () => {
        fared.lost.push(at);
        goOn();
      };
      worker.on('message', (message: Message) => {
        clearTimeout(clock);
        if ('end' in message) {
          void worker.terminate();
          return done();
        }
        if ('begin' in message) {
          at = message.begin;
          clock = setTimeout(lost, LOST_MS);
          return;
        }
        fared.documents += 1;
        fared.accepted += Number(message.accepted);
        fared.slowestMs = Math.max(fared.slowestMs, message.ms);
        if (message.ms > SLOW_MS) fared.slow.push({ i: message.i, ms: message.ms });
        if (message.thrown) fared.thrown.push({ i: message.i, words: message.thrown });
      });
      // Out of memory, or broken outside of a document.
      worker.on('error', (error: Error & { code?: string }) => {
        if (error.code !== 'ERR_WORKER_OUT_OF_MEMORY') return fail(error);
        fared.thrown.push({ i: at, words: 'more than 400 MB' });
        goOn();
      });
    });
  const memory = setInterval(() => {
    fared.peakMb = Math.max(fared.peakMb, process.memoryUsage().rss / 1024 / 1024);
  }, 200);
  const share = Math.ceil(count / threads);
  await Promise.all(
    Array.from({ length: threads }, (_, t) => part(t * share, Math.min(count, (t + 1) * share))),
  );
  clearInterval(memory);
  return fared;
}
