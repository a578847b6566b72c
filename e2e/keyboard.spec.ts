import { execFileSync } from 'node:child_process';
import type { Locator, Page } from '@playwright/test';
import { chosen, demoJob, expect, makeJob, mark, openJob, put, stored, test } from './house';

const focused = (page: Page): Locator => page.locator(':focus');
const strip = (page: Page, nth: number) => page.locator(`[data-strip="${nth}"]`);

/** Presses Tab until something has the focus; gives how often. */
async function tabsTo(page: Page, what: Locator, most: number): Promise<number> {
  for (let tabs = 1; tabs <= most; tabs++) {
    await page.keyboard.press('Tab');
    if (await what.evaluate((element) => element === document.activeElement).catch(() => false)) return tabs;
  }
  throw new Error(
    `not reached in ${most} tabs; at ${await focused(page).evaluate((e) => e.outerHTML.slice(0, 160))}`,
  );
}

test('the main path by keyboard alone, and where the focus is after each act', async ({ page, house }) => {
  await page.goto(`${house.url}/jobs`);
  await expect(page.getByRole('link', { name: 'New job' })).toBeVisible();
  await page.keyboard.press('Tab');
  await expect(focused(page)).toHaveText('To the work');
  await page.keyboard.press('Enter');
  await expect(page.locator('main')).toBeFocused();
  await tabsTo(page, page.getByRole('link', { name: 'New job' }), 6);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'New job', level: 1 })).toBeFocused();
  await page.getByLabel('Name').focus();
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type('No mouse');
  await page.getByRole('button', { name: 'Make this job' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'No mouse', level: 1 })).toBeFocused();
  await expect(strip(page, 1)).toBeVisible();

  // To the stick by its skip link, along it by arrows.
  for (let i = 0; i < 3; i++) await page.keyboard.press('Shift+Tab');
  await expect(focused(page)).toHaveText('To the stick');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('navigation', { name: 'Story stick' })).toBeFocused();
  await page.keyboard.press('Tab');
  await expect(chosen(page)).toBeFocused();
  await page.keyboard.press('Home');
  await expect(mark(page, 'rip')).toBeFocused();
  await expect(mark(page, 'rip')).toHaveAttribute('aria-current', 'step');
  while (!(await mark(page, 'glue').evaluate((each) => each === document.activeElement)))
    await page.keyboard.press('ArrowRight');
  await expect(mark(page, 'glue')).toHaveAttribute('aria-current', 'step');

  // Strips: one stop of the Tab key, arrows from one to the next; Enter chooses and carries nothing.
  await tabsTo(page, strip(page, 1), 5);
  await page.keyboard.press('ArrowDown');
  await expect(strip(page, 2)).toBeFocused();
  await expect(strip(page, 2)).toHaveAttribute('aria-pressed', 'true');
  const said = page.getByTestId('carrying');
  await page.keyboard.press('Enter');
  await page.waitForTimeout(300);
  await expect(said).toHaveText('');
  const id = await strip(page, 2).getAttribute('data-id');
  await page.keyboard.press('Space');
  await expect(said).toContainText('Strip 2 taken up from place 2.');
  await page.keyboard.press('ArrowDown');
  await expect(said).toContainText('Strip 2 is over place 3 of');
  await page.keyboard.press('Space');
  await expect(said).toContainText('laid down at place 3');
  await expect(strip(page, 3)).toHaveAttribute('data-id', id ?? '');
  await expect(strip(page, 3)).toBeFocused();

  // From the strip to its width.
  expect(await tabsTo(page, page.getByLabel('Ripped width'), 5)).toBeLessThanOrEqual(5);
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type('2 1/2');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Ripped width')).toBeFocused();
  // Jointing takes 1/16 off its edges.
  await expect(strip(page, 3)).toHaveAccessibleName(/2 7\/16 in wide/);

  // Taken away and doubled, the focus stays among the strips.
  await strip(page, 3).focus();
  const count = await page.locator('[data-strip]').count();
  await page.keyboard.press('d');
  await expect(page.locator('[data-strip]')).toHaveCount(count + 1);
  await expect(focused(page)).toHaveAttribute('data-strip', /./);
  await strip(page, count + 1).focus();
  await page.keyboard.press('Delete');
  await expect(page.locator('[data-strip]')).toHaveCount(count);
  await expect(strip(page, count)).toBeFocused();

  // Windows give the focus back to where it was.
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(strip(page, count)).toBeFocused();
  await mark(page, 'glue').focus();
  await put(page, 'rest');
  await expect(focused(page)).toHaveAttribute('data-step', /./);
  await chosen(page).focus();
  await page.keyboard.press('Delete');
  await expect(page.locator('[data-step^="rest"]')).toHaveCount(0);
  await expect(chosen(page)).toBeFocused();
  await stored(page);

  await page.getByRole('link', { name: 'Calendar' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Calendar', level: 1 })).toBeFocused();
  await expect(page.getByRole('main')).toContainText('No mouse');
});

/** What e2e/said.ts gives. */
interface Timeline {
  marks: { step: string; says: string[] }[];
  strips: string[];
  findings: string[][];
  firstWidth: string;
}

test('what is said of marks, strips, findings and clamps is what the timeline has', async ({
  page,
  house,
}) => {
  for (const name of ['Boathouse bench top', 'Galley chopping block']) {
    await openJob(page, house, name);
    const address = new URL(page.url()).pathname;
    const { build } = await (await page.request.get(`${house.url}/api${address}`)).json();
    const { display } = (await (await page.request.get(`${house.url}/api/kit`)).json()).shop;
    await mark(page, 'glue').click();
    await expect(strip(page, 1)).toBeVisible();
    const timeline = JSON.parse(
      execFileSync(process.execPath, ['--import', 'tsx', 'e2e/said.ts'], {
        input: JSON.stringify({ build, display, step: 'glue' }),
        encoding: 'utf8',
      }),
    ) as Timeline;
    for (const { step, says } of timeline.marks) {
      // Marks of another line are not drawn while it lies folded.
      if ((await mark(page, step).count()) === 0) continue;
      const told = await mark(page, step).getAttribute('aria-label');
      for (const words of says) expect(told).toContain(words);
    }
    expect(timeline.strips.length).toBeGreaterThan(2);
    expect(timeline.strips[0]).toContain(`${timeline.firstWidth} wide`);
    for (const [i, said] of timeline.strips.entries())
      await expect(strip(page, i + 1)).toHaveAccessibleName(said);
    await page.keyboard.press('f');
    const dialog = page.getByRole('dialog');
    await expect(dialog).toBeVisible();
    await expect(dialog.getByRole('heading', { level: 3 })).toHaveCount(timeline.findings.length);
    for (const words of timeline.findings.flat()) await expect(dialog).toContainText(words);
    await page.keyboard.press('Escape');
    await mark(page, 'glue').click();
    await page.getByRole('tab', { name: 'Clamps' }).click();
    const clamps = page.locator('[data-clamp]');
    await expect(clamps.first()).toBeVisible();
    const orders = await clamps.evaluateAll((all) =>
      all.map((each) => each.getAttribute('aria-label') ?? ''),
    );
    for (const said of orders) expect(said).toMatch(/^Clamp \d+, (above|below), .+ from the end$/);
    expect(new Set(orders).size).toBe(orders.length);
  }
});

test('the signs on joints have a legend, and a sentence each', async ({ page, house }) => {
  await page.goto(house.url + (await demoJob(page, house, /Boathouse bench top/)));
  await mark(page, 'glue').click();
  await page.getByRole('button', { name: 'Joints' }).click();
  const first = page.locator('[data-joint="1"]');
  await expect(first).toHaveAccessibleName(/^Strips 1 and 2: colours \d+ apart; /);
  await page.getByRole('button', { name: 'What the signs say' }).click();
  const dialog = page.getByRole('dialog', { name: 'What the signs on the joints say' });
  const lines = dialog.getByRole('list', { name: 'Joints' }).getByRole('listitem');
  await expect(lines).toHaveCount(await page.locator('[data-joint]').count());
  await expect(lines.first()).toHaveText((await first.getAttribute('aria-label')) ?? '');
});

test('the whole of a lay-up can be made with the keyboard', async ({ page, house }) => {
  await makeJob(page, house, true, 'no mouse');
  await page.locator('#mark-glue-block').focus();
  for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowLeft');
  await expect(mark(page, 'glue')).toHaveAttribute('aria-current', 'step');
  await expect(page.locator('[data-strip]')).toHaveCount(8);
  await strip(page, 1).focus();
  await page.keyboard.press('d');
  await expect(page.locator('[data-strip]')).toHaveCount(9);
  await page.keyboard.press('Delete');
  await expect(page.locator('[data-strip]')).toHaveCount(8);
  const thickness = page.getByLabel('Thickness', { exact: true });
  await strip(page, 3).focus();
  await thickness.focus();
  await page.keyboard.press('ArrowUp');
  await expect(page.locator('[data-code="thickness-step"]')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.locator('[data-code="thickness-step"]')).toHaveCount(0);
});

test('what is typed stands where it is typed: in the middle of a name, and in a number letter by letter', async ({
  page,
  house,
}) => {
  await page.goto(`${house.url}/kit`);
  const name = page.getByLabel('Name of saw 1');
  const before = await name.inputValue();
  await name.press('Home');
  await name.press('ArrowRight');
  await page.keyboard.type('our own t');
  await expect(name).toHaveValue(`${before[0]}our own t${before.slice(1)}`);
  for (let i = 0; i < 9; i++) await page.keyboard.press('Backspace');
  await expect(name).toHaveValue(before);
  // On the way from 1.25 to 1.5 it says “1.”, which is a number already.
  const turn = page.getByLabel('Turn to a joint');
  const was = await turn.inputValue();
  await turn.press('ControlOrMeta+a');
  await page.keyboard.type('1.25');
  await page.keyboard.press('Backspace');
  await page.keyboard.press('Backspace');
  await expect(turn).toHaveValue('1.');
  await page.keyboard.type('5');
  await expect(turn).toHaveValue('1.5');
  await page.keyboard.press('Backspace');
  await page.keyboard.press('Tab');
  await expect(turn).toHaveValue('1');
  await turn.fill(was);
  // Enter takes it and stays in the field; what cannot be is answered, and the last good one counts.
  const shop = page.getByLabel('Name of the shop');
  const called = await shop.inputValue();
  for (const next of ['The other shed', called]) {
    await shop.fill(next);
    await shop.press('Enter');
    await expect(shop).toBeFocused();
    await expect
      .poll(async () => (await (await page.request.get(`${house.url}/api/kit`)).json()).shop.name)
      .toBe(next);
  }
  const settles = page.getByLabel('Wood in this shop settles at, %');
  const pct = await settles.inputValue();
  await settles.fill('55');
  await settles.press('Enter');
  await expect(settles).toBeFocused();
  await expect(page.getByRole('alert').filter({ hasText: 'from 0 to 30' })).toBeVisible();
  await settles.fill(pct);
  await settles.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'from 0 to 30' })).toHaveCount(0);
});
