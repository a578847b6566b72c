import type { Page } from '@playwright/test';
import { expect, makeJob, mark, openJob, stored, test, type House, PROGRAM } from './house';

/* What goes wrong between rack and saw: boards that vanish, jobs that share, odd kits, other units. */

const board = (label: string, species: string, mm: [number, number, number], more: object = {}) => ({
  label,
  species,
  length: { mm: mm[0] },
  width: { mm: mm[1] },
  thickness: { mm: mm[2] },
  sold: 'rough',
  ...more,
});

async function put(page: Page, house: House, ...boards: object[]): Promise<string[]> {
  const answer = await page.request.post(`${house.url}/api/boards`, { headers: PROGRAM, data: { boards } });
  expect(answer.status()).toBe(201);
  return (await answer.json()).ids;
}

/** A panel of five strips in one wood. */
async function panel(
  page: Page,
  house: House,
  name: string,
  wood: string,
): Promise<{ url: string; id: string }> {
  const url = await makeJob(page, house, false, name);
  await stored(page);
  const api = url.replace('/jobs/', '/api/jobs/');
  const { build, version } = await (await page.request.get(api)).json();
  for (const assembly of build.assemblies) for (const slot of assembly.slots) slot.species = wood;
  const saved = await page.request.put(api, { headers: PROGRAM, data: { build, version } });
  expect(saved.ok()).toBe(true);
  return { url, id: url.split('/').pop() ?? '' };
}

async function breakDown(page: Page): Promise<void> {
  const go = page.getByRole('button', { name: 'Break down the boards' });
  await expect(go).toBeEnabled();
  await go.click();
  await expect(go).toBeVisible();
  await expect(page.getByRole('region', { name: 'What it takes' })).toBeVisible();
  await stored(page);
}

test('two jobs share one long board: each gets its strips, and neither takes the other’s', async ({
  page,
  house,
}) => {
  await put(
    page,
    house,
    board('L1', 'locust_black', [3600, 300, 32]),
    board('L2', 'locust_black', [1900, 260, 32]),
  );
  const first = await panel(page, house, 'locust one', 'locust_black');
  const second = await panel(page, house, 'locust two', 'locust_black');
  await page.goto(`${first.url}/wood`);
  await page.getByRole('button', { name: 'With other jobs' }).click();
  // However slowly the other job is read, it is not left out of what is broken down.
  const late = `**/api/jobs/${second.id}`;
  await page.route(late, async (route) => {
    await new Promise((wait) => setTimeout(wait, 3000));
    await route.continue();
  });
  await page.getByLabel('locust two').click();
  await expect(page.getByLabel('locust two')).toBeChecked();
  await page.keyboard.press('Escape');
  await breakDown(page);
  await expect(page.getByRole('heading', { name: '10 of 10 strips' })).toBeVisible();
  for (const label of ['A1', 'A5', 'B1', 'B5'])
    await expect(
      page
        .locator('[data-strip]')
        .filter({ hasText: new RegExp(`^${label}(cut|$)`) })
        .first(),
    ).toBeVisible();
  // The other job, opened alone, has its strips and leaves the first one's places alone when it is solved again.
  await page.goto(`${second.url}/wood`);
  await expect(page.getByRole('heading', { name: '5 of 5 strips' })).toBeVisible();
  const build = async (id: string) =>
    (await (await page.request.get(`${house.url}/api/jobs/${id}`)).json()).build;
  const one = await build(first.id);
  const two = await build(second.id);
  const shared = two.boards.filter(({ id }: { id: string }) =>
    one.boards.some((b: { id: string }) => b.id === id),
  );
  expect(shared.length).toBeGreaterThan(0);
  expect(
    shared.flatMap(({ taken = [] }: { taken?: { of: string }[] }) => taken.map(({ of }) => of)),
  ).toContain('locust one');
  // A job that is gone is said; nothing is planned as if it had never been asked for, until it is left out.
  await page.goto(`${first.url}/wood?with=00000000-0000-4000-8000-000000000000`);
  await expect(page.getByRole('alert')).toContainText('A job that shares the boards cannot be read.');
  await expect(page.getByRole('button', { name: 'Break down the boards' })).toBeDisabled();
  await page.getByRole('button', { name: 'with 1 other job' }).click();
  await page.getByLabel('A job that is gone').click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Break down the boards' })).toBeEnabled();
  await expect(page.getByRole('alert')).toHaveCount(0);
  // Both run forward to the size asked.
  for (const url of [first.url, second.url]) {
    await page.goto(url);
    await expect(page.getByTestId('target').getByLabel('fits')).toHaveCount(3);
  }
});

test('a board that vanishes while a job uses it: said, kept in the job, and replaced when solved again', async ({
  page,
  house,
}) => {
  const [gone] = await put(page, house, board('V1', 'elm_american', [2000, 260, 32]));
  const { url } = await panel(page, house, 'vanishing', 'elm_american');
  await page.goto(`${url}/wood`);
  await breakDown(page);
  await put(page, house, board('V2', 'elm_american', [2100, 270, 32]));
  const refused = await page.request.post(`${house.url}/api/boards/remove`, {
    headers: PROGRAM,
    data: { ids: [gone], force: false },
  });
  expect([refused.status(), (await refused.json()).detail]).toEqual([
    409,
    expect.stringContaining('vanishing'),
  ]);
  await page.request.post(`${house.url}/api/boards/remove`, {
    headers: PROGRAM,
    data: { ids: [gone], force: true },
  });
  await page.reload();
  await expect(page.getByRole('region', { name: 'Boards broken down' })).toContainText('not on the rack');
  await page.goto(url);
  await expect(page.getByTestId('target').getByLabel('fits')).toHaveCount(3);
  await page.goto(`${url}/wood`);
  await breakDown(page);
  await expect(page.locator('[data-board-label="V2"]')).toBeVisible();
  await expect(page.locator('[data-board-label="V1"]')).toHaveCount(0);
});

test('a board reserved for another job is not offered; strips longer than every board are said', async ({
  page,
  house,
}) => {
  const [only] = await put(
    page,
    house,
    board('Q1', 'butternut', [2200, 280, 32]),
    board('Q2', 'butternut', [500, 280, 32]),
  );
  const other = await panel(page, house, 'first come', 'butternut');
  await page.request.put(`${house.url}/api/jobs/${other.id}/boards`, {
    headers: PROGRAM,
    data: { boards: [only] },
  });
  const { url } = await panel(page, house, 'second come', 'butternut');
  await page.goto(`${url}/wood`);
  await breakDown(page);
  const short = page.getByRole('region', { name: 'Short of wood' });
  await expect(short).toContainText('5 of 5 strips short');
  await expect(short).toContainText('The longest board gives');
  await expect(page.locator('[data-board-label="Q1"]')).toHaveCount(0);
});

test('a kerf of zero is pointed out, and the breakdown still stands', async ({ page, house }) => {
  await put(page, house, board('Z1', 'basswood', [2400, 300, 32]));
  const { url, id } = await panel(page, house, 'no kerf', 'basswood');
  const { build, version } = await (await page.request.get(`${house.url}/api/jobs/${id}`)).json();
  for (const saw of build.shop.saws) saw.kerf = { mm: 0 };
  await page.request.put(`${house.url}/api/jobs/${id}`, { headers: PROGRAM, data: { build, version } });
  await page.goto(`${url}/wood`);
  await expect(page.getByRole('region', { name: 'How it is cut' })).toContainText('kerf of zero');
  await breakDown(page);
  await expect(page.getByRole('heading', { name: '5 of 5 strips' })).toBeVisible();
});

test('resawn leaves, an allowance and a strip that must show no sapwood come through to the stick', async ({
  page,
  house,
}) => {
  const sap = { id: 's', kind: 'sapwood', face: 'both', x: 0, y: 0, length: 1500, width: 60 };
  await put(page, house, board('D1', 'wenge', [1500, 290, 70], { faults: [sap] }));
  const { url } = await panel(page, house, 'leaves', 'wenge');
  await page.goto(`${url}/wood`);
  await page.getByLabel('Extra width').fill('1/16');
  await page.getByLabel('Extra width').press('Enter');
  await breakDown(page);
  await expect(page.locator('[data-strip]').filter({ hasText: '+' }).first()).toBeVisible();
  const card = page.getByRole('region', { name: 'Strip', exact: true });
  await page.locator('[data-strip]').first().click();
  await expect(card).toContainText(/leaf \d of 2 resawn/);
  await card.getByRole('combobox', { name: 'Upper face' }).click();
  await page.getByRole('option', { name: 'clear of all' }).click();
  await expect(page.getByRole('button', { name: 'Break down the boards' })).toBeVisible();
  await page.getByRole('link', { name: 'Set-up list' }).click();
  await expect(page.getByText('Resaw').first()).toBeVisible();
  await page.goto(url);
  await mark(page, 'rip').click();
  await expect(page.locator('[data-code="fault-on-strip"]')).toHaveCount(0);
  await expect(page.getByTestId('target').getByLabel('fits')).toHaveCount(3);
});

test('in millimetres everything reads in millimetres: rack, wood and set-up list', async ({
  page,
  house,
}) => {
  await put(
    page,
    house,
    board('MM1', 'hickory_pecan', [2000, 250, 32], {
      price: { minor: 90_000, currency: 'EUR', per: 'cubicMetre' },
    }),
  );
  const { url } = await panel(page, house, 'metric wood', 'hickory_pecan');
  const units = page.getByRole('button', { name: /^inches|^millimetres/ });
  await units.click();
  await page.getByText('millimetres', { exact: true }).click();
  await page.keyboard.press('Escape');
  await page.waitForTimeout(900);
  try {
    await page.goto(`${house.url}/rack`);
    await page.getByLabel('Search the rack').fill('MM1');
    await expect(page.locator('[data-board="MM1"]')).toContainText('2000');
    await expect(page.locator('[data-board="MM1"]')).toContainText('14.40 EUR');
    await expect(page.getByText('0.016 m³')).toBeVisible();
    await page.goto(`${url}/wood`);
    await breakDown(page);
    await expect(page.getByRole('region', { name: 'What it takes' })).toContainText('cm³');
    await page.getByRole('link', { name: 'Set-up list' }).click();
    await expect(page.getByText('fence at').first()).toBeVisible();
    await expect(page.locator('main')).toContainText('61.9');
    await expect(page.locator('main')).not.toContainText(/\d in\b/);
  } finally {
    await units.click();
    await page.getByText('inches', { exact: true }).click();
    await page.waitForTimeout(900);
  }
});

test('the bench shows the knot of the board on the strip that was cut there', async ({ page, house }) => {
  // A knot on both faces where every strip of this narrow board must lie: its grade is lowered so that it may.
  const knot = { id: 'k', kind: 'knot', face: 'both', x: 380, y: 20, length: 60, width: 40 };
  await put(page, house, board('K1', 'aspen_quaking', [900, 400, 32], { faults: [knot] }));
  const { url, id } = await panel(page, house, 'knotty', 'aspen_quaking');
  const { build, version } = await (await page.request.get(`${house.url}/api/jobs/${id}`)).json();
  for (const assembly of build.assemblies)
    for (const slot of assembly.slots) Object.assign(slot, { grade: 'hidden', gradeBelow: 'hidden' });
  await page.request.put(`${house.url}/api/jobs/${id}`, { headers: PROGRAM, data: { build, version } });
  await page.goto(`${url}/wood`);
  await breakDown(page);
  await expect(page.getByRole('heading', { name: '5 of 5 strips' })).toBeVisible();
  await page.getByRole('link', { name: 'To the stick' }).click();
  await mark(page, 'glue').click();
  const darkest = () =>
    page
      .getByTestId('bench')
      .locator('canvas')
      .first()
      .evaluate((canvas) => {
        const c = canvas as HTMLCanvasElement;
        const data = c.getContext('2d')?.getImageData(0, 0, c.width, c.height).data ?? [];
        let dark = 0;
        for (let i = 0; i < data.length; i += 4)
          if (data[i + 3] === 255 && data[i] + data[i + 1] + data[i + 2] < 300) dark++;
        // In pixels of the page, on whatever device.
        return dark / devicePixelRatio ** 2;
      });
  // Aspen is pale all over: a patch this dark is the knot.
  await expect.poll(darkest).toBeGreaterThan(600);
});

test('undo goes on from the wood to the stick and back', async ({ page, house }) => {
  await openJob(page, house, 'Games board');
  await page.getByRole('link', { name: 'Wood' }).click();
  await page.getByLabel('Left at the fence').fill('2');
  await page.getByLabel('Left at the fence').press('Enter');
  await stored(page);
  await page.getByRole('link', { name: 'To the stick' }).click();
  await expect(page.getByRole('button', { name: 'Undo' })).toBeEnabled();
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('link', { name: 'Wood' }).click();
  await expect(page.getByLabel('Left at the fence')).toHaveValue('1');
});

test('nothing can be typed before it is known how the shop reads numbers', async ({ page, house }) => {
  let answer = () => {};
  const held = new Promise<void>((free) => {
    answer = free;
  });
  await page.route('**/api/kit', async (route) => {
    await held;
    await route.continue();
  });
  const boards = page.waitForResponse('**/api/boards');
  await page.goto(`${house.url}/rack`);
  await boards;
  const put = page.getByRole('button', { name: 'Put on the rack' });
  // The screen stands there and has what it shows, but nobody can press it.
  await expect(page.locator('main')).toBeAttached();
  await expect(put).toHaveCount(0);
  await expect(page.getByRole('link', { name: 'Rack' })).toBeVisible();
  answer();
  await expect(put).toBeVisible();
  await expect(page.getByRole('button', { name: /^(inches|millimetres)/ })).toBeVisible();
});
