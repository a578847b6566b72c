import type { Page } from '@playwright/test';
import { demoJob, expect, finger, type House, PROGRAM, test } from './house';

/* The rack by its own box: what stands beside what, and a board's faces under a finger. */

/** Puts a board of 2.4 m on the rack that this test alone touches, and chooses it there; gives its id. */
async function chooseBoard(page: Page, house: House, label: string): Promise<string> {
  const [length, width, thickness] = [2400, 210, 38].map((mm) => ({ mm }));
  const board = { label, species: 'butternut', sold: 'rough', length, width, thickness };
  const answer = await page.request.post(`${house.url}/api/boards`, {
    headers: PROGRAM,
    data: { boards: [board] },
  });
  const { ids } = await answer.json();
  await page.goto(`${house.url}/rack`);
  await page.getByPlaceholder(/^number, wood/).fill(label);
  await page.getByRole('row').filter({ hasText: label }).last().click();
  await expect(page.getByRole('region', { name: `Board ${label}`, exact: true })).toBeVisible();
  return ids[0];
}

const take = (page: Page, house: House, id: string) =>
  page.request.post(`${house.url}/api/boards/remove`, { headers: PROGRAM, data: { ids: [id], force: true } });

const faultsOf = async (page: Page, house: House, id: string) => {
  const boards = await (await page.request.get(`${house.url}/api/boards`)).json();
  return boards.find((each: { id: string }) => each.id === id)?.faults ?? [];
};

test.describe('in the hand', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test('the faces of a board are a finger high and slide; a fault is drawn on one, chosen by its name and taken off', async ({
    page,
    house,
  }) => {
    const id = await chooseBoard(page, house, 'HAND1');
    const region = page.getByRole('region', { name: 'Board HAND1', exact: true });
    const face = region.locator('[data-face="up"]');
    await face.scrollIntoViewIfNeeded();
    const box = await face.boundingBox();
    if (!box) throw new Error('no face to draw on');
    expect(box.height).toBeGreaterThanOrEqual(44);
    expect(box.width).toBeGreaterThan(390);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    await region.getByRole('button', { name: 'Split', exact: true }).tap();
    const at = await face.boundingBox();
    if (!at) throw new Error('no face to draw on');
    await finger(page, [at.x + 60, at.y + 15], [60, 15]);
    const drawn = region.getByRole('list', { name: 'Faults' }).getByRole('button', { name: /^Split/i });
    await expect(drawn).toHaveAttribute('aria-pressed', 'true');
    await expect.poll(async () => (await faultsOf(page, house, id)).length).toBe(1);
    const [fault] = await faultsOf(page, house, id);
    const scale = at.width / 2400;
    expect(fault.x).toBeCloseTo(60 / scale, -1);
    expect(fault.length).toBeCloseTo(60 / scale, -1);
    await drawn.tap();
    await expect(region.getByLabel('From marked end')).toHaveCount(0);
    await drawn.tap();
    await expect(region.getByLabel('From marked end')).toBeVisible();
    await region.getByRole('button', { name: 'Remove' }).tap();
    await expect.poll(async () => (await faultsOf(page, house, id)).length).toBe(0);
    await take(page, house, id);
  });
});

test('what belongs together stands side by side where its own box has room, else one under the other', async ({
  page,
  house,
}) => {
  const id = await chooseBoard(page, house, 'ROOM1');
  const region = page.getByRole('region', { name: 'Board ROOM1', exact: true });
  const under = async (first: string, second: string, within = region) => {
    const [a, b] = [
      await within.locator(first).first().boundingBox(),
      await within.locator(second).first().boundingBox(),
    ];
    return a && b && b.y >= a.y + a.height - 1;
  };
  const [faces, card] = ['[data-face="down"]', '[role="tablist"]'];
  await expect.poll(() => under(faces, card)).toBe(false);
  await page.setViewportSize({ width: 720, height: 900 });
  await expect.poll(() => under(faces, card)).toBe(true);
  expect((await region.locator(faces).boundingBox())?.width).toBeGreaterThan(500);
  await take(page, house, id);
  // A window is narrower than the page that it lies over.
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(house.url + (await demoJob(page, house, /Chart-chest lid/)));
  await page.getByRole('button', { name: /^Movement/ }).click();
  const year = page.getByRole('dialog');
  await expect(year.getByRole('img').first()).toBeVisible();
  const place = () => under('[role="img"]', 'select, [role="combobox"]', year);
  await expect.poll(place).toBe(false);
  await page.setViewportSize({ width: 720, height: 900 });
  await expect.poll(place).toBe(true);
});
