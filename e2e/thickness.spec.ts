import type { Page } from '@playwright/test';
import { comesOut, expect, type House, mark, openJob, ownHouse, stored, test, type } from './house';

/* Bringing to thickness: dial lists, hollows, ways to flatten, cuts from both faces, sizes that follow. */
let own: Awaited<ReturnType<typeof ownHouse>>;
test.beforeAll(async () => {
  own = await ownHouse();
});
test.afterAll(async () => {
  await own.close();
});

const finding = (page: Page, code: string) => page.locator(`[data-code="${code}"]`);
const choose = async (page: Page, label: string, option: string | RegExp) => {
  await page.getByLabel(label, { exact: true }).click();
  await page.getByRole('option', { name: option }).click();
};

/** A panel of its own, sized by its fields. */
async function panel(page: Page, house: House, name: string, sizes: Record<string, string>) {
  await page.goto(`${house.url}/jobs/new?pattern=panel`);
  await page.getByLabel('Name').fill(name);
  for (const [label, text] of Object.entries(sizes)) await type(page.getByLabel(`${label}, finished`), text);
  await page.getByRole('button', { name: 'Make this job' }).click();
  await expect(page.getByTestId('bench')).toBeVisible();
}

test('a plate planed on a carrier has the list of what the planer is set to', async ({ page }) => {
  await panel(page, own.house, 'Plate', { Length: '24', Width: '8', Thickness: '3/16' });
  await mark(page, 'flatten').click();
  await choose(page, 'Flatten with', 'Planer');
  await type(page.getByLabel('Thickness to reach'), '3/16');
  const thin = finding(page, 'thinner-than-machine');
  await thin.getByRole('button', { name: 'On a carrier board of 3/4 in' }).click();
  await expect(thin).toHaveCount(0);
  const passes = page.getByRole('region', { name: 'Passes' });
  await expect(passes).toContainText('with the carrier of 3/4');
  // 3/16 and the carrier under it.
  await expect(passes.locator('tbody tr').last().locator('td').nth(2)).toHaveText('15/16');
  // First it only touches: one pass more, where it just meets the wood.
  const rows = await passes.locator('tbody tr').count();
  await page.getByText('Passes', { exact: true }).click();
  await page.getByLabel('The first pass only touches').check();
  await expect(passes.locator('tbody tr')).toHaveCount(rows + 1);
  await expect(passes.locator('tbody tr').first().locator('td').last()).toHaveText('0');
  await stored(page);
});

test('a measured hollow eats the reserve of its face, and the ways out pay for it', async ({ page }) => {
  await panel(page, own.house, 'Hollow', { Length: '30', Width: '10', Thickness: '7/8' });
  await mark(page, 'flatten').click();
  await page.getByText('Measured before').click();
  await type(page.getByLabel('Hollow in the upper face'), '3/32');
  const short = finding(page, 'face-short');
  await expect(short).toContainText('short by 1/32');
  await expect(page.getByRole('region', { name: 'What the faces must lose' })).toContainText('short by');
  await short.getByRole('button', { name: /less off the other/ }).click();
  await expect(short).toHaveCount(0);
  await expect(page.getByLabel('Off the upper face')).toHaveValue('3/32');
  await expect(page.getByLabel('Off the lower face')).toHaveValue('1/32');
  expect((await comesOut(page))[2]).toContain('7/8');
  // Deeper than both have: it is paid with the thickness.
  await type(page.getByLabel('Hollow in the upper face'), '3/16');
  await short.getByRole('button', { name: /accept the thickness/ }).click();
  await expect(short).toHaveCount(0);
  expect((await comesOut(page))[2]).toContain('25/32');
  // What was measured is there when the job is opened again.
  await stored(page);
  await page.reload();
  await mark(page, 'flatten').click();
  await expect(page.getByLabel('Hollow in the upper face')).toHaveValue('3/16');
});

test('a wide top has its ways to flatten side by side, and one is taken with one press', async ({ page }) => {
  await openJob(page, own.house, 'Boathouse bench top');
  await mark(page, 'flatten').click();
  const card = page.getByRole('button', { name: 'Compare ways to flatten' });
  await card.click();
  const ways = page.getByRole('dialog', { name: 'Ways to flatten it' });
  await expect(ways.locator('[data-way]')).toHaveCount(6);
  await expect(ways.locator('[data-way="planer"]')).toContainText('takes 13 in');
  for (const way of ['planer:sections', 'sled', 'hand', 'paid'])
    await expect(ways.locator(`[data-way="${way}"]`)).toContainText('Own time');
  await expect(ways.locator('[data-way="paid"]')).toContainText('9 days');
  await ways.getByRole('button', { name: 'Do it this way: Router sled' }).click();
  await expect(ways).toHaveCount(0);
  await expect(page.getByLabel('Flatten with', { exact: true })).toContainText('Router sled');
  await expect(finding(page, 'wider-than-machine')).toHaveCount(0);
  // Taken back like any edit.
  await page.keyboard.press('Control+z');
  await expect(page.getByLabel('Flatten with', { exact: true })).toContainText('Planer');
  await stored(page);
});

test('a thick top is crosscut from both faces, its cuts in their order', async ({ page }) => {
  await panel(page, own.house, 'Thick', { Length: '30', Width: '10', Thickness: '3 1/2' });
  await mark(page, 'trim').click();
  await choose(page, 'Trim with', 'Track saw');
  const short = finding(page, 'saw-cannot-reach');
  await expect(short).toContainText('meet with 1/2');
  await short.getByRole('button', { name: 'From both faces' }).click();
  await expect(short).toHaveCount(0);
  await expect(finding(page, 'cut-in-stages')).toContainText('to spare');
  const cuts = page.getByRole('region', { name: 'Cuts in their order' });
  await expect(cuts).toContainText('from the upper face 2 in deep, then from the lower face 2 in deep');
  await page.getByText('How it is cut').click();
  await page.getByRole('radio', { name: 'Far edge' }).check();
  await expect(cuts).toContainText('the square on the far edge');
  await type(page.getByLabel('Length to reach'), '29 3/4');
  await expect.poll(async () => (await comesOut(page))[0]).toContain('29 3/4');
  // An amount typed by hand takes the place of the size.
  await type(page.getByLabel('Off the left end'), '1/4');
  await expect(page.getByLabel('Length to reach')).toHaveValue('');
  await stored(page);
});

test('sizes that follow change with what comes out, by keyboard, and say what does not fit', async ({
  page,
}) => {
  await panel(page, own.house, 'Top', { Length: '30', Width: '10', Thickness: '7/8' });
  await page.getByRole('button', { name: 'Sizes that follow' }).focus();
  await page.keyboard.press('Enter');
  const sizes = page.getByRole('dialog', { name: 'Sizes that follow' });
  await sizes.getByRole('button', { name: 'Another size' }).press('Enter');
  await sizes.getByLabel('Name').fill('leg');
  await sizes.getByLabel('Follows from').fill('29 - thicknes');
  await expect(sizes.getByRole('status')).toContainText('“thicknes” is no size of this job');
  await sizes.getByLabel('Follows from').fill('29 - thickness * width');
  await expect(sizes.getByRole('status')).toContainText('an area');
  await sizes.getByLabel('Follows from').fill('29 - thickness + 3/8');
  await expect(sizes.getByRole('status')).toContainText('leg is 28 1/2');
  await choose(page, 'What leg must be', 'must be at least');
  await type(sizes.getByLabel('leg must be', { exact: true }), '28 9/16');
  await expect(sizes.getByRole('status')).toContainText('too short by 1/16');
  await page.keyboard.press('Escape');
  await mark(page, 'trim').click();
  const missed = finding(page, 'size-missed');
  await expect(missed).toContainText('comes to 28 1/2');
  await missed.getByRole('button', { name: 'Bring the thickness to 13/16 in' }).click();
  await expect(missed).toHaveCount(0);
  expect((await comesOut(page))[2]).toContain('13/16');
  await expect(page.getByRole('region', { name: 'Sizes that follow' })).toContainText('28 9/16');
  await stored(page);
  await page.reload();
  await mark(page, 'trim').click();
  await expect(page.getByRole('region', { name: 'Sizes that follow' })).toContainText('28 9/16');
});

test('settings, cuts and sizes that follow are printed on a page of their own', async ({ page }) => {
  const job = await openJob(page, own.house, 'Chart-table top');
  await page.goto(`${new URL(job).origin}${new URL(job).pathname.split('/').slice(0, 3).join('/')}/sheets`);
  const sheet = page.getByRole('article', { name: 'Chart-table top: settings and cuts' });
  await expect(sheet.getByText('Set to').first()).toBeVisible();
  await expect(sheet).toContainText('The right end, the square on the same edge: 46 in long');
  await expect(sheet.getByRole('region', { name: 'Sizes that follow' })).toContainText('28 3/8');
  await page.emulateMedia({ media: 'print' });
  await expect(sheet).toBeVisible();
  // Nothing of it lies beside the paper.
  expect(await sheet.evaluate((page) => page.scrollWidth - page.clientWidth)).toBeLessThanOrEqual(1);
});

test('edges off square make a hollow, and none where each pair is planed folded; a scale reads as it does', async ({
  page,
}) => {
  await page.goto(`${own.house.url}/kit`);
  await type(page.getByLabel('Table saw, full kerf, off square by, degrees'), '0.4');
  await choose(page, 'Planer, its scale reads', 'Millimetres');
  await type(page.getByLabel('Planer, dial', { exact: true }), '0.1 mm');
  await type(page.getByLabel('Planer, knives last, ft'), '2000');
  await page.waitForTimeout(1500);
  await panel(page, own.house, 'Off square', { Length: '24', Width: '10', Thickness: '3/4' });
  await mark(page, 'mill').click();
  const passes = page.getByRole('region', { name: 'Passes' });
  await expect(passes).toContainText('Set to, mm');
  await expect(passes).toContainText('of 2000 ft');
  // Strips that come planed are glued with the edges that the saw left.
  await type(page.getByLabel('Off each edge'), '0');
  await mark(page, 'glue').click();
  const hollow = finding(page, 'edges-out-of-square');
  await expect(hollow).toContainText('0.4° off a right angle: up to 0.8°');
  await hollow.getByRole('button', { name: 'Plane each pair folded: errors cancel' }).click();
  await expect(hollow).toHaveCount(0);
  await page.getByRole('tab', { name: /^Clamps/ }).click();
  await expect(
    page
      .getByRole('radiogroup', { name: /^Edges of joint \d+ are planed/ })
      .getByRole('radio', { name: 'Folded' }),
  ).toBeChecked();
  await stored(page);
});

test('in the hand: a size to reach and what was measured are typed on the phone’s card', async ({
  browser,
}) => {
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
  });
  const page = await context.newPage();
  await openJob(page, own.house, 'Lamp-room shelf');
  await mark(page, 'flatten').tap();
  const folded = page
    .getByRole('complementary', { name: 'Step' })
    .getByRole('button', { expanded: false })
    .first();
  if (await folded.isVisible()) await folded.tap();
  await page.getByLabel('Thickness to reach').fill('3/4');
  await page.getByLabel('Thickness to reach').blur();
  await expect(page.getByRole('region', { name: 'Passes' }).locator('tbody tr').last()).toContainText('3/4');
  await page.getByText('Measured before').tap();
  await page.getByLabel('Twist at the fourth corner').fill('3/16');
  await page.getByLabel('Twist at the fourth corner').blur();
  await expect(finding(page, 'twisted-on-rollers')).toContainText('3/32');
  await context.close();
});
