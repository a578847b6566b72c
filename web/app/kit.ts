import type { KitReply } from '../../contract/shop';
import type { ShopSnapshot } from '../../core/kit';
import { api } from './api';
import { keepChange, onOutbox, throwAway } from './outbox';
import { theKit } from './sending';
import { store } from './store';

/** Why the last change of the kit was not stored; undefined when it was. */
type Answer = (reason: string | undefined) => void;

let answer: Answer = () => {};
const cached = () => api.endpoints.kit.select()(store.getState()).data;

onOutbox('kit', {
  stored: (_draft, { version, latest, reply }) => {
    const whole = reply as KitReply;
    store.dispatch(
      // Where nothing was changed since, what the server has is shown: another device may have gone on from there.
      api.util.updateQueryData('kit', undefined, (now) => (latest ? whole : { ...now, version })),
    );
    if (latest) answer(undefined);
  },
  conflicted: () => answer(undefined),
  refused: (draft, reason) => {
    answer(reason);
    void throwAway(draft).then(() => store.dispatch(api.util.invalidateTags(['Kit'])));
  },
  waiting: () => answer(undefined),
  keptNowhere: () => answer('This browser cannot keep unsent changes; they are safe once they are stored.'),
});

/**
 * Changes the kit: at once on every screen and in this browser, a moment later on the server. A change refused by the
 * server brings back what the server has and says why; one made elsewhere meanwhile is put before the maker.
 */
export function changeKit(change: (shop: ShopSnapshot) => ShopSnapshot, tell?: Answer): void {
  const before = cached();
  if (!before) return;
  const content = change(before.shop);
  if (tell) answer = tell;
  store.dispatch(api.util.updateQueryData('kit', undefined, () => ({ ...before, shop: content })));
  keepChange('kit', theKit(), { name: 'the kit', version: before.version, content });
}
