import { readFileSync } from 'node:fs';
import type { Locator, Page } from '@playwright/test';
import ICAL from 'ical.js';
import {
  allSent,
  changeSteps,
  comesOut,
  expect,
  makeJob,
  mark,
  openJob,
  stored,
  test,
  type,
  PROGRAM,
} from './house';

const view = (page: Page, name: string) => page.getByRole('tab', { name: new RegExp(`^${name}`) }).click();
const clamps = (page: Page) => page.locator('[data-clamp]');
const choose = async (page: Page, label: string, option: string) => {
  await page.getByLabel(label).click();
  await page.getByRole('option', { name: option, exact: true }).click();
};
/** Drags something sideways by pixels, in steps, as a hand does. */
async function drag(page: Page, what: Locator, dx: number, dy = 0): Promise<void> {
  await what.scrollIntoViewIfNeeded();
  const box = await what.boundingBox();
  if (!box) throw new Error('nothing to drag');
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let i = 1; i <= 8; i++) await page.mouse.move(x + (dx * i) / 8, y + (dy * i) / 8);
  await page.mouse.up();
}
/** The solver has answered for what is on the screen. */
const solved = (page: Page) =>
  expect(page.getByRole('region', { name: 'Joints' })).toHaveAttribute('aria-busy', 'false');

test('a demo top is planned: schools side by side, a clamp dragged, the ribbon answers', async ({
  page,
  house,
}) => {
  await openJob(page, house, 'Tower stair tread');
  await mark(page, 'glue').click();
  await view(page, 'Clamps');
  await solved(page);
  await expect(page.locator('[data-ribbon]')).toHaveCount(4);
  const before = await clamps(page).count();
  expect(before).toBeGreaterThan(2);
  await expect(page.locator('[data-joint-words="1"]')).toContainText('even squeeze-out');
  for (const school of ['fan', 'reach', 'elastic'])
    await expect(page.locator(`[data-school="${school}"]`)).toBeVisible();
  await page.getByText('Measured reach', { exact: true }).click();
  await expect(page.locator('[data-school="reach"]')).toHaveClass(/font-semibold/);
  await expect(page.getByText('On one rig pressure was measured')).toBeVisible();
  await page.getByText('45 degrees', { exact: true }).click();
  await solved(page);
  // The outermost clamp goes to the middle: the joint opens or leans at that end.
  const ribbon = page.locator('[data-ribbon="1"] path');
  const even = await ribbon.getAttribute('d');
  await drag(page, clamps(page).first(), 260);
  await expect(page.getByText('Clamps now stand where you put them.')).toBeVisible();
  await solved(page);
  expect(await ribbon.getAttribute('d')).not.toBe(even);
  await expect(page.locator('[data-joint-words="1"]')).toContainText(/lean|open|uneven/);
  // By the keyboard too, and everything is undone.
  await clamps(page).last().focus();
  await page.keyboard.press('Delete');
  await expect(clamps(page)).toHaveCount(before - 1);
  await page.getByRole('button', { name: 'Clamp', exact: true }).click();
  await expect(clamps(page)).toHaveCount(before);
  await page.getByRole('button', { name: 'By the method' }).click();
  await expect(page.getByText('Clamps now stand where you put them.')).toBeHidden();
  await solved(page);
  await expect(page.locator('[data-joint-words="1"]')).toContainText('even squeeze-out');
  await stored(page);
});

test('a crowned edge is wrong under the straight school; a hollow says what it eats and how it is planed', async ({
  page,
  house,
}) => {
  await makeJob(page, house, false, 'Crowned');
  await mark(page, 'glue').click();
  await view(page, 'Clamps');
  await solved(page);
  await page.locator('[data-joint-words="2"]').click();
  const edges = page.getByRole('radiogroup', { name: 'Edges of joint 2' });
  await edges.getByText('Crowned').click();
  await expect(page.locator('[data-code="crowned-edge"]')).toContainText('Joint 2 is crowned');
  await edges.getByText('Wavy').click();
  await expect(page.getByText('Closing the gap alone eats')).toBeVisible();
  await type(page.getByLabel('Gap between both'), 'rubbish');
  await expect(page.getByRole('alert').first()).toBeVisible();
  await type(page.getByLabel('Gap between both'), '0.3 mm');
  await solved(page);
  await expect(page.locator('[data-joint-words="2"]')).toContainText(/open|lean|uneven/);
});

test('a timed rehearsal is interrupted, gone on with, and each of its acts stands in the log', async ({
  page,
  house,
}) => {
  const url = await makeJob(page, house, false, 'Rehearsed');
  await mark(page, 'glue').click();
  await view(page, 'Pace');
  await expect(page.getByRole('region', { name: 'Ready before the bottle is opened' })).toContainText(
    'opened to',
  );
  await page.getByRole('link', { name: 'Rehearse' }).click();
  await page.getByRole('checkbox').first().check();
  await page.getByRole('button', { name: 'Begin the dry run' }).click();
  await expect(page.getByTestId('act')).toHaveText('Spread joint 1');
  const done = page.getByRole('button', { name: /^Done/ });
  expect((await done.boundingBox())?.height).toBeGreaterThanOrEqual(44);
  await done.click();
  await expect(page.getByTestId('act')).toHaveText('Lay part 2');
  // Each act is timed from its own beginning, and time goes on.
  await expect(page.getByRole('timer')).not.toHaveText('0:00');
  await done.click();
  await page.getByRole('link', { name: 'Back to the job' }).click();
  await stored(page);
  await page.goto(`${url}/rehearse/glue`);
  await expect(page.getByRole('status').filter({ hasText: 'interrupted after 2 of' })).toBeVisible();
  await page.getByRole('button', { name: 'Go on at act 3' }).click();
  for (let i = 0; i < 80 && (await done.isVisible()); i++) await done.click();
  await expect(page.getByRole('region', { name: 'Dry run done' })).toContainText('in time');
  await allSent(page);
  await page.getByRole('link', { name: 'the log' }).click();
  // A button that is pressed as fast as it can be is no act: it stands in the log and teaches nothing.
  const laying = page.locator('[data-loss="act:place"]');
  await expect(laying).toContainText('from 0 readings of 0 jobs');
  await page.getByText('Readings', { exact: true }).click();
  await expect(page.getByText(/^Dry run: laying a part, \d+/).first()).toBeVisible();
  const unhurried = (laps: object[]) => laps.map((lap) => ({ ...lap, seconds: 15 }));
  await changeSteps(page, house, url, (step: any) =>
    step.id === 'glue'
      ? {
          ...step,
          plan: {
            ...step.plan,
            rehearsal: { ...step.plan.rehearsal, laps: unhurried(step.plan.rehearsal.laps) },
          },
        }
      : step,
  );
  await page.goto(`${house.url}/log`);
  await expect(laying).toContainText(/from [1-9]\d* readings of 1 job/);
});

test('an aid where a later cut passes is found, ringed, and put right by Junta', async ({ page, house }) => {
  await makeJob(page, house, false, 'Biscuits');
  await mark(page, 'glue').click();
  await view(page, 'Aids');
  await choose(page, 'Kept flush by', 'Biscuits');
  const aids = page.locator('[data-aid]');
  await expect(aids.first()).toBeVisible();
  await expect(page.locator('[data-bad]')).toHaveCount(0);
  await drag(page, aids.first(), -60);
  await expect(page.locator('[data-bad]')).toHaveCount(1);
  await expect(page.locator('[data-code="aid-exposed"]')).toContainText(
    /Trim would cut into it|end of the joint/,
  );
  await page
    .locator('[data-code="aid-exposed"]')
    .getByRole('button', { name: 'Let Junta place them' })
    .click();
  await expect(page.locator('[data-bad]')).toHaveCount(0);
  await page.getByRole('button', { name: 'Keep a stretch clear' }).click();
  await type(page.getByLabel('From', { exact: true }), '2');
  await type(page.getByLabel('To', { exact: true }), '12');
  await page.getByLabel('For what').fill('sink');
  await page.getByRole('button', { name: 'Keep clear', exact: true }).click();
  await expect(page.getByText('sink', { exact: true })).toBeVisible();
  // None is left between 2 and 12 inches from the left end.
  const places = () =>
    aids.evaluateAll((all) =>
      all.map((aid) => Number.parseFloat(aid.getAttribute('aria-label')?.split(', ')[1] ?? '')),
    );
  await expect.poll(async () => (await places()).filter((at) => at > 2 && at < 12).length).toBe(0);
  expect((await places()).length).toBeGreaterThan(0);
  await expect(page.locator('[data-bad]')).toHaveCount(0);
});

test('ways to glue up a wide piece are compared, it is split by hand, and undone', async ({
  page,
  house,
}) => {
  await makeJob(page, house, false, 'Split');
  const size = await comesOut(page);
  await mark(page, 'glue').click();
  await view(page, 'Pace');
  await page.getByRole('button', { name: 'Ways to glue it up' }).click();
  const ways = page.getByRole('dialog', { name: 'Ways to glue it up' });
  await expect(ways).toContainText('Pairs, then join with biscuits');
  await ways.getByRole('button', { name: 'Split at joint 2' }).click();
  await ways.getByRole('button', { name: 'Split into 2 + 3' }).click();
  await expect(mark(page, 'glue-section-1')).toBeVisible();
  await expect(mark(page, 'glue-section-2')).toBeVisible();
  expect(await comesOut(page)).toEqual(size);
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(mark(page, 'glue-section-1')).toHaveCount(0);
});

test('which bottle, how much, and when the clamps may come off', async ({ page, house }) => {
  await makeJob(page, house, false, 'Bottles');
  await mark(page, 'glue').click();
  await view(page, 'Glue');
  await page.getByRole('button', { name: 'Outdoors' }).click();
  await expect(page.locator('[data-bottle="water-resistant"]')).toContainText('outdoors wants D4');
  await expect(page.locator('[data-code="adhesive-unsuited"]')).toBeVisible();
  await page.locator('[data-bottle="waterproof"]').click();
  await expect(page.locator('[data-code="adhesive-unsuited"]')).toBeHidden();
  await view(page, 'After');
  await page.getByRole('button', { name: 'The last clamp is tight now' }).click();
  await expect(page.getByText('In clamps since')).toBeVisible();
  await expect(page.getByRole('timer').first()).toHaveText(/\d+:\d\d/);
  await page.getByRole('radiogroup', { name: 'Squeeze-out of joint 1' }).getByText('Lean').click();
  await expect(page.getByRole('button', { name: '1 lean' })).toBeVisible();
  await stored(page);
});

test('a kit without clamps is said on the glue-up; odd entries in the kit are refused and nothing is lost', async ({
  page,
  house,
}) => {
  await page.goto(`${house.url}/kit`);
  const rack = page.getByRole('region', { name: 'Clamps' });
  await expect(rack.getByLabel('Name of clamps 1')).toBeVisible();
  const names = await rack.getByRole('textbox', { name: /Name of clamps/ }).count();
  await type(rack.getByLabel('Pipe clamps, opens to'), 'wide');
  await expect(rack.getByRole('alert')).toBeVisible();
  await rack.getByLabel('Pipe clamps, how many').fill('-3');
  await expect(rack.getByText('the least is 0')).toBeVisible();
  await page.getByRole('region', { name: 'Air' }).getByLabel('Humidity').fill('140');
  await expect(page.getByText('from 0 to 95')).toBeVisible();
  for (let i = 0; i < names; i++)
    await rack
      .getByRole('button', { name: /^Remove/ })
      .first()
      .click();
  await expect(rack).toContainText('No clamps: every glue-up will say');
  // What the server has is asked, not what went by: the answer may be there before anybody listens.
  await expect
    .poll(async () => (await (await page.request.get(`${house.url}/api/kit`)).json()).shop.clamps?.length)
    .toBe(0);
  await makeJob(page, house, false, 'No clamps');
  await mark(page, 'glue').click();
  await view(page, 'Clamps');
  await expect(page.locator('[data-code="no-clamps"]')).toContainText('The kit has no clamps');
  await expect(clamps(page).first()).toBeVisible();
  // Put back what the other tests glue with.
  const { version, shop } = await (await page.request.get(`${house.url}/api/kit`)).json();
  const { clamps: _, ...rest } = shop;
  await page.request.put(`${house.url}/api/kit`, { headers: PROGRAM, data: { version, shop: rest } });
});

test('a glue-up is moved on the calendar by dragging and by keys, and the calendar is taken along', async ({
  page,
  house,
}) => {
  await makeJob(page, house, false, 'Calendar job');
  await stored(page);
  await page.goto(`${house.url}/calendar`);
  const row = page.getByRole('button', { name: /^Calendar job, Glue-up, work/ });
  const glue = page.locator('[data-job="Calendar job"][data-task="glue"]').first();
  await expect(glue).toBeVisible();
  const picked = page.getByTestId('picked');
  await row.click();
  await expect(picked).toContainText('Glue-up');
  const before = await picked.textContent();
  await drag(page, glue, 260);
  await expect(picked).not.toHaveText(before ?? '');
  await expect(page.getByRole('button', { name: 'as early as can be' })).toBeVisible();
  const dragged = await picked.textContent();
  await row.focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect(picked).not.toHaveText(dragged ?? '');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'iCalendar' }).click(),
  ]);
  const events = new ICAL.Component(
    ICAL.parse(readFileSync((await download.path()) as string, 'utf8')),
  ).getAllSubcomponents('vevent');
  expect(events.some((each) => new ICAL.Event(each).summary.startsWith('Calendar job: Glue-up'))).toBe(true);
  await page.getByRole('button', { name: 'as early as can be' }).click();
  await expect(page.getByRole('button', { name: 'as early as can be' })).toBeHidden();
});
