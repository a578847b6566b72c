import type { Page } from '@playwright/test';
import { comesOut, expect, makeJob, mark, openJob, ownHouse, put, stored, test, type } from './house';

/* How a piece will live: fitted across the grain, surfaced, finished, carried and scribed to its walls. */
let own: Awaited<ReturnType<typeof ownHouse>>;
test.beforeAll(async () => {
  own = await ownHouse();
});
test.afterAll(async () => {
  await own.close();
});

const finding = (page: Page, code: string) => page.locator(`[data-code="${code}"]`);
const choose = async (page: Page, label: string, option: string) => {
  await page.getByRole('combobox', { name: label, exact: true }).click();
  await page.getByRole('option', { name: option, exact: true }).click();
};

test('a top with breadboard ends through a year of movement', async ({ page }) => {
  await openJob(page, own.house, 'Signal-room table');
  await mark(page, 'fit-1').click();
  const ends = page.getByRole('group', { name: /1\. Breadboard ends/ });
  await expect(ends).toContainText('With both ends the whole is');
  // A relief that is too short is told with its number, and one press mends it.
  await type(ends.getByLabel('Relief at each free end'), '1/32');
  const short = finding(page, 'relief-short');
  await expect(short).toContainText('short by');
  await short.getByRole('button', { name: /cut the relief/ }).click();
  await expect(short).toHaveCount(0);
  // Fixed all along it cracks; nothing is lost by undoing.
  await ends.getByRole('combobox', { name: 'Glued or fixed' }).click();
  await page.getByRole('option', { name: 'All along' }).click();
  await expect(finding(page, 'held-across-grain')).toContainText('fixed all along');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(finding(page, 'held-across-grain')).toHaveCount(0);
  // The year, and another room.
  await page.getByRole('button', { name: 'Movement over the year' }).click();
  const year = page.getByRole('dialog', { name: 'Movement over the year' });
  await expect(year.getByRole('img', { name: /^Width through the year/ })).toBeVisible();
  await expect(year).toContainText('Breadboard ends');
  const before = await year.getByRole('img').getAttribute('aria-label');
  await choose(page, 'Kind of room', 'A dry land');
  await expect(year.getByRole('img')).not.toHaveAttribute('aria-label', before ?? '');
  const humidity = year.getByLabel('Driest month, humidity %');
  await humidity.fill('0');
  await expect(year).toContainText('from 5 to 95');
  await humidity.fill('100');
  await expect(year).toContainText('from 5 to 95');
  await humidity.fill('20');
  await choose(page, 'Kind of room', 'All twelve months as measured there');
  await expect(year.getByLabel('December')).toBeVisible();
  await page.keyboard.press('Escape');
  await stored(page);
  await page.reload();
  await page.getByRole('button', { name: 'Movement over the year' }).click();
  await expect(page.getByRole('dialog').getByLabel('December')).toBeVisible();
});

test('a board is sanded and finished by its use, with every coat on the calendar', async ({ page }) => {
  await makeJob(page, own.house, false, 'Served on');
  await page.locator('[data-step]').last().click();
  await put(page, 'surface');
  const thick = (await comesOut(page))[2];
  await expect(page.getByRole('region', { name: 'What it comes to' })).toContainText('off each face');
  // Grits that go back are told and mended.
  await type(page.getByLabel('Grits, coarse to fine'), '180, 80');
  await expect(finding(page, 'grits-out-of-order')).toContainText('P80 comes after P180');
  await finding(page, 'grits-out-of-order').getByRole('button').first().click();
  await expect(finding(page, 'grits-out-of-order')).toHaveCount(0);
  await type(page.getByLabel('Grits, coarse to fine'), 'rough');
  await expect(page.getByText('“rough” is no whole number')).toBeVisible();
  await type(page.getByLabel('Off each face, as measured'), '1/16');
  await expect.poll(async () => (await comesOut(page))[2]).not.toBe(thick);
  await put(page, 'finish');
  await choose(page, 'Finish', 'Linseed oil, boiled');
  await choose(page, 'It must stand', 'Food is cut on it');
  const food = finding(page, 'finish-not-food');
  await expect(food).toContainText('not for food');
  await food.getByRole('button', { name: /Use mineral oil/ }).click();
  await expect(food).toHaveCount(0);
  await expect(page.getByRole('region', { name: 'What it comes to' })).toContainText('Finish in all');
  await page.getByText('Coats place by place').click();
  await page.getByLabel('Coats, lower face').fill('1');
  const uneven = finding(page, 'finish-one-sided');
  await expect(uneven).toContainText('4 coats above and 1 coat below');
  await uneven.getByRole('button').first().click();
  await expect(uneven).toHaveCount(0);
  await stored(page);
  await page.goto(`${own.house.url}/calendar`);
  await expect(page.getByText(/Finish, coat 1/).first()).toBeVisible();
});

test('a wide top is lifted by two, and one that nobody lifts says so', async ({ page }) => {
  await openJob(page, own.house, 'Signal-room table');
  await mark(page, 'install-1').click();
  const facts = page.getByRole('region', { name: 'What it comes to' });
  await expect(facts).toContainText('It weighs');
  await expect(facts).toContainText('2 people, flat, by hand');
  await page.getByLabel('People', { exact: true }).fill('1');
  const heavy = finding(page, 'lift-too-heavy');
  await expect(heavy).toContainText('1 person bears');
  await heavy.getByRole('button', { name: /Lift it with/ }).click();
  await expect(heavy).toHaveCount(0);
  await expect(page.getByRole('region', { name: 'Predicted' })).toContainText('To lift it');
});

test('a counter is scribed to a wall that is neither straight nor square', async ({ page }) => {
  await makeJob(page, own.house, false, 'Scribed');
  await page.locator('[data-step]').last().click();
  await put(page, 'install');
  const width = (await comesOut(page))[1];
  await page.getByText('The walls, as measured').click();
  await page.getByLabel('Left corner, degrees').fill('92');
  const facts = page.getByRole('region', { name: 'What it comes to' });
  await expect(facts).toContainText('Left end, corner 92 degrees');
  for (const n of [1, 2]) {
    await page.getByRole('button', { name: 'Add: reading of the wall behind' }).click();
    const reading = page.getByRole('group', { name: `Reading of the wall behind ${n}` });
    await type(reading.getByLabel('From the left end'), n === 1 ? '0' : '12');
    await type(reading.getByLabel('Falls back by'), n === 1 ? '1/4' : '0');
  }
  await expect(facts).toContainText('Back edge, cut off');
  await expect.poll(async () => (await comesOut(page))[1]).toBe(width);
  // A wall that runs past the piece is told, and taken out.
  await type(
    page.getByRole('group', { name: 'Reading of the wall behind 2' }).getByLabel('From the left end'),
    '400',
  );
  const outside = finding(page, 'wall-outside');
  await expect(outside).toContainText('Reading 2 of the wall lies');
  await outside.getByRole('button', { name: 'Take reading 2 out' }).click();
  await expect(outside).toHaveCount(0);
  await page.getByText('Sink and hob').click();
  await page.getByRole('button', { name: 'Add: sink or hob' }).click();
  await expect(facts).toContainText('the licensed trades and local rules come first');
});
