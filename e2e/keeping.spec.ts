import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { execFileSync } from 'node:child_process';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { comesOut, expect, killable, makeJob, mark, openJob, stored, test, type } from './house';

test('a job planned from a brief comes out exactly as asked, each dimension fixed, at least, at most or free', async ({
  page,
  house,
}) => {
  await page.goto(`${house.url}/jobs/new`);
  await page.getByText('End-grain chequer').click();
  await page.getByLabel('Name').fill('Planned');
  await type(page.getByLabel('Length, finished'), '400 mm');
  await page.getByRole('combobox', { name: 'Width', exact: true }).click();
  await page.getByRole('option', { name: 'at least' }).click();
  await type(page.getByLabel('Width, finished'), '9 3/4');
  await type(page.getByLabel('Thickness, finished'), '0');
  await expect(page.getByRole('alert')).toBeVisible();
  await type(page.getByLabel('Thickness, finished'), '1 7/8');
  await expect(page.getByRole('heading', { name: /Comes out at/ })).toContainText('15 3/4 × 10 × 1 7/8');
  await page.getByRole('button', { name: 'Make this job' }).click();
  await expect(page.getByTestId('target').getByLabel('fits')).toHaveCount(3);
  await expect.poll(() => comesOut(page)).toEqual(['15 3/4', '10', '1 7/8']);
  await expect(page.getByTestId('target')).toContainText('≥ 9 3/4');
});

test('absurd briefs are answered with the reason', async ({ page, house }) => {
  await page.goto(`${house.url}/jobs/new`);
  await type(page.getByLabel('Width, finished'), '300');
  await type(page.getByLabel('Strip width'), '1/8');
  await expect(page.getByRole('region', { name: 'Plan' }).getByRole('alert')).toContainText('2400 strips');
  await expect(page.getByRole('button', { name: 'Make this job' })).toBeDisabled();
});

test('a job goes out as a file and comes back the same; the command line predicts it', async ({
  page,
  house,
}) => {
  await openJob(page, house, 'Games board');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export' }).click();
  const folder = mkdtempSync(join(tmpdir(), 'junta-file-'));
  const file = join(folder, 'job.json');
  await (await download).saveAs(file);
  const out = JSON.parse(
    execFileSync('npm', ['run', '-s', 'junta', '--', 'predict', file], { encoding: 'utf8' }),
  );
  expect(out.finished[0].length.mm).toBeCloseTo(14 * 25.4, 6);
  expect(Math.abs(out.ledgerMm3.difference) / out.ledgerMm3.woodIn).toBeLessThan(1e-9);
  const input = page.getByLabel('Job file');
  await page.goto(`${house.url}/jobs`);
  await input.setInputFiles(file);
  await expect(page.getByTestId('bench')).toBeVisible();
  await expect.poll(() => comesOut(page)).toEqual(['14', '14', '1 1/8']);
  const again = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export' }).click();
  expect(readFileSync(await (await again).path(), 'utf8')).toBe(readFileSync(file, 'utf8'));
});

test('broken, newer, foreign and huge files are answered with place and reason', async ({ page, house }) => {
  await page.goto(`${house.url}/jobs`);
  const input = page.getByLabel('Job file');
  const give = (content: string) =>
    input.setInputFiles({ name: 'x.json', mimeType: 'application/json', buffer: Buffer.from(content) });
  const alert = page.getByRole('alert');
  await give('{"format": "junta-build",\n "version": ,}');
  await expect(alert).toContainText('line 2, column 13');
  await give('{"format": "junta-build", "version": 7}');
  await expect(alert).toContainText('newer Junta');
  await give('{"hello": 1}');
  await expect(alert).toContainText('not a Junta job');
  await give(`{"format": "junta-build", "version": 1, "colour": 3}`);
  await expect(alert).toContainText('colour');
  const big = join(mkdtempSync(join(tmpdir(), 'junta-big-')), 'big.json');
  writeFileSync(big, Buffer.alloc(50 * 1024 * 1024, 32));
  await input.setInputFiles(big);
  await expect(alert).toContainText('50.0 MB');
  await alert.getByRole('button', { name: 'Close' }).click();
  await expect(page.getByRole('link', { name: /Games board/ }).first()).toBeVisible();
});

test('an idle tab follows; edits from one version conflict, and neither is lost', async ({
  page,
  house,
  context,
}) => {
  const url = await makeJob(page, house, false, 'two tabs');
  const other = await context.newPage();
  await other.goto(url);
  await expect(other.getByTestId('bench')).toBeVisible();
  await page.locator('[data-strip="1"]').click();
  await page.keyboard.press('d');
  await stored(page);
  await expect(other.locator('[data-strip]')).toHaveCount(6);
  await other.route('**/api/**', (route) => route.abort());
  await other.locator('[data-strip="1"]').click();
  await other.keyboard.press('Delete');
  await page.keyboard.press('e');
  await stored(page);
  await expect(other.getByTestId('keeping')).toContainText('kept in this browser');
  await other.unroute('**/api/**');
  const asked = async () =>
    (await page.getByRole('dialog').isVisible()) || (await other.getByRole('dialog').isVisible());
  await expect.poll(asked).toBe(true);
  const [loser, winner] = (await page.getByRole('dialog').isVisible()) ? [page, other] : [other, page];
  await stored(winner);
  await expect(loser.getByRole('dialog')).toContainText('Made here');
  await expect(loser.getByRole('dialog')).toContainText('Stored first, made elsewhere');
  await expect(loser.getByRole('dialog').getByRole('listitem').first()).toBeVisible();
  await loser.getByRole('button', { name: 'Go on with mine' }).click();
  await stored(loser);
  await loser.getByRole('button', { name: 'Kept versions' }).click();
  await expect(loser.getByText('put aside in a conflict')).toBeVisible();
  await expect(loser.getByRole('dialog').locator('[data-version]')).toHaveCount(5);
});

test('a tab closed in the middle of an edit, then everything killed: the last edit is there', async ({
  browser,
}) => {
  test.setTimeout(150_000);
  const { house, close } = await killable();
  try {
    const context = await browser.newContext();
    const page = await context.newPage();
    const url = await openJob(page, house, 'Galley chopping block');
    await mark(page, 'slice').click();
    await type(page.getByLabel('Slice thickness'), '2');
    await stored(page);
    // The server dies; edits go on in the browser.
    await house.killServer();
    await type(page.getByLabel('Slice thickness'), '2 1/16');
    await expect(page.getByTestId('keeping')).toContainText('kept in this browser');
    await expect(mark(page, 'slice')).toContainText('2 1/16');
    await house.startServer();
    await stored(page);
    // The database dies under the server; the server stays up and says so.
    await house.killDatabase();
    expect((await fetch(`${house.url}/api/jobs`)).status).toBe(503);
    await type(page.getByLabel('Slice thickness'), '2 1/8');
    await expect(page.getByTestId('keeping')).toContainText('kept in this browser');
    await house.startDatabase();
    await stored(page);
    // The tab is closed before anything could be sent: a moment after the key, with server and database gone.
    await house.killServer();
    await house.killDatabase();
    await page.getByLabel('Slice thickness').fill('2 3/16');
    await page.waitForTimeout(700);
    await page.close();
    await house.startDatabase();
    await house.startServer();
    const again = await context.newPage();
    await again.goto(url);
    await mark(again, 'slice').click();
    await expect(mark(again, 'slice')).toContainText('2 3/16');
    await expect(again.getByLabel('Slice thickness')).toHaveValue('2 3/16');
    await stored(again);
    const fresh = await (await browser.newContext()).newPage();
    await fresh.goto(url);
    await expect(mark(fresh, 'slice')).toContainText('2 3/16');
  } finally {
    await close();
  }
});
