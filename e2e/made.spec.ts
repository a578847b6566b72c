import type { Page } from '@playwright/test';
import {
  allSent,
  benchField,
  changeSteps,
  comesOut,
  expect,
  type House,
  killable,
  makeJob,
  PROGRAM,
  stored,
  test,
  photoFile,
} from './house';

/* A whole block made at the bench, from the first rip to the finish, as hands would: once at a desk, once on a phone under a name that is not loopback. */

const MOST_PRESSES = 100;
const field = (page: Page) => page.getByLabel(/after it/);
const stepAt = async (page: Page) => (await page.locator('main').getAttribute('data-bench-step')) ?? '';
const inMillimetres = (text: string): number => {
  const [whole, fraction = '0/1'] = text.includes('/') && !text.includes(' ') ? ['0', text] : text.split(' ');
  const [top, bottom] = fraction.split('/').map(Number);
  return (Number(whole) + top / bottom) * 25.4;
};
const buildOf = async (house: House, job: string) =>
  (await (await fetch(`${house.url}/api${job}`)).json()).build;
const planned = (page: Page) => field(page).evaluate((input: HTMLInputElement) => input.placeholder);
const readingsOf = async (house: House, job: string) => (await buildOf(house, job)).readings;

/** What happens beside the presses, each once, at its step. */
type Happening = (page: Page, house: House, job: string) => Promise<void>;
const byCaliper: Happening = async (page, house, job) => {
  const value = Number(inMillimetres(await planned(page)).toFixed(2));
  await expect
    .poll(async () => {
      const data = { gauge: 'Simulated caliper', kind: 'caliper', value, unit: 'mm' };
      expect((await page.request.post(`${house.url}/api/gauges`, { headers: PROGRAM, data })).status()).toBe(
        200,
      );
      return page.getByTestId('gauge').count();
    })
    .toBe(1);
  await page.getByRole('button', { name: 'Take it' }).click();
  await expect
    .poll(async () => (await readingsOf(house, job)).some((each: any) => each.gauge === 'Simulated caliper'))
    .toBe(true);
};
/** As a gauge that types: nobody has touched the field, or anything but the large one at the foot. */
const byWedge: Happening = async (page, house, job) => {
  const before = (await readingsOf(house, job)).length;
  await page.keyboard.type(`${inMillimetres(await planned(page)).toFixed(2)} mm`);
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await readingsOf(house, job)).length).toBe(before + 1);
};
const loseSlice: Happening = async (page, house, job) => {
  await page.getByRole('button', { name: 'It failed …' }).click();
  const window = page.getByRole('dialog');
  await window.getByRole('radio', { name: 'A slice is lost' }).check();
  await window.getByRole('button', { name: 'Piece 3', exact: true }).click();
  await window.getByLabel('Photo of it from a file').setInputFiles(await photoFile(page));
  await expect(window.getByRole('img', { name: 'What failed' })).toBeVisible();
  await window.getByRole('button', { name: 'Show the ways to go on' }).click();
  const plan = window.getByRole('listitem').filter({ hasText: 'its slices spread among the others' });
  await plan.getByRole('button', { name: /^Take this way/ }).click();
  await expect(window).toBeHidden();
  await expect.poll(async () => (await buildOf(house, job)).failures?.length).toBe(1);
  // Its photo says of what it is.
  const photos = page.getByRole('region', { name: 'Photos and notes' });
  await expect(photos.getByRole('button', { name: /A slice is lost/ })).toBeVisible();
};
const serverAway: Happening = async (page, house) => {
  await house.killServer();
  await benchField(page, 1).click();
  await expect(page.getByTestId('unsent')).toBeVisible();
  await house.startServer();
  await expect(page.getByTestId('unsent')).toHaveCount(0);
};
const takePhoto: Happening = async (page, house, job) => {
  await page.getByLabel('Photo from a file').setInputFiles(await photoFile(page));
  await expect
    .poll(async () => {
      const { notes } = await (await fetch(`${house.url}/api${job}/notes`)).json();
      return notes.filter(({ photo }: any) => photo).length;
    })
    .toBe(2);
};

const SIZES = {
  'at a desk': { viewport: { width: 1280, height: 800 } },
  'on a phone': { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true },
} as const;

for (const [name, use] of Object.entries(SIZES))
  test.describe(name, () => {
    test.use(use);

    test('a whole block is made: gauges, a slice lost and interleaved anew, waits, photos, the server away in between', async ({
      page,
    }) => {
      test.setTimeout(400_000);
      const own = await killable();
      const house = own.house;
      try {
        const seen = name === 'on a phone' ? { ...house, url: house.plainUrl } : house;
        const job = new URL(await makeJob(page, seen, true, `made ${name}`)).pathname;
        await stored(page);
        const before = await comesOut(page);
        await page.goto(`${seen.url}${job}/bench`);
        const happens = new Map<string, Happening>([
          ['rip', byCaliper],
          ['mill', byWedge],
          ['flatten', serverAway],
          ['slice', loseSlice],
          ['trim', takePhoto],
        ]);
        // One glue-up is pressed through act by act, at the desk; the others are told as done by another device.
        const skipped = new Set(
          name === 'on a phone' ? ['glue', 'glue-1', 'glue-block'] : ['glue-1', 'glue-block'],
        );
        let waits = 0;
        let presses = 0;
        for (; presses < MOST_PRESSES; presses++) {
          const main = benchField(page, 1);
          // Between one step and the next the one that is done still stands there for a moment.
          await expect(main).not.toHaveText('Next step ›');
          const words = (await main.textContent()) ?? '';
          if (words === 'All steps are done') break;
          const step = await stepAt(page);
          if (skipped.has(step)) {
            // What was pressed just now goes first: two who tick at once would come to the window of two versions.
            await allSent(page);
            skipped.delete(step);
            const doneAt = new Date().toISOString();
            await changeSteps(page, house, job, (each) =>
              each.id === step ? { ...each, done: true, doneAt } : each,
            );
            await page.goto(`${seen.url}${job}/bench`);
            continue;
          }
          const happening = happens.get(step);
          // With the last thing of the step at hand, and its readings open.
          if (happening && /^Step is done/.test(words)) {
            happens.delete(step);
            await happening(page, house, job);
            if (happening === loseSlice) await page.goto(`${seen.url}${job}/bench`);
            continue;
          }
          const at = `${await stepAt(page)} ${await page.locator('main p').first().textContent()} ${words}`;
          await main.click();
          if (/^Wait/.test(words)) {
            waits += 1;
            await page
              .getByRole('dialog')
              .getByRole('button', { name: /all the same/ })
              .click();
          }
          await expect
            .poll(
              async () =>
                `${await stepAt(page)} ${await page.locator('main p').first().textContent()} ${await main.textContent()}`,
            )
            .not.toBe(at);
        }
        expect(presses).toBeLessThan(MOST_PRESSES);
        expect([...happens.keys()]).toEqual([]);
        expect(waits).toBeGreaterThanOrEqual(2);
        await expect(page.getByTestId('unsent')).toHaveCount(0);
        await expect
          .poll(async () => (await buildOf(house, job)).steps.every(({ done, off }: any) => done || off))
          .toBe(true);
        const build = await buildOf(house, job);
        // What was begun early stands with its step, the failure with the way that was taken, and every reading by whom it came.
        expect(build.steps.flatMap(({ early = [] }: any) => early)).toHaveLength(waits);
        expect(build.failures).toMatchObject([
          { kind: 'lostSlice', pieces: ['slice.3'], way: expect.stringMatching(/spread/) },
        ]);
        expect(build.readings).toHaveLength(2);
        await page.goto(`${seen.url}${job}`);
        await expect(page.getByTestId('target')).toContainText('comes out');
        expect(await comesOut(page)).toEqual(before);
      } finally {
        await own.close();
      }
    });
  });
