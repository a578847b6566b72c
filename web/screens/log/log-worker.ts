import { wrap } from 'comlink';
import type { LogWorker } from '../../workers/log.worker';

/** Learns from the log beside the screen. */
export const logWorker = wrap<LogWorker>(
  new Worker(new URL('../../workers/log.worker.ts', import.meta.url), { type: 'module' }),
);
