import type { ShopSnapshot } from '../../core/kit';
import { api } from './api';
import { store } from './store';

/** Pause after a change before it is sent, so that typing is one change, ms. */
const PAUSE_MS = 350;

let timer: ReturnType<typeof setTimeout> | undefined;
let waiting = false;
let sending: Promise<unknown> = Promise.resolve();

/** Sends a change that still waits when the page goes away. */
addEventListener('pagehide', () => {
  const kit = cached();
  if (!waiting || !kit) return;
  waiting = false;
  clearTimeout(timer);
  void fetch('/api/kit', {
    method: 'PUT',
    keepalive: true,
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(kit),
  }).catch(() => {});
});

/** Why the last change of the kit was not stored; undefined when it was. */
type Answer = (error: unknown) => void;

const cached = () => api.endpoints.kit.select()(store.getState()).data;

/**
 * Changes the kit: at once on every screen, a moment later on the server. Changes are sent one after the other, each
 * from the version the one before it made; a change refused by the server brings back what the server has.
 */
export function changeKit(change: (shop: ShopSnapshot) => ShopSnapshot, answer: Answer = () => {}): void {
  const before = cached();
  if (!before) return;
  store.dispatch(
    api.util.updateQueryData('kit', undefined, () => ({ ...before, shop: change(before.shop) })),
  );
  clearTimeout(timer);
  waiting = true;
  timer = setTimeout(() => {
    waiting = false;
    sending = sending.then(async () => {
      const kit = cached();
      if (!kit) return;
      const result = await store.dispatch(api.endpoints.saveKit.initiate(kit));
      const { data } = result;
      if (data)
        store.dispatch(
          api.util.updateQueryData(
            'kit',
            undefined,
            (now) => void Object.assign(now, { version: data.version }),
          ),
        );
      else store.dispatch(api.util.invalidateTags(['Kit']));
      answer(result.error);
    });
  }, PAUSE_MS);
}
