import { expose } from 'comlink';
import type { BuildDocument } from '../../core/document';
import { layUpOf, type Proposals, propose, type Purpose } from '../../core/layup';
import { run } from '../../core/run';
import { pause } from './pause';

let stopped = false;

const worker = {
  /** Proposes orders for a lay-up; says every better answer as it is found. Nothing for a step that lays up no strips. */
  async propose(
    build: BuildDocument,
    step: string,
    purpose: Purpose,
    say: (proposals: Proposals) => void,
  ): Promise<Proposals | undefined> {
    stopped = false;
    const layUp = layUpOf(build, run(build), step);
    if (!layUp) return undefined;
    const search = propose(layUp, purpose);
    for (;;) {
      const { done, value } = search.next();
      if (done || stopped) return value;
      say(value);
      await pause();
    }
  },
  stop: () => void (stopped = true),
};
export type LayUpWorker = typeof worker;
expose(worker);
