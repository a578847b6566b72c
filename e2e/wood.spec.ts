import type { Page } from '@playwright/test';
import { expect, makeJob, mark, openJob, stored, test, type, type House, PROGRAM } from './house';

const search = async (page: Page, text: string) => {
  await page.getByLabel('Search the rack').fill(text);
};

/** Enters a board on the rack's line; `text` is number, wood, length, width, thickness. */
async function enter(page: Page, ...[number, wood, length, width, thick]: string[]): Promise<void> {
  const line = page.getByRole('form', { name: 'Enter a board' });
  // A number is proposed as soon as the rack is read.
  await expect(line.getByLabel('Number')).not.toHaveValue('');
  await line.getByLabel('Number').fill(number);
  await line.getByLabel('Wood').fill(wood);
  await line.getByLabel('Length').fill(length);
  await line.getByLabel('Width').fill(width);
  await line.getByLabel('Thick').fill(thick);
  await line.getByLabel('Thick').press('Enter');
  await expect(page.getByRole('region', { name: `Board ${number}`, exact: true })).toBeVisible();
}

/** Draws a fault on the upper face, from and to in shares of the board's length and width. */
async function draw(page: Page, kind: string, from: [number, number], to: [number, number]): Promise<void> {
  const tool = page.getByRole('button', { name: kind, exact: true });
  await tool.click();
  const box = await page.locator('[data-face="up"]').boundingBox();
  if (!box) throw new Error('no face to draw on');
  await page.mouse.move(box.x + box.width * from[0], box.y + box.height * from[1]);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * to[0], box.y + box.height * to[1], { steps: 4 });
  await page.mouse.up();
  await tool.click();
}

async function breakDown(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Break down the boards' }).click();
  await expect(page.getByRole('button', { name: 'Stop, keep the best so far' })).toHaveCount(0);
  await expect(page.getByRole('region', { name: 'What it takes' })).toBeVisible();
}

const toWood = async (page: Page, url: string) => {
  await page.goto(`${url}/wood`);
  await expect(page.getByRole('button', { name: 'Break down the boards' })).toBeEnabled();
};
const placed = (page: Page) => page.locator('[data-strip]');

/** A panel in a wood of its own, so that no other test takes its boards. */
async function panelIn(page: Page, house: House, name: string, wood: string): Promise<string> {
  const url = await makeJob(page, house, false, name);
  await mark(page, 'rip').click();
  const { build, version } = await (await page.request.get(url.replace('/jobs/', '/api/jobs/'))).json();
  for (const assembly of build.assemblies) for (const slot of assembly.slots) slot.species = wood;
  build.brief.woods = [wood];
  await page.request.put(url.replace('/jobs/', '/api/jobs/'), { headers: PROGRAM, data: { build, version } });
  await page.reload();
  return url;
}

test('three boards with faults go onto the rack, and a job comes out of them: moved, locked, solved again, printed', async ({
  page,
  house,
}) => {
  await page.goto(`${house.url}/rack`);
  await enter(page, 'E1', 'European beech', '74', '7 1/2', '5/4');
  await draw(page, 'Knot', [0.3, 0.3], [0.34, 0.6]);
  await expect(page.getByLabel('Fault', { exact: true })).toContainText('Knot');
  await draw(page, 'Split', [0, 0.45], [0.05, 0.55]);
  await enter(page, 'E2', 'European beech', '40', '5 1/4', '5/4');
  await draw(page, 'Stain', [0.7, 0.2], [0.9, 0.5]);
  await enter(page, 'E3', 'European beech', '38', '4', '5/4');
  await draw(page, 'Wane', [0, 0], [1, 0.2]);
  await search(page, 'E1');
  await page.locator('[data-board="E1"]').click();
  await expect(page.getByRole('list', { name: 'Faults' }).getByRole('button')).toHaveCount(2);
  await expect(page.locator('[data-board="E1"]')).toContainText('99 %');
  await page.waitForTimeout(600);
  await page.reload();
  await search(page, 'E1');
  await page.locator('[data-board="E1"]').click();
  await expect(page.getByRole('list', { name: 'Faults' }).getByRole('button')).toHaveCount(2);

  const url = await panelIn(page, house, 'beech shelf', 'beech_european');
  await toWood(page, url);
  await breakDown(page);
  const strips = await placed(page).count();
  await expect(page.getByRole('heading', { name: /strips from/ })).toContainText(
    `${strips} of ${strips} strips`,
  );
  await stored(page);

  // A strip is dragged to another place; it stays where it was put, locked, and everything else gives way.
  const first = placed(page).first();
  const id = await first.getAttribute('data-strip');
  const target = await page.locator('[data-board-label="E1"]').boundingBox();
  const from = await first.boundingBox();
  if (!target || !from) throw new Error('nothing to drag');
  await page.mouse.move(from.x + 60, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(target.x + target.width * 0.5, target.y + target.height * 0.3, { steps: 8 });
  await page.mouse.up();
  const moved = page.locator(`[data-strip="${id}"]`);
  await expect(moved).toHaveAccessibleName(/locked/);
  await expect(page.getByRole('button', { name: 'Break down the boards' })).toBeVisible();
  const at = async () => {
    await moved.click();
    return [
      await page.getByLabel('From the end').inputValue(),
      await page.getByLabel('From the edge').inputValue(),
    ];
  };
  const before = await at();
  await breakDown(page);
  expect(await at()).toEqual(before);
  await expect(moved).toHaveAccessibleName(/locked/);

  await stored(page);
  await page.getByRole('link', { name: 'Set-up list' }).click();
  await expect(page.getByRole('heading', { name: 'Set-up list: beech shelf' })).toBeVisible();
  await expect(page.getByText('fence at').first()).toBeVisible();
  await expect(page.getByText(/manuals and local rules come first/)).toBeVisible();
  const sheet = await page.pdf({ format: 'A4' });
  expect(sheet.subarray(0, 5).toString()).toBe('%PDF-');
  expect(sheet.length).toBeGreaterThan(20_000);

  // The stick runs on the real boards: the size asked still comes out, and undo reaches the breakdown.
  await page.goto(url);
  await expect(page.getByTestId('target').getByLabel('fits')).toHaveCount(3);
});

test('a shortage is said before anything is cut, and a fix is applied', async ({ page, house }) => {
  await page.goto(`${house.url}/rack`);
  await enter(page, 'S1', 'Yellow birch', '36', '6 1/2', '5/4');
  await enter(page, 'S2', 'Basswood', '74', '8', '5/4');
  const url = await panelIn(page, house, 'birch panel', 'birch_yellow');
  await toWood(page, url);
  await breakDown(page);
  const short = page.getByRole('region', { name: 'Short of wood' });
  await expect(short).toContainText('Yellow birch: 3 of 5 strips short');
  await expect(short.getByRole('list', { name: 'Purchase list' })).toContainText('Yellow birch');
  const accent = short.getByRole('button', { name: /accent strips of Basswood|accent strips/ }).first();
  await expect(accent).toBeVisible();
  await page.getByRole('link', { name: 'To the stick' }).click();
  await mark(page, 'rip').click();
  await expect(page.locator('[data-code="strips-without-board"]')).toContainText(
    '3 of 5 strips have no board yet',
  );
  await toWood(page, url);
  await breakDown(page);
  await accent.click();
  await expect(short).toHaveCount(0);
  await expect(page.getByRole('heading', { name: '5 of 5 strips' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Break down the boards' })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(short).toContainText('3 of 5 strips short');
});

test('boards are reserved, cut, and leave their offcuts on the rack with their history', async ({
  page,
  house,
}) => {
  await page.goto(`${house.url}/rack`);
  await enter(page, 'R1', 'Hackberry', '96', '9', '5/4');
  await enter(page, 'R2', 'Hackberry', '80', '8', '5/4');
  const url = await panelIn(page, house, 'reserving', 'hackberry');
  await toWood(page, url);
  await breakDown(page);
  await stored(page);
  await page.goto(`${house.url}/rack`);
  await search(page, 'hackberry');
  await expect(page.getByRole('row').filter({ hasText: 'for reserving' }).first()).toBeVisible();
  const held = page.getByRole('row').filter({ hasText: 'for reserving' }).first();
  await held.getByRole('checkbox').check();
  await page.getByRole('button', { name: 'Take 1 off the rack' }).click();
  await expect(page.getByRole('dialog')).toContainText('reserved for “reserving”');
  await page.getByRole('button', { name: 'Leave them' }).click();
  await toWood(page, url);
  await page.getByRole('button', { name: 'Mark boards as cut' }).click();
  await expect(page.getByRole('dialog')).toContainText('These offcuts come onto it');
  await page.getByRole('button', { name: 'They are cut' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'off the rack' })).toContainText(
    /New on it: \d+ offcuts?: R/,
  );
  await page.goto(`${house.url}/rack`);
  await search(page, 'hackberry offcut');
  await page.getByRole('row').filter({ hasText: 'offcut' }).first().click();
  await page.getByRole('tab', { name: 'History' }).click();
  await expect(page.getByRole('tabpanel')).toContainText('left over from “reserving”');
});

test('a table of 200 boards with ten bad rows: the good ones come in, each bad row is named', async ({
  page,
  house,
}) => {
  const bad: Record<number, string> = {
    12: ';Teak;900;90;26;9 EUR',
    25: 'T25;Oak of nowhere;900;90;26;9 EUR',
    40: 'T40;Teak;;90;26;9 EUR',
    55: 'T55;Teak;-1;90;26;9 EUR',
    70: 'T70;Teak;900;wide;26;9 EUR',
    85: 'T1;Teak;900;90;26;9 EUR',
    100: 'T100;Teak;900;90;0;9 EUR',
    115: 'T115;Teak;900;90;26;free EUR',
    130: 'T130;;900;90;26;9 EUR',
    145: '1;Teak;900;90;26;9 EUR',
  };
  const rows = Array.from(
    { length: 200 },
    (_, i) => bad[i + 1] ?? `T${i + 1};Teak;${900 + i},5;90;26,5;12,40 EUR`,
  );
  await page.goto(`${house.url}/rack`);
  await page.getByRole('button', { name: 'From a table' }).click();
  const window = page.getByRole('dialog');
  // Windows-1252, semicolons and decimal commas, as a spreadsheet here would write it.
  const text = ['Nr;Wood;Length;Width;Thickness;Price', ...rows].join('\r\n');
  await window
    .getByLabel('Table file')
    .setInputFiles({ name: 'rack.csv', mimeType: 'text/csv', buffer: Buffer.from(`${text}\r\n`, 'latin1') });
  await expect(window).toContainText('200 rows, columns parted by semicolons');
  await expect(window).toContainText('decimal commas');
  await window.getByText('mm', { exact: true }).click();
  await expect(window.getByRole('status')).toContainText('190 boards can be read, 10 rows cannot');
  const errors = window.getByRole('list', { name: 'Rows that are no boards' });
  await expect(errors.getByRole('listitem')).toHaveCount(10);
  await expect(errors).toContainText('line 26');
  await expect(errors).toContainText('“Oak of nowhere” is no wood');
  await window.getByRole('button', { name: 'Put 190 boards on the rack' }).click();
  await expect(window).toHaveCount(0);
  await search(page, 'teak');
  await expect(page.getByRole('table')).toHaveAttribute('aria-rowcount', '190');
  // Only the lines in sight are made, sorting and groups answer at once.
  expect(await page.locator('[data-board]').count()).toBeLessThan(60);
  await page.getByRole('button', { name: 'Length', exact: true }).click();
  await page.getByRole('button', { name: 'Length', exact: true }).click();
  await expect(page.locator('[data-board]').first()).toHaveAttribute('data-board', 'T200');
  await page.getByLabel('in groups').check();
  await expect(page.getByRole('row').filter({ hasText: '190 boards' })).toBeVisible();
});

test('bad input on the entry line is answered where it is, and nothing typed is lost', async ({
  page,
  house,
}) => {
  await page.goto(`${house.url}/rack`);
  const line = page.getByRole('form', { name: 'Enter a board' });
  await expect(line.getByLabel('Number')).not.toHaveValue('');
  await line.getByLabel('Number').fill('1');
  await line.getByLabel('Wood').fill('Granite');
  await line.getByLabel('Length').fill('long');
  await line.getByLabel('Width').fill('0');
  await line.getByLabel('Thick').fill('6/4');
  await line.getByLabel('Price').fill('12');
  await line.getByLabel('Price').press('Enter');
  const alert = line.getByRole('alert');
  for (const words of [
    '1 is on another board',
    '“Granite” is no wood',
    'not a number',
    'more than zero',
    'three letters',
  ])
    await expect(alert).toContainText(words);
  await expect(line.getByLabel('Length')).toHaveValue('long');
});

test('a board’s card: what it gives, what was not looked at, colour from a photo; undo brings back a fault', async ({
  page,
  house,
}) => {
  await page.goto(`${house.url}/rack`);
  await enter(page, 'C1', 'Padauk', '50', '6', '6/4');
  await expect(page.getByRole('tabpanel')).toContainText('Nobody measured its cup, bow, crook, twist (wind)');
  await page.getByRole('tab', { name: 'Board' }).click();
  await page.getByRole('button', { name: 'Measure cup' }).click();
  await type(page.getByLabel('Cup', { exact: true }), '1/4');
  await page.getByRole('tab', { name: 'Usable size' }).click();
  await expect(page.getByRole('tabpanel')).toContainText('1/4 in cup');
  await page.getByRole('tab', { name: 'Wood' }).click();
  const photo = await page.evaluate(() => {
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [80, 60];
    const context = canvas.getContext('2d') as CanvasRenderingContext2D;
    context.fillStyle = '#a03c28';
    context.fillRect(0, 0, 80, 60);
    return canvas.toDataURL('image/png').split(',')[1];
  });
  await page
    .getByLabel('Photo of the board')
    .setInputFiles({ name: 'p.png', mimeType: 'image/png', buffer: Buffer.from(photo, 'base64') });
  await page.getByTestId('photo').click();
  await expect(page.getByRole('tabpanel')).toContainText(/#a03c2[78]/);
  await draw(page, 'Nail', [0.5, 0.4], [0.52, 0.6]);
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(page.getByText('No faults noted.')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('list', { name: 'Faults' }).getByRole('button')).toHaveCount(1);
});

test('strips traded between pieces end at the width the ledger says', async ({ page, house }) => {
  const url = await openJob(page, house, 'Boathouse bench top');
  await toWood(page, url);
  await page.getByRole('button', { name: 'Swap strips between boards' }).click();
  const window = page.getByRole('dialog');
  await type(window.getByLabel('Each strip is wide'), '1/2');
  for (const [i, gives] of [2, 4, 3].entries()) {
    await type(window.getByLabel(`Width of piece ${i + 1}`), '10');
    await window.getByLabel(`Piece ${i + 1} gives`).fill(String(gives));
    await window.getByLabel(`Piece ${i + 1} receives`).fill('3');
  }
  await expect(window.getByTestId('ends-1')).toContainText('10 1/8');
  await expect(window.getByTestId('ends-2')).toContainText('8 7/8');
  await expect(window.getByTestId('ends-3')).toContainText('9 1/2');
  await expect(window.getByRole('status')).toContainText('all go round');
});

test('boards can be reserved for a job by hand, and set free again', async ({ page, house }) => {
  await page.goto(`${house.url}/rack`);
  await enter(page, 'H1', 'Holly', '30', '5', '4/4');
  await search(page, 'H1');
  const row = page.locator('[data-board="H1"]');
  await row.getByRole('checkbox').check();
  const choice = page.getByRole('combobox', { name: 'Reserve the selected boards for' });
  await choice.click();
  // Another test brings in a copy of a job: any of that name will do.
  await page.getByRole('option', { name: 'for Games board' }).first().click();
  await expect(row).toContainText('for Games board');
  await choice.click();
  await page.getByRole('option', { name: 'reserved for nobody' }).click();
  await expect(row).toContainText('free');
});

test('two strips swap places and stay there; one is left out and asked for again', async ({
  page,
  house,
}) => {
  await page.goto(`${house.url}/rack`);
  await enter(page, 'W1', 'Sycamore', '72', '7', '5/4');
  await enter(page, 'W2', 'Sycamore', '40', '6', '5/4');
  const url = await panelIn(page, house, 'swapping', 'sycamore_american');
  await toWood(page, url);
  await breakDown(page);
  await expect(page.getByRole('heading', { name: '5 of 5 strips' })).toBeVisible();
  const card = page.getByRole('region', { name: 'Strip', exact: true });
  const where = async (strip: string) => {
    await card.getByRole('combobox', { name: 'One strip' }).click();
    await page.getByRole('option', { name: strip, exact: true }).click();
    const board = await card.getByRole('combobox', { name: 'From board' }).textContent();
    return `${board} ${await card.getByLabel('From the end').inputValue()} ${await card.getByLabel('From the edge').inputValue()}`;
  };
  const [one, five] = [await where('Strip 1'), await where('Strip 5')];
  await card.getByRole('button', { name: 'Swap with …' }).click();
  await card.getByRole('combobox', { name: 'Swap places with' }).click();
  await page.getByRole('option', { name: 'Strip 1', exact: true }).click();
  await expect(page.locator('[data-strip]').filter({ hasText: '5' }).first()).toHaveAccessibleName(/locked/);
  await expect(page.getByRole('button', { name: 'Break down the boards' })).toBeVisible();
  expect([await where('Strip 5'), await where('Strip 1')]).toEqual([one, five]);
  await card.getByRole('button', { name: 'Leave it out' }).click();
  await expect(page.getByRole('heading', { name: '4 of 4 strips' })).toBeVisible();
  await card.getByRole('combobox', { name: 'One strip' }).click();
  await page.getByRole('option', { name: /left out/ }).click();
  await card.getByRole('button', { name: 'Ask for it again' }).click();
  await expect(page.getByRole('heading', { name: '5 of 5 strips' })).toBeVisible();
});
