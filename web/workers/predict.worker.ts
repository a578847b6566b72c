import { expose } from 'comlink';
import type { BuildDocument, Finding } from '../../core/document';
import { outlook, reviewing } from '../../core/review';
import { run } from '../../core/run';
import { pause } from './pause';

let latest = 0;

const worker = {
  outlook,
  /** The findings with their ways out, each played forward; nothing where the build has changed in the meantime. */
  async offers(build: BuildDocument, today: string): Promise<Finding[] | undefined> {
    const mine = ++latest;
    const out: Finding[] = [];
    for (const finding of reviewing(build, run(build), today)) {
      out.push(finding);
      await pause();
      if (mine !== latest) return undefined;
    }
    return out;
  },
  /** A newer build is on its way: what is being played is of no use any more. */
  forget: () => void latest++,
};
export type PredictWorker = typeof worker;
expose(worker);
