import AxeBuilder from '@axe-core/playwright';
import { demoJob, everyAddress, expect, makeJob, mark, openJob, test } from './house';

const serious = async (page: import('@playwright/test').Page) => {
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
    .analyze();
  return violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(({ id, nodes }) => `${id}: ${nodes.map((n) => n.target).join(' ')} ${nodes[0].failureSummary}`);
};

test('no serious finding of the accessibility checker on any screen', async ({ page, house }) => {
  test.setTimeout(480_000);
  for (const address of ['/jobs', '/jobs/new', '/calendar', '/rack', '/kit', '/tables', '/nowhere']) {
    await page.goto(house.url + address);
    await page.waitForTimeout(600);
    expect(await serious(page), address).toEqual([]);
  }
  await openJob(page, house, 'Galley chopping block');
  for (const step of ['rip', 'slice', 'glue-block', 'trim']) {
    await mark(page, step).click();
    expect(await serious(page), step).toEqual([]);
  }
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  expect(await serious(page), 'keys').toEqual([]);
  await page.keyboard.press('Escape');
  const url = await openJob(page, house, 'Lamp-room shelf');
  await page.getByRole('link', { name: 'Wood' }).click();
  await page.getByRole('button', { name: 'Break down the boards' }).click();
  await expect(page.getByRole('region', { name: 'Trade-off' })).toBeVisible({ timeout: 60_000 });
  expect(await serious(page), 'wood').toEqual([]);
  await page.goto(`${url}/wood/sheet`);
  await expect(page.getByText('fence at').first()).toBeVisible();
  expect(await serious(page), 'sheet').toEqual([]);
  const tread = await openJob(page, house, 'Tower stair tread');
  await mark(page, 'glue').click();
  for (const name of ['Clamps', 'Glue', 'Aids', 'Pace', 'After']) {
    await page.getByRole('tab', { name }).click();
    await expect(page.getByTestId('glue-bench')).toBeVisible();
    expect(await serious(page), name).toEqual([]);
  }
  await page.goto(`${tread}/rehearse/glue`);
  await page.getByRole('button', { name: 'Begin the dry run' }).click();
  expect(await serious(page), 'rehearsal').toEqual([]);
  await openJob(page, house, 'Boathouse bench top');
  await mark(page, 'flatten').click();
  expect(await serious(page), 'finding').toEqual([]);
});

test('the whole of a lay-up can be made with the keyboard', async ({ page, house }) => {
  await makeJob(page, house, true, 'no mouse');
  await page.locator('#mark-glue-block').focus();
  for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowLeft');
  await expect(mark(page, 'glue')).toHaveAttribute('aria-current', 'step');
  await expect(page.locator('[data-strip]')).toHaveCount(8);
  await page.locator('[data-strip="1"]').focus();
  await page.keyboard.press('d');
  await expect(page.locator('[data-strip]')).toHaveCount(9);
  await page.keyboard.press('Tab');
  await page.keyboard.press('Delete');
  await expect(page.locator('[data-strip]')).toHaveCount(8);
  const thickness = page.getByLabel('Thickness', { exact: true });
  await page.locator('[data-strip="3"]').focus();
  await thickness.focus();
  await page.keyboard.press('ArrowUp');
  await expect(page.locator('[data-code="thickness-step"]')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.locator('[data-code="thickness-step"]')).toHaveCount(0);
});

for (const width of [390, 768])
  test(`no serious finding of the checker on any screen at ${width} px`, async ({ page, house }) => {
    test.setTimeout(240_000);
    await page.setViewportSize({ width, height: 900 });
    for (const { address } of everyAddress(await demoJob(page, house, /tiller/))) {
      await page.goto(house.url + address);
      await page.waitForLoadState('networkidle');
      expect(await serious(page), address).toEqual([]);
    }
    await openJob(page, house, 'Chart-chest lid');
    await mark(page, 'glue').click();
    await expect(page.locator('[data-strip]').first()).toBeVisible();
    expect(await serious(page), 'job').toEqual([]);
    if (width < 700) {
      await page.getByRole('complementary', { name: 'Step' }).getByRole('button').first().click();
      expect(await serious(page), 'card').toEqual([]);
      await page.getByRole('button', { name: 'Menu' }).click();
      expect(await serious(page), 'menu').toEqual([]);
    }
  });
