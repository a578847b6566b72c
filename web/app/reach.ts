import type { HealthReply } from '../../contract/api';

/** Whether the server answers, and what it says of itself. */
export interface Reach {
  /** Why it cannot be reached or cannot store; undefined while it is well. */
  away?: string;
  /** It listens on more than this machine: anybody on the network is the shop. */
  open: boolean;
}

/** Pause between two looks for a server that is away, ms: its return is noticed within two seconds. */
const LOOK_MS = 1000;
const TIMEOUT_MS = 900;

let state: Reach = { open: false };
let watchers: (() => void)[] = [];
let returns: (() => void)[] = [];
let looking = false;

const set = (next: Reach) => {
  state = next;
  watchers.forEach((watch) => watch());
};

/** How the server is just now. The same object until that changes. */
export const reach = (): Reach => state;
/** Calls back whenever that has changed; gives the way to stop it. */
export function watchReach(watch: () => void): () => void {
  watchers = [...watchers, watch];
  return () => void (watchers = watchers.filter((each) => each !== watch));
}
/** Who is told that a server that was away is back. */
export const onReturn = (tell: () => void): void => void (returns = [...returns, tell]);

/** What the server says of its health, or undefined where it is not well or does not answer. */
async function askHealth(): Promise<HealthReply | undefined> {
  try {
    const answer = await fetch('/api/health', { signal: AbortSignal.timeout(TIMEOUT_MS), cache: 'no-store' });
    return answer.ok ? ((await answer.json()) as HealthReply) : undefined;
  } catch {
    return undefined;
  }
}

async function look(): Promise<void> {
  if (looking) return;
  looking = true;
  while (state.away !== undefined) {
    await new Promise((done) => setTimeout(done, LOOK_MS));
    const health = await askHealth();
    if (health) {
      set({ open: health.open });
      returns.forEach((tell) => tell());
    }
  }
  looking = false;
}

/** The server did not answer, or could not store: from now on its return is looked for. */
export function serverAway(reason: string): void {
  if (state.away !== reason) set({ ...state, away: reason });
  void look();
}

/** The server answered. */
export const serverHere = (): void => {
  if (state.away === undefined) return;
  const { away: _, ...rest } = state;
  set(rest);
  returns.forEach((tell) => tell());
};

/** Whether the server answers: known where it is away, asked otherwise. */
export const answers = async (): Promise<boolean> =>
  state.away === undefined && (await askHealth()) !== undefined;

/** Asks once what the server says of itself. */
export async function meetServer(): Promise<void> {
  const health = await askHealth();
  if (health && health.open !== state.open) set({ ...state, open: health.open });
}
