import { benchField, demoJob, expect, killable, test } from './house';

test.use({ serviceWorkers: 'allow' });

test('the application opens without its server: job, rack and kit as they were last, edits go out when it is back', async ({
  page,
}) => {
  test.setTimeout(240_000);
  const { house, close } = await killable();
  try {
    const job = await demoJob(page, house, /Lamp-room shelf/);
    await page.goto(house.url + job);
    // Kept once the first screen stands and the rest of the application was fetched.
    await page.waitForFunction(() => navigator.serviceWorker.ready.then(() => true));
    await expect
      .poll(() => page.evaluate(() => caches.keys().then((names) => names.length)))
      .toBeGreaterThan(0);
    await page.reload();
    await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
    await page.goto(`${house.url}/rack`);
    await expect(page.getByRole('row').nth(1)).toBeVisible();
    await page.goto(`${house.url}${job}/bench`);
    // One tick that is stored, so that what is kept is not what was read but what was stored after.
    await benchField(page, 1).click();
    await expect(page.getByTestId('standing')).toContainText('Hands on it');
    const begun = async () => {
      const { build } = await (await page.request.get(`${house.url}/api${job}`)).json();
      return build.steps.filter(({ work }: { work?: unknown[] }) => work?.length).length;
    };
    await expect.poll(begun).toBe(1);
    await page.waitForTimeout(500);

    await house.killServer();
    await page.goto(`${house.url}${job}/bench`);
    await expect(benchField(page, 2)).toBeEnabled();
    await expect(page.getByTestId('away')).toBeVisible();
    // Paused with the server away: kept, and said to be.
    await benchField(page, 2).click();
    await expect(benchField(page, 1)).toHaveText('Go on');
    await expect(page.getByTestId('unsent')).toBeVisible();
    await page.reload();
    await expect(benchField(page, 1)).toHaveText('Go on');
    await page.goto(`${house.url}/kit`);
    await expect(page.getByLabel(/, kerf$/).first()).toBeVisible();
    await page.goto(`${house.url}/rack`);
    await expect(page.getByRole('row').nth(1)).toBeVisible();

    await house.startServer();
    await expect(page.getByTestId('away')).toHaveCount(0);
    const ended = async () => {
      const { build } = await (await page.request.get(`${house.url}/api${job}`)).json();
      return build.steps.find(({ work }: { work?: unknown[] }) => work?.length)?.work[0].to;
    };
    await expect.poll(ended).toBeDefined();
  } finally {
    await close();
  }
});
