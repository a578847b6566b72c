import { parentPort, workerData } from 'node:worker_threads';
import { fare } from './play';

/* Fares with one document after the other, and says before each which it is: the starter ends what does not come back. */
const { seed, from, to } = workerData as { seed: number; from: number; to: number };
for (let i = from; i < to; i++) {
  parentPort?.postMessage({ begin: i });
  parentPort?.postMessage({ i, ...fare(seed, i) });
}
parentPort?.postMessage({ end: true });
