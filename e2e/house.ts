import { test as base, type BrowserContext, expect, type Locator, type Page } from '@playwright/test';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ADDRESSES } from '../web/app/addresses';
// @ts-expect-error plain JavaScript without declarations
import { startDatabase } from '../scripts/database.mjs';
// @ts-expect-error plain JavaScript without declarations
import { freePort } from '../scripts/ports.mjs';
// @ts-expect-error plain JavaScript without declarations
import { startServer } from '../scripts/serve.mjs';

/** A whole Junta of its own: database, server, address. Any part of it can be killed and started again. */
export interface House {
  url: string;
  /** The same under a name that is not loopback: a page there is no secure context. */
  plainUrl: string;
  killServer: () => Promise<void>;
  startServer: () => Promise<void>;
  killDatabase: () => Promise<void>;
  startDatabase: () => Promise<void>;
}

interface Worker {
  house: House;
  warm: Map<string, BrowserContext>;
}

/** The name that the browser's own resolver rules map to loopback (playwright.config.ts). */
const PLAIN_HOST = 'shop.test';

const openHouse = async (
  fast: boolean,
  host = '127.0.0.1',
): Promise<{ house: House; close: () => Promise<void> }> => {
  const dataDir = mkdtempSync(join(tmpdir(), 'junta-e2e-'));
  const [port, databasePort] = [await freePort(), await freePort()];
  let database = await startDatabase({ dataDir, port: databasePort, fast });
  const serve = () =>
    startServer({
      port,
      host,
      database: database.settings,
      quiet: true,
      env: { JUNTA_HOSTS: PLAIN_HOST, JUNTA_DATA: dataDir },
    });
  let server = await serve();
  const house: House = {
    url: server.url,
    plainUrl: `http://${PLAIN_HOST}:${port}`,
    killServer: () => server.kill(),
    startServer: async () => {
      server = await serve();
    },
    killDatabase: () => database.kill(),
    startDatabase: async () => {
      database = await startDatabase({ dataDir, port: databasePort, fast });
    },
  };
  const close = async () => {
    await server.kill();
    await database.stop();
    rmSync(dataDir, { recursive: true, force: true });
  };
  return { house, close };
};

/** Messages that a test may cause on purpose: requests to a server that was killed, answers that refuse. */
const EXPECTED = /Failed to load resource|net::ERR_/;

/** In a page: its browser saves data, so that parts are fetched as they are opened. */
export const savesData = () =>
  Object.defineProperty(navigator, 'connection', { get: () => ({ saveData: true }) });

/** A page on a house shared by the tests of a worker. A message on the console fails the test. */
export const test = base.extend<{ quiet: void }, Worker>({
  house: [
    async ({}, use) => {
      const { house, close } = await openHouse(true);
      await use(house);
      await close();
    },
    { scope: 'worker', timeout: 300_000 },
  ],
  // Contexts by what they are made with: what a browser has fetched and compiled once it need not do again for every test.
  warm: [
    async ({}, use) => {
      const kept = new Map<string, BrowserContext>();
      await use(kept);
      for (const context of kept.values()) await context.close();
    },
    { scope: 'worker' },
  ],
  // One that keeps a service worker is a test's own.
  context: async (
    { browser, warm, viewport, hasTouch, isMobile, deviceScaleFactor, serviceWorkers },
    give,
  ) => {
    const own = serviceWorkers !== 'block';
    const made = JSON.stringify([viewport, hasTouch, isMobile, deviceScaleFactor]);
    const context = (own ? undefined : warm.get(made)) ?? (await browser.newContext());
    if (!own) warm.set(made, context);
    await give(context);
    if (own) return context.close();
    for (const page of context.pages()) await page.close();
    await context.unrouteAll();
  },
  // Nothing is kept in the browser from the test before.
  page: async ({ context, house }, give) => {
    const page = await context.newPage();
    const client = await context.newCDPSession(page);
    for (const url of [house.url, house.plainUrl])
      await client.send('Storage.clearDataForOrigin', { origin: url, storageTypes: 'all' });
    await client.detach();
    await give(page);
  },
  quiet: [
    async ({ page, browser, warm }, use) => {
      // The first-use lines were read before; they have a test of their own. Parts are fetched as they are opened: what happens
      // when the server goes is looked at with pages that have them all (offline.spec.ts).
      await page.addInitScript(
        (all) => localStorage.setItem('junta-hints', all),
        Object.keys(ADDRESSES).join(),
      );
      await page.addInitScript(savesData);
      const errors: string[] = [];
      page.on(
        'console',
        (message) =>
          message.type() === 'error' && !EXPECTED.test(message.text()) && errors.push(message.text()),
      );
      page.on('pageerror', (error) => errors.push(error.message));
      await use();
      // What a test opened beside its page and left open would go on asking servers that are gone, and take its time from the next test.
      const kept = new Set([page.context(), ...warm.values()]);
      for (const context of browser.contexts()) if (!kept.has(context)) await context.close();
      expect(errors).toEqual([]);
    },
    { auto: true },
  ],
});

/** A house that gives up no durability, to be killed. */
export const killable = () => openHouse(false);
/** A house of its own for tests that change its shops or fill it. */
export const ownHouse = () => openHouse(true);
/** A house that listens on more than this machine. */
export const openToAll = () => openHouse(true, '0.0.0.0');

export { expect };

/** What a program that changes something says of itself. */
export const PROGRAM = { 'Junta-Client': 'tests' };

/** The address of a job by its name, without the list of jobs and its pictures being drawn for it. */
export async function demoJob(page: Page, house: House, name: RegExp): Promise<string> {
  const answer = await page.request.get(`${house.url}/api/jobs`, { maxRetries: 3 });
  const jobs: { id: string; name: string }[] = await answer.json();
  const job = jobs.find((each) => name.test(each.name));
  if (!job) throw new Error(`no job is called ${name}`);
  return `/jobs/${job.id}`;
}

/** Opens a demo job by its name; waits until the bench stands. */
export async function openJob(page: Page, house: House, name: string): Promise<string> {
  await page.goto(house.url + (await demoJob(page, house, new RegExp(name))));
  await expect(page.getByTestId('bench')).toBeVisible();
  await expect(page.getByTestId('target')).toContainText('comes out');
  return page.url();
}

/** Makes a job of its own from a brief, so that tests do not stand in each other's way. */
export async function makeJob(page: Page, house: House, block: boolean, name: string): Promise<string> {
  await page.goto(`${house.url}/jobs/new`);
  if (block) await page.getByText('End-grain chequer').click();
  await page.getByLabel('Name').fill(name);
  await page.getByRole('button', { name: 'Make this job' }).click();
  await expect(page.getByTestId('bench')).toBeVisible();
  await expect(page.locator('[data-strip="1"]')).toBeVisible();
  return page.url();
}

/** Changes the steps of a job as another program would, past the page that is open. */
export async function changeSteps(
  page: Page,
  house: House,
  path: string,
  change: (step: { id: string }) => object,
): Promise<void> {
  const address = `${house.url}/api${new URL(path, house.url).pathname}`;
  const { version, build } = await (await page.request.get(address)).json();
  const data = { version, build: { ...build, steps: build.steps.map(change) } };
  const answer = await page.request.put(address, { headers: PROGRAM, data });
  expect(answer.status(), await answer.text()).toBe(200);
}

/** Takes an option of a list by its label. */
export async function choose(page: Page, label: string, option: string): Promise<void> {
  await page.getByRole('combobox', { name: label, exact: true }).click();
  await page.getByRole('option', { name: option, exact: true }).click();
}

/** The large fields at the foot of the bench: back, go on, pause. */
export const benchField = (page: Page, nth: 0 | 1 | 2): Locator =>
  page.getByRole('group', { name: 'What is done' }).getByRole('button').nth(nth);

/** Text of twice the size, as somebody sets it who sees little. */
export const TWICE = 'html { -webkit-text-size-adjust: 200% !important; text-size-adjust: 200% !important }';

/** The mark of a step on the stick. */
export const mark = (page: Page, step: string): Locator => page.locator(`[data-step="${step}"]`);

/** Waits until the server has what the screen shows. */
export const stored = (page: Page) => expect(page.getByTestId('keeping')).toHaveText('stored');

/** Waits until nothing that was changed in this browser still has to be sent, whatever screen is open. */
export const allSent = (page: Page) =>
  expect
    .poll(() =>
      page.evaluate(
        () =>
          new Promise<number>((done, failed) => {
            const asked = indexedDB.open('junta');
            asked.onerror = () => failed(new Error('the drafts of this browser cannot be opened'));
            asked.onsuccess = () => {
              const count = asked.result.transaction('drafts').objectStore('drafts').count();
              count.onsuccess = () => {
                asked.result.close();
                done(count.result);
              };
            };
          }),
      ),
    )
    .toBe(0);

/** Where something lies once it has come to rest: what is found meanwhile may still push it down. */
export async function restingBox(field: Locator) {
  let last = '';
  await expect
    .poll(async () => {
      const before = last;
      last = JSON.stringify(await field.boundingBox());
      return last !== 'null' && last === before;
    })
    .toBe(true);
  return JSON.parse(last) as { x: number; y: number; width: number; height: number };
}

/** The order of the strips as the bench shows it, by id. */
export const order = (page: Page): Promise<string[]> =>
  page
    .locator('[data-strip]')
    .evaluateAll((strips) => strips.map((strip) => strip.getAttribute('data-id') ?? ''));

/** Types into a length and leaves the field. */
export async function type(field: Locator, text: string): Promise<void> {
  await field.fill(text);
  await field.press('Enter');
}

/** What comes out, as the target table says: length, width, thickness. */
export const comesOut = (page: Page): Promise<string[]> =>
  page.getByTestId('target').locator('tbody tr td:nth-child(2)').allTextContents();

/** The mark that is chosen on the stick. */
export const chosen = (page: Page): Locator => page.locator('[data-step][aria-current="step"]');

/** Opens the menu behind the chosen step, puts a kind of step in and waits until it stands on the stick. */
export async function put(page: Page, kind: string): Promise<void> {
  await chosen(page).focus();
  await page.keyboard.press('a');
  await page.locator(`[data-line="${kind}"]`).click();
  await expect(chosen(page)).toHaveAttribute('data-step', new RegExp(`^${kind}`));
  await expect(page.getByRole('dialog')).toHaveCount(0);
}

/** Makes a job without a pattern; waits until its empty bench stands. */
export async function freeJob(page: Page, house: House, name: string): Promise<void> {
  await page.goto(`${house.url}/jobs/new`);
  await page.getByLabel('Name').fill(name);
  await page.getByRole('button', { name: 'Begin without a pattern' }).click();
  await expect(page.getByText('Nothing is done in this job yet')).toBeVisible();
}

/** Every address of Junta with what its window is called, seen from one job; and one that leads nowhere. */
export const everyAddress = (job: string): { address: string; title: string | undefined }[] => [
  ...Object.entries(ADDRESSES).map(([path, title]) => ({
    address: `/${path}`.replace('/jobs/:id', job).replace(':step', 'glue'),
    title,
  })),
  { address: '/nowhere', title: 'Nothing here' },
];

/** Opens the window of a new line, from the empty bench or from the menu of the chosen step. */
export async function newLine(page: Page): Promise<Locator> {
  const empty = page.getByRole('button', { name: 'Begin a line' });
  if (await empty.isVisible()) await empty.click();
  else {
    await chosen(page).focus();
    await page.keyboard.press('a');
    await page.getByRole('button', { name: 'begin a line of its own' }).click();
  }
  return page.getByRole('dialog', { name: 'A line of its own' });
}

/** A picture of 40 by 20 px, as a camera would give it. */
const photo = (page: Page): Promise<string> =>
  page.evaluate(() => {
    const canvas = Object.assign(document.createElement('canvas'), { width: 40, height: 20 });
    const context = canvas.getContext('2d');
    if (context) context.fillStyle = '#b98a5a';
    context?.fillRect(0, 0, 40, 20);
    return canvas.toDataURL('image/png').split(',')[1];
  });

/** The same as a file that is chosen. */
export const photoFile = async (page: Page) => ({
  name: 'panel.png',
  mimeType: 'image/png',
  buffer: Buffer.from(await photo(page), 'base64'),
});

/** One finger goes from a place on the screen to another, px, in steps that a hand takes; lifted at the end, or taken away by the browser. */
export async function finger(
  page: Page,
  [x, y]: readonly [number, number],
  [dx, dy]: readonly [number, number],
  end: 'lifted' | 'cancelled' = 'lifted',
): Promise<void> {
  const client = await page.context().newCDPSession(page);
  const touch = (
    type: 'touchStart' | 'touchMove' | 'touchEnd' | 'touchCancel',
    at?: readonly [number, number],
  ) => client.send('Input.dispatchTouchEvent', { type, touchPoints: at ? [{ x: at[0], y: at[1] }] : [] });
  await touch('touchStart', [x, y]);
  for (let i = 1; i <= 8; i++) {
    await touch('touchMove', [x + (dx * i) / 8, y + (dy * i) / 8]);
    await page.waitForTimeout(30);
  }
  await touch(end === 'lifted' ? 'touchEnd' : 'touchCancel');
  await client.detach();
}
