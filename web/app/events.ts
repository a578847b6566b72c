import { EVENTS_PATH, type ToldKind } from '../../contract/api';
import { api } from './api';
import { currentShop } from './shop-choice';
import { store } from './store';

/* What happens in the shop, told by the server as it happens. A page that nobody looks at does not listen: a browser has few ways to one server. */

/** What is told: of what kind, and of which job or board. */
interface Told {
  kind: ToldKind;
  subject?: string;
  /** What a gauge read. */
  data?: unknown;
}

/** Pause before the server is asked again for its stream, ms. */
const AGAIN_MS = 4000;
/** A page out of sight listens for so long, ms. */
const UNSEEN_MS = 30_000;

const hearers = new Set<(told: Told) => void>();
let stream: EventSource | undefined;
let open = false;

/** Hears what is told; gives the way to stop. */
export function onTold(hear: (told: Told) => void): () => void {
  hearers.add(hear);
  return () => void hearers.delete(hear);
}

/** Whether the server tells this page what happens: nothing need be asked for every moment then. */
export const isListening = (): boolean => open;

/** What is read anew for each kind that is told. A kind without its line does not compile. */
const READ_ANEW: Record<ToldKind, readonly ('Jobs' | 'Kit' | 'Boards' | 'Timers' | 'Notes')[]> = {
  again: ['Timers', 'Notes'],
  job: ['Jobs'],
  jobs: ['Jobs', 'Timers'],
  kit: ['Kit'],
  boards: ['Boards', 'Jobs'],
  timers: ['Timers'],
  notes: ['Notes'],
  reading: [],
};

function told(event: MessageEvent<string>): void {
  let said: Told;
  try {
    said = JSON.parse(event.data) as Told;
  } catch {
    // A line of another version: whoever looks now and then finds it out.
    return;
  }
  const tags = (READ_ANEW as Partial<typeof READ_ANEW>)[said.kind];
  if (!tags) return;
  if (tags.length > 0) store.dispatch(api.util.invalidateTags([...tags]));
  for (const hear of hearers) hear(said);
}

function stop(): void {
  stream?.close();
  stream = undefined;
  open = false;
}

function listen(): void {
  if (stream || document.visibilityState === 'hidden') return;
  const shop = currentShop();
  stream = new EventSource(`${EVENTS_PATH}${shop ? `?shop=${encodeURIComponent(shop)}` : ''}`);
  stream.onopen = () => {
    open = true;
  };
  stream.onmessage = told;
  stream.onerror = () => {
    open = false;
    // Refused for good: the browser itself asks no more.
    if (stream?.readyState === EventSource.CLOSED) {
      stop();
      setTimeout(listen, AGAIN_MS);
    }
  };
}

/** Starts listening, and listens as long as somebody looks at the page. */
export function startListening(): void {
  let unseen: ReturnType<typeof setTimeout> | undefined;
  document.addEventListener('visibilitychange', () => {
    clearTimeout(unseen);
    if (document.visibilityState === 'hidden') unseen = setTimeout(stop, UNSEEN_MS);
    else listen();
  });
  listen();
}
