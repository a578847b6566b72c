import type { Page } from '@playwright/test';
import { chosen, comesOut, expect, freeJob, makeJob, newLine, openJob, put, stored, test } from './house';

const marks = (page: Page) =>
  page.locator('[data-step]').evaluateAll((all) => all.map((each) => each.getAttribute('data-step') ?? ''));

/** Begins a line with strips: from the empty bench, or from the menu of the chosen step. */
async function line(
  page: Page,
  name: string,
  widths: string,
  thickness: string,
  length = '30',
): Promise<void> {
  const dialog = await newLine(page);
  await dialog.getByLabel('Name').fill(name);
  await dialog.getByLabel('Widths').fill(widths);
  await dialog.getByLabel('Length').fill(length);
  await dialog.getByLabel('Thickness').fill(thickness);
  await dialog.getByRole('button', { name: 'Begin this line' }).click();
  await expect(dialog).toHaveCount(0);
  await expect(chosen(page)).toHaveAttribute('data-step', /^rip/);
}

test('a bench top with a hardwood skin on three softwood sections, from an empty job', async ({
  page,
  house,
}) => {
  await freeJob(page, house, 'Skinned bench top');
  for (const name of ['Section 1', 'Section 2', 'Section 3']) {
    await line(page, name, '3 x 2 1/2', '2');
    await put(page, 'glue');
  }
  await line(page, 'Skin', '9 x 2 1/2', '1/2');
  await put(page, 'glue');
  // The three sections in one glue-up behind the first of them; the skin lies on the bench until it is laid on.
  await page.getByRole('button', { name: /^Section 1/ }).click();
  await put(page, 'glue');
  for (const from of ['Section 2', 'Section 3'])
    await page
      .getByTestId('tray')
      .locator('> div', { hasText: from })
      .getByRole('button', { name: 'Lay in' })
      .click();
  await expect(page.getByLabel('Step').getByText('3 parts along the width')).toBeVisible();
  await put(page, 'glue');
  await page.getByText('On one another').click();
  await page
    .getByTestId('tray')
    .locator('> div', { hasText: 'Skin' })
    .getByRole('button', { name: 'Lay in' })
    .click();
  await expect(page.getByLabel('Step').getByText('2 parts along the thickness')).toBeVisible();
  await expect(page.getByTestId('tray')).toHaveCount(0);
  await expect
    .poll(() => comesOut(page))
    .toEqual(['30', '22 1/2', '2 1/2'].map((text) => expect.stringContaining(text.split(' ')[0])));
  await stored(page);
  await page.reload();
  await expect(page.getByRole('button', { name: /^Skin 30/ })).toContainText('glued in');
});

test('a rest and a second milling are put into a panel and taken out again, by keyboard alone', async ({
  page,
  house,
}) => {
  await makeJob(page, house, false, 'By keys');
  const before = await marks(page);
  await page.locator('[data-step="mill"]').focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('a');
  await expect(page.locator('[data-line]').first()).toBeFocused();
  await page.keyboard.press('End');
  await expect(page.locator('[data-line="outside"]')).toBeFocused();
  await page.keyboard.press('ArrowUp');
  await expect(page.locator('[data-line="rest"]')).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(chosen(page)).toHaveAttribute('data-step', 'rest-1');
  await chosen(page).focus();
  await page.keyboard.press('a');
  await expect(page.locator('[data-line="mill"]')).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(chosen(page)).toHaveAttribute('data-step', 'mill-1');
  const at = before.indexOf('mill') + 1;
  expect(await marks(page)).toEqual(before.toSpliced(at, 0, 'rest-1', 'mill-1'));
  await stored(page);
  // Left out, it takes nothing; taken out, it is gone; undo brings it back.
  await chosen(page).focus();
  await page.keyboard.press('o');
  await expect(chosen(page)).toContainText('left out');
  await page.keyboard.press('Delete');
  await expect(page.locator('[data-step="mill-1"]')).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(page.locator('[data-step="mill-1"]')).toContainText('left out');
  await page.locator('[data-step="mill-1"]').focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Delete');
  await expect(page.locator('[data-step="mill-1"]')).toHaveCount(0);
  await page.locator('[data-step="rest-1"]').focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Delete');
  await expect.poll(() => marks(page)).toEqual(before);
});

test('two strips of a lamination stay out, are cut shorter and glued in later', async ({ page, house }) => {
  await openJob(page, house, 'tiller');
  const strips = await page.evaluate(() => document.querySelectorAll('[data-strip]').length);
  await page.locator('[data-step]').first().click();
  await chosen(page).focus();
  await page.keyboard.press('a');
  const dialog = page.getByRole('dialog');
  await dialog.getByText(/^All \d+ pieces$/).click();
  const boxes = dialog.getByRole('checkbox');
  const count = await boxes.count();
  for (let i = 1; i < count - 1; i++) await boxes.nth(i).click();
  await expect(dialog.getByText(`Only 2 of ${count} pieces, which go another way`)).toBeVisible();
  await dialog.locator('[data-line="crosscut"]').click();
  await expect(page.getByLabel('Step').getByRole('heading', { name: 'Crosscut' })).toBeVisible();
  await page.getByLabel('Length', { exact: true }).fill('12');
  await page.getByLabel('Length', { exact: true }).press('Enter');
  // Back on the main line: a second glue-up takes what lies on the bench.
  const others = page.getByRole('navigation', { name: 'Story stick' }).locator('> button');
  await others.filter({ hasNotText: '2 of' }).first().click();
  await page.locator('[data-step^="glue"]').first().click();
  await put(page, 'glue');
  await page.getByTestId('tray').getByRole('button', { name: 'Lay in' }).click();
  await expect(page.getByLabel('Step').getByText('3 parts along the width')).toBeVisible();
  await stored(page);
  expect(strips).toBeGreaterThan(0);
});

test('four legs, two rails and a top are one job with one breakdown and one calendar', async ({
  page,
  house,
}) => {
  await freeJob(page, house, 'Small table');
  await line(page, 'Legs', '2 1/2', '2 1/2', '28');
  await line(page, 'Rails', '4', '1', '30');
  await line(page, 'Top', '8 x 3', '1', '36');
  await put(page, 'glue');
  await page.getByRole('button', { name: 'What is wanted' }).click();
  const wanted = page.getByRole('dialog', { name: 'What is wanted' });
  await wanted.getByLabel('What it is').fill('Leg');
  await wanted.getByLabel('How many').fill('4');
  for (const [nth, name, many] of [
    [2, 'Rail', '2'],
    [3, 'Top', '1'],
  ] as const) {
    await wanted.getByRole('button', { name: 'Another piece' }).click();
    const piece = wanted.getByRole('group', { name: `Piece ${nth}` });
    await piece.getByLabel('What it is').fill(name);
    await piece.getByLabel('How many').fill(many);
    await piece.getByRole('combobox', { name: 'Comes out of' }).click();
    await page.getByRole('option', { name: name === 'Rail' ? /Rails/ : /Glue-up/ }).click();
  }
  await expect(wanted.getByText(/^4 pieces: .* gone through 4 times/)).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Rails/ }).click();
  await expect(page.getByTestId('target')).toContainText('Rail, 2 wanted');
  await stored(page);
  const id = page.url().split('/').at(-1);
  const { build } = await (await page.request.get(`${house.url}/api/jobs/${id}`)).json();
  expect(
    build.targets.map(({ purpose, quantity }: { purpose: string; quantity: number }) => [purpose, quantity]),
  ).toEqual([
    ['Leg', 4],
    ['Rail', 2],
    ['Top', 1],
  ]);
  // One breakdown: four legs, two rails and eight strips of the top.
  await page.getByRole('link', { name: 'Wood' }).click();
  await expect(page.getByRole('main')).toContainText('14');
  await page.getByRole('link', { name: 'Calendar' }).click();
  await expect(page.getByRole('main')).toContainText('Small table');
});
