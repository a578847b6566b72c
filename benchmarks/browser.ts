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

/** What only a browser can tell: the longest main-thread task while a strip is dragged, and the weight of the first screen. */
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
    const scripts: string[] = [];
    page.on(
      'response',
      (response) =>
        /\.js$/.test(new URL(response.url()).pathname) && scripts.push(new URL(response.url()).pathname),
    );
    await page.goto(`${server.url}/jobs`);
    await page.getByRole('heading', { name: 'Jobs' }).waitFor();
    await page.waitForTimeout(500);
    const isWorker = (path: string) => path.includes('.worker');
    const weigh = (paths: string[]) =>
      paths.reduce((sum, path) => sum + gzipSync(readFileSync(`dist/web${path}`)).length, 0) / 1000;
    const first = weigh(scripts.filter((path) => !isWorker(path)));
    const workers = weigh(scripts.filter(isWorker));
    const made = await fetch(`${server.url}/api/jobs`, {
      method: 'POST',
      headers: PROGRAM,
      body: JSON.stringify({ build: fortyStrips() }),
    });
    const { id } = (await made.json()) as { id: string };
    await page.goto(`${server.url}/jobs/${id}`);
    await page.locator('[data-strip="40"]').waitFor();
    await page.waitForTimeout(6000);
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
    const typical = longest.sort((a, b) => a - b)[1];
    const blocked = await whileBreakingDown(browser, page, server.url);
    const searching = await whileSearching(browser, page, server.url);
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
        what: 'longest main-thread task while a strip is dragged over 40 for 2 s',
        measured: `${typical.toFixed(0)} ms (of 3: ${longest.map((ms) => ms.toFixed(0)).join(', ')})`,
        wanted: 'under 50 ms',
        met: typical < 50,
      },
      {
        what: 'JavaScript for the first screen, compressed',
        measured: `${first.toFixed(0)} kB (and ${workers.toFixed(0)} kB in workers)`,
        wanted: 'at most 250 kB',
        met: first + workers <= 250,
      },
    ];
  } finally {
    await browser.close();
    await server.kill();
    await database.stop();
    rmSync(dataDir, { recursive: true, force: true });
  }
}
