import type { Page } from '@playwright/test';
import { choose, expect, openJob, ownHouse, stored, test, type } from './house';

/* Openings, grooves, holes, hand holds and outlines: planned on a drawing, cut into the real wood, checked. */
let own: Awaited<ReturnType<typeof ownHouse>>;
test.beforeAll(async () => {
  own = await ownHouse();
});
test.afterAll(async () => {
  await own.close();
});

const finding = (page: Page, code: string) => page.locator(`[data-code="${code}"]`);
const row = (page: Page, name: RegExp) =>
  page.getByRole('dialog').getByRole('listitem').filter({ hasText: name });
/** Puts a step in after another by the round plus on the lath. */
async function putIn(page: Page, after: string, kind: string) {
  await page.getByRole('button', { name: `Add a step after ${after}` }).click();
  const line = page.locator(`[data-line="${kind}"]`);
  await expect(line).toBeEnabled();
  await line.click();
}

test('a counter with two openings, five boards and more: every place, wall and joint is told', async ({
  page,
}) => {
  await openJob(page, own.house, 'Wash-house counter');
  await page.locator('[data-step]').last().click();
  const card = page.getByRole('region', { name: 'What is cut' });
  await expect(card.getByRole('listitem')).toHaveCount(5);
  await expect(card).toContainText(/Opening for the sink.*crosses 4 joints/);
  await card.getByRole('button', { name: /Opening for the sink/ }).click();
  const dialog = page.getByRole('dialog', { name: 'What is cut' });
  await expect(dialog.locator('[data-feature="sink"]')).toHaveAttribute('aria-pressed', 'true');
  // Moved out of the counter by numbers: the wall is told, and where it breaks out a finding.
  await type(dialog.getByLabel('Across, to its middle'), '5');
  await expect(row(page, /Opening for the sink/)).toContainText('wall −1 1/4');
  await page.keyboard.press('Escape');
  const out = finding(page, 'feature-breaks-out');
  await expect(out).toContainText('1 1/4');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(out).toHaveCount(0);
});

test('an opening says how it is made, and a layout that clears is looked for', async ({ page }) => {
  await openJob(page, own.house, 'Wash-house counter');
  await page.locator('[data-step]').last().click();
  await page.getByRole('button', { name: /^3\. Opening for the sink/ }).click();
  const dialog = page.getByRole('dialog', { name: 'What is cut' });
  const made = dialog.getByRole('region', { name: 'How it is made' });
  await expect(made).toContainText('Bore the four corners first: holes of 2 in');
  await type(dialog.getByLabel('Round blade for the straight sides, diameter'), '6 1/2');
  await expect(made).toContainText('a hand saw finishes them');
  await dialog.getByText('Find a layout that clears').click();
  await dialog.getByLabel('The aids may be placed anew').check();
  await dialog.getByRole('button', { name: 'Look for it' }).click();
  await expect(dialog.getByText('It clears all aids and edges as it lies.')).toBeVisible();
  // Along a template: how much larger its opening is, told at once.
  await dialog.getByLabel('Along a template, with a bushing').check();
  await expect(made).toContainText('larger all round than the cut');
  await expect(dialog.getByText(/^Cut, it weighs .* lb and balances .* in from the left end/)).toBeVisible();
  // Every place stands on the drawing, told from the finished edges.
  await expect(dialog.locator('[data-ordinates]')).toContainText('16 1/2 in');
  await page.keyboard.press('Escape');
  for (let i = 0; i < 2; i++) await page.getByRole('button', { name: 'Undo', exact: true }).click();
});

test('a block gets a juice groove and hand holds: a hold too deep meets the groove, and one press mends it', async ({
  page,
}) => {
  const id = (await openJob(page, own.house, 'Galley chopping block')).split('/').pop();
  await putIn(page, 'Trim', 'feature');
  await page.getByRole('button', { name: 'Plan on the drawing' }).click();
  await choose(page, 'Add', 'Juice groove');
  await type(page.getByLabel('From the finished edge'), '15 mm');
  await type(page.getByLabel('Depth', { exact: true }), '12 mm');
  await choose(page, 'Add', 'Hand hold');
  await type(page.getByLabel('Height', { exact: true }), '18 mm');
  await type(page.getByLabel('Depth from the finished edge'), '16 mm');
  await type(page.getByLabel('Across, to its middle'), '10 mm');
  await page.keyboard.press('Escape');
  const meets = finding(page, 'features-meet');
  await expect(meets).toContainText('reaches into the other');
  await meets.getByRole('button', { name: 'Cut hand hold less deep' }).click();
  await expect(meets).toHaveCount(0);
  await stored(page);
  const { build } = await page.evaluate(async (job) => (await fetch(`/api/jobs/${job}`)).json(), id);
  const step = build.steps.find(({ kind }: { kind: string }) => kind === 'feature');
  expect(step.features.map(({ kind }: { kind: string }) => kind)).toEqual(['juice', 'handHold']);
});

test('a row of dog holes dragged over a joint is found, and dragged back it is not', async ({ page }) => {
  await openJob(page, own.house, 'Boathouse bench top');
  await putIn(page, 'Trim', 'feature');
  await page.getByRole('button', { name: 'Plan on the drawing' }).click();
  await choose(page, 'Add', 'Hole');
  await type(page.getByLabel('Diameter', { exact: true }), '3/4');
  await choose(page, 'Across, measured from', 'Near edge');
  await type(page.getByLabel('Across, to its middle'), '4 3/4');
  await choose(page, 'How many', 'So many in a row');
  await choose(page, 'Along, measured from', 'Left end');
  await type(page.getByLabel('Along, to its middle'), '4');
  const holes = page.locator('[data-feature] circle');
  await expect(holes).toHaveCount(4);
  const hole = row(page, /Hole/);
  await expect(hole).toContainText('clears a joint');
  // By hand: down over the joint 3 1/4 from the near edge.
  const box = await holes.first().boundingBox();
  const drawing = await page.locator('[data-features] rect').first().boundingBox();
  if (!box || !drawing) throw new Error('nothing is drawn');
  const perInch = drawing.height / 19.5;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 + 1.5 * perInch, { steps: 6 });
  await page.mouse.up();
  await expect(hole).toContainText('crosses 1 joint');
  // By keys: away from it again, ten steps of the shop at a time.
  await page.locator('[data-feature]').first().focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press('Shift+ArrowUp');
  await expect(hole).toContainText('clears a joint');
  await page.keyboard.press('Escape');
  await expect(finding(page, 'feature-on-joint')).toHaveCount(0);
});

test('what cannot be is answered with its number, and nothing is lost', async ({ page }) => {
  await openJob(page, own.house, 'Wash-house counter');
  await page.locator('[data-step]').last().click();
  await page.getByRole('button', { name: /^2\. Hole for the tap/ }).click();
  const dialog = page.getByRole('dialog');
  await type(dialog.getByLabel('What must pass through, diameter'), '2');
  await expect(dialog.getByRole('alert')).toContainText('2 in thick, and the hole is 1 3/8 in wide');
  await type(dialog.getByLabel('Diameter', { exact: true }), '-3');
  await expect(dialog.getByText('a length cannot be negative')).toBeVisible();
  await type(dialog.getByLabel('Diameter', { exact: true }), '2 1/4');
  await expect(dialog.getByRole('alert')).toHaveCount(0);
  await page.keyboard.press('Escape');
  for (let i = 0; i < 2; i++) await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await page.getByRole('button', { name: /^2\. Hole for the tap/ }).click();
  await expect(dialog.getByLabel('Diameter', { exact: true })).toHaveValue('1 3/8');
});

test('a handle and a blade: drawn corner by corner with arcs, what cannot be is said, and undone', async ({
  page,
}) => {
  await openJob(page, own.house, 'Chart-chest lid');
  await putIn(page, 'Trim', 'shape');
  await page.getByRole('button', { name: 'Draw the outline' }).click();
  const dialog = page.getByRole('dialog', { name: 'Outline' });
  await dialog.getByRole('button', { name: 'Begin with the four corners of the piece' }).click();
  await expect(dialog.locator('[data-corner]')).toHaveCount(4);
  await dialog.locator('[data-corner="2"]').click();
  const side = async (kind: string) => {
    await dialog.getByRole('combobox', { name: /^The side to corner/ }).click();
    await page.getByRole('option', { name: kind }).click();
  };
  await side('An arc, by how far it rises');
  await type(dialog.getByLabel('Rise, inwards with a minus'), '-2');
  await dialog.getByRole('combobox', { name: 'The corner is' }).click();
  await page.getByRole('option', { name: 'Round', exact: true }).click();
  // Between a straight side and an arc it stays sharp, and says so.
  await dialog.getByRole('button', { name: 'Corner before' }).click();
  await dialog.getByRole('combobox', { name: 'The corner is' }).click();
  await page.getByRole('option', { name: 'Cut off', exact: true }).click();
  await type(dialog.getByLabel('Along both sides'), '1');
  await dialog.locator('[data-corner="2"]').click();
  await type(dialog.getByLabel('Rise, inwards with a minus'), '9');
  await expect(dialog.getByRole('alert')).toContainText('half a circle');
  await page.keyboard.press('Escape');
  await expect(finding(page, 'outline-not-round')).toContainText('half a circle');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(finding(page, 'outline-not-round')).toHaveCount(0);
  await expect(finding(page, 'corner-left-sharp')).toContainText('Corner 2 stays sharp');
  // By keys alone: the corner moves, and the line says where to.
  await page.getByRole('button', { name: 'Draw the outline' }).click();
  const third = dialog.locator('[data-corner="3"]');
  const before = await third.getAttribute('aria-label');
  await third.focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(third).not.toHaveAttribute('aria-label', before ?? '');
});

test('an outline is read from a file, asks for its unit where the file has none, and is made as large as the piece gives', async ({
  page,
}) => {
  await openJob(page, own.house, 'Chart-chest lid');
  await putIn(page, 'Flatten', 'shape');
  await page.getByRole('button', { name: 'Draw the outline' }).click();
  const dialog = page.getByRole('dialog', { name: 'Outline' });
  const read = (name: string, text: string) =>
    dialog
      .getByLabel('A file with the outline')
      .setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });
  await read('broken.dxf', 'nothing of the kind');
  await expect(dialog.getByRole('status')).toContainText('broken.dxf');
  await read(
    'handle.svg',
    '<svg width="200" viewBox="0 0 200 80"><path d="M0 0H120Q200 40 120 80H0Z"/></svg>',
  );
  await expect(dialog.getByRole('status')).toContainText('Choose a unit');
  await dialog.getByRole('button', { name: 'mm', exact: true }).click();
  await expect(dialog.getByRole('status')).toContainText('handle.svg: ');
  await expect(dialog.locator('[data-outline]')).toBeVisible();
  await expect(dialog.getByText('Needs a blank of')).toBeVisible();
  await dialog.getByRole('button', { name: /^As large as the piece gives/ }).click();
  await expect(dialog.getByText('Reaches past it')).toHaveCount(0);
  await page.keyboard.press('Escape');
  await expect(finding(page, 'outline-not-round')).toHaveCount(0);
});
