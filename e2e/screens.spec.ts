import { comesOut, expect, makeJob, mark, openJob, restingBox, stored, test, type } from './house';

test('the kit is edited, grown and pruned, and is the same after loading again', async ({ page, house }) => {
  await page.goto(`${house.url}/kit`);
  await type(page.getByLabel('Bandsaw, kerf'), '3/64');
  await page.getByLabel('Add a saw').click();
  await page.getByRole('option', { name: 'Hand saws' }).click();
  await page.getByLabel('Name of saw 5').fill('Frame saw');
  await type(page.getByLabel('Frame saw, kerf'), '1 mm');
  await page.getByRole('button', { name: 'Remove Track saw' }).click();
  await page.waitForTimeout(900);
  await page.reload();
  await expect(page.getByLabel('Bandsaw, kerf')).toHaveValue('3/64');
  await expect(page.getByLabel('Name of saw 4')).toHaveValue('Frame saw');
  await expect(page.getByLabel('Frame saw, kerf')).toHaveValue('1/32');
  await expect(page.getByLabel('Name of saw 4')).toHaveValue('Frame saw');
  await expect(page.getByRole('button', { name: 'Remove Track saw' })).toHaveCount(0);
  await page.getByLabel('Planer, widest').fill('wide');
  await page.getByLabel('Planer, widest').press('Enter');
  await expect(page.getByRole('alert')).toContainText('not a number');
  await page.getByLabel('Planer, widest').press('Escape');
  await type(page.getByLabel('Bandsaw, kerf'), '1/16');
  await page.waitForTimeout(900);
});

test('a machine has the limits of its kind, and what a step wants and the kit has not is said', async ({
  page,
  house,
}) => {
  await page.goto(`${house.url}/kit`);
  await page.getByLabel('Add a machine').click();
  await page.getByRole('option', { name: 'Computer-guided router' }).click();
  await type(page.getByLabel('Computer-guided router, hold-down margin'), '1 1/4');
  await page.getByLabel('Add a cutter, bit or drill').click();
  await page.getByRole('option', { name: 'Forstner bit' }).click();
  await type(page.getByLabel('Forstner bit, shank'), '3/8');
  await page.getByLabel('Biscuits 56 x 23, on hand').fill('a few');
  await page.getByLabel('Biscuits 56 x 23, on hand').press('Enter');
  await expect(page.getByRole('alert')).toContainText('type a number');
  await page.getByLabel('Biscuits 56 x 23, on hand').fill('-1');
  await page.getByLabel('Biscuits 56 x 23, on hand').press('Enter');
  await expect(page.getByRole('alert')).toContainText('from 0 to');
  await page.getByLabel('Biscuits 56 x 23, on hand').fill('2');
  await page.getByLabel('Biscuits 56 x 23, on hand').blur();
  await page.waitForTimeout(900);
  await page.reload();
  await expect(page.getByLabel('Computer-guided router, hold-down margin')).toHaveValue('1 1/4');
  await expect(page.getByLabel('Computer-guided router, longest')).toHaveValue('36');
  await expect(page.getByLabel('Planer, hold-down margin')).toHaveCount(0);
  await expect(page.getByLabel('Forstner bit, shank')).toHaveValue('3/8');
  await expect(page.getByLabel('Biscuits 56 x 23, on hand')).toHaveValue('2');

  await makeJob(page, house, false, 'short of biscuits');
  const card = page.getByRole('complementary', { name: 'Step' });
  await mark(page, 'flatten').click();
  await expect(card.getByText('End grain never goes under knives')).toBeVisible();
  // A machine that does other work is not offered.
  await card.getByLabel('Flatten with').click();
  await expect(page.getByRole('option', { name: 'Computer-guided router' })).toBeVisible();
  await expect(page.getByRole('option', { name: 'Drill press' })).toHaveCount(0);
  await page.keyboard.press('Escape');
  await mark(page, 'glue').click();
  await page.getByRole('tab', { name: /^Aids/ }).click();
  await page.getByLabel('Kept flush by').click();
  await page.getByRole('option', { name: 'Biscuits', exact: true }).click();
  await page.getByRole('tab', { name: /^Lay-up/ }).click();
  await expect(card.getByRole('region', { name: 'At hand' })).toContainText(/2 on hand, \d+ missing/);
  await expect(card.locator('[data-code=not-on-hand]')).toContainText('Biscuits 56 x 23');
  await mark(page, 'trim').click();
  await expect(card.getByRole('region', { name: 'To buy or borrow for this job' })).toContainText('missing');
  await page.goto(`${house.url}/kit`);
  await page.getByLabel('Biscuits 56 x 23, on hand').fill('140');
  await page.getByLabel('Biscuits 56 x 23, on hand').blur();
  await page.waitForTimeout(900);
});

test('a new saw and a narrower planer are used by the next plan', async ({ page, house }) => {
  await page.goto(`${house.url}/kit`);
  await type(page.getByLabel('Planer, widest'), '8');
  await page.waitForTimeout(900);
  await makeJob(page, house, false, 'narrow planer');
  await expect(page.getByRole('button', { name: /^Section 1/ })).toBeVisible();
  await expect.poll(() => comesOut(page)).toEqual(['32', '11 1/2', '7/8']);
  await page.goto(`${house.url}/kit`);
  await type(page.getByLabel('Planer, widest'), '13');
  await page.waitForTimeout(900);
});

test('woods are found by name, with units, certainty and sources', async ({ page, house }) => {
  await page.goto(`${house.url}/tables`);
  await expect
    .poll(() => page.getByRole('table').first().locator('tbody tr').count())
    .toBeGreaterThanOrEqual(45);
  await page.getByLabel('Search').fill('walnut');
  await expect(page.getByRole('table').first().locator('tbody tr')).toHaveCount(1);
  await expect(page.locator('tbody').first()).toContainText('Juglans nigra');
  await page.getByLabel('Search').fill('no such wood');
  await expect(page.getByText('No wood of that name.')).toBeVisible();
  await expect(page.getByText(/Wood Handbook/).first()).toBeVisible();
});

test('a job is renamed, its steps ticked off, an earlier version brought back and that undone', async ({
  page,
  house,
}) => {
  await makeJob(page, house, true, 'first name');
  await page.getByLabel('Name of the job').fill('second name');
  await stored(page);
  await mark(page, 'rip').click();
  await page.getByLabel('This step is done').check();
  await stored(page);
  await page.getByRole('button', { name: 'Kept versions' }).click();
  const versions = page.getByRole('dialog').locator('[data-version]');
  await expect(versions.last()).toContainText('first name');
  await versions.last().getByRole('button', { name: 'Bring back' }).click();
  await expect(page.getByLabel('Name of the job')).toHaveValue('first name');
  await page.keyboard.press('Control+z');
  await expect(page.getByLabel('Name of the job')).toHaveValue('second name');
  await stored(page);
  await page.goto(`${house.url}/jobs`);
  await expect(page.getByRole('link', { name: /second name/ })).toBeVisible();
  await expect(
    page.getByRole('link', { name: /second name/ }).getByRole('img', { name: '1 of 9 steps done' }),
  ).toBeVisible();
});

test('what cannot be carried out stops at its step, keeps the last drawing, and can be mended', async ({
  page,
  house,
}) => {
  await makeJob(page, house, true, 'stops');
  await mark(page, 'flatten').click();
  await type(page.getByLabel('Off the upper face'), '3');
  await expect(page.locator('[data-code="nothing-left"]')).toContainText('and the piece has only');
  await expect(mark(page, 'slice')).toContainText('not reached');
  await expect(page.getByTestId('bench').locator('canvas')).toHaveCount(3);
  await page.keyboard.press('Control+z');
  await expect(page.locator('[data-code="nothing-left"]')).toHaveCount(0);
  await expect(page.getByTestId('target').getByLabel('fits')).toHaveCount(3);
});

test('too few slices and end grain in the planer carry number, caution and fix', async ({ page, house }) => {
  await makeJob(page, house, true, 'findings');
  await mark(page, 'slice').click();
  await page.getByLabel('Slices', { exact: true }).fill('9');
  const few = page.locator('[data-code="too-few-slices"]');
  await expect(few).toContainText('3 slices are missing');
  await few.getByRole('button', { name: /^Lay in 3 more slices/ }).click();
  await expect(few).toHaveCount(0);
  await mark(page, 'flatten-block').click();
  await page.getByRole('combobox', { name: 'Flatten with' }).click();
  await page.getByRole('option', { name: 'Planer' }).click();
  const endGrain = page.locator('[data-code="end-grain-in-planer"]');
  await expect(endGrain).toContainText('Caution.');
  await expect(endGrain.getByRole('button', { name: /Planer/ })).toHaveCount(0);
  await endGrain.getByRole('button', { name: 'Use Drum sander' }).click();
  await expect(endGrain).toHaveCount(0);
});

test('a length is stepped by keys and dragged by its unit', async ({ page, house }) => {
  await makeJob(page, house, true, 'scrub');
  await mark(page, 'slice').click();
  const thickness = page.getByLabel('Slice thickness');
  await expect(thickness).toHaveValue('1 3/4');
  await thickness.focus();
  await page.keyboard.press('ArrowUp');
  await expect(thickness).toHaveValue('1 25/32');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await expect(thickness).toHaveValue('1 23/32');
  const unit = thickness.locator('xpath=following-sibling::span');
  const box = await restingBox(unit);
  await page.mouse.move(box.x + 5, box.y + 10);
  await page.mouse.down();
  await page.mouse.move(box.x + 5 + 24, box.y + 10, { steps: 6 });
  await page.mouse.up();
  await expect(thickness).toHaveValue('1 27/32');
  await page.keyboard.press('Control+z');
  await expect(thickness).toHaveValue('1 23/32');
});

test('the underside shows the other face, with the same strips to choose', async ({ page, house }) => {
  await openJob(page, house, 'Lamp-room shelf');
  await mark(page, 'glue').click();
  const first = await page.locator('[data-strip="1"]').boundingBox();
  await page.getByRole('button', { name: 'Show the underside' }).click();
  await expect
    .poll(async () => (await page.locator('[data-strip="1"]').boundingBox())?.y ?? 0)
    .toBeGreaterThan((first?.y ?? 0) + 40);
  await page.locator('[data-strip="1"]').click();
  await expect(
    page.getByRole('toolbar', { name: 'Chosen piece' }).getByRole('button', { name: /End for end/ }),
  ).toBeVisible();
});

test('a job allows for more at its ends than the shop, says so when planned again, and goes back with one press', async ({
  page,
  house,
}) => {
  await page.goto(`${house.url}/jobs/new`);
  await page.getByLabel('Name').fill('own allowances');
  await page.getByText('Allowances of this job, as in the shop').click();
  const ends = page.getByLabel('Trimming, each end', { exact: true });
  const shops = await ends.inputValue();
  await expect(page.getByRole('region', { name: 'Plan' })).toContainText('32 3/8 in long');
  await type(ends, '1/2');
  await expect(page.getByText('Allowances of this job, 1 of its own')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Plan' })).toContainText('33 in long');
  await page.getByRole('button', { name: 'Make this job' }).click();
  await expect(page.getByTestId('bench')).toBeVisible();
  // No kit was changed, so none is offered.
  await expect(page.getByText('Planned with an earlier kit')).toHaveCount(0);
  await page.getByRole('button', { name: 'Pattern', exact: true }).click();
  const again = page.getByRole('dialog', { name: /plan it again/ });
  await expect(again.getByLabel('Trimming, each end', { exact: true })).toHaveValue('1/2');
  await again.getByRole('button', { name: /^Trimming, each end: back to the shop’s/ }).click();
  await expect(again.getByLabel('Trimming, each end', { exact: true })).toHaveValue(shops);
  await expect(again.getByLabel('Trimming, each end', { exact: true })).toBeFocused();
  await again.getByRole('button', { name: 'Plan it so' }).click();
  await expect(mark(page, 'trim')).toContainText('32');
  await expect(mark(page, 'rip')).toContainText('32 3/8');
});

test('a warning shows the sum behind its numbers', async ({ page, house }) => {
  await makeJob(page, house, false, 'sums');
  await page.locator('[data-strip="1"]').click();
  await page.keyboard.press('Delete');
  await mark(page, 'trim').click();
  const finding = page.locator('[data-code="target-not-reached"]').first();
  await finding.getByRole('button', { name: /^How is this computed/ }).click();
  const sum = page.locator('[data-worked="Width that comes out"]');
  await expect(sum).toHaveText('(4 × (2.4375 in − 0.0625 in)) − 0.375 in = 9.125 in');
});

test('a panel is planed on a carrier: the list of passes says what to dial and how far to turn the crank', async ({
  page,
  house,
}) => {
  await page.goto(`${house.url}/kit`);
  await type(page.getByLabel('Planer, a turn of the crank'), '1/8');
  await page.waitForTimeout(900);
  await makeJob(page, house, false, 'passes');
  await mark(page, 'flatten').click();
  const passes = page.getByRole('region', { name: 'Passes' });
  await expect(passes.getByRole('row')).toHaveCount(3);
  const card = page.getByRole('complementary');
  await type(card.getByLabel('Carrier board under it'), '3/4');
  await type(card.getByLabel('Off the upper face'), '3/32');
  await expect(passes).toContainText('with the carrier of');
  // 1/16 is the most a pass: 3/32 off the upper face are two.
  await expect(passes.getByRole('row')).toHaveCount(4);
  await expect(passes.getByRole('row').nth(1)).toContainText('180°');
  await expect(passes.getByRole('row').nth(2)).toContainText('90°');
});
