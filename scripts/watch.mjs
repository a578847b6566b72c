const sleep = (ms) => new Promise((done) => setTimeout(done, ms));

/** A process that lived less than this died quickly, ms. */
const QUICK_MS = 30_000;
/** So many quick deaths in a row, and nobody tries again. */
export const MOST_QUICK_DEATHS = 5;
const FIRST_PAUSE_MS = 500;
const LONGEST_PAUSE_MS = 8000;

/**
 * Keeps something running: starts it again when it dies, after a pause that grows with every quick death. After five
 * quick deaths in a row it gives up. `start` resolves to `{ gone }`, a promise of its end; `say` is told what happened.
 * Gives `ended`, which resolves with the last reason when it gave up, and `stop`, after which nothing is started again.
 * The times can be set by tests.
 */
export function keepRunning({ name, start, say, first, quickMs = QUICK_MS, pauseMs = FIRST_PAUSE_MS }) {
  let stopped = false;
  const ended = (async () => {
    let running = first;
    let startedAt = Date.now();
    let quick = 0;
    for (;;) {
      let reason = '';
      try {
        running ??= await start();
        await running.gone;
      } catch (error) {
        reason = ` ${error.message}`;
      }
      if (stopped) return undefined;
      running = undefined;
      quick = Date.now() - startedAt < quickMs ? quick + 1 : 1;
      if (quick >= MOST_QUICK_DEATHS) return `${name} stopped ${quick} times within moments.${reason}`;
      const pause = Math.min(LONGEST_PAUSE_MS, pauseMs * 2 ** (quick - 1));
      say(`${name} stopped.${reason} Starting it again in ${pause / 1000} s.`);
      await sleep(pause);
      if (stopped) return undefined;
      startedAt = Date.now();
    }
  })();
  return { ended, stop: () => void (stopped = true) };
}
