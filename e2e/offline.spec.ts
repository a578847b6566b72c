import type { BrowserContext, Page } from '@playwright/test';
import { expect, killable, makeJob, mark, openToAll, PROGRAM, stored, test, type, type House } from './house';

const jobs = async (house: House): Promise<{ id: string; name: string }[]> =>
  (await fetch(`${house.url}/api/jobs`)).json();
const rename = async (page: Page, name: string) => {
  await page.getByLabel('Name of the job').fill(name);
  await page.keyboard.press('Tab');
};
const away = (page: Page) => page.getByTestId('away');
const openNamed = async (page: Page, url: string) => {
  await page.goto(url);
  await expect(page.getByTestId('bench')).toBeVisible();
};

test('an edit kept while the server is away outlives leaving the job, and is there when it is opened again', async ({
  browser,
}) => {
  const { house, close } = await killable();
  try {
    const page = await (await browser.newContext()).newPage();
    // By way of the list, so that it is there to go back to with the server away.
    await page.goto(`${house.url}/jobs`);
    await page.getByRole('link', { name: /Galley chopping block/ }).click();
    await expect(page.getByTestId('target')).toContainText('comes out');
    await page.waitForLoadState('networkidle');
    await house.killServer();
    await rename(page, 'Kept while away');
    await expect(page.getByTestId('keeping')).toContainText('kept in this browser');
    await expect(away(page)).toContainText('1 change is kept in this browser');
    await page.getByRole('link', { name: 'Jobs', exact: true }).click();
    await expect(page.getByTestId('unsent')).toHaveText('1 kept here');
    await house.startServer();
    // The head notices by itself, and what was kept is sent although no job is open.
    await expect(away(page)).toHaveCount(0);
    await expect.poll(async () => (await jobs(house)).map(({ name }) => name)).toContain('Kept while away');
    await page.getByRole('link', { name: /Kept while away/ }).click();
    await expect(page.getByTestId('keeping')).toHaveText('stored');
    await mark(page, 'slice').click();
    await type(page.getByLabel('Slice thickness'), '2');
    await stored(page);
    await expect(page.getByLabel('Name of the job')).toHaveValue('Kept while away');
    // Left within the pause before sending, online: stored all the same.
    await page.getByLabel('Name of the job').fill('Left at once');
    await page.getByRole('link', { name: 'Jobs', exact: true }).click();
    await expect.poll(async () => (await jobs(house)).map(({ name }) => name)).toContain('Left at once');
    await expect(page.getByTestId('unsent')).toHaveCount(0);
  } finally {
    await close();
  }
});

test('three jobs, kit and rack edited with the server away, tabs closed, server back: all there', async ({
  browser,
}) => {
  const { house, close } = await killable();
  try {
    const context = await browser.newContext();
    const names = ['Galley chopping block', 'Games board', 'Chart table top'];
    const all = await jobs(house);
    const ids = all.slice(0, 3).map(({ id }) => id);
    expect(names.length).toBe(ids.length);
    const pages: Page[] = [];
    for (const id of ids) {
      const page = await context.newPage();
      await openNamed(page, `${house.url}/jobs/${id}`);
      pages.push(page);
    }
    const kit = await context.newPage();
    await kit.goto(`${house.url}/kit`);
    await expect(kit.getByLabel(/, kerf$/).first()).toBeVisible();
    const rack = await context.newPage();
    await rack.goto(`${house.url}/rack`);
    await rack.getByRole('tab', { name: 'Board', exact: true }).click();
    await expect(rack.locator('section[aria-label^="Board "]').getByLabel('Moisture %')).toBeVisible();
    await house.killServer();
    for (const [i, page] of pages.entries()) await rename(page, `Offline ${i}`);
    await type(kit.getByLabel(/, kerf$/).first(), '3/32');
    await type(rack.locator('section[aria-label^="Board "]').getByLabel('Moisture %'), '13.5');
    await expect(away(kit)).toContainText('kept in this browser');
    await expect(away(rack)).toContainText('kept in this browser');
    for (const page of context.pages()) await page.close();
    await house.startServer();
    const fresh = await context.newPage();
    await fresh.goto(`${house.url}/jobs`);
    for (const i of [0, 1, 2]) await expect(fresh.getByRole('link', { name: `Offline ${i}` })).toBeVisible();
    const { shop } = await (await fetch(`${house.url}/api/kit`)).json();
    expect(shop.saws[0].kerf.mm).toBeCloseTo((3 / 32) * 25.4, 6);
    const boards: { moisturePct?: number }[] = await (await fetch(`${house.url}/api/boards`)).json();
    expect(boards.some(({ moisturePct }) => moisturePct === 13.5)).toBe(true);
    await expect(fresh.getByTestId('unsent')).toHaveCount(0);
  } finally {
    await close();
  }
});

test('a tab closed at once after an edit, another device that saves: no conflict, and both are in the history', async ({
  browser,
  house,
}) => {
  const context = await browser.newContext();
  const page = await context.newPage();
  const url = await makeJob(page, house, false, 'closed at once');
  await stored(page);
  await page.getByLabel('Name of the job').fill('mine before closing');
  await page.waitForTimeout(60);
  await page.close();
  const id = url.split('/').at(-1) ?? '';
  const read = async () => (await fetch(`${house.url}/api/jobs/${id}`)).json();
  await expect.poll(async () => (await read()).name).toBe('mine before closing');
  const job = await read();
  const save = await fetch(`${house.url}/api/jobs/${id}`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json', ...PROGRAM },
    body: JSON.stringify({ version: job.version, build: { ...job.build, name: 'another device' } }),
  });
  expect(save.status).toBe(200);
  const again = await context.newPage();
  await openNamed(again, url);
  await expect(again.getByLabel('Name of the job')).toHaveValue('another device');
  await stored(again);
  await expect(again.getByRole('dialog')).toHaveCount(0);
  await again.getByRole('button', { name: 'Kept versions' }).click();
  const list = again.getByRole('dialog').locator('[data-version]');
  await expect(list.filter({ hasText: 'Named “mine before closing”' })).toHaveCount(1);
  // A version that is marked says so after the list was read anew.
  await list.filter({ hasText: 'Named “mine before closing”' }).getByLabel('keep').click();
  await expect(list.filter({ hasText: 'Named “mine before closing”' }).getByLabel('keep')).toBeChecked();
  await again.getByRole('button', { name: 'Close' }).click();
  await again.getByRole('button', { name: 'Kept versions' }).click();
  await expect(list.filter({ hasText: 'Named “mine before closing”' }).getByLabel('keep')).toBeChecked();
  await context.close();
});

const kitOf = async (house: House) => (await fetch(`${house.url}/api/kit`)).json();
const elsewhere = async (house: House, change: (shop: any) => object) => {
  const { version, shop } = await kitOf(house);
  const answer = await fetch(`${house.url}/api/kit`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json', ...PROGRAM },
    body: JSON.stringify({ version, shop: change(shop) }),
  });
  expect(answer.status).toBe(200);
};

test('the kit changed in two places is put before the maker, and the chosen one stands', async ({
  browser,
}) => {
  const { house, close } = await killable();
  try {
    const page = await (await browser.newContext()).newPage();
    await page.goto(`${house.url}/kit`);
    const kerf = page.getByLabel(/, kerf$/).first();
    for (const [choice, value] of [
      ['Go on with mine', 2.5],
      ['Go on with the other', 2.8],
    ] as const) {
      await expect(kerf).toBeVisible();
      await page.route('**/api/**', (route) => route.abort());
      await type(kerf, `${value} mm`);
      await expect(away(page)).toBeVisible();
      await elsewhere(house, (shop) => ({ ...shop, woodMoisturePct: shop.woodMoisturePct + 1 }));
      const there = await kitOf(house);
      await page.unroute('**/api/**');
      const dialog = page.getByRole('dialog', { name: 'Changed in two places' });
      await expect(dialog).toContainText('saws');
      await dialog.getByRole('button', { name: choice }).click();
      await expect(dialog).toHaveCount(0);
      const mine = choice === 'Go on with mine';
      await expect
        .poll(async () => (await kitOf(house)).shop.saws[0].kerf.mm)
        .toBe(mine ? value : there.shop.saws[0].kerf.mm);
      await expect.poll(async () => (await kitOf(house)).version).toBe(there.version + (mine ? 1 : 0));
    }
  } finally {
    await close();
  }
});

/** The main path of the tests, as from a phone in the shop: over plain HTTP from another host. */
async function mainPath(context: BrowserContext, house: House, name: string): Promise<void> {
  const page = await context.newPage();
  const broke: string[] = [];
  page.on('pageerror', (error) => broke.push(error.message));
  const there = { ...house, url: house.plainUrl };
  const url = await makeJob(page, there, true, name);
  expect(await page.evaluate(() => isSecureContext)).toBe(false);
  await mark(page, 'slice').click();
  await type(page.getByLabel('Slice thickness'), '2');
  await stored(page);
  // Edited with nothing answering, and closed: the next tab takes it over, and not while this one lives.
  await page.route('**/api/**', (route) => route.abort());
  await type(page.getByLabel('Slice thickness'), '2 1/16');
  await expect(page.getByTestId('keeping')).toContainText('kept in this browser');
  const other = await context.newPage();
  await openNamed(other, url);
  await mark(other, 'slice').click();
  await expect(other.getByLabel('Slice thickness')).toHaveValue('2');
  await other.close();
  await page.close();
  const again = await context.newPage();
  again.on('pageerror', (error) => broke.push(error.message));
  await openNamed(again, url);
  await mark(again, 'slice').click();
  await expect(again.getByLabel('Slice thickness')).toHaveValue('2 1/16');
  await stored(again);
  // What such a page lacks is said once, with the way to it.
  const lacks = again.getByText(/^Over plain HTTP .*JUNTA_CERT/);
  await again.goto(`${house.plainUrl}/tables`);
  await again.getByRole('button', { name: 'Got it' }).click();
  await expect(lacks).toBeVisible();
  await again.getByRole('button', { name: 'Got it' }).click();
  await again.reload();
  await expect(again.getByRole('heading', { level: 1 })).toBeVisible();
  await expect(lacks).toHaveCount(0);
  for (const path of ['/rack', '/kit', '/calendar', '/tables', '/patterns']) {
    await again.goto(`${house.plainUrl}${path}`);
    await expect(again.getByRole('heading', { level: 1 })).toBeVisible();
  }
  expect(broke).toEqual([]);
}

test('everything works over plain HTTP from another host, where a page is no secure context', async ({
  browser,
  house,
}) => {
  const context = await browser.newContext();
  await mainPath(context, house, 'From another host');
  await context.close();
});

test('a shop that listens on the network says on every screen that anybody is the shop', async ({
  browser,
  house,
}) => {
  const open = await openToAll();
  try {
    const page = await (await browser.newContext()).newPage();
    await page.goto(`${open.house.url}/rack`);
    await expect(page.getByTestId('open-house')).toHaveText('Anybody on this network is the shop');
    await page.goto(`${house.url}/rack`);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await expect(page.getByTestId('open-house')).toHaveCount(0);
  } finally {
    await open.close();
  }
});

test('a page under a foreign name that leads here gets nothing', async ({ house }) => {
  const { port } = new URL(house.url);
  const { request } = await import('node:http');
  const status = await new Promise((done) =>
    request(
      { host: '127.0.0.1', port, path: '/api/jobs', headers: { Host: `evil.test:${port}` } },
      (answer) => done(answer.statusCode),
    ).end(),
  );
  expect(status).toBe(421);
});

test('a part that was asked for while the server was away comes when it is back, also where the browser remembers that it could not be had', async ({
  page,
  house,
}) => {
  const job = await makeJob(page, house, false, 'parts');
  await stored(page);
  // What is fetched beforehand is not: as on a page that was opened a moment ago.
  await page.route('**/assets/FailureWindow*', (route) => route.abort());
  await page.route('**/api/health', (route) => route.abort());
  await page.goto(`${job}/bench`);
  await page.getByRole('button', { name: 'It failed …' }).click();
  await page.waitForTimeout(1500);
  await expect(page.getByRole('heading', { name: 'The screen broke' })).toHaveCount(0);
  await page.unroute('**/assets/FailureWindow*');
  await page.unroute('**/api/health');
  await expect(page.getByRole('dialog', { name: 'What failed?' })).toBeVisible();
});
