import type { Locator, Page } from '@playwright/test';
import { demoJob, expect, type House, killable, makeJob, mark, stored, test, photoFile } from './house';

const notesOf = (page: Page | Locator) => page.getByRole('region', { name: 'Photos and notes' });
const photosOf = (page: Page | Locator) =>
  notesOf(page).getByRole('list', { name: 'Photos' }).getByRole('button');
const begun = async (page: Page, house: House, name: string, block = false): Promise<string> => {
  const job = await makeJob(page, house, block, name);
  await stored(page);
  return new URL(job).pathname;
};
const onServer = async (house: House, job: string) =>
  (await (await fetch(`${house.url}/api${job}/notes`)).json()).notes;

test('a photo is taken at the bench, drawn on by hand and by keys, laid beside another, taken away and brought back; undo does not reach it', async ({
  page,
  house,
  browser,
}) => {
  const job = await begun(page, house, 'notes');
  await page.goto(`${house.url}${job}/bench?step=mill`);
  const file = await photoFile(page);
  await notesOf(page)
    .getByLabel('Photo from a file')
    .setInputFiles([file, { ...file, name: 'after.png' }]);
  await expect(photosOf(page)).toHaveCount(2);
  await expect
    .poll(async () => (await onServer(house, job)).map(({ photo }: any) => photo?.widthPx))
    .toEqual([40, 40]);
  await notesOf(page).getByRole('button', { name: 'Write a note' }).click();
  await page.getByLabel('What is to be minded').fill('Turn the dark one end for end.');
  await page.getByRole('button', { name: 'Keep the note' }).click();
  // Another device on the same step is told.
  const other = await (await browser.newContext()).newPage();
  await other.goto(`${house.url}${job}/bench?step=mill`);
  await expect(photosOf(other)).toHaveCount(2);
  await expect(notesOf(other)).toContainText('Turn the dark one end for end.');

  await photosOf(page).first().click();
  const window = page.getByRole('dialog', { name: 'Photo' });
  const marks = window.getByTestId('marks');
  await window.getByRole('button', { name: 'Circle', exact: true }).click();
  const box = await marks.boundingBox();
  if (!box) throw new Error('no photo to draw on');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.6, box.y + box.height / 2, { steps: 4 });
  await page.mouse.move(box.x + box.width * 0.75, box.y + box.height / 2, { steps: 4 });
  await page.mouse.up();
  // By keys: an arrow is put in the middle, moved, and its end drawn further.
  await window.getByRole('button', { name: 'Arrow', exact: true }).focus();
  await page.keyboard.press('Enter');
  await marks.getByRole('button', { name: /^Arrow 2/ }).focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowDown');
  await window.getByLabel('What is to be seen or minded').fill('tear-out');
  await expect
    .poll(async () => (await onServer(house, job)).find(({ words }: any) => words === 'tear-out')?.marks)
    .toEqual([
      { kind: 'circle', x1: 0.5, y1: 0.5, x2: expect.closeTo(0.75, 1), y2: 0.5 },
      { kind: 'arrow', x1: 0.42, y1: 0.4, x2: 0.62, y2: 0.52 },
    ]);
  await window.getByRole('combobox', { name: 'Beside it' }).click();
  await page.getByRole('option', { name: /^Photo · / }).click();
  await expect(window.getByTestId('marks')).toHaveCount(2);
  await expect(window.getByRole('img')).toHaveCount(2);
  await window.getByRole('button', { name: 'Take it away' }).click();
  await expect(photosOf(page)).toHaveCount(1);
  await notesOf(page)
    .getByRole('button', { name: /taken away/ })
    .click();
  await notesOf(page).getByRole('button', { name: 'Bring it back' }).click();
  await expect(photosOf(page)).toHaveCount(2);
  await expect.poll(async () => (await onServer(house, job)).some(({ removed }: any) => removed)).toBe(false);

  // The same on the plan's card; undo takes the job back, not what was seen at it.
  await page.goto(`${house.url}${job}`);
  await mark(page, 'mill').click();
  await expect(photosOf(page)).toHaveCount(2);
  await page.getByLabel('Name of the job').fill('renamed');
  await stored(page);
  await page.getByRole('button', { name: 'Undo', exact: false }).first().click();
  await expect(page.getByLabel('Name of the job')).toHaveValue('notes');
  await expect(photosOf(page)).toHaveCount(2);
  await page.getByRole('button', { name: 'Photos and notes' }).click();
  const all = page.getByRole('dialog', { name: 'Photos and notes' });
  await expect(all.getByRole('list', { name: 'Photos' }).getByText('Mill')).toHaveCount(2);
  await expect(all).toContainText(/The photos of this shop take .* MB of 2,000 MB/);
  await other.context().close();
});

test('what is no photo says why, before and after it was sent, and what was written stays', async ({
  page,
  house,
}) => {
  const job = await begun(page, house, 'no photos');
  await page.goto(`${house.url}${job}/bench?step=rip`);
  const input = notesOf(page).getByLabel('Photo from a file');
  await input.setInputFiles({ name: 'e.jpg', mimeType: 'image/jpeg', buffer: Buffer.alloc(0) });
  await expect(notesOf(page).getByRole('alert')).toContainText('0 bytes');
  await input.setInputFiles({ name: 'd.svg', mimeType: 'image/svg+xml', buffer: Buffer.from('<svg/>') });
  await expect(notesOf(page).getByRole('alert')).toContainText('image/svg+xml');
  await input.setInputFiles({
    name: 'l.jpg',
    mimeType: 'image/jpeg',
    buffer: Buffer.alloc(12 * 1024 * 1024 + 1),
  });
  await expect(notesOf(page).getByRole('alert')).toContainText('the most is 12 MB');
  expect(await onServer(house, job)).toEqual([]);
  // It says it is one, and only the server finds out that it is not: it waits where the maker can look at it.
  await input.setInputFiles({ name: 'p.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('<html></html>') });
  // Left only once this browser has it: a page that goes at once takes a file along that nobody has read.
  await expect(page.getByTestId('unsent')).toBeVisible();
  await page.goto(`${house.url}/today`);
  await page.getByTestId('unsent').click();
  await expect(page.getByText(/not taken by the server: This file is no JPEG/)).toBeVisible();
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as a file' }).click();
  expect((await saved).suggestedFilename()).toBe('a-photo.jpeg');
  await page.getByRole('button', { name: 'Throw away' }).click();
  await expect(page.getByTestId('unsent')).toHaveCount(0);
});

test('a board has photos of its own', async ({ page, house }) => {
  await page.goto(`${house.url}/rack`);
  await page.getByRole('tab', { name: 'Photos' }).click();
  await notesOf(page)
    .getByLabel('Photo from a file')
    .setInputFiles(await photoFile(page));
  await expect(photosOf(page)).toHaveCount(1);
  await page.reload();
  await page.getByRole('tab', { name: 'Photos' }).click();
  await expect(photosOf(page)).toHaveCount(1);
});

test.describe('on a phone', () => {
  test.use({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
    serviceWorkers: 'allow',
  });

  test('an hour without the server: 30 readings, ticks and a photo go out in order when it is back, each once', async ({
    browser,
  }) => {
    test.setTimeout(240_000);
    const { house, close } = await killable();
    try {
      const context = await browser.newContext();
      const page = await context.newPage();
      const job = await demoJob(page, house, /Watch-room tray/);
      const { build } = await (await fetch(`${house.url}/api${job}`)).json();
      const strips = build.assemblies[0].slots.length;
      await page.goto(`${house.url}${job}/bench?step=rip`);
      await page.waitForFunction(() => navigator.serviceWorker.ready.then(() => true));
      await page.reload();
      await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
      await page.getByRole('button', { name: 'Begin' }).click();
      await expect(page.getByTestId('standing')).toContainText('Hands on it');
      const file = await photoFile(page);
      const start = Date.now();
      await expect(notesOf(page).getByRole('button', { name: 'Write a note' })).toBeVisible();
      await house.killServer();
      let minutes = 0;
      let sent = 0;
      // Each reading two minutes after the one before, by the phone's own clock.
      for (const size of ['Width', 'Thickness']) {
        await page.goto(`${house.url}${job}/bench?step=rip`);
        await page.getByRole('button', { name: size, exact: true }).click();
        const one = page.getByRole('button', { name: 'Piece by piece' });
        if (await one.isVisible()) await one.click();
        for (let i = 0; i < strips && sent < 30; i++) {
          minutes += 2;
          await page.clock.setSystemTime(start + minutes * 60_000);
          await expect(page.getByText(`${size}, piece ${i + 1} of ${strips}`)).toBeVisible();
          await page.getByRole('button', { name: 'As planned' }).click();
          sent += 1;
        }
      }
      expect(sent).toBe(30);
      await notesOf(page).getByLabel('Photo from a file').setInputFiles(file);
      await expect(photosOf(page)).toHaveCount(1);
      await expect(page.getByTestId('unsent')).toBeVisible();
      // The phone's battery is empty, and full again: what waited is there.
      await page.close();
      const again = await context.newPage();
      await again.goto(`${house.url}${job}/bench?step=rip`);
      await expect(photosOf(again)).toHaveCount(1);
      await house.startServer();
      await expect
        .poll(async () => (await onServer(house, job)).map(({ photo }: any) => photo?.widthPx))
        .toEqual([40]);
      await expect(again.getByTestId('unsent')).toHaveCount(0);
      const read = (await (await fetch(`${house.url}/api${job}`)).json()).build.readings as {
        piece: string;
        step: string;
        taken: string;
      }[];
      expect(read).toHaveLength(30);
      const taken = read.map((each) => Date.parse(each.taken));
      expect(taken).toEqual(taken.toSorted((a, b) => a - b));
      expect(new Set(taken).size).toBe(30);
      expect(taken[29] - taken[0]).toBeGreaterThanOrEqual(57 * 60_000);
      await context.close();
    } finally {
      await close();
    }
  });
});
