import { configureStore } from '@reduxjs/toolkit';
import { renderToStaticMarkup } from 'react-dom/server';
import { Provider } from 'react-redux';
import { expect, it, vi } from 'vitest';

/* One file, one line in the list of rooms: everything else must find it. */
vi.mock('../../../core/steps/rooms', async (original) => {
  const { ROOMS } = await original<{ ROOMS: object }>();
  const { drill } = await import('../../../core/steps/drill.fixture');
  return { ROOMS: { ...ROOMS, drill } };
});

const { demoJobs } = await import('../../../demo/jobs');
const { tasksOf } = await import('../../../core/bench');
const { carryOver } = await import('../../../core/edit');
const { review } = await import('../../../core/review');
const { run } = await import('../../../core/run');
const { STEP_ROOMS } = await import('../../../core/steps');
const { stepMenu, stepTable } = await import('../../../core/view');
const { jobFileSchema } = await import('../../../contract/jsonschema');
const { readDocument } = await import('../../../contract/read');

const demoPanel: any = demoJobs.find(({ steps }) => steps.some(({ kind }) => kind === 'flatten'));
const at = demoPanel.steps.findIndex(({ kind }: any) => kind === 'flatten');
const input = demoPanel.steps[at].inputs[0];
const step: any = {
  id: 'd',
  kind: 'drill',
  inputs: [input],
  output: 'drilled',
  machine: 'planer',
  depth: { mm: 3 },
  holes: 4,
};
const job = (own = step): any => {
  const copy = JSON.parse(JSON.stringify(demoPanel));
  copy.steps.splice(at, 0, own);
  copy.steps[at + 1].inputs = ['drilled'];
  return copy;
};

it('stands in the list, the menu and the table of the file format', () => {
  expect(STEP_ROOMS.map(({ kind }) => kind)).toContain('drill');
  expect(stepMenu().find(({ group }) => group === 'Surface')?.kinds).toContainEqual({
    kind: 'drill',
    name: 'Drill',
    says: 'Drills holes that nobody needs.',
  });
  expect(stepTable()).toContain('| `drill` | Drill |');
});

it('is checked by the contract, described by the JSON Schema, and filled in on reading', () => {
  expect(readDocument(job()).ok).toBe(true);
  const missing = { ...step };
  delete missing.depth;
  expect(readDocument(job(missing))).toMatchObject({ ok: true });
  expect(readDocument(job({ ...step, holes: 91 }))).toMatchObject({
    ok: false,
    problems: [{ path: `steps[${at}].holes` }],
  });
  expect(readDocument(job({ ...step, speed: 1 })).ok).toBe(false);
  const { properties } = jobFileSchema() as any;
  const own = properties.steps.items.oneOf.find((each: any) => each.properties.kind.enum?.[0] === 'drill');
  expect(own.required).toEqual(expect.arrayContaining(['machine', 'depth', 'holes']));
  expect(own.properties.holes).toMatchObject({ maximum: 90 });
});

it('is played, has its minutes on the calendar, and meets the limits of its machine', () => {
  const build = job();
  const timeline = run(build);
  expect(timeline.steps.find(({ id }) => id === 'd')?.pieces).toHaveLength(1);
  expect(tasksOf('j', build, timeline).find((task) => task.step === 'd')?.minutes).toBe(7 + 3);
  build.shop.machines.find(({ id }: any) => id === 'planer').maxWidth = { mm: 50 };
  const found = review(build, run(build)).filter((finding) => finding.step === 'd');
  expect(found.map(({ code }) => code)).toContain('wider-than-machine');
});

it('keeps what a hand chose when the job is planned again, and takes its sizes anew', () => {
  const [planned, was, next] = [job(), job(), job()];
  was.steps[at] = { ...step, machine: 'drum', depth: { mm: 9 }, note: 'slowly' };
  next.steps[at] = { ...step, depth: { mm: 6 } };
  expect(carryOver(next, was, planned).steps[at]).toMatchObject({
    machine: 'drum',
    note: 'slowly',
    depth: { mm: 6 },
  });
});

it('has its settings on the card', async () => {
  for (const name of ['addEventListener', 'removeEventListener']) vi.stubGlobal(name, () => {});
  const { StepSettings } = await import('./StepSettings');
  const { jobReducer } = await import('../../app/job');
  const { api } = await import('../../app/api');
  const store = configureStore({
    reducer: { job: jobReducer, [api.reducerPath]: api.reducer },
    middleware: (usual) => usual().concat(api.middleware),
  });
  const card = renderToStaticMarkup(
    <Provider store={store}>
      <StepSettings build={job()} step={step} />
    </Provider>,
  );
  for (const label of ['Drill with', 'How deep', 'Holes']) expect(card).toContain(label);
});
