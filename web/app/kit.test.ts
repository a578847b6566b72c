import 'fake-indexeddb/auto';
import { expect, it, vi } from 'vitest';
import type { KitReply } from '../../contract/shop';
import { defaultShop } from '../../core/kit';
import { answer, eachAlone, playServer, settle } from './played.fixture';

/* The kit's edits against a server that is played here: it keeps versions and refuses what was made from an earlier one. */

async function open() {
  vi.resetModules();
  const server = {
    stored: { id: 'shop', version: 1, shop: defaultShop('Harbour shop') } as KitReply,
    reading: Promise.resolve(),
    refused: 0,
  };
  playServer({
    read: async () => {
      const now = server.stored;
      await server.reading;
      return answer(now);
    },
    write: (body) => {
      const save = body as KitReply;
      if (save.version !== server.stored.version) {
        server.refused++;
        return answer({ status: 409, detail: 'changed elsewhere', current: server.stored }, 409);
      }
      server.stored = { ...server.stored, shop: save.shop, version: save.version + 1 };
      return answer(server.stored);
    },
  });
  const [{ api }, { store }, { changeKit }] = await Promise.all([
    import('./api'),
    import('./store'),
    import('./kit'),
  ]);
  await store.dispatch(api.endpoints.kit.initiate());
  return {
    server,
    store,
    changeKit,
    shown: () => api.endpoints.kit.select()(store.getState()).data as KitReply,
    readAnew: () => store.dispatch(api.endpoints.kit.initiate(undefined, { forceRefetch: true })),
  };
}

eachAlone();

it('changes made while the kit is read are neither taken back nor in conflict with themselves', async () => {
  const { server, changeKit, shown, readAnew } = await open();
  const wet = (pct: number) => changeKit((shop) => ({ ...shop, woodMoisturePct: pct }));
  let come = (): void => {};
  server.reading = new Promise((done) => (come = done));
  const reading = readAnew();
  wet(9);
  await settle();
  expect(server.stored).toMatchObject({ version: 2, shop: { woodMoisturePct: 9 } });
  come();
  await reading;
  expect(shown()).toMatchObject({ version: 2, shop: { woodMoisturePct: 9 } });
  wet(10);
  wet(11);
  await settle();
  expect(server.stored).toMatchObject({ version: 3, shop: { woodMoisturePct: 11 } });
  expect(server.refused).toBe(0);
});

it('who shows the kit hears of a change at once: a field told later would put back what was typed', async () => {
  const { store, changeKit, shown } = await open();
  const heard: (number | undefined)[] = [];
  const stop = store.subscribe(() => heard.push(shown().shop.woodMoisturePct));
  changeKit((shop) => ({ ...shop, woodMoisturePct: 12 }));
  expect(heard).toContain(12);
  stop();
  await settle();
});

it('what another device stored meanwhile is shown as soon as it is read', async () => {
  const { server, shown, readAnew } = await open();
  server.stored = { ...server.stored, version: 4, shop: { ...server.stored.shop, woodMoisturePct: 13 } };
  await readAnew();
  expect(shown()).toMatchObject({ version: 4, shop: { woodMoisturePct: 13 } });
});
