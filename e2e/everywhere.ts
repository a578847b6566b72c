import type { Page } from '@playwright/test';
import {
  benchField,
  changeSteps,
  chosen,
  demoJob,
  everyAddress,
  expect,
  type House,
  makeJob,
  mark,
  openJob,
  photoFile,
  PROGRAM,
  put,
  stored,
} from './house';

/** A place of Junta: a route, a step, a tab or a window, and the way to it. */
interface Place {
  name: string;
  go: (page: Page, house: House) => Promise<unknown>;
}

const dialog = (page: Page) => expect(page.getByRole('dialog')).toBeVisible();
const press = (page: Page, name: string | RegExp) => page.getByRole('button', { name }).first().click();
/** On a phone the card lies under the drawing until it is pulled up. */
const pullUp = async (page: Page) => {
  const up = page.getByRole('complementary', { name: 'Step' }).getByRole('button', { expanded: false });
  const first = up.first();
  if ((page.viewportSize()?.width ?? 0) < 700 && (await first.isVisible())) await first.click();
};
/** A tool of the head of a job, which a phone folds away. */
const tool = async (page: Page, name: string) => {
  const more = page.getByRole('button', { name: 'More' });
  if (await more.isVisible()) await more.click();
  await page.getByRole('button', { name, exact: true }).click();
};
const step = async (page: Page, house: House, job: string, id: string) => {
  const path = await demoJob(page, house, new RegExp(job));
  // A job that is open already is gone on in, as its maker would.
  if (new URL(page.url()).pathname !== path || (await page.getByRole('dialog').count()) > 0)
    await openJob(page, house, job);
  await mark(page, id).click();
  await expect(mark(page, id)).toHaveAttribute('aria-current', 'step');
  await pullUp(page);
};
const wood = async (page: Page, house: House) => {
  await page.goto(`${house.url}${await demoJob(page, house, /Lamp-room shelf/)}/wood`);
  await expect(page.getByRole('button', { name: 'Break down the boards' })).toBeVisible();
};

/** The kit is changed here with no answer from the server, and elsewhere meanwhile. */
async function inTwoPlaces(page: Page, house: House): Promise<void> {
  await page.goto(`${house.url}/kit`);
  const kerf = page.getByLabel(/, kerf$/).first();
  await kerf.waitFor();
  await page.route('**/api/**', (route) => route.abort());
  await kerf.fill(`${(2.2 + (Date.now() % 900) / 1000).toFixed(3)} mm`);
  await kerf.press('Enter');
  await expect(page.getByTestId('away')).toBeVisible();
  const { version, shop } = await (await page.request.get(`${house.url}/api/kit`)).json();
  const answer = await page.request.put(`${house.url}/api/kit`, {
    headers: PROGRAM,
    data: { version, shop: { ...shop, woodMoisturePct: shop.woodMoisturePct + 0.1 } },
  });
  expect(answer.status()).toBe(200);
  await page.unroute('**/api/**');
  await dialog(page);
}

/** Every window by the file it is in; a window that is not listed fails a test. */
export const WINDOWS: Record<string, Place['go']> = {
  'parts/HowWindow.tsx': async (page, house) => {
    await openJob(page, house, 'Chart-chest lid');
    await press(page, /^How is this computed/);
    await dialog(page);
  },
  'screens/jobs/DeletedJobs.tsx': async (page, house) => {
    await page.goto(`${house.url}/jobs`);
    await press(page, 'Deleted');
    await dialog(page);
  },
  'screens/start/Shops.tsx': async (page, house) => {
    await page.goto(`${house.url}/shops`);
    await press(page, /^Remove /);
    await dialog(page);
  },
  'screens/atbench/GateWindow.tsx': async (page, house) => {
    const job = await makeJob(page, house, false, 'waiting');
    await stored(page);
    const glued = new Set(['rip', 'mill', 'glue']);
    const doneAt = new Date().toISOString();
    await changeSteps(page, house, job, (step) =>
      glued.has(step.id) ? { ...step, done: true, doneAt } : step,
    );
    await page.goto(`${job}/bench?step=flatten`);
    await press(page, /^Wait/);
    await dialog(page);
  },
  'screens/failed/FailureWindow.tsx': async (page, house) => {
    await page.goto(`${house.url}${await demoJob(page, house, /Galley chopping block/)}/bench?step=slice`);
    await press(page, /^It failed/);
    await page.getByRole('radio', { name: 'A slice is lost' }).check();
    await press(page, 'Piece 3');
    await press(page, 'Show the ways to go on');
    await expect(page.getByRole('button', { name: /^Take this way/ }).first()).toBeVisible();
  },
  'screens/notes/NoteWindow.tsx': async (page, house) => {
    await page.goto(`${house.url}${await demoJob(page, house, /Lamp-room shelf/)}/bench`);
    const notes = page.getByRole('region', { name: 'Photos and notes' });
    if ((await notes.getByRole('list', { name: 'Photos' }).count()) === 0)
      await notes.getByLabel('Photo from a file').setInputFiles(await photoFile(page));
    await notes.getByRole('list', { name: 'Photos' }).getByRole('button').first().click();
    await dialog(page);
    await expect(page.getByTestId('marks').last()).toBeVisible();
  },
  'screens/notes/NotesWindow.tsx': async (page, house) => {
    await openJob(page, house, 'Chart-chest lid');
    await tool(page, 'Photos and notes');
    await dialog(page);
  },
  'screens/job/glue/StagesWindow.tsx': async (page, house) => {
    await makeJob(page, house, false, 'stages');
    await mark(page, 'glue').click();
    await pullUp(page);
    await page.getByRole('tab', { name: 'Pace' }).click();
    await press(page, 'Ways to glue it up');
    await dialog(page);
  },
  'screens/job/FeaturesWindow.tsx': async (page, house) => {
    await openJob(page, house, 'Wash-house counter');
    await page.locator('[data-step]').last().click();
    await pullUp(page);
    await press(page, /^2\. Hole for the tap/);
    await dialog(page);
  },
  'screens/job/OutlineWindow.tsx': async (page, house) => {
    await makeJob(page, house, false, 'outlined');
    await put(page, 'shape');
    await pullUp(page);
    await press(page, 'Draw the outline');
    await dialog(page);
    await press(page, 'Begin with the four corners of the piece');
    await expect(page.locator('[data-corner="4"]')).toBeVisible();
  },
  'screens/job/FlattenWindow.tsx': async (page, house) => {
    await step(page, house, 'Boathouse bench top', 'flatten');
    await press(page, 'Compare ways to flatten');
    await dialog(page);
    await expect(page.locator('[data-way]').first()).toBeVisible();
  },
  'screens/job/SizesWindow.tsx': async (page, house) => {
    await openJob(page, house, 'Chart-table top');
    await tool(page, 'Sizes that follow');
    await dialog(page);
  },
  'screens/job/MovementWindow.tsx': async (page, house) => {
    await openJob(page, house, 'Signal-room table');
    await tool(page, 'Movement over the year');
    await dialog(page);
    await expect(page.getByRole('img', { name: /^Width through the year/ })).toBeVisible();
  },
  'screens/job/ProposeWindow.tsx': async (page, house) => {
    await openJob(page, house, 'Chart-chest lid');
    await mark(page, 'glue').click();
    await press(page, 'Propose an order');
    await dialog(page);
  },
  'screens/job/JointsWindow.tsx': async (page, house) => {
    await openJob(page, house, 'Boathouse bench top');
    await mark(page, 'glue').click();
    await press(page, 'Joints');
    await press(page, 'What the signs say');
    await dialog(page);
  },
  'screens/job/KeptVersions.tsx': async (page, house) => {
    await openJob(page, house, 'Chart-chest lid');
    await tool(page, 'Kept versions');
    await dialog(page);
  },
  'screens/job/chain/NewLine.tsx': async (page, house) => {
    await openJob(page, house, 'Chart-chest lid');
    await chosen(page).focus();
    await page.keyboard.press('a');
    await press(page, 'begin a line of its own');
    await expect(page.getByRole('dialog', { name: 'A line of its own' })).toBeVisible();
  },
  'screens/job/chain/StepMenu.tsx': async (page, house) => {
    await openJob(page, house, 'Chart-chest lid');
    await chosen(page).focus();
    await page.keyboard.press('a');
    await dialog(page);
  },
  'screens/job/KeySheet.tsx': async (page, house) => {
    await openJob(page, house, 'Chart-chest lid');
    await page.keyboard.press('?');
    await dialog(page);
  },
  'screens/job/FindingsWindow.tsx': async (page, house) => {
    await openJob(page, house, 'Boathouse bench top');
    await page.keyboard.press('f');
    await dialog(page);
  },
  'screens/job/PlanWindow.tsx': async (page, house) => {
    await openJob(page, house, 'Chart-chest lid');
    await press(page, 'Pattern');
    await dialog(page);
  },
  'screens/job/TargetsWindow.tsx': async (page, house) => {
    await openJob(page, house, 'Chart-chest lid');
    await press(page, 'What is wanted');
    await dialog(page);
  },
  'screens/rack/BoardColour.tsx': async (page, house) => {
    await page.goto(`${house.url}/rack`);
    await page.getByRole('tab', { name: 'Wood' }).click();
    const input = page.getByLabel('Photo of the board');
    await input.waitFor({ state: 'attached' });
    await input.setInputFiles(await photoFile(page));
    await dialog(page);
  },
  'screens/rack/ImportTable.tsx': async (page, house) => {
    await page.goto(`${house.url}/rack`);
    await press(page, 'From a table');
    await dialog(page);
  },
  'screens/rack/Rack.tsx': async (page, house) => {
    const [{ id, label }] = await (await page.request.get(`${house.url}/api/boards`)).json();
    const job = await demoJob(page, house, /Lamp-room shelf/);
    const held = await page.request.put(`${house.url}/api${job}/boards`, {
      headers: PROGRAM,
      data: { boards: [id] },
    });
    expect(held.status(), await held.text()).toBe(200);
    await page.goto(`${house.url}/rack`);
    await page.getByLabel('Search the rack').fill(label);
    await page.getByLabel(`Select board ${label}`, { exact: true }).check();
    await press(page, /off the rack/);
    await dialog(page);
  },
  'screens/wood/StripLedger.tsx': async (page, house) => {
    await wood(page, house);
    await press(page, 'Swap strips between boards');
    await dialog(page);
  },
  'screens/wood/CutBoards.tsx': async (page, house) => {
    await wood(page, house);
    await press(page, 'Break down the boards');
    await expect(page.getByRole('region', { name: 'Trade-off' })).toBeVisible();
    await press(page, 'Mark boards as cut');
    await dialog(page);
  },
  'screens/job/AgainWindow.tsx': async (page, house) => {
    await page.goto(`${house.url}${await demoJob(page, house, /Galley chopping block/)}/record`);
    await press(page, 'Make it again …');
    await page.getByText('Another size', { exact: true }).click();
    await dialog(page);
  },
  // The last: what is in two places stays before the maker until it is settled.
  'parts/TwoVersions.tsx': inTwoPlaces,
};

const TABS = ['Clamps', 'Glue', 'Aids', 'Pace', 'After'] as const;

/** Routes, the steps of a board, the tabs of a glue-up, what pops up from the head, and all windows. */
export const places = (job: string): Place[] => [
  ...everyAddress(job).map(({ address }) => ({
    name: address,
    go: async (page: Page, house: House) => {
      await page.goto(house.url + address);
      await page.waitForLoadState('networkidle');
    },
  })),
  ...['rip', 'glue', 'slice', 'glue-block', 'flatten-block', 'trim'].map((id) => ({
    name: `step ${id}`,
    go: async (page: Page, house: House) => step(page, house, 'Galley chopping block', id),
  })),
  ...['fit-1', 'fill-1', 'surface-1', 'finish-1', 'install-1'].map((id) => ({
    name: `step ${id}`,
    go: async (page: Page, house: House) => step(page, house, 'Signal-room table', id),
  })),
  ...TABS.map((tab) => ({
    name: `tab ${tab}`,
    go: async (page: Page, house: House) => {
      await step(page, house, 'Tower stair tread', 'glue');
      await page.getByRole('tab', { name: tab }).click();
      await expect(page.getByTestId('glue-bench')).toBeVisible();
    },
  })),
  ...['readings', 'troubles', 'costs'].map((view) => ({
    name: `log, ${view}`,
    go: async (page: Page, house: House) => {
      await page.goto(`${house.url}/log?view=${view}`);
      await page.waitForLoadState('networkidle');
    },
  })),
  {
    name: 'joints shown',
    go: async (page, house) => {
      await openJob(page, house, 'Boathouse bench top');
      await mark(page, 'glue').click();
      await press(page, 'Joints');
      await expect(page.locator('[data-joint="1"]')).toBeVisible();
    },
  },
  {
    name: 'a strip in hand',
    go: async (page, house) => {
      await makeJob(page, house, false, 'in hand');
      await page.locator('[data-strip="2"]').click();
      await pullUp(page);
    },
  },
  {
    name: 'dry run',
    go: async (page, house) => {
      await page.goto(`${house.url}${await demoJob(page, house, /Tower stair tread/)}/rehearse/glue`);
      await press(page, 'Begin the dry run');
    },
  },
  {
    name: 'at the bench, read back piece by piece',
    go: async (page, house) => {
      await page.goto(`${house.url}${await demoJob(page, house, /Galley chopping block/)}/bench?step=rip`);
      await benchField(page, 1).waitFor();
      await press(page, 'Keys');
      await page.getByLabel(/after it/).fill('700 mm');
      await page.getByLabel(/after it/).press('Enter');
      await expect(page.getByRole('button', { name: 'Keep it as read' })).toBeVisible();
    },
  },
  ...['machines', 'clamps', 'ready'].map((name) => ({
    name: `a shop is set up: ${name}`,
    go: async (page: Page, house: House) => {
      await page.goto(`${house.url}/start/shop`);
      const system = (page.viewportSize()?.width ?? 0) < 700 ? 'millimetres' : 'inches';
      await page.locator('main').getByText(system, { exact: true }).click();
      await page.getByRole('button', { name: new RegExp(`^\\d\\. ${name}`, 'i') }).click();
    },
  })),
  {
    name: 'jobs as lines, one being renamed',
    go: async (page, house) => {
      await page.goto(`${house.url}/jobs?as=list`);
      await press(page, /^More about Chart-chest lid/);
      await press(page, 'Rename');
    },
  },
  {
    name: 'units, or the menu of a phone',
    go: async (page, house) => {
      await page.goto(`${house.url}/jobs`);
      await press(page, (page.viewportSize()?.width ?? 0) < 700 ? 'Menu' : /^(inches|millimetres)/);
    },
  },
  {
    name: 'more of a job',
    go: async (page, house) => {
      await openJob(page, house, 'Chart-chest lid');
      const more = page.getByRole('button', { name: 'More' });
      if (await more.isVisible()) await more.click();
    },
  },
  {
    name: 'boards broken down',
    go: async (page, house) => {
      await wood(page, house);
      await press(page, 'With other jobs');
      await expect(page.getByText('jobs share the boards')).toBeVisible();
      await page.keyboard.press('Escape');
      await press(page, 'Break down the boards');
      await expect(page.getByRole('region', { name: 'Trade-off' })).toBeVisible();
    },
  },
  ...Object.entries(WINDOWS).map(([name, go]) => ({ name, go })),
];

/**
 * What is pressed and smaller than a finger: buttons, fields, boxes with their labels, links that are not words in a text. What is
 * drawn to scale has handles of its own; a target may lie in a larger one.
 */
export const tooSmall = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const all = document.querySelectorAll<HTMLElement>(
      'button, summary, select, input, [role="tab"], [role="combobox"], a[href]',
    );
    return [...all].flatMap((element) => {
      if (!element.checkVisibility() || element.closest('[inert], [aria-hidden="true"]')) return [];
      const inText =
        element.tagName === 'A' &&
        getComputedStyle(element).display === 'inline' &&
        element.closest('p, li, td, dd');
      if (inText || element.tabIndex < 0) return [];
      const target = element.matches('input') ? (element.closest('label') ?? element) : element;
      const { width, height } = target.getBoundingClientRect();
      const reach = getComputedStyle(target, '::after');
      const high = Math.max(height, target.classList.contains('reach') ? Number.parseFloat(reach.height) : 0);
      return width < 2 || high >= 43.5
        ? []
        : [
            `${element.tagName} ${element.textContent?.slice(0, 30) || element.getAttribute('aria-label')}: ${Math.round(width)} × ${Math.round(high)}`,
          ];
    });
  });
