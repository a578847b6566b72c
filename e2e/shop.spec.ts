import type { Locator, Page } from '@playwright/test';
import { expect, type House, ownHouse, PROGRAM, stored, test, type } from './house';

let own: { house: House; close: () => Promise<void> };
test.beforeAll(async () => {
  own = await ownHouse();
});
test.afterAll(() => own?.close());

/** Counts what a maker does: every press, and every field that is filled. */
function counting() {
  let acts = 0;
  return {
    press: async (what: Locator) => {
      acts += 1;
      await what.click();
    },
    fill: async (what: Locator, text: string) => {
      acts += 1;
      await what.fill(text);
    },
    acts: () => acts,
  };
}

const button = (page: Page, name: string) => page.getByRole('button', { name, exact: true });
const shopsOf = async (page: Page) =>
  (await (await page.request.get(`${own.house.url}/api/shops`, { headers: PROGRAM })).json()) as {
    shops: { id: string; name: string; demo: boolean }[];
  };

test('a shop of one’s own from nothing, and a first end-grain board stored, in under 25 acts', async ({
  page,
}) => {
  const { press, fill, acts } = counting();
  await page.goto(own.house.url);
  await press(page.getByRole('link', { name: 'Set up mine' }));
  // Nothing is guessed of what decides every number.
  await press(button(page, 'Next'));
  await expect(page.getByRole('alert')).toContainText('inches or millimetres');
  await fill(page.getByLabel('Name of the shop'), 'Quay works');
  await press(page.getByText('millimetres', { exact: true }));
  await fill(page.getByLabel(/^Currency/), 'jpy');
  await press(button(page, 'Next'));
  await expect(page.getByLabel('Table saw, kerf')).toHaveValue('3.2');
  await fill(page.getByLabel('Table saw, kerf'), '2.8');
  await press(button(page, 'Next'));
  await fill(page.getByLabel('Planer, widest'), '310');
  await press(button(page, 'Next'));
  await press(button(page, 'Skip'));
  await press(button(page, 'Next'));
  await expect(page.getByText('Skipped: until you enter yours, Junta plans with 28 clamps')).toBeVisible();
  await press(button(page, 'Open this shop'));
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible();
  await press(page.getByRole('link', { name: 'Plan a new job' }));
  await press(page.getByText('End-grain chequer'));
  await fill(page.getByLabel('Name'), 'First board');
  await press(button(page, 'Make this job'));
  await expect(page.getByTestId('bench')).toBeVisible();
  await stored(page);
  expect(acts()).toBeLessThan(25);
  await page.goto(`${own.house.url}/kit`);
  await expect(page.getByLabel('Table saw, kerf')).toHaveValue('2.8');
  await expect(page.getByLabel('Planer, widest')).toHaveValue('310');
  await expect(page.getByLabel(/^Currency/)).toHaveValue('JPY');
  // Clamps that were skipped are not said to be the shop's own.
  const { shops } = await shopsOf(page);
  const mine = shops.find(({ name }) => name === 'Quay works');
  const kit = await page.request.get(`${own.house.url}/api/kit`, {
    headers: { ...PROGRAM, 'Junta-Shop': mine?.id ?? '' },
  });
  expect((await kit.json()).shop.clamps).toBeUndefined();
});

test('a shop without machines, clamps and boards says what is missing, and plans what it can', async ({
  page,
}) => {
  await page.goto(`${own.house.url}/start/shop`);
  await page.getByLabel('Name of the shop').fill('Bare shop');
  await page.getByText('inches', { exact: true }).click();
  for (const name of ['Saws', 'Machines', 'Clamps']) {
    await button(page, 'Next').click();
    const list = page.getByRole('list', { name, exact: true });
    await expect(list).toBeVisible();
    const boxes = list.getByRole('checkbox', { checked: true });
    while ((await boxes.count()) > 0) await boxes.first().click();
  }
  await button(page, 'Next').click();
  await button(page, 'Skip').click();
  await expect(page.getByText('0 machines')).toBeVisible();
  await button(page, 'Open this shop').click();
  await page.getByRole('link', { name: 'Plan a new job' }).click();
  // A pattern that needs a saw says so instead of planning with one that is not there.
  await expect(
    page
      .getByRole('alert')
      .or(page.getByRole('status'))
      .filter({ hasText: /saw|machine/i })
      .first(),
  ).toBeVisible();
  await page.getByLabel('Name').fill('By hand');
  await button(page, 'Begin without a pattern').click();
  await expect(page.getByText('Nothing is done in this job yet')).toBeVisible();
  // Two shops of one name are two shops.
  const { shops } = await shopsOf(page);
  const bare = shops.find(({ name }) => name === 'Bare shop');
  const asked = { headers: { ...PROGRAM, 'Junta-Shop': bare?.id ?? '' } };
  const { shop } = await (await page.request.get(`${own.house.url}/api/kit`, asked)).json();
  expect(shop).toMatchObject({ saws: [], machines: [], clamps: [] });
  await page.request.post(`${own.house.url}/api/shops`, { headers: PROGRAM, data: { shop } });
  expect((await shopsOf(page)).shops.filter(({ name }) => name === 'Bare shop')).toHaveLength(2);
});

test('the demo is removed while one of its jobs is open, put back as new, and the old one can come back', async ({
  page,
  context,
}) => {
  await page.goto(`${own.house.url}/start`);
  await page.getByRole('button', { name: 'Look at the demo shop' }).click();
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible();
  await page.goto(`${own.house.url}/jobs`);
  await page.getByRole('link', { name: /Games board/ }).click();
  await expect(page.getByTestId('bench')).toBeVisible();
  const other = await context.newPage();
  await other.goto(`${own.house.url}/shops`);
  await button(other, 'Remove North Slip shop').click();
  await expect(other.getByRole('dialog')).toContainText('They can be brought back here for 30 days');
  await other.getByRole('dialog').getByRole('button', { name: 'Remove North Slip shop' }).click();
  // The page with the open job notices by itself and asks which shop.
  await expect(page.getByRole('heading', { name: 'Shops' })).toBeVisible();
  await button(page, 'Put the demo back, as new').click();
  await expect(page.getByRole('button', { name: 'Go to North Slip shop' })).toBeVisible();
  await page.getByRole('button', { name: 'Bring back North Slip shop' }).click();
  await expect(page.getByRole('alert')).toContainText('A demo shop is there already');
  await button(page, 'Go to North Slip shop').click();
  await page.goto(`${own.house.url}/jobs`);
  await expect(page.getByRole('link', { name: /Games board/ })).toBeVisible();
});

test('a job deleted while another device edits it: the edit is kept, said, and stored once the job is back', async ({
  page,
  browser,
}) => {
  const enter = async (on: Page) => {
    await on.goto(`${own.house.url}/start`);
    await on.getByRole('button', { name: 'Look at the demo shop' }).click();
    await expect(on.getByRole('heading', { name: 'Today' })).toBeVisible();
    await on.goto(`${own.house.url}/jobs`);
  };
  const context = await browser.newContext();
  const other = await context.newPage();
  await enter(other);
  await enter(page);
  await page.getByRole('link', { name: /Tower stair tread/ }).click();
  await expect(page.getByTestId('bench')).toBeVisible();
  await other.getByRole('button', { name: 'More about Tower stair tread' }).click();
  await other.getByRole('button', { name: 'Delete', exact: true }).click();
  await expect(other.getByRole('status').filter({ hasText: 'is deleted' })).toBeVisible();
  await page.getByLabel('Name of the job').fill('Tower stair tread, long');
  await expect(page.getByTestId('unsent')).toHaveText('1 change to look at');
  await page.getByTestId('unsent').click();
  // Said in the list of what waits, and at the head of the job once that has asked.
  await expect(page.getByText('“Tower stair tread” was deleted').first()).toBeVisible();
  await button(page, 'Bring the job back and send it').click();
  await expect(page.getByTestId('unsent')).toHaveCount(0);
  await other.reload();
  await expect(other.getByRole('link', { name: /Tower stair tread, long/ })).toBeVisible();
  await context.close();
});

test('three hundred jobs are searched, filtered, put away, deleted and brought back', async ({ page }) => {
  test.setTimeout(180_000);
  const { shops } = await shopsOf(page);
  const demo = shops.find((shop) => shop.demo);
  const headers = { ...PROGRAM, 'Junta-Shop': demo?.id ?? '' };
  const read = async (path: string) =>
    (await page.request.get(`${own.house.url}${path}`, { headers })).json();
  const demoJobs: { id: string }[] = await read('/api/jobs');
  const builds = await Promise.all(demoJobs.map(async ({ id }) => (await read(`/api/jobs/${id}`)).build));
  for (let i = 0; i < 290; i++) {
    const made = await page.request.post(`${own.house.url}/api/jobs`, {
      headers,
      data: { build: { ...builds[i % builds.length], name: `Shelf ${i + 1}` } },
    });
    expect(made.status()).toBe(201);
  }
  await page.goto(`${own.house.url}/start`);
  await page.getByRole('button', { name: 'Look at the demo shop' }).click();
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible();
  await page.goto(`${own.house.url}/jobs`);
  const lines = page.locator('[data-job]');
  await expect(lines).toHaveCount(290 + demoJobs.length);
  const find = page.getByRole('searchbox', { name: 'Find a job' });
  await find.fill('shelf 117');
  await expect(lines).toHaveCount(1);
  await lines.getByRole('button', { name: /More about/ }).click();
  await button(page, 'Tags').click();
  await type(page.getByRole('textbox', { name: /^Tags/ }), 'for sale, kitchen');
  await expect(lines.getByText('for sale')).toBeVisible();
  await lines.getByRole('button', { name: /More about/ }).click();
  await button(page, 'Put away').click();
  await expect(page.getByText('No job is like this.')).toBeVisible();
  await button(page, 'Show all jobs').click();
  await expect(lines).toHaveCount(290 + demoJobs.length - 1);
  await page.getByRole('button', { name: /^put away 1/ }).click();
  await expect(lines).toHaveCount(1);
  // Renamed and told what it is for, in place.
  await lines.getByRole('button', { name: /More about/ }).click();
  await button(page, 'Rename').click();
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('');
  await page.keyboard.press('Enter');
  await expect(page.getByText('A job needs a name.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Galley shelf');
  await type(page.getByRole('textbox', { name: 'What it is for' }), 'for the galley');
  await expect(lines.getByText('Galley shelf')).toBeVisible();
  await expect.poll(() => page.evaluate(() => document.querySelector('[data-testid="unsent"]'))).toBe(null);
  await page.reload();
  await expect(lines).toHaveCount(1);
  await expect(lines).toContainText('Galley shelf');
  await lines.getByRole('button', { name: /More about/ }).click();
  await button(page, 'Duplicate').click();
  // The copy is not put away, so it does not stand in this list: it is said where it is.
  await expect(page.getByText('“Galley shelf, copy” is made.')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Open it' })).toBeVisible();
  await page.goto(`${own.house.url}/jobs?find=galley+shelf`);
  await expect(lines).toHaveCount(1);
  await expect(lines).toContainText('Galley shelf, copy');
  await lines.getByRole('button', { name: /More about/ }).click();
  await button(page, 'Delete').click();
  await expect(lines).toHaveCount(0);
  await button(page, 'Deleted').click();
  await button(page, 'Bring back Galley shelf, copy').click();
  await expect(page.getByText('Nothing was deleted in the last 30 days.')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(lines).toHaveCount(1);
});

/** A page that works in a demo shop of this house, as its own browser. */
async function inTheDemo(page: Page): Promise<Record<string, string>> {
  await page.goto(`${own.house.url}/start`);
  await page.getByRole('button', { name: 'Look at the demo shop' }).click();
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible();
  const demo = (await shopsOf(page)).shops.find((shop) => shop.demo);
  return { ...PROGRAM, 'Junta-Shop': demo?.id ?? '' };
}
const rackOf = async (page: Page, headers: Record<string, string>): Promise<any[]> =>
  (await page.request.get(`${own.house.url}/api/boards`, { headers })).json();

test('the rack asks which oak and about a slip, takes five alike; a table with faults goes out and comes back as the same boards', async ({
  page,
}) => {
  const headers = await inTheDemo(page);
  const before = await rackOf(page, headers);
  await page.goto(`${own.house.url}/rack`);
  const field = (name: string) =>
    page.getByRole('form', { name: 'Enter a board' }).getByLabel(name, { exact: true });
  await field('Wood').fill('oak');
  await field('Length, in').fill('6');
  await field('Width').fill('96');
  await field('Thick').fill('4/4');
  await field('How many').fill('5');
  await field('How many').press('Enter');
  await page.getByRole('alert').getByRole('button', { name: 'European oak' }).click();
  await expect(page.getByText('96 in wide and only 6 in long: is that so?')).toBeVisible();
  await button(page, 'Swap length and width').click();
  await expect(page.getByText('5 boards alike are on the rack')).toBeVisible();
  const rack = await rackOf(page, headers);
  expect(rack).toHaveLength(before.length + 5);
  expect(rack.at(-1)).toMatchObject({
    species: 'oak_european',
    length: { typed: { text: '96' } },
    width: { typed: { text: '6' } },
  });
  const coming = page.waitForEvent('download');
  await button(page, 'To a table').click();
  const text = await (await (await coming).createReadStream()).toArray();
  const csv = Buffer.concat(text as Buffer[]).toString();
  expect(csv).toContain('European oak');
  await page.request.post(`${own.house.url}/api/boards/remove`, {
    headers,
    data: { ids: rack.map(({ id }) => id), force: true },
  });
  await page.reload();
  await button(page, 'From a table').click();
  await page.getByLabel('Table as text').fill(csv);
  await button(page, 'Match its columns').click();
  await page.getByRole('button', { name: `Put ${rack.length} boards on the rack` }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  const bare = (board: any) =>
    JSON.parse(
      JSON.stringify(board, (key, value) =>
        ['id', 'version', 'history', 'reserved', 'typed'].includes(key)
          ? undefined
          : typeof value === 'number'
            ? Number(value.toFixed(4))
            : value,
      ),
    );
  expect((await rackOf(page, headers)).map(bare)).toEqual(rack.map(bare));
});

test('what is short is bought into the rack with one press, and the strips lie on it', async ({ page }) => {
  const headers = await inTheDemo(page);
  const boards = await rackOf(page, headers);
  await page.request.post(`${own.house.url}/api/boards/remove`, {
    headers,
    data: { ids: boards.map(({ id }) => id), force: true },
  });
  await page.goto(`${own.house.url}/jobs?find=boathouse`);
  const href = await page
    .getByRole('link', { name: /Boathouse bench top/ })
    .first()
    .getAttribute('href');
  await page.goto(`${own.house.url}${href}/wood`);
  await button(page, 'Break down the boards').click();
  const bought = page.getByRole('button', { name: /^Bought: put \d+ boards? on the rack$/ }).first();
  await bought.click();
  await expect(page.getByText(/On the rack: number/)).toBeVisible();
  const now = await rackOf(page, headers);
  expect(now.length).toBeGreaterThan(0);
  expect(now.every(({ species, sold }) => species === 'beech_american' && sold === 'rough')).toBe(true);
  await button(page, 'Break down the boards').click();
  await expect(page.getByRole('region', { name: 'Short of wood' })).toHaveCount(0);
});

test('work that is moved in the calendar is put back with undo, and moved again with redo', async ({
  page,
}) => {
  await inTheDemo(page);
  await page.goto(`${own.house.url}/calendar`);
  const work = page.getByRole('button', { name: /, Rip, work, / }).first();
  const said = () => work.getAttribute('aria-label');
  await work.waitFor();
  const before = await said();
  await work.press('Shift+ArrowRight');
  await expect.poll(said).not.toBe(before);
  const moved = await said();
  await page.keyboard.press('Control+z');
  await expect.poll(said).toBe(before);
  await button(page, 'Redo').click();
  await expect.poll(said).toBe(moved);
  await button(page, 'Undo').click();
  await expect.poll(said).toBe(before);
});

test('a screen says once what it is for', async ({ browser }) => {
  const context = await browser.newContext();
  const page = await context.newPage();
  await page.goto(`${own.house.url}/shops`);
  await page
    .getByRole('button', { name: /^Go to / })
    .first()
    .click();
  const line = page.getByRole('complementary', { name: 'What this screen is for' });
  await expect(line).toContainText('what comes next');
  await line.getByRole('button', { name: 'Got it' }).click();
  await expect(line).toHaveCount(0);
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible();
  await expect(line).toHaveCount(0);
  await page.getByRole('link', { name: 'Rack' }).click();
  await expect(line).toContainText('Your boards');
  await context.close();
});

test('a number says how it was computed, with the sum that comes to it', async ({ page }) => {
  await inTheDemo(page);
  await page.goto(`${own.house.url}/jobs?find=chart-chest`);
  await page
    .getByRole('link', { name: /Chart-chest lid/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'How is this computed? Sizes that come out' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.locator('[data-worked="Width that comes out"]')).toHaveText(
    '(9 × (1.375 in − 0.0625 in)) − 0.5625 in = 11.25 in',
  );
  await page.keyboard.press('Escape');
  await page.getByRole('tab', { name: 'Clamps' }).click();
  await page.getByRole('button', { name: 'How is this computed? Clamps' }).click();
  await expect(dialog.locator('[data-worked="Clamps"]')).toHaveText(/^⌈.*⌉.* = \d+$/);
});
