import { demoJob, expect, mark, openJob, test } from './house';

test('many sheets are one screen; a new screen is told by the focus on its heading', async ({
  page,
  house,
}) => {
  await page.goto(`${house.url}${await demoJob(page, house, /Chart-table top/)}/sheets`);
  await expect(page.getByRole('article').nth(1)).toBeVisible();
  await expect(page.locator('h1')).toHaveCount(1);
  await page.goto(`${house.url}/jobs`);
  for (const [link, heading] of [
    ['Rack', 'Rack'],
    ['Kit', 'Kit'],
    ['Jobs', 'Jobs'],
  ] as const) {
    await page.getByRole('navigation', { name: 'Main' }).getByRole('link', { name: link }).press('Enter');
    await expect(page.getByRole('heading', { level: 1, name: heading })).toBeFocused();
  }
});

test('what is to be looked at is listed with F, in the order of the work, with a way to each step', async ({
  page,
  house,
}) => {
  await openJob(page, house, 'Boathouse bench top');
  const button = page.getByRole('button', { name: /things? to look at/ });
  await expect(button).toBeVisible();
  // What a job opens with is no news.
  await expect(page.getByTestId('news')).toHaveText('');
  const count = Number(/\d+/.exec((await button.textContent()) ?? '')?.[0]);
  await page.keyboard.press('f');
  const list = page.getByRole('dialog', { name: /things? to look at/ });
  await expect(list.getByRole('listitem')).toHaveCount(count);
  const step = list.getByRole('button', { name: 'Go to this step' }).first();
  await step.press('Enter');
  await expect(list).toHaveCount(0);
  await expect(
    page.getByRole('complementary', { name: 'Step' }).locator('[data-code]').first(),
  ).toBeVisible();
  // A window that closes gives the focus back to what opened it.
  await button.press('Enter');
  await expect(list).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(button).toBeFocused();
});

test('a mark says its step, its place, what it leaves and what is broken; a new finding is said once', async ({
  page,
  house,
}) => {
  await openJob(page, house, 'Lamp-room shelf');
  const rip = page.locator('[data-step]').first();
  await expect(rip).toHaveAccessibleName(/^.+, step 1 of \d+, .*length .* in, width .* in, thickness .* in/);
  await expect(page.getByTestId('news')).toHaveText('');
  const flatten = page.locator('[data-step^="flatten"]').last();
  await flatten.click();
  const off = page
    .getByLabel('Step')
    .getByLabel(/^Off the (upper|top) face/i)
    .first();
  await off.fill('3');
  await off.press('Enter');
  await expect(page.getByTestId('news')).toHaveText(/^\d+ new findings?\. /);
  await page.keyboard.press('Control+z');
  await expect(mark(page, (await flatten.getAttribute('data-step')) ?? '')).toHaveAccessibleName(/^Flatten/);
});
