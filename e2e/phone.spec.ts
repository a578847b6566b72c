import { demoJob, everyAddress, expect, mark, stored, test } from './house';

const WIDTHS = [320, 390, 640, 768, 1024, 1280] as const;

test('no route slides sideways at any width, but for drawings and tables in boxes of their own', async ({
  page,
  house,
}) => {
  const routes = everyAddress(await demoJob(page, house, /tiller/)).map(({ address }) => address);
  const over: string[] = [];
  for (const width of WIDTHS) {
    await page.setViewportSize({ width, height: 844 });
    for (const route of routes) {
      await page.goto(house.url + route);
      await page.locator('main, p').first().waitFor();
      await page.waitForLoadState('networkidle');
      const by = await page.evaluate(
        () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
      );
      if (by > 0) over.push(`${route} at ${width}: ${by}`);
    }
  }
  expect(over).toEqual([]);
});

test.describe('in the hand', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test('a job from the brief to a strip that is turned and widened, and on to the calendar', async ({
    page,
    house,
  }) => {
    await page.goto(`${house.url}/jobs`);
    await page.getByRole('link', { name: 'New job' }).tap();
    await page.getByLabel('Name').fill('In the hand');
    await page.getByRole('button', { name: 'Make this job' }).tap();
    await expect(page.getByTestId('bench')).toBeVisible();
    await mark(page, 'glue').tap();
    const strips = page.locator('[data-strip]');
    await expect(strips.first()).toBeVisible();
    // No strip is smaller than a finger.
    for (const strip of await strips.all())
      expect((await strip.boundingBox())?.height ?? 0).toBeGreaterThanOrEqual(44);
    await page.locator('[data-strip="2"]').tap();
    await page.getByRole('button', { name: /^End for end/ }).tap();
    await stored(page);
    const card = page.getByRole('complementary', { name: 'Step' });
    await expect(card.getByLabel('Ripped width')).toBeHidden();
    await card.getByRole('button', { name: /^Glue-up/ }).tap();
    const width = card.getByLabel('Ripped width');
    await width.fill('3');
    await width.press('Enter');
    await card
      .getByRole('button', { name: /^Glue-up/ })
      .first()
      .tap();
    await stored(page);
    const id = new URL(page.url()).pathname.split('/')[2];
    const { build } = await (await page.request.get(`${house.url}/api/jobs/${id}`)).json();
    expect(build.assemblies[0].slots[1].width.mm).toBeCloseTo(76.2, 6);
    const glue = build.steps.find((step: { kind: string }) => step.kind === 'glue');
    expect(glue.parts[1].endForEnd).toBe(true);
    await page.getByRole('button', { name: 'Menu' }).tap();
    await page.getByRole('navigation', { name: 'Main' }).getByRole('link', { name: 'Calendar' }).tap();
    await expect(page.getByRole('heading', { name: 'Calendar' })).toBeVisible();
    await expect(page.getByRole('main')).toContainText('In the hand');
  });

  test('turned on its side in the middle of an edit, nothing that was typed is lost', async ({
    page,
    house,
  }) => {
    await page.goto(`${house.url}/jobs/new`);
    await page.getByLabel('Length, finished').fill('17 3/8');
    await page.setViewportSize({ width: 844, height: 390 });
    await expect(page.getByLabel('Length, finished')).toHaveValue('17 3/8');
    await page.getByLabel('Name').fill('עץ '.repeat(40).slice(0, 120));
    expect(
      await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth),
    ).toBeLessThanOrEqual(0);
  });

  test('the drawing is made larger and smaller with buttons', async ({ page, house }) => {
    await page.goto(`${house.url}/jobs`);
    await page.getByRole('link', { name: /Chart-chest lid/ }).tap();
    await mark(page, 'glue').tap();
    const first = page.locator('[data-strip]').first();
    const high = async () => (await first.boundingBox())?.height ?? 0;
    await expect.poll(high).toBeGreaterThanOrEqual(44);
    await page.getByRole('button', { name: 'The whole piece' }).tap();
    await expect.poll(high).toBeLessThan(44);
    const whole = await high();
    await page.getByRole('button', { name: 'Drawn larger' }).tap();
    await expect.poll(high).toBeGreaterThan(whole * 1.3);
  });
});
