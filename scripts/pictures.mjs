import { chromium } from '@playwright/test';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build } from './build.mjs';
import { startDatabase } from './database.mjs';
import { browserProgram, needBrowser, needDatabase } from './machine.mjs';
import { startServer } from './serve.mjs';

/* npm run pictures: takes the pictures in docs/screenshots anew, from the demo shop, at 1280 x 800. */
needDatabase();
needBrowser();
await build();
const dataDir = mkdtempSync(join(tmpdir(), 'junta-pictures-'));
const database = await startDatabase({ dataDir, port: 4471, fast: true });
const server = await startServer({ port: 4470, database: database.settings, quiet: true });
const root = process.getuid?.() === 0;
const browser = await chromium.launch({
  executablePath: browserProgram(),
  args: ['--use-angle=swiftshader', '--disable-background-networking', ...(root ? ['--no-sandbox'] : [])],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });

/** Waits until the workers have finished drawing: no pixel of the page changes any more. */
async function drawn() {
  let last = '';
  for (let i = 0; i < 40; i++) {
    await page.waitForTimeout(700);
    const now = (await page.screenshot()).toString('base64');
    if (now === last) return;
    last = now;
  }
}
async function take(name) {
  await drawn();
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
  console.log(`docs/screenshots/${name}.png`);
}
async function open(name) {
  await page.goto(`${server.url}/jobs`);
  await page.getByRole('link', { name: new RegExp(name) }).click();
  await page.locator('[data-testid=bench]').waitFor();
}
/** Changes the build of a demo job as another device would. */
async function change(name, edit) {
  const headers = { 'Content-Type': 'application/json', 'Junta-Client': 'pictures' };
  const list = await (await fetch(`${server.url}/api/jobs`, { headers })).json();
  const { id } = list.find((job) => job.name === name);
  const { version, build } = await (await fetch(`${server.url}/api/jobs/${id}`, { headers })).json();
  const body = JSON.stringify({ version, build: { ...build, steps: build.steps.map(edit) } });
  const answer = await fetch(`${server.url}/api/jobs/${id}`, { method: 'PUT', headers, body });
  if (!answer.ok) throw new Error(await answer.text());
}
const hoursAgo = (hours) => new Date(Date.now() - hours * 3_600_000).toISOString();
/** The first steps of a job are done, the last of them so many hours ago. */
const inTheMiddle = (name, steps, hours) =>
  change(name, (step, i) => (i < steps ? { ...step, done: true, doneAt: hoursAgo(hours) } : step));
/** The first step of a job was to begin so many hours ago. */
const wishedFor = (name, hours) =>
  change(name, (step, i) => (i === 0 ? { ...step, begin: hoursAgo(hours) } : step));
/** Eight chopping blocks that were made, a week apart, by a blade that takes less than its kit says. Gives the id of the last. */
async function madeBlocks() {
  const headers = { 'Content-Type': 'application/json', 'Junta-Client': 'pictures' };
  const list = await (await fetch(`${server.url}/api/jobs`, { headers })).json();
  const { id } = list.find((job) => job.name === 'Galley chopping block');
  const { build } = await (await fetch(`${server.url}/api/jobs/${id}`, { headers })).json();
  const [rip] = build.steps;
  let last;
  for (let i = 0; i < 8; i++) {
    const taken = hoursAgo(24 * 7 * (9 - i));
    const off = [0.1, -0.15, 0.05, 0.2, -0.1, 0, 0.15, -0.05][i];
    const read = (slot, k) => ({
      id: `${rip.id}.width.${slot.id}`,
      step: rip.id,
      dimension: 'width',
      piece: slot.id,
      measured: { mm: Number((slot.width.mm + off + 0.03 * (k - 1)).toFixed(2)) },
      taken,
      who: 'Ada',
    });
    const kerf = (value, k) => ({ id: `kerf${k}`, step: rip.id, kind: 'kerf', values: [value], taken });
    const to = new Date(Date.parse(taken) + (34 + i) * 60_000).toISOString();
    const data = {
      ...build,
      name: `Galley block ${i + 1}`,
      readings: build.assemblies[0].slots.slice(0, 3).map(read),
      checks: [2.95, 3].map(kerf),
      steps: build.steps.map((each, n) =>
        n === 0 ? { ...each, done: true, doneAt: to, work: [{ from: taken, to, who: 'Ada' }] } : each,
      ),
    };
    const answer = await fetch(`${server.url}/api/jobs`, {
      method: 'POST',
      headers,
      body: JSON.stringify({ build: data }),
    });
    if (!answer.ok) throw new Error(await answer.text());
    last = (await answer.json()).id;
  }
  return last;
}
const tab = (name) => page.getByRole('tab', { name: new RegExp(`^${name}`) }).click();
const step = (id) => page.locator(`[data-step="${id}"]`).click();

try {
  await page.goto(server.url);
  await page.getByRole('heading', { name: 'Your own shop' }).waitFor();
  await page.getByRole('button', { name: 'Look at the demo shop' }).click();
  await page.getByRole('heading', { name: 'Today' }).waitFor();
  // First-use lines are read once and gone.
  await page.evaluate(() =>
    localStorage.setItem(
      'junta-hints',
      'today,jobs,jobs/new,patterns,jobs/:id,jobs/:id/wood,jobs/:id/look,jobs/:id/rehearse/:step,jobs/:id/cost,jobs/:id/record,calendar,rack,kit,log,tables',
    ),
  );
  await open('Galley chopping block');
  await step('glue-block');
  await page.mouse.move(640, 790);
  await take('job-block');
  await step('slice');
  await page.getByRole('button', { name: 'Something failed here' }).click();
  await page.getByRole('radio', { name: 'A slice is lost' }).check();
  await page.getByRole('button', { name: 'Piece 3' }).click();
  await page.getByRole('button', { name: 'Show the ways to go on' }).click();
  await page
    .getByRole('button', { name: /^Take this way/ })
    .first()
    .waitFor();
  await page.mouse.move(640, 790);
  await take('failure-plans');
  await page.keyboard.press('Escape');
  await open('Wash-house counter');
  await page.locator('[data-step]').last().click();
  await page.getByRole('button', { name: /^2\. Hole for the tap/ }).click();
  await page.locator('[data-features]').waitFor();
  await page.waitForTimeout(1500);
  await take('features');
  await page.keyboard.press('Escape');
  await page.goto(`${server.url}/rack`);
  await page.locator('[data-board="1"]').click();
  await take('rack');
  await open('Chart-table top');
  await page.getByRole('link', { name: 'Wood' }).click();
  await page.getByRole('button', { name: 'Break down the boards' }).click();
  await page.getByRole('region', { name: 'Trade-off' }).waitFor({ timeout: 60_000 });
  await page.mouse.move(640, 790);
  await take('wood');
  await open('Boathouse bench top');
  await page.getByRole('link', { name: 'At the bench' }).click();
  await page.goto(`${page.url()}?step=flatten`);
  await page.getByText('set it to').waitFor();
  await take('at-the-bench');
  await page.goto(`${server.url}/jobs/new`);
  await page.getByText('Bricks', { exact: true }).click();
  await take('new-job');
  await page.goto(`${server.url}/patterns`);
  await take('patterns');
  await open('Watch-room tray');
  await page.getByRole('link', { name: 'Sheets' }).click();
  await page.getByRole('article').last().scrollIntoViewIfNeeded();
  await take('assembly-sheet');
  await open('Signal-room table');
  await step('fit-1');
  await page.getByRole('button', { name: 'Movement over the year' }).click();
  await page.getByRole('img', { name: /^Width through the year/ }).waitFor();
  await take('movement');
  await page.keyboard.press('Escape');
  await open('Tower stair tread');
  await step('glue');
  await tab('Clamps');
  await page.getByText('even squeeze-out').first().waitFor({ timeout: 60_000 });
  await page.mouse.move(640, 790);
  await take('glue-clamps');
  await page.goto(`${server.url}/calendar`);
  for (const job of ['Chart-table top', 'Laminated tiller']) await page.getByLabel(job).check();
  await page
    .getByRole('button', { name: /Glue-up, work/ })
    .first()
    .waitFor();
  await take('calendar');
  await inTheMiddle('Boathouse bench top', 3, 0.6);
  await inTheMiddle('Lamp-room shelf', 1, 20);
  await wishedFor('Tower stair tread', 26);
  await page.goto(`${server.url}/today`);
  await page.getByText('left').first().waitFor();
  await take('today');
  await page.goto(`${server.url}/jobs`);
  await take('jobs');
  const made = await madeBlocks();
  await page.getByRole('button', { name: 'Heard' }).click();
  await page.goto(`${server.url}/log`);
  await page.locator('[data-loss]').first().waitFor();
  await take('log');
  await page.goto(`${server.url}/jobs/${made}/record`);
  await page.getByTestId('number').waitFor();
  await take('record');
  await page.goto(`${server.url}/kit`);
  await page.getByRole('region', { name: 'Clamps' }).evaluate((clamps) => clamps.scrollIntoView());
  await take('kit');
  await open('Tower stair tread');
  await page.getByRole('button', { name: /inches/ }).click();
  await page.getByText('millimetres', { exact: true }).click();
  await page.keyboard.press('Escape');
  await step('rip');
  await page.locator('[data-step="rip"]').focus();
  await page.keyboard.press('a');
  await page.getByText(/^All \d+ pieces$/).click();
  await page.getByRole('checkbox').first().click();
  await page.locator('[data-line="mill"]').waitFor();
  await page.waitForTimeout(600);
  await take('chain-menu');
  // Back to inches, then three screens in the hand, side by side in one picture.
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /millimetres/ }).click();
  await page.getByText('inches', { exact: true }).click();
  await page.keyboard.press('Escape');
  await page.setViewportSize({ width: 390, height: 844 });
  const hand = async () => {
    await drawn();
    return `data:image/png;base64,${(await page.screenshot()).toString('base64')}`;
  };
  await open('Galley chopping block');
  await page.goto(`${page.url().split('?')[0]}/bench?step=slice`);
  await page.getByTestId('figure').first().waitFor();
  const shots = [await hand()];
  await open('Chart-chest lid');
  await step('glue');
  await page.locator('[data-strip="3"]').click();
  shots.push(await hand());
  await page.getByRole('complementary', { name: 'Step' }).getByRole('button').first().click();
  shots.push(await hand());
  await page.goto(`${server.url}/rack`);
  shots.push(await hand());
  await page.setViewportSize({ width: 4 * 390 + 5 * 16, height: 844 + 32 });
  await page.setContent(
    `<body style="margin:16px;display:flex;gap:16px;background:#cdd1cc">${shots.map((src) => `<img alt="" src="${src}">`).join('')}</body>`,
  );
  await take('phone');
} finally {
  await browser.close();
  await server.kill();
  await database.stop();
  rmSync(dataDir, { recursive: true, force: true });
}
