import { configureStore } from '@reduxjs/toolkit';
import { renderToStaticMarkup } from 'react-dom/server';
import { Provider } from 'react-redux';
import { expect, it, vi } from 'vitest';

/* A kind of machine that Junta does not have, by one entry in the list of kinds: everything else must find it. */
vi.mock('../../../core/kit/machines/kinds', async (original) => {
  const { MACHINE_KINDS } = await original<{ MACHINE_KINDS: object }>();
  return {
    MACHINE_KINDS: {
      ...MACHINE_KINDS,
      'wide sander': {
        name: 'Wide sander',
        says: 'A belt as wide as a door.',
        does: ['flatten', 'sand'],
        cuts: 'abrasive',
        feeds: true,
        limits: { maxWidth: '52', minLength: '9', dial: '1/64' },
        setting: ['0.003', '0.006'],
        caution: 'Stand beside the feed.',
      },
    },
  };
});

const kit = await import('../../../core/kit');
const { flatteners } = await import('../../../core/plan');
const { review } = await import('../../../core/review');
const { run } = await import('../../../core/run');
const { lostTo } = await import('../../../core/solid');
const { toolsFor } = await import('../../../core/view');
const { readShop } = await import('../../../contract/read');
const { jobFileSchema } = await import('../../../contract/jsonschema');
const { panelBrief, plannedFor } = await import('../../../core/plan/briefs.fixture');

const machine = kit.usualMachine('wide sander' as never, 'wide');
const small = kit.defaultShop('Small');
const shop = { ...small, machines: [...small.machines, machine] };

it('begins with its own limits and setting', () => {
  expect(machine).toMatchObject({ name: 'Wide sander', kind: 'wide sander', minThickness: { mm: 0 } });
  expect(machine.maxWidth.mm).toBeCloseTo(52 * 25.4, 9);
  expect(machine.dial?.mm).toBeCloseTo(25.4 / 64, 9);
});

it('is let in by the contract and stands in the JSON Schema', () => {
  expect(readShop(shop).ok).toBe(true);
  expect(JSON.stringify(jobFileSchema())).toContain('wide sander');
});

it('is found by what it does: for a panel that nothing else but planes takes, and for end grain', () => {
  const ids = (width: number, endGrain: boolean) =>
    flatteners(shop, [1000, width, 30], endGrain).map(({ id }) => id);
  expect(ids(1200, false)).toEqual(['hand', 'wide']);
  expect(ids(1200, true)).toEqual(['hand', 'wide']);
});

it('is offered where flattening wants a machine, and meets its limits there', () => {
  const build = plannedFor(panelBrief({ sections: 1, flattenWith: 'wide' }), shop);
  const flatten = build.steps.find(({ id }) => id === 'flatten') as never;
  expect(toolsFor(flatten, 'machine', shop, undefined).map(({ id }) => id)).toContain('wide');
  const narrow = {
    ...build,
    shop: { ...shop, machines: [...small.machines, { ...machine, maxWidth: { mm: 50 } }] },
  };
  const found = review(narrow, run(narrow)).filter(({ step }) => step === 'flatten');
  expect(found.map(({ code }) => code)).toContain('wider-than-machine');
  // What it takes off is dust.
  const [flat] = run(build).steps.filter(({ id }) => id === 'flatten');
  expect(lostTo(flat.lost, 'dust')).toBeGreaterThan(0);
  expect(lostTo(flat.lost, 'shaving')).toBe(0);
});

it('has its limits, what it does and its caution on the kit’s page', async () => {
  for (const name of ['addEventListener', 'removeEventListener']) vi.stubGlobal(name, () => {});
  const { MachineList } = await import('./MachineList');
  const { jobReducer } = await import('../../app/job');
  const { api } = await import('../../app/api');
  const store = configureStore({
    reducer: { job: jobReducer, [api.reducerPath]: api.reducer },
    middleware: (usual) => usual().concat(api.middleware),
  });
  const page = renderToStaticMarkup(
    <Provider store={store}>
      <MachineList shop={shop} onChange={() => {}} />
    </Provider>,
  );
  for (const words of ['Wide sander, dial', 'Flattens faces and sands', 'Stand beside the feed'])
    expect(page).toContain(words);
  expect(page).not.toContain('Wide sander, thickest');
});
