import type { Page } from '@playwright/test';
import {
  benchField,
  changeSteps,
  demoJob,
  expect,
  type House,
  makeJob,
  PROGRAM,
  stored,
  test,
} from './house';

const begun = async (page: Page, house: House, name: string, block = false): Promise<string> => {
  const job = await makeJob(page, house, block, name);
  await stored(page);
  return new URL(job).pathname;
};
const sentence = (page: Page) => page.locator('main p').first();
const figure = (page: Page) => page.getByTestId('figure').first();
const field = (page: Page) => page.getByLabel(/after it/);
/** What the server has of a step. */
const onServer = async (page: Page, house: House, job: string, step: string) => {
  const { build } = await (await page.request.get(`${house.url}/api${job}`)).json();
  return build.steps.find(({ id }: { id: string }) => id === step);
};
const readings = async (page: Page, house: House, job: string) =>
  (await (await page.request.get(`${house.url}/api${job}`)).json()).build.readings;

test('a step is begun, ticked, paused and gone on with on another device, exactly where it was', async ({
  page,
  house,
  browser,
}) => {
  const job = await begun(page, house, 'bench, begun');
  await page.goto(`${house.url}${job}`);
  await page.getByRole('link', { name: 'At the bench' }).click();
  await expect(page).toHaveURL(/\/bench$/);
  await expect(sentence(page)).toContainText('Rip');
  // To be read from two metres away (57 px), and pressed with a hand.
  const high = await figure(page)
    .locator('.rule')
    .first()
    .evaluate((each) => Number.parseFloat(getComputedStyle(each).fontSize));
  expect(high).toBeGreaterThanOrEqual(57);
  expect((await benchField(page, 1).boundingBox())?.height).toBeGreaterThanOrEqual(96);
  await expect(page.getByText('Caution.')).toBeVisible();
  await benchField(page, 1).click();
  await expect(page.getByTestId('standing')).toContainText('Hands on it');
  while (((await benchField(page, 1).textContent()) ?? '').includes(' of ')) {
    const before = await sentence(page).textContent();
    await benchField(page, 1).click();
    await expect(sentence(page)).not.toHaveText(before ?? '');
  }
  await benchField(page, 1).click();
  await expect(page.locator('h1')).toContainText('Mill');
  await benchField(page, 1).click();
  await benchField(page, 1).click();
  await expect(sentence(page)).toContainText('2 of');
  await benchField(page, 2).click();
  await expect(benchField(page, 1)).toHaveText('Go on');
  await expect.poll(async () => (await onServer(page, house, job, 'mill')).work?.[0]?.to).toBeDefined();
  const rip = await onServer(page, house, job, 'rip');
  expect(rip).toMatchObject({ done: true });
  expect(Date.parse(rip.doneAt)).toBeGreaterThanOrEqual(Date.parse(rip.work[0].from));
  // Another device, and the same after a reload: the second operation of the milling.
  const other = await (await browser.newContext()).newPage();
  await other.goto(`${house.url}${job}/bench`);
  await expect(sentence(other)).toContainText('2 of');
  await expect(other.locator('h1')).toContainText('Mill');
  await other.reload();
  await expect(sentence(other)).toContainText('2 of');
  await benchField(other, 0).click();
  await expect(sentence(other)).toContainText('1 of');
  await other.context().close();
});

test('a wait binds to the minute, asks once, and what was begun early is written down', async ({
  page,
  house,
}) => {
  const job = await begun(page, house, 'bench, waiting');
  const glued = new Set(['rip', 'mill', 'glue']);
  const doneAt = new Date().toISOString();
  await changeSteps(page, house, job, (step) =>
    glued.has(step.id) ? { ...step, done: true, doneAt } : step,
  );
  await page.goto(`${house.url}${job}/bench`);
  await expect(page.locator('h1')).toContainText('Flatten');
  await expect(benchField(page, 1)).toHaveText(/^Wait 24 h/);
  await expect(page.getByTestId('standing')).toContainText(/until tomorrow .*not at full strength yet/);
  await benchField(page, 1).click();
  await page.getByRole('button', { name: 'Wait', exact: true }).click();
  expect((await onServer(page, house, job, 'flatten')).work).toBeUndefined();
  await benchField(page, 1).click();
  await page.getByRole('button', { name: 'Begin all the same' }).click();
  await expect(page.getByTestId('standing')).toContainText('Begun 24 h early');
  await benchField(page, 2).click();
  // Gone on with, nobody is asked again.
  await expect(benchField(page, 1)).toHaveText('Go on');
  await expect.poll(async () => (await onServer(page, house, job, 'flatten')).early?.length).toBe(1);
  expect((await onServer(page, house, job, 'flatten')).early[0].wait).toContain('not at full strength');
});

test('a wait that ends rings on every open page: in words, in the title, until it is heard on one of them', async ({
  page,
  house,
  browser,
}) => {
  const job = await begun(page, house, 'bench, ringing');
  const rest = new Set(['rip', 'mill', 'glue']);
  // Full strength is near: the wait ends while two pages are open.
  const doneAt = new Date(Date.now() - 24 * 3_600_000 + 12_000).toISOString();
  await changeSteps(page, house, job, (step) => (rest.has(step.id) ? { ...step, done: true, doneAt } : step));
  await page.goto(`${house.url}${job}/bench`);
  const rows = async () => (await (await page.request.get(`${house.url}/api/timers`)).json()).timers;
  await expect
    .poll(
      async () => (await rows()).filter((each: { name: string }) => each.name === 'bench, ringing').length,
    )
    .toBeGreaterThan(0);
  const other = await (await browser.newContext({ serviceWorkers: 'block' })).newPage();
  await other.goto(`${house.url}/kit`);
  await expect(other.getByRole('alert').filter({ hasText: 'bench, ringing' })).toBeVisible();
  await expect(page.getByRole('alert').filter({ hasText: 'over' })).toBeVisible();
  await expect(page).toHaveTitle(/^● .* · Junta$/);
  await expect(benchField(page, 1)).toHaveText('Begin');
  await page.getByRole('button', { name: 'Heard' }).click();
  await expect(page).not.toHaveTitle(/^● /);
  // Heard here, it rings nowhere any more, and does not begin again after a reload.
  await expect(other.getByRole('alert').filter({ hasText: 'bench, ringing' })).toBeHidden();
  await other.reload();
  await expect(other.getByRole('heading', { level: 1 })).toBeVisible();
  await expect(other.getByRole('alert').filter({ hasText: 'bench, ringing' })).toBeHidden();
  await other.context().close();
});

test('who does a step is chosen from the people of the shop, warned of what they may not run, and written down', async ({
  page,
  house,
}) => {
  const job = await begun(page, house, 'bench, people');
  await page.goto(`${house.url}/kit`);
  const people = page.getByRole('region', { name: 'People' });
  await people.getByRole('button', { name: 'Add a person' }).click();
  await people.getByLabel('Name of person 1').fill('Alder');
  await people.getByLabel(/^Alder, lifts alone/).fill('3');
  await page.keyboard.press('Enter');
  await people.getByText('May run all of them').click();
  await people
    .getByRole('checkbox', { name: /table saw/i })
    .first()
    .uncheck();
  await expect(people.getByText(/^May run \d+ of \d+$/)).toBeVisible();
  const inKit = async () => (await (await page.request.get(`${house.url}/api/kit`)).json()).shop.people ?? [];
  await expect.poll(async () => (await inKit())[0]?.runs?.length).toBeGreaterThan(0);
  await page.goto(`${house.url}${job}/bench?step=rip`);
  await page.getByRole('combobox', { name: 'Who does it' }).click();
  await page.getByRole('option', { name: 'Alder' }).click();
  await expect(page.getByText(/^Alder may not run .*: ask somebody who may\.$/)).toBeVisible();
  await benchField(page, 1).click();
  await expect(page.getByTestId('standing')).toContainText('(Alder)');
  await expect.poll(async () => (await onServer(page, house, job, 'rip')).work?.[0]?.who).toBe('Alder');
  // A panel of more than 3 lb is lifted with somebody.
  await page.goto(`${house.url}${job}/bench?step=flatten`);
  await expect(page.getByText(/Alder lifts 3(\.0)? lb alone: lift it with somebody/)).toBeVisible();
  // Names stay in the shop: the job holds who did it, and no list of people.
  const { build } = await (await page.request.get(`${house.url}/api${job}`)).json();
  expect(build.shop.people).toBeUndefined();
  await page.goto(`${house.url}/kit`);
  await people.getByRole('button', { name: 'Remove Alder' }).click();
  await expect.poll(inKit).toEqual([]);
});

test('a slice is lost at the bench: told by keyboard, a panel more is taken, its slices lie spread, and it stays in the record', async ({
  page,
  house,
}) => {
  const job = await begun(page, house, 'bench, failed', true);
  const build = async () => (await (await page.request.get(`${house.url}/api${job}`)).json()).build;
  await page.goto(`${house.url}${job}/bench?step=slice`);
  await benchField(page, 1).waitFor();
  await page.getByRole('button', { name: 'It failed …' }).focus();
  await page.keyboard.press('Enter');
  const window = page.getByRole('dialog');
  const show = window.getByRole('button', { name: 'Show the ways to go on' });
  // Nothing is asked of before it is said what it was, and which.
  await expect(show).toBeDisabled();
  await window.getByRole('radio', { name: 'A slice is lost' }).focus();
  await page.keyboard.press('Space');
  await expect(window.getByText('Press the pieces that it struck.')).toBeVisible();
  await window.getByRole('button', { name: 'Piece 4' }).focus();
  await page.keyboard.press('Space');
  await window.getByLabel(/^In your own words/).fill('dropped on the floor');
  await show.focus();
  await page.keyboard.press('Enter');
  const plan = window.getByRole('listitem').filter({ hasText: 'its slices spread among the others' });
  await expect(plan).toContainText('The piece comes out as asked.');
  await expect(plan).toContainText(/Wood.*more.*Work.*more.*Ready.*was/s);
  await plan.getByRole('button', { name: /^Take this way/ }).focus();
  await page.keyboard.press('Enter');
  await expect(window).toBeHidden();
  await expect(page.getByRole('list', { name: 'What failed here' })).toContainText(
    'dropped on the floor; way taken: One more panel',
  );
  await expect.poll(async () => (await build()).failures?.length).toBe(1);
  const after = await build();
  const parts = after.steps.find(({ id }: { id: string }) => id === 'glue-block').parts;
  expect(parts.some(({ piece }: { piece: string }) => piece === 'slice.4')).toBe(false);
  const fresh = parts.findIndex(({ piece }: { piece: string }) => piece.startsWith('slice-1.'));
  expect(fresh).toBe(Math.floor(parts.length / 2));
  // On the card of the step it stands as well; a size that cannot be read shows no ways.
  await page.goto(`${house.url}${job}?step=slice`);
  await expect(page.getByRole('list', { name: 'What failed here' })).toBeVisible();
  await page.getByRole('button', { name: 'Something failed here' }).click();
  await page.getByRole('dialog').getByRole('radio', { name: 'It came out too thin' }).check();
  await page.getByRole('dialog').getByRole('button', { name: 'Piece 1', exact: true }).click();
  await page.getByRole('dialog').getByLabel('Thickness that came out').fill('two hands');
  await page.keyboard.press('Tab');
  await expect(
    page.getByRole('dialog').getByRole('button', { name: 'Show the ways to go on' }),
  ).toBeDisabled();
  await page.keyboard.press('Escape');
});

test('a gauge on the network is offered to the field that waits, and taken by itself where that was said', async ({
  page,
  house,
  browser,
}) => {
  const job = await begun(page, house, 'bench, gauge', true);
  await page.goto(`${house.url}${job}/bench?step=slice`);
  await page.getByRole('button', { name: 'Piece by piece' }).click();
  await expect(page.getByText(/^Length, piece 1 of/)).toBeVisible();
  const planned = await field(page).evaluate((input: HTMLInputElement) => {
    const [whole, fraction = '0/1'] = input.placeholder.split(' ');
    const [top, bottom] = fraction.split('/').map(Number);
    return Number(whole) + top / bottom;
  });
  const send = async (value: number, unit = 'mm', gauge = 'Caliper 1') =>
    (
      await page.request.post(`${house.url}/api/gauges`, {
        headers: PROGRAM,
        data: { gauge, kind: unit === 'pct' ? 'moisture' : 'caliper', value: Number(value.toFixed(3)), unit },
      })
    ).status();
  // The page must listen before anything is sent.
  await expect
    .poll(async () => {
      await send(planned * 25.4);
      return page.getByTestId('gauge').count();
    })
    .toBe(1);
  const gauge = page.getByTestId('gauge');
  await expect(gauge).toContainText('Caliper 1');
  expect(await readings(page, house, job)).toHaveLength(0);
  await gauge.getByRole('button', { name: 'Take all from it here' }).click();
  await expect(page.getByText(/^Length, piece 2 of/)).toBeVisible();
  await expect(gauge).toContainText('Readings of Caliper 1 come in here.');
  // A bench of another job that said nothing is offered it, and takes nothing.
  const other = await (await browser.newContext({ serviceWorkers: 'block' })).newPage();
  await other.goto(`${house.url}${await demoJob(other, house, /Galley chopping block/)}/bench?step=slice`);
  await benchField(other, 1).waitFor();
  await page.waitForTimeout(1500);
  expect(await send(planned * 25.4)).toBe(200);
  await expect(page.getByText(/^Length, piece 3 of/)).toBeVisible();
  await expect(other.getByTestId('gauge').getByRole('button', { name: 'Take it' })).toBeVisible();
  await other.context().close();
  // Switched to the other unit: asked, and nothing is kept until somebody answers.
  await page.waitForTimeout(1500);
  expect(await send(planned, 'mm')).toBe(200);
  await expect(page.getByText('It looks like', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: /^You mean/ }).click();
  await expect(page.getByText(/^Length, piece 4 of/)).toBeVisible();
  // A meter that measures no size, and a flood, of which one is taken.
  expect(await send(8, 'pct', 'Meter')).toBe(200);
  await expect(gauge).toContainText('This is no size, and is not kept');
  await page.waitForTimeout(1500);
  const flood = await Promise.all(Array.from({ length: 40 }, () => send(planned * 25.4)));
  expect(flood.filter((status) => status === 429).length).toBeGreaterThan(0);
  // Of forty in a moment one fills a piece, or two where the moment was long: never one each.
  await expect.poll(async () => (await readings(page, house, job)).length).toBeGreaterThanOrEqual(4);
  await page.waitForTimeout(1500);
  expect((await readings(page, house, job)).length).toBeLessThanOrEqual(6);
  for (const each of await readings(page, house, job)) expect(each.gauge).toBe('Caliper 1');
  // The bench of gauges that comes with Junta sends the same.
  await page.goto(`${house.url}/gauges`);
  await page.getByRole('button', { name: 'Send a reading' }).click();
  await expect(page.getByRole('list', { name: 'Sent' }).getByRole('listitem')).toHaveCount(1);
});

test('what is no size is checked: judged with its number, from a gauge too, kept with the step and taken back', async ({
  page,
  house,
}) => {
  const job = await begun(page, house, 'bench, checked');
  await page.goto(`${house.url}${job}/bench?step=flatten`);
  await benchField(page, 1).waitFor();
  const check = page.getByRole('region', { name: 'Check' });
  const choose = async (name: string) => {
    await check.getByRole('combobox', { name: 'Check something else' }).click();
    await page.getByRole('option', { name }).click();
  };
  // Between two passes nothing is read: it is looked at once the step is done.
  while ((await check.count()) === 0) await benchField(page, 1).click();
  await choose('Moisture at the pins');
  await check.getByLabel(/^Moisture, %/).fill('wet');
  await check.getByRole('button', { name: 'Keep it' }).click();
  await expect(check.getByRole('alert')).toContainText('type a number');
  await check.getByLabel(/^Moisture, %/).fill('13');
  await page.keyboard.press('Enter');
  const list = check.getByRole('list', { name: 'What was checked' });
  await expect(list).toContainText('Not good enough. Moisture at the pins');
  await choose('Corner to corner');
  await check.getByLabel('First diagonal', { exact: false }).fill('20');
  await check.getByRole('button', { name: 'Keep it' }).click();
  await expect(check.getByRole('alert')).toContainText('Second diagonal');
  await check.getByLabel('Second diagonal', { exact: false }).fill('20');
  await check.getByRole('button', { name: 'Keep it' }).click();
  await expect(list.getByRole('listitem')).toHaveCount(2);
  await choose('Moisture at the pins');
  await expect
    .poll(async () => {
      const data = { gauge: 'Meter', kind: 'moisture', value: 8, unit: 'pct' };
      await page.request.post(`${house.url}/api/gauges`, { headers: PROGRAM, data });
      return check.getByTestId('gauge').count();
    })
    .toBe(1);
  await check.getByRole('button', { name: 'Take it' }).click();
  await check.getByRole('button', { name: 'Keep it' }).click();
  await expect(list.getByRole('listitem')).toHaveCount(3);
  await expect
    .poll(async () => (await (await page.request.get(`${house.url}/api${job}`)).json()).build.checks?.length)
    .toBe(3);
  await list.getByRole('button', { name: /^Take back: Corner/ }).click();
  await expect(list.getByRole('listitem')).toHaveCount(2);
});

test.describe('in the hand', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test('sizes are read by keys, piece by piece, with the server away; what cannot be is asked about', async ({
    page,
    house,
  }) => {
    const job = await begun(page, house, 'bench, read');
    await page.goto(`${house.url}${job}/bench?step=rip`);
    await page.getByRole('button', { name: 'Piece by piece' }).tap();
    await expect(page.getByText(/^Width, piece 1 of/)).toBeVisible();
    await page.route('**/api/**', (route) => route.abort());
    const pieces = page.getByRole('list', { name: 'Pieces' }).getByRole('button');
    const count = await pieces.count();
    // The first as planned, the second by a key next to the plan, the others by digits: the next one comes by itself.
    await page.getByRole('button', { name: 'As planned' }).tap();
    await expect(page.getByText(`Width, piece 2 of ${count}`)).toBeVisible();
    await page.getByRole('button', { name: 'Keys' }).tap();
    await page.getByRole('group', { name: 'Near the plan' }).getByRole('button').nth(1).tap();
    await expect(page.getByText(`Width, piece 3 of ${count}`)).toBeVisible();
    const keys = page.getByRole('group', { name: 'Keys', exact: true });
    for (const key of ['9', '0', '0']) await keys.getByRole('button', { name: key, exact: true }).tap();
    await keys.getByRole('button', { name: 'Rub out' }).tap();
    await keys.getByRole('button', { name: 'Enter' }).tap();
    // 90 inches wide no strip is.
    await expect(page.getByText(/more than planned/)).toBeVisible();
    await page.getByRole('button', { name: 'Measure again' }).tap();
    await expect(field(page)).toHaveValue('');
    // As from a gauge that types: digits and Enter into the field that waits.
    const planned = await field(page).evaluate((input: HTMLInputElement) => {
      const [whole, fraction = '0/1'] = input.placeholder.split(' ');
      const [top, bottom] = fraction.split('/').map(Number);
      return Number(whole) + top / bottom;
    });
    await field(page).focus();
    await page.keyboard.type(`${(planned * 25.4).toFixed(2)}`);
    await page.keyboard.press('Enter');
    await expect(page.getByText('It looks like millimetres.')).toBeVisible();
    await page.getByRole('button', { name: /^You mean/ }).tap();
    await expect(page.getByText('3 readings of single pieces')).toBeVisible();
    await field(page).fill('two hands');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('alert').filter({ hasText: 'two hands' })).toBeVisible();
    await expect(page.getByTestId('unsent')).toBeVisible();
    await page.unroute('**/api/**');
    await expect.poll(async () => (await readings(page, house, job)).length).toBe(3);
    const kept = await readings(page, house, job);
    expect(new Set(kept.map(({ piece }: { piece: string }) => piece)).size).toBe(3);
    for (const { taken } of kept) expect(Date.parse(taken)).toBeGreaterThan(0);
  });
});
