import { type Browser, chromium, type Page } from '@playwright/test';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { defaultShop } from '../core/kit';
import { mustFit } from '../core/plan';
// @ts-expect-error plain JavaScript without declarations
import { startDatabase } from '../scripts/database.mjs';
// @ts-expect-error plain JavaScript without declarations
import { browserProgram } from '../scripts/machine.mjs';
// @ts-expect-error plain JavaScript without declarations
import { startServer } from '../scripts/serve.mjs';
import { faultyRack } from './breakdown';
import type { Row } from './timing';

const fortyStrips = () =>
  mustFit(
    {
      pattern: 'panel',
      length: { aim: 'fixed', value: { mm: 1400 } },
      width: { aim: 'fixed', value: { mm: 960 } },
      thickness: { aim: 'fixed', value: { mm: 24 } },
      woods: ['cherry_black', 'maple_sugar'],
      module: { mm: 24 },
      saw: 'table-full',
      flattenWith: 'sled',
      trimWith: { saw: 'table-full' },
      chequer: false,
      extraSlices: 0,
      sections: 1,
    },
    defaultShop('benchmark'),
    { name: 'forty strips', use: '' },
  );

interface TraceEvent {
  name: string;
  ph: string;
  tid: number;
  pid: number;
  dur?: number;
  args?: { name?: string };
}

/** Longest task of the page's main thread in a trace, ms. */
function longestTask(trace: Buffer): number {
  const { traceEvents } = JSON.parse(trace.toString()) as { traceEvents: TraceEvent[] };
  const main = new Set(
    traceEvents
      .filter((e) => e.name === 'thread_name' && e.args?.name === 'CrRendererMain')
      .map((e) => `${e.pid}:${e.tid}`),
  );
  const tasks = traceEvents.filter(
    (e) => /RunTask$/.test(e.name) && e.ph === 'X' && main.has(`${e.pid}:${e.tid}`),
  );
  if (tasks.length === 0) throw new Error('the trace holds no tasks');
  return Math.max(...tasks.map((e) => (e.dur ?? 0) / 1000));
}

const TRACED = { categories: ['toplevel', 'disabled-by-default-devtools.timeline', 'devtools.timeline'] };

const send = async (url: string, method: string, body: unknown): Promise<unknown> =>
  (await fetch(url, { method, headers: PROGRAM, body: JSON.stringify(body) })).json();

/** A job of 60 strips and fifteen faulty boards in one wood, solved on the screen. */
async function whileBreakingDown(browser: Browser, page: Page, url: string): Promise<number> {
  const { boards, strips } = faultyRack();
  await send(`${url}/api/boards`, 'POST', {
    boards: boards.map(({ id: _, ...board }) => ({ ...board, species: 'teak' })),
  });
  const build = fortyStrips();
  const slots = strips.map(({ id, length, width, thickness }) => ({
    id,
    species: 'teak',
    length: { mm: length },
    width: { mm: width },
    thickness: { mm: thickness },
  }));
  const { id } = (await send(`${url}/api/jobs`, 'POST', {
    build: { ...build, assemblies: [{ ...build.assemblies[0], slots }] },
  })) as { id: string };
  await page.goto(`${url}/jobs/${id}/wood`);
  await page.waitForTimeout(4000);
  await browser.startTracing(page, TRACED);
  await page.getByRole('button', { name: 'Break down the boards' }).click();
  await page.getByText('Stop, keep the best so far').waitFor();
  await page.waitForTimeout(5000);
  return longestTask(await browser.stopTracing());
}

/** Typing into the search and scrolling, with 2,000 boards more on the rack. */
async function whileSearching(browser: Browser, page: Page, url: string): Promise<number> {
  const { boards } = faultyRack();
  const many = Array.from({ length: 2000 }, (_, i) => {
    const { id: _id, ...board } = boards[i % boards.length];
    return { ...board, label: `many ${i}` };
  });
  await send(`${url}/api/boards`, 'POST', { boards: many });
  await page.goto(`${url}/rack`);
  await page.locator('[data-board]').first().waitFor();
  await page.waitForTimeout(3000);
  await browser.startTracing(page, TRACED);
  await page.getByLabel('Search the rack').pressSequentially('many 17', { delay: 60 });
  await page.getByLabel('Search the rack').fill('');
  await page.locator('[data-board]').first().hover();
  for (let i = 0; i < 20; i++) await page.mouse.wheel(0, 600);
  await page.waitForTimeout(500);
  return longestTask(await browser.stopTracing());
}

/** A program says who it is, as the server asks of all that write. */
const PROGRAM = { 'Content-Type': 'application/json', 'Junta-Client': 'bench' };

/** So much slower than here a phone's processor is taken to be. */
const SLOWER = 4;

/** The scripts that a page fetches from now on, by path. */
function scriptsOf(page: Page): string[] {
  const scripts: string[] = [];
  page.on('response', (response) => {
    const { pathname } = new URL(response.url());
    if (pathname.endsWith('.js')) scripts.push(pathname);
  });
  return scripts;
}

/** The longest main-thread tasks of three drags of a strip over 40, ms, the shortest first. */
async function whileDragging(browser: Browser, page: Page): Promise<number[]> {
  const longest: number[] = [];
  for (let round = 0; round < 3; round++) {
    const [from, to] = [
      await page.locator('[data-strip="2"]').boundingBox(),
      await page.locator('[data-strip="39"]').boundingBox(),
    ];
    if (!from || !to) throw new Error('no strips to drag');
    await page.mouse.move(from.x + 100, from.y + from.height / 2);
    await browser.startTracing(page, {
      categories: ['toplevel', 'disabled-by-default-devtools.timeline', 'devtools.timeline'],
    });
    await page.mouse.down();
    const start = performance.now();
    for (let t = 0; t < 1; t = (performance.now() - start) / 2000)
      await page.mouse.move(from.x + 100, from.y + (to.y - from.y) * t);
    await page.mouse.up();
    longest.push(longestTask(await browser.stopTracing()));
    await page.waitForTimeout(2500);
  }
  return longest.toSorted((a, b) => a - b);
}

const dragRow = (what: string, [least, typical, most]: number[]): Row => ({
  what,
  measured: `${typical.toFixed(0)} ms (of 3: ${[least, typical, most].map((ms) => ms.toFixed(0)).join(', ')})`,
  wanted: 'under 50 ms',
  met: typical < 50,
});

/** What only a browser can tell: the longest main-thread task while a strip is dragged, and the weight of the first screen. */
/** A list of 300 jobs: how long until it is drawn, both ways, and how long a letter of its search takes. */
async function manyJobs(
  page: Page,
  url: string,
): Promise<{ drawn: number; pictured: number; answered: number }> {
  const build = fortyStrips();
  const there = ((await (await fetch(`${url}/api/jobs`)).json()) as unknown[]).length;
  for (let i = there; i < 300; i++)
    await send(`${url}/api/jobs`, 'POST', { build: { ...build, name: `Shelf ${i}` } });
  const draw = async (as: string) => {
    await page.goto(`${url}/jobs?as=${as}`);
    // From the beginning of the navigation, by the page's own clock.
    return page.evaluate(
      () =>
        new Promise<number>((done) => {
          const look = () =>
            document.querySelectorAll('[data-job]').length >= 300
              ? requestAnimationFrame(() => done(performance.now()))
              : requestAnimationFrame(look);
          look();
        }),
    );
  };
  await draw('list');
  const pictured = await draw('pictures');
  const drawn = await draw('list');
  const answered = await page.evaluate(async () => {
    const field = document.querySelector<HTMLInputElement>('input[type="search"]');
    if (!field) throw new Error('no search');
    const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')?.set;
    const frame = () => new Promise((done) => requestAnimationFrame(() => setTimeout(done)));
    let most = 0;
    for (let n = 1; n <= 'Shelf 29 xy'.length; n++) {
      const began = performance.now();
      set?.call(field, 'Shelf 29 xy'.slice(0, n));
      field.dispatchEvent(new Event('input', { bubbles: true }));
      await frame();
      most = Math.max(most, performance.now() - began);
    }
    return most;
  });
  return { drawn, pictured, answered };
}

export async function browserRows(): Promise<Row[]> {
  const dataDir = mkdtempSync(join(tmpdir(), 'junta-bench-'));
  const database = await startDatabase({ dataDir, port: 4491, fast: true });
  const server = await startServer({ port: 4490, database: database.settings, quiet: true });
  const root = process.getuid?.() === 0;
  const browser = await chromium.launch({
    executablePath: browserProgram(),
    args: ['--use-angle=swiftshader', '--disable-background-networking', ...(root ? ['--no-sandbox'] : [])],
  });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const scripts = scriptsOf(page);
    await page.goto(`${server.url}/today`);
    await page.getByRole('heading', { name: 'Next' }).waitFor();
    await page.waitForTimeout(500);
    const isWorker = (path: string) => path.includes('.worker');
    const weigh = (paths: string[]) =>
      paths.reduce((sum, path) => sum + gzipSync(readFileSync(`dist/web${path}`)).length, 0) / 1000;
    const first = weigh(scripts.filter((path) => !isWorker(path)));
    const workers = weigh(scripts.filter(isWorker));
    const listPage = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const listScripts = scriptsOf(listPage);
    await listPage.goto(`${server.url}/jobs`);
    await listPage.locator('[data-job]').first().waitFor();
    await listPage.waitForTimeout(500);
    const listWeight = weigh(listScripts.filter((path) => !isWorker(path)));
    await listPage.close();
    const made = await fetch(`${server.url}/api/jobs`, {
      method: 'POST',
      headers: PROGRAM,
      body: JSON.stringify({ build: fortyStrips() }),
    });
    const { id } = (await made.json()) as { id: string };
    await page.goto(`${server.url}/jobs/${id}`);
    await page.locator('[data-strip="40"]').waitFor();
    await page.waitForTimeout(6000);
    const dragged = await whileDragging(browser, page);
    const client = await page.context().newCDPSession(page);
    await client.send('Emulation.setCPUThrottlingRate', { rate: SLOWER });
    const slowly = await whileDragging(browser, page);
    await client.send('Emulation.setCPUThrottlingRate', { rate: 1 });
    const jobPage = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const jobScripts = scriptsOf(jobPage);
    await jobPage.goto(`${server.url}/jobs/${id}`);
    await jobPage.locator('[data-strip="40"]').waitFor();
    const jobWeight = weigh(jobScripts.filter((path) => !isWorker(path)));
    await jobPage.close();
    const blocked = await whileBreakingDown(browser, page, server.url);
    const searching = await whileSearching(browser, page, server.url);
    const jobs = await manyJobs(page, server.url);
    return [
      {
        what: 'longest main-thread task while 60 strips are broken down',
        measured: `${blocked.toFixed(0)} ms`,
        wanted: 'at most 50 ms',
        met: blocked <= 50,
      },
      {
        what: 'longest main-thread task while a rack of 2,000 boards is searched and scrolled',
        measured: `${searching.toFixed(0)} ms`,
        wanted: 'under 200 ms',
        met: searching < 200,
      },
      {
        what: 'the list of 300 jobs, from the address to the last line drawn',
        measured: `${jobs.drawn.toFixed(0)} ms as lines, ${jobs.pictured.toFixed(0)} ms with pictures, those in sight drawn after it`,
        wanted: 'under 1 s',
        met: jobs.drawn < 1000 && jobs.pictured < 1000,
      },
      {
        what: 'searching them, from a letter to the frame with its answer, the slowest of eleven letters',
        measured: `${jobs.answered.toFixed(0)} ms`,
        wanted: 'within 100 ms',
        met: jobs.answered <= 100,
      },
      dragRow('longest main-thread task while a strip is dragged over 40 for 2 s', dragged),
      dragRow(`the same on a processor ${SLOWER} times slower`, slowly),
      {
        what: 'JavaScript for the first screen, Today, compressed',
        measured: `${first.toFixed(0)} kB (and ${workers.toFixed(0)} kB in workers)`,
        wanted: 'at most 140 kB, workers apart',
        met: first <= 140,
      },
      {
        what: 'JavaScript for the list of jobs, opened first, compressed',
        measured: `${listWeight.toFixed(0)} kB`,
        wanted: 'at most 140 kB, workers apart',
        met: listWeight <= 140,
      },
      {
        what: 'JavaScript for the screen of a job, opened first, compressed',
        measured: `${jobWeight.toFixed(0)} kB`,
        wanted: 'at most 300 kB, workers apart',
        met: jobWeight <= 300,
      },
    ];
  } finally {
    await browser.close();
    await server.kill();
    await database.stop();
    rmSync(dataDir, { recursive: true, force: true });
  }
}
