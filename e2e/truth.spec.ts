import { execFileSync } from 'node:child_process';
import type { Page } from '@playwright/test';
import { comesOut, expect, mark, openJob, stored, test, type, type House } from './house';

const tab = (page: Page, name: string) => page.getByRole('tab', { name: new RegExp(`^${name}`) }).click();
const finding = (page: Page, code: string) => page.locator(`[data-code="${code}"]`);
const choose = async (page: Page, label: string, option: string | RegExp) => {
  await page.getByLabel(label, { exact: true }).click();
  await page.getByRole('option', { name: option }).click();
};

/** A job of its own from a pattern, sized by its fields. */
async function brief(page: Page, house: House, pattern: string, name: string, sizes: Record<string, string>) {
  await page.goto(`${house.url}/jobs/new?pattern=${pattern}`);
  await page.getByLabel('Name').fill(name);
  for (const [label, text] of Object.entries(sizes))
    await type(page.getByLabel(label, { exact: true }), text);
}
const make = async (page: Page) => {
  await page.getByRole('button', { name: 'Make this job' }).click();
  await expect(page.getByTestId('bench')).toBeVisible();
};

test('a hollow noted after a glue-up says what flattening lacks, and the way out pays for it', async ({
  page,
  house,
}) => {
  await brief(page, house, 'panel', 'Hollow', {});
  await make(page);
  await mark(page, 'glue').click();
  await tab(page, 'After');
  await type(page.getByLabel('Gap under a straightedge across it'), '3/32');
  await mark(page, 'flatten').click();
  const said = finding(page, 'hollow-deeper-than-flattening');
  await expect(said).toContainText('A hollow of 3/32');
  await expect(said).toContainText('1/16');
  await said.getByRole('button', { name: /accept the thickness/ }).click();
  await expect(said).toHaveCount(0);
  expect((await comesOut(page))[2]).toContain('13/16');
  await stored(page);
});

test('a board resawn off the middle: one leaf’s gain is the other’s loss', async ({ page, house }) => {
  await brief(page, house, 'match', 'Off the middle', {});
  await make(page);
  await mark(page, 'resaw').click();
  await page.getByText('Enter a measurement').click();
  const leaves = page.getByRole('region', { name: 'Leaves measured' });
  await expect(leaves).toBeVisible();
  // 1 1/4 less 1/8 of milling and 1/16 of kerf are 1 1/16 for two leaves.
  await type(leaves.getByLabel('Leaf 1 measured'), '1/2');
  await expect(leaves.getByLabel('Leaf 2 measured')).toHaveValue('9/16');
  await type(leaves.getByLabel('Leaf 2 measured'), '9/16');
  await expect(finding(page, 'more-than-went-in')).toHaveCount(0);
  // More than went in is still refused, with the sum, and goes with the readings.
  await type(leaves.getByLabel('Leaf 2 measured'), '3/4');
  await expect(finding(page, 'more-than-went-in')).toContainText('more wood than went in');
  await finding(page, 'more-than-went-in').getByRole('button', { name: 'Take the readings back' }).click();
  await expect(finding(page, 'more-than-went-in')).toHaveCount(0);
});

test('a panel of seven strips split 3 + 3 + 1 passes its planer and keeps its size', async ({
  page,
  house,
}) => {
  await brief(page, house, 'panel', 'Three and one', {
    'Width, finished': '21',
    'Strip width': '3',
  });
  await choose(page, 'Flatten the panel with', 'Router sled');
  await make(page);
  const size = await comesOut(page);
  await mark(page, 'glue').click();
  await tab(page, 'Pace');
  await page.getByRole('button', { name: 'Ways to glue it up' }).click();
  const ways = page.getByRole('dialog', { name: 'Ways to glue it up' });
  await ways.getByRole('button', { name: 'Split at joint 3' }).click();
  await ways.getByRole('button', { name: 'Split at joint 6' }).click();
  await ways.getByRole('button', { name: 'Split into 3 + 3 + 1' }).click();
  await expect(mark(page, 'glue-section-2')).toBeVisible();
  await expect(mark(page, 'glue-section-3')).toHaveCount(0);
  for (const step of ['glue-flat-1', 'glue-flat-2', 'glue-flat-3']) {
    await mark(page, step).click();
    await expect(page.getByLabel('Flatten with', { exact: true })).toContainText('Planer');
    await expect(finding(page, 'wider-than-machine')).toHaveCount(0);
  }
  expect(await comesOut(page)).toEqual(size);
  await stored(page);
});

test('four panels alike are four glue-ups, one after another', async ({ page, house }) => {
  await brief(page, house, 'panel', 'Four alike', { 'How many alike': '4' });
  await expect(page.getByRole('region', { name: 'Plan' })).toContainText('4 come out at');
  await make(page);
  await mark(page, 'glue').click();
  await expect(finding(page, 'alike')).toContainText('4 pieces alike are glued up one by one');
  await tab(page, 'Clamps');
  await expect(page.getByText('4 blanks alike, clamps for all')).toBeVisible();
  await page.goto(`${house.url}/calendar`);
  await expect(page.getByText('Four alike').first()).toBeVisible();
});

test('a size that cannot be read stops the plan, and Enter in the name makes no job', async ({
  page,
  house,
}) => {
  await page.goto(`${house.url}/jobs/new`);
  const button = page.getByRole('button', { name: 'Make this job' });
  await expect(button).toBeEnabled();
  await page.getByLabel('Name').fill('Not yet');
  await page.getByLabel('Name').press('Enter');
  await expect(page).toHaveURL(/jobs\/new/);
  await type(page.getByLabel('Width, finished', { exact: true }), '1/0');
  await expect(button).toBeDisabled();
  await expect(page.getByRole('region', { name: 'Plan' })).toContainText(
    'Not planned until this can be read',
  );
  await type(page.getByLabel('Width, finished', { exact: true }), '12');
  await expect(button).toBeEnabled();
});

test('a length of the kit typed as it is shown becomes that', async ({ page, house }) => {
  await page.goto(`${house.url}/kit`);
  const step = page.getByLabel('Settings are rounded to', { exact: true });
  await type(step, '0.5 mm');
  await expect(step).toHaveAttribute('title', /0\.5 mm/);
  const shown = await step.inputValue();
  await step.fill('');
  await type(step, shown);
  await expect(step).not.toHaveAttribute('title', /= 0\.5 mm/);
  await type(step, '1/32');
  await expect(step).toHaveAttribute('title', /0\.03125 in/);
});

test('a printed sheet shows where aids go, and no two sheets carry one heading', async ({ page, house }) => {
  const url = await openJob(page, house, 'Chart-table top');
  await page.goto(`${url}/sheets`);
  await expect(page.getByRole('article').first()).toBeVisible();
  const headings = await page.getByRole('article').locator('h1').allTextContents();
  expect(new Set(headings).size).toBe(headings.length);
  const pdf = await page.pdf({ preferCSSPageSize: true });
  const text = execFileSync('pdftotext', ['-', '-'], { input: pdf, encoding: 'utf8' });
  expect(text).toMatch(/cauls across, dashed; middles from the left end: \d/);
});
