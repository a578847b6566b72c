import { readFileSync } from 'node:fs';
import { expect, mark, PROGRAM, test, type } from './house';

const every = JSON.parse(readFileSync('contract/samples/2/every-kind-of-step.junta.json', 'utf8'));
const stepOf = (kind: string) => every.steps.find((step: { kind: string }) => step.kind === kind);

test('a file of an older version opens, with a step of a kind nobody knows kept and said', async ({
  page,
  house,
}) => {
  const old = JSON.parse(readFileSync('contract/samples/1/chart-table-top.junta.json', 'utf8'));
  const last = old.steps.at(-1);
  old.name = 'From elsewhere';
  old.steps.push({
    id: 'carve',
    kind: 'carving',
    inputs: [last.output],
    output: 'carved',
    gouge: { sweep: 7 },
  });
  await page.goto(`${house.url}/jobs`);
  await page.locator('input[type=file]').setInputFiles({
    name: 'old.json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify(old)),
  });
  await expect(page.getByTestId('bench')).toBeVisible();
  await mark(page, 'carve').click();
  await expect(page.locator('[data-code="unknown-step"]')).toContainText('carving');
  const id = page.url().split('/').at(-1);
  const { build } = await (await page.request.get(`${house.url}/api/jobs/${id}`)).json();
  expect(build.version).toBe(2);
  expect(build.steps.at(-1)).toEqual(old.steps.at(-1));
});

test('leaves are taken hold of one by one, and every kind has its settings on the card', async ({
  page,
  house,
}) => {
  const made = await page.request.post(`${house.url}/api/jobs`, {
    headers: PROGRAM,
    data: { build: { ...every, name: 'Every kind' } },
  });
  expect(made.status()).toBe(201);
  await page.goto(`${house.url}/jobs/${(await made.json()).id}`);
  await expect(page.getByTestId('bench')).toBeVisible();
  const resaw = stepOf('resaw');
  await mark(page, resaw.id).click();
  await expect(page.getByLabel('Leaves', { exact: true })).toHaveValue('2');
  await page.getByRole('button', { name: /^Leaf 2/ }).click();
  await page.getByRole('button', { name: /^Spoilt/ }).click();
  await expect(page.getByRole('button', { name: /^Leaf 2/ })).toHaveCount(0);
  const shape = stepOf('shape');
  await mark(page, shape.id).click();
  await page.getByRole('button', { name: 'Draw the outline' }).click();
  const outline = page.getByRole('dialog', { name: 'Outline' });
  const last = shape.outline.length;
  await outline.getByRole('button', { name: 'Corner before' }).click();
  await expect(outline.getByText(`Corner ${last} of ${last}`)).toBeVisible();
  await type(outline.getByLabel('From the left end', { exact: true }), '4');
  await outline.getByRole('button', { name: `Remove corner ${last}` }).click();
  await expect(outline.getByText(`Corner ${last - 1} of ${last - 1}`)).toBeVisible();
  await page.keyboard.press('Escape');
  await mark(page, stepOf('rest').id).click();
  await expect(page.getByLabel('Hours of rest', { exact: true })).toHaveValue('12');
  await mark(page, stepOf('outside').id).click();
  await type(page.getByLabel('Days until it is back', { exact: true }), '9');
});
