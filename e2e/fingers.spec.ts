import type { Locator, Page } from '@playwright/test';
import { WINDOWS } from './everywhere';
import { choose, expect, finger, makeJob, mark, PROGRAM, stored, test } from './house';

/* What a mouse drags a finger drags, too: the page stays where it is, and what the browser takes away is put back. */

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

/** The middle of something that can be seen, px. */
async function middle(of: Locator): Promise<[number, number]> {
  await of.scrollIntoViewIfNeeded();
  const box = await of.boundingBox();
  if (!box) throw new Error('not on the screen');
  return [box.x + box.width / 2, box.y + box.height / 2];
}

const card = (page: Page) => page.getByRole('complementary', { name: 'Step' });
const pull = (page: Page) => card(page).getByRole('button').first().tap();

test('a glue-up in its clamps is seen whole; a clamp is dragged along, and put back where the drag is cancelled', async ({
  page,
  house,
}) => {
  await makeJob(page, house, false, 'clamped by hand');
  await mark(page, 'glue').tap();
  await pull(page);
  await page.getByRole('tab', { name: 'Clamps' }).tap();
  await pull(page);
  const bench = page.getByTestId('bench');
  const clamps = bench.locator('[data-clamp]');
  await expect(clamps.first()).toBeVisible();
  await bench.scrollIntoViewIfNeeded();
  const room = await bench.boundingBox();
  for (const each of await clamps.all()) {
    const box = await each.boundingBox();
    // As wide as a finger, and all of it within the bench.
    expect(box?.width ?? 0).toBeGreaterThanOrEqual(44);
    expect(box?.x ?? 0).toBeGreaterThanOrEqual((room?.x ?? 0) - 22);
    expect((box?.x ?? 0) + (box?.width ?? 0)).toBeLessThanOrEqual((room?.x ?? 0) + (room?.width ?? 0) + 22);
  }
  const clamp = clamps.nth(1);
  const before = await clamp.getAttribute('aria-label');
  await finger(page, await middle(clamp), [24, 6], 'cancelled');
  await expect(clamp).toHaveAttribute('aria-label', before ?? '');
  const scrolled = await page.evaluate(() => scrollY);
  await finger(page, await middle(clamp), [24, 6]);
  await expect(clamp).not.toHaveAttribute('aria-label', before ?? '');
  expect(await page.evaluate(() => scrollY)).toBe(scrolled);
  await stored(page);
  const job = await page.request.get(page.url().replace('/jobs/', '/api/jobs/'));
  const glue = (await job.json()).build.steps.find(({ kind }: { kind: string }) => kind === 'glue');
  expect(glue.plan.clamps.length).toBeGreaterThan(1);
});

test('a biscuit on a joint is dragged along it', async ({ page, house }) => {
  await makeJob(page, house, false, 'biscuits by hand');
  await mark(page, 'glue').tap();
  await pull(page);
  await page.getByRole('tab', { name: 'Aids' }).tap();
  await choose(page, 'Kept flush by', 'Biscuits');
  await pull(page);
  const aid = page.locator('[data-aid="1"]');
  await expect(aid).toBeVisible();
  const before = await aid.getAttribute('aria-label');
  await finger(page, await middle(aid), [14, 4], 'cancelled');
  await expect(aid).toHaveAttribute('aria-label', before ?? '');
  await finger(page, await middle(aid), [14, 4]);
  await expect(aid).not.toHaveAttribute('aria-label', before ?? '');
  await stored(page);
});

test('corners of an outline and what is cut into a side are dragged in their windows', async ({
  page,
  house,
}) => {
  await WINDOWS['screens/job/OutlineWindow.tsx'](page, house);
  const corner = page.locator('[data-corner="3"]');
  const place = await corner.getAttribute('aria-label');
  await finger(page, await middle(corner), [-30, 18]);
  await expect(corner).not.toHaveAttribute('aria-label', place ?? '');
  await expect(page.locator('[data-corner="3"]')).toHaveAttribute('aria-pressed', 'true');
  await WINDOWS['screens/job/FeaturesWindow.tsx'](page, house);
  const hole = page.locator('[data-feature][aria-pressed="true"]').first();
  const where = await hole.getAttribute('aria-label');
  await finger(page, await middle(hole), [-20, 8], 'cancelled');
  await expect(hole).toHaveAttribute('aria-label', where ?? '');
  await finger(page, await middle(hole), [-20, 8]);
  await expect(hole).not.toHaveAttribute('aria-label', where ?? '');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Undo', exact: true }).tap();
  await stored(page);
});

test('a strip is dragged to another place of its board', async ({ page, house }) => {
  const boards = [1, 2].map((n) => ({
    label: `FINGER${n}`,
    species: 'chestnut_american',
    sold: 'rough',
    ...{ length: { mm: 3200 }, width: { mm: 320 }, thickness: { mm: 40 } },
  }));
  const put = await page.request.post(`${house.url}/api/boards`, { headers: PROGRAM, data: { boards } });
  const { ids } = await put.json();
  const url = await makeJob(page, house, false, 'dragged by a finger');
  await stored(page);
  const address = url.replace('/jobs/', '/api/jobs/');
  const { build, version } = await (await page.request.get(address)).json();
  for (const assembly of build.assemblies)
    for (const slot of assembly.slots) slot.species = 'chestnut_american';
  build.brief.woods = ['chestnut_american'];
  await page.request.put(address, { headers: PROGRAM, data: { build, version } });
  await page.goto(`${url}/wood`);
  await page.getByRole('button', { name: 'Break down the boards' }).tap();
  await expect(page.getByRole('button', { name: 'Stop, keep the best so far' })).toHaveCount(0);
  await expect(page.getByRole('region', { name: 'What it takes' })).toBeVisible();
  const id = await page.locator('[data-strip]').last().getAttribute('data-strip');
  const strip = page.locator(`[data-strip="${id}"]`);
  await expect(strip).not.toHaveAccessibleName(/locked/);
  /** A place on the strip that is seen, beside the boards' numbers. */
  const seen = async (): Promise<[number, number]> => {
    await strip.evaluate((each) => each.scrollIntoView({ block: 'center', inline: 'start' }));
    const box = await strip.boundingBox();
    if (!box) throw new Error('not on the screen');
    expect(box.height).toBeGreaterThanOrEqual(20);
    return [Math.max(box.x, 100) + 40, box.y + box.height / 2];
  };
  // Chosen first; until then a finger slides the boards.
  await page.touchscreen.tap(...(await seen()));
  await expect(strip).toHaveAttribute('aria-pressed', 'true');
  await finger(page, await seen(), [60, 6]);
  // It stays where it was put; everything else gives way.
  await expect(strip).toHaveAccessibleName(/locked/);
  await expect(strip).toHaveAttribute('aria-pressed', 'true');
  await stored(page);
  await page.request.post(`${house.url}/api/boards/remove`, { headers: PROGRAM, data: { ids, force: true } });
});
