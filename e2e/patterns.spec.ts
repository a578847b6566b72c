import AxeBuilder from '@axe-core/playwright';
import { comesOut, expect, mark, openJob, order, stored, test, type } from './house';

test('a chevron board: made from a brief, angle and size changed, one strip by hand, a thinner panel, its sheet', async ({
  page,
  house,
}) => {
  test.setTimeout(120_000);
  await page.goto(`${house.url}/jobs/new`);
  await page.getByText('Chevron and zigzag', { exact: true }).click();
  await expect(page.getByRole('region', { name: 'Plan' })).toContainText('4 pieces at 45°');
  await page.getByLabel('Name').fill('Arrow tray');
  await page.getByRole('button', { name: 'Make this job' }).click();
  await expect(mark(page, 'cut')).toContainText('×4');
  await expect.poll(() => comesOut(page)).toEqual(['20', '10', '3/4']);

  await page.getByRole('button', { name: 'Pattern' }).click();
  const plan = page.getByRole('dialog');
  await plan.getByLabel('Angle of stripes to strips, degrees').fill('60');
  await type(plan.getByLabel('Length, finished'), '16 1/2');
  await expect(plan).toContainText('4 pieces at 60°');
  await plan.getByRole('button', { name: 'Plan it so' }).click();
  await expect.poll(() => comesOut(page)).toEqual(['16 1/2', '10', '3/4']);
  await expect(page.getByLabel('Cut to the length, degrees')).toHaveCount(0);
  await mark(page, 'cut').click();
  await expect(page.getByLabel('Cut to the length, degrees')).toHaveValue('60');

  await mark(page, 'glue-block').click();
  await page.locator('[data-strip="3"]').click();
  await page.keyboard.press('r');
  await expect(page.getByText(/every other from 2, rolled over, and also 3/)).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText(/every other from 2, rolled over\./)).toBeVisible();

  await mark(page, 'flatten').click();
  await page.getByText('Enter a measurement').click();
  await type(page.getByLabel('Thickness measured'), '11/16');
  await expect(page.getByText('predicted 13/16')).toBeVisible();
  await expect.poll(async () => (await comesOut(page))[2]).toBe('5/8');
  await mark(page, 'trim').click();
  await expect(page.locator('[data-code="target-not-reached"]')).toContainText('Short by 1/8');
  await page.getByRole('button', { name: /^Accept 5\/8/ }).click();
  await expect(page.locator('[data-code="target-not-reached"]')).toHaveCount(0);
  await stored(page);

  await page.getByRole('link', { name: 'Sheets' }).click();
  const sheets = page.getByRole('article').filter({ has: page.getByRole('img') });
  await expect(sheets).toHaveCount(2);
  await expect(sheets.last()).toContainText('rolled over');
  await expect(sheets.last().getByRole('img')).toHaveAttribute('width', /mm$/);
  await page.locator('label', { hasText: 'A4' }).click();
  const pdf = await page.pdf({ preferCSSPageSize: true });
  const text = pdf.toString('latin1');
  // Two drawings, and the page of settings and cuts.
  expect(text.match(/\/Type\s*\/Page[^s]/g)?.length).toBe(3);
  // A4 in points, 210 x 297 mm (ISO 216).
  expect(text).toMatch(/MediaBox\s*\[0 0 59[45][.\d]* 84[12]/);
});

test('an order is proposed for nine strips, two of them locked', async ({ page, house }) => {
  await openJob(page, house, 'Chart-chest lid');
  await mark(page, 'glue').click();
  await expect(page.locator('[data-strip]')).toHaveCount(9);
  const before = await order(page);
  for (const nth of [2, 7]) {
    await page.locator(`[data-strip="${nth}"]`).click();
    await page.keyboard.press('l');
    await expect(page.locator(`[data-strip="${nth}"]`)).toHaveAccessibleName(/locked/);
  }
  await page.getByRole('button', { name: 'Propose an order' }).click();
  const window = page.getByRole('dialog', { name: 'Propose an order' });
  await expect(window).toContainText('2 locked strips stay');
  await expect(window.getByRole('status')).toContainText('The first is the best there is');
  await expect(window.getByRole('region', { name: 'Order 3' })).toBeVisible();
  await window.getByRole('combobox', { name: 'What for' }).click();
  await page.getByRole('option', { name: 'An even run from dark to light' }).click();
  await expect(window).toContainText('change back to darker, in %');
  await expect(window.getByRole('status')).toContainText('The first is the best there is');
  const { violations } = await new AxeBuilder({ page })
    .setLegacyMode()
    .withTags(['wcag2a', 'wcag2aa'])
    .analyze();
  expect(violations.filter(({ impact }) => impact === 'serious' || impact === 'critical')).toEqual([]);
  await window.getByRole('button', { name: 'Use order 1' }).click();
  await expect.poll(() => order(page)).not.toEqual(before);
  const after = await order(page);
  expect([after[1], after[6]]).toEqual([before[1], before[6]]);
  expect([...after].sort()).toEqual([...before].sort());
  await page.keyboard.press('Control+z');
  await expect.poll(() => order(page)).toEqual(before);
});

test('joints are drawn on the joints; a lay-up is kept as a rule and used in another job', async ({
  page,
  house,
}) => {
  await openJob(page, house, 'Lamp-room shelf');
  await mark(page, 'glue').click();
  await page.getByRole('button', { name: 'Joints' }).click();
  await expect(page.locator('[data-joint]')).toHaveCount(5);
  await expect(page.locator('[data-joint="2"]')).toHaveAccessibleName(/rings|lines/);
  await page.locator('label', { hasText: 'A triangle' }).click();
  await page.getByRole('button', { name: 'Save as my pattern' }).click();
  await page.getByLabel('Name of the rule').fill('Lamp-room stripes');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('Kept as a rule')).toBeVisible();
  await page.waitForTimeout(800);
  await page.goto(`${house.url}/jobs/new`);
  await page.getByText('Own lay-up', { exact: true }).click();
  await expect(page.getByRole('region', { name: 'Plan' })).toContainText('6 strips');
  await page.getByRole('button', { name: 'Make this job' }).click();
  await mark(page, 'glue').click();
  await expect(page.locator('[data-strip="3"]')).toHaveAccessibleName(/Wenge/);
  await page.goto(`${house.url}/kit`);
  await expect(page.getByRole('region', { name: 'Practice' })).toContainText('Lamp-room stripes, 6 strips');
  await page.getByRole('button', { name: 'Forget Lamp-room stripes' }).click();
  await expect(page.getByRole('region', { name: 'Practice' })).not.toContainText('Lamp-room stripes');
  await page.waitForTimeout(800);
});

test('the shop’s practice is chosen in the kit and decides what a job points out', async ({
  page,
  house,
}) => {
  await page.goto(`${house.url}/kit`);
  await page.locator('label', { hasText: 'Alternate' }).click();
  await page.waitForTimeout(900);
  await openJob(page, house, 'Lamp-room shelf');
  await page.getByRole('button', { name: 'Use the present one' }).click();
  await mark(page, 'glue').click();
  await expect(page.locator('[data-code="rings-alike"]')).toContainText('this shop alternates them');
  await page.goto(`${house.url}/kit`);
  await page.locator('label', { hasText: 'Best faces up' }).click();
  await page.waitForTimeout(900);
});

test('a slice lost to a crack and a panel that came out thinner: the ways out are carried out', async ({
  page,
  house,
}) => {
  await page.goto(`${house.url}/jobs/new`);
  await page.getByText('End-grain chequer', { exact: true }).click();
  await page.getByLabel('Spare slices').fill('1');
  await page.getByLabel('Name').fill('Spare block');
  await page.getByRole('button', { name: 'Make this job' }).click();
  await mark(page, 'slice').click();
  await expect(mark(page, 'slice')).toContainText('×13');
  await page.locator('[data-strip="4"]').click();
  await page.keyboard.press('x');
  await expect(mark(page, 'slice')).toContainText('×12');
  await page
    .getByRole('button', { name: /^Lay in 1 more slice/ })
    .first()
    .click();
  await expect.poll(() => comesOut(page)).toEqual(['15', '10', '1 5/8']);
  await mark(page, 'flatten').click();
  await page.getByText('Enter a measurement').click();
  await type(page.getByLabel('Thickness measured'), '1 7/32');
  await expect.poll(async () => (await comesOut(page))[0]).not.toBe('15');
  await mark(page, 'trim').click();
  // A strip across would be glued across the grain, and one more slice would come out of what stays in the hand.
  const accept = page.getByRole('button', { name: /^Accept/ });
  await expect(accept).toBeVisible();
  await expect(page.getByRole('button', { name: /^An accent strip/ })).toHaveCount(0);
  await accept.click();
  await expect(page.getByTestId('target').getByLabel('fits')).toHaveCount(3);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByTestId('target').getByLabel('fits')).toHaveCount(2);
});

test('what cannot be planned is answered in words, and nothing is made of it', async ({ page, house }) => {
  await page.goto(`${house.url}/jobs/new`);
  await page.getByText('Chevron and zigzag', { exact: true }).click();
  await page.getByLabel('Angle of stripes to strips, degrees').fill('2');
  await expect(page.getByRole('alert')).toContainText('from 15 to 80');
  await page.getByText('Picture blocks', { exact: true }).click();
  await page.getByLabel('Picture, a for the first wood').fill('aab / ab');
  await expect(page.getByRole('alert')).toContainText('Row 2 of the picture has 2 squares and row 1 has 3');
  await expect(page.getByRole('button', { name: 'Make this job' })).toBeDisabled();
  await page.getByText('Stairs', { exact: true }).click();
  await type(page.getByLabel('Step', { exact: true }), '30');
  await expect(page.getByRole('alert')).toContainText('more than one run of all woods');
  await page.getByText('Staggered lengths', { exact: true }).click();
  await type(page.getByLabel('End joints apart, at least'), '20');
  await expect(page.getByRole('alert')).toContainText('cannot keep 20 in apart');
});

test('every pattern can be made, in inches and in millimetres, and comes out as asked', async ({
  page,
  house,
}) => {
  test.setTimeout(240_000);
  await page.goto(`${house.url}/jobs/new`);
  await expect(page.getByRole('radiogroup', { name: 'What is it' }).locator('label')).toHaveCount(20);
  const names = await page.getByRole('radiogroup', { name: 'What is it' }).locator('label').allTextContents();
  for (const name of names.filter((n) => n !== 'Own lay-up')) {
    await page.getByRole('radiogroup', { name: 'What is it' }).getByText(name, { exact: true }).click();
    await expect(page.getByRole('region', { name: 'Plan' }), name).toContainText(/Comes out at/);
    await expect(page.getByRole('region', { name: 'Plan' }).locator('canvas')).toBeVisible();
    const metric = page.getByLabel(/, finished/).first();
    await type(metric, '480 mm');
    await expect(page.getByRole('region', { name: 'Plan' }), name).toContainText(/Comes out at 18 29\/32/);
  }
});

test('the finished piece is looked at from all sides, closely, and with oil', async ({ page, house }) => {
  await openJob(page, house, 'Watch-room tray');
  await page.getByRole('link', { name: 'Look' }).click();
  const canvas = page.getByTestId('look').locator('canvas');
  const colours = async () =>
    canvas.evaluate((element: HTMLCanvasElement) => {
      const data = element.getContext('2d')?.getImageData(0, 0, element.width, element.height).data ?? [];
      let [sum, drawn] = [0, 0];
      for (let i = 0; i < data.length; i += 4)
        if (data[i + 3] === 255) {
          sum += data[i] + data[i + 1] + data[i + 2];
          drawn += 1;
        }
      return { mean: sum / Math.max(1, drawn), share: drawn / Math.max(1, data.length / 4) };
    });
  const drawn = async () => {
    const before = await canvas.getAttribute('data-done');
    await expect.poll(() => canvas.getAttribute('data-done')).not.toBeNull();
    await page.waitForTimeout(400);
    return before;
  };
  await drawn();
  const turning = await colours();
  expect(turning.share).toBeGreaterThan(0.15);
  await page.getByTestId('look').focus();
  await page.keyboard.press('ArrowLeft');
  await page.locator('label', { hasText: 'Face' }).first().click();
  await expect.poll(async () => (await colours()).share).toBeGreaterThan(0.4);
  const bare = (await colours()).mean;
  await page.locator('label', { hasText: 'Oiled' }).click();
  await expect.poll(async () => (await colours()).mean).toBeLessThan(bare * 0.92);
  await expect(page.getByText('Oiled is an illustration')).toBeVisible();
  for (let i = 0; i < 4; i++) await page.getByRole('button', { name: 'Closer' }).click();
  await expect.poll(async () => (await colours()).share).toBeGreaterThan(0.98);
});
