import type { Page } from '@playwright/test';
import { chosen, expect, freeJob, type House, makeJob, newLine, put, stored, test } from './house';

async function have(page: Page, name: string, wood: string, sizes: readonly [string, string, string]) {
  const dialog = await newLine(page);
  await dialog.getByText('What I have').click();
  await dialog.getByLabel('Name').fill(name);
  await dialog.getByRole('combobox', { name: 'Wood', exact: true }).click();
  await page.getByRole('option', { name: wood }).click();
  for (const [i, label] of ['Length', 'Width', 'Thickness'].entries())
    await dialog.getByLabel(label).fill(sizes[i]);
  await dialog.getByLabel('How many').fill('1');
  await dialog.getByRole('button', { name: 'Begin this line' }).click();
  await expect(dialog).toHaveCount(0);
  await expect(chosen(page)).toHaveAttribute('data-step', /^have/);
}

const build = async (page: Page, house: House) => {
  await stored(page);
  const id = new URL(page.url()).pathname.split('/')[2];
  return (await (await page.request.get(`${house.url}/api/jobs/${id}`)).json()).build;
};

test('a board glued on plywood is said, with how far it moves; parts that lie beneath are chosen by name', async ({
  page,
  house,
}) => {
  await freeJob(page, house, 'Board on a sheet');
  await have(page, 'Sheet', 'Birch plywood', ['24', '14', '3/4']);
  await have(page, 'Board', 'White oak', ['24', '14', '3/4']);
  await put(page, 'glue');
  await page.getByTestId('tray').getByRole('button', { name: 'Lay in' }).click();
  await page.getByText('On one another').click();
  const finding = page.locator('[data-code="wood-on-sheet"]');
  await expect(finding).toContainText(
    /birch plywood over 14\s*in: over a change of 4 % moisture the wood wants to move/,
  );
  const parts = page.getByRole('region', { name: 'Parts' });
  const lowest = parts.getByRole('listitem').first().getByRole('button');
  await lowest.click();
  await expect(lowest).toHaveAttribute('aria-pressed', 'true');
  await expect(parts.getByText(/^Part 1, /)).toBeVisible();
  // Side by side there is a gap to leave open.
  await page.getByText('Side by side').click();
  await parts.getByRole('listitem').nth(1).getByRole('button').click();
  await parts.getByLabel('Gap before it').fill('2');
  await parts.getByLabel('Gap before it').press('Enter');
  await expect(parts.getByText(/A spacer of 2 in holds it open/)).toBeVisible();
  await expect(page.getByTestId('target')).toContainText('30');
  const { steps } = await build(page, house);
  const glue = steps.find(({ kind }: { kind: string }) => kind === 'glue');
  expect(glue.parts[1].place).toEqual({ spacer: expect.objectContaining({ mm: 50.8 }) });
});

test('a second pattern is planned into a job and laid on the first', async ({ page, house }) => {
  await makeJob(page, house, false, 'Panel with a match');
  await page.locator('[data-step]').first().click();
  const dialog = await newLine(page);
  await dialog.getByText('A pattern').click();
  await dialog.getByText('Matched leaves').click();
  await dialog.getByLabel('Name of the piece').fill('Skin');
  await expect(dialog.getByText(/^Comes out at/)).toBeVisible();
  await dialog.getByLabel('Length, finished').fill('32');
  await dialog.getByLabel('Width, finished').fill('11 1/2');
  await dialog.getByRole('button', { name: 'Put it into this job' }).click();
  await expect(dialog).toHaveCount(0);
  const before = await build(page, house);
  expect(before.targets.map(({ purpose }: { purpose: string }) => purpose)).toContain('Skin');
  await page.locator('[data-step="trim"]').click();
  await put(page, 'glue');
  await page.getByText('On one another').click();
  await page
    .getByTestId('tray')
    .locator('> div', { hasText: 'nobody takes it yet' })
    .getByRole('button', { name: 'Lay in' })
    .click();
  await expect(page.getByLabel('Step').getByText('2 parts along the thickness')).toBeVisible();
});

test('three of a piece get boards and readings of their own; widths of a lay-up are typed in one line', async ({
  page,
  house,
}) => {
  await makeJob(page, house, false, 'Three alike');
  await page.getByRole('button', { name: 'What is wanted' }).click();
  const wanted = page.getByRole('dialog', { name: 'What is wanted' });
  await wanted.getByLabel('How many').fill('3');
  await wanted.getByRole('button', { name: 'Each with boards and readings of its own' }).click();
  await expect(wanted.getByLabel('Made at once')).toHaveValue('3');
  await page.keyboard.press('Escape');
  const each = await build(page, house);
  const alone = each.assemblies[0].slots.length / 3;
  expect(alone).toBe(5);
  expect(each.steps.find(({ kind }: { kind: string }) => kind === 'glue').blanks).toBe(3);
  await page.keyboard.press('Control+z');
  await page.locator('[data-step="rip"]').click();
  await page.getByText('Widths in one line, and matched sets').click();
  const line = page.getByLabel(/^Ripped widths/);
  await expect(line).toHaveValue('5 x 2 7/16');
  await line.fill('2 x (2, 3), 2 1/2, 1');
  await expect(page.getByText('adds 1 strip like the last')).toBeVisible();
  await page.getByRole('button', { name: 'Set these widths' }).click();
  await expect(line).toHaveValue('2, 3, 2, 3, 2 1/2, 1');
  await page.getByLabel('One matched set').fill('2, 3');
  await expect(
    page.getByText(/^2 whole sets\. Over: 1 of 2 1\/2 in, 1 of 1 in\..*missing: 1 of 2 in, 1 of 3 in/),
  ).toBeVisible();
  await line.fill('2, banana');
  await expect(page.getByText(/“banana”/)).toBeVisible();
});

test('wood sold as 2x8 is said with its real size, and strips of that width come exactly so', async ({
  page,
  house,
}) => {
  await page.goto(`${house.url}/jobs/new`);
  await page.getByLabel('Wood sold as').fill('2x8');
  await expect(page.getByText(/really 1 1\/2 in × 7 1\/4 in/)).toBeVisible();
  await expect(page.getByText(/^✓ This plan comes out of it/)).toBeVisible();
  await page.getByRole('button', { name: 'Strips of that width' }).click();
  await expect(page.getByLabel('Strip width')).toHaveValue('6 15/16');
  await page.getByLabel('Thickness, finished').fill('1 3/4');
  await expect(page.getByText(/^✕ This plan saws strips/)).toBeVisible();
  await page.getByRole('button', { name: /^Make it .* thick$/ }).click();
  await expect(page.getByText(/^✓ This plan comes out of it/)).toBeVisible();
  await page.getByLabel('Wood sold as').fill('2y8');
  await expect(page.getByText(/is no size that wood is sold by/)).toBeVisible();
});

test('a board on the rack says its leaves and pairs, by saw and thickness', async ({ page, house }) => {
  await page.goto(`${house.url}/rack`);
  await page.getByRole('row').nth(2).click();
  const leaves = page.getByRole('region', { name: 'Resawn into leaves' });
  await leaves.getByLabel('Leaf, as sawn').fill('1/4');
  await expect(leaves.getByText(/\d+ lea(f|ves), \d+ pairs? that open as a book/)).toBeVisible();
});
