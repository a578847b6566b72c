import AxeBuilder from '@axe-core/playwright';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { places, tooSmall, WINDOWS } from './everywhere';
import { demoJob, expect, PROGRAM, savesData, test } from './house';
import { wrongWords } from './words';

/** `npm run access` looks everywhere at all widths; the tests look everywhere once, at a desk and in the hand by turns. */
const WHOLE = process.env.JUNTA_MATRIX !== undefined;
const WINDOW = '[role="dialog"]';
const SCREENS = [
  { width: 1280, height: 800, touch: false, system: 'inch' },
  { width: 390, height: 844, touch: true, system: 'mm' },
  ...(WHOLE ? [{ width: 768, height: 1024, touch: true, system: 'inch' } as const] : []),
] as const;

test.describe.configure({ mode: 'parallel' });

test('every window of the interface is in the list that is gone through', () => {
  const web = join(import.meta.dirname, '../web');
  const files = readdirSync(web, { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('.tsx') && !file.endsWith('.test.tsx'))
    .filter((file) => /<Window\b/.test(readFileSync(join(web, file), 'utf8')));
  expect(files.toSorted()).toEqual(Object.keys(WINDOWS).toSorted());
});

SCREENS.forEach(({ touch, system, ...viewport }, turn) => {
  test(`at ${viewport.width} px no finding of any weight from the checker${touch ? ', nothing to press smaller than a finger' : ''}, and no wrong word or unit (${system})`, async ({
    browser,
    house,
  }) => {
    test.setTimeout(1_800_000);
    const context = await browser.newContext({ viewport, hasTouch: touch, isMobile: touch });
    await context.addInitScript(savesData);
    const page = await context.newPage();
    // A way that is gone is told at once, not when the test ends.
    page.setDefaultTimeout(40_000);
    const found: string[] = [];
    const readIn = async (unit: string): Promise<string> => {
      const { version, shop } = await (await page.request.get(`${house.url}/api/kit`)).json();
      const data = { version, shop: { ...shop, display: { ...shop.display, system: unit } } };
      const answer = await page.request.put(`${house.url}/api/kit`, { headers: PROGRAM, data });
      expect(answer.status()).toBe(200);
      return shop.display.system;
    };
    // The house is shared with other tests, which find it as it was.
    const before = await readIn(system);
    const all = places(await demoJob(page, house, /tiller/));
    for (const { name, go } of all.filter((_, i) => WHOLE || i % SCREENS.length === turn)) {
      const at = `${name} at ${viewport.width}`;
      try {
        await go(page, house);
      } catch (error) {
        found.push(`no way to ${at}: ${String(error).slice(0, 300)}`);
        continue;
      }
      // What passes is not told, and costs as much as what does not; there are no frames, for which a page of its own is opened.
      const looked = new AxeBuilder({ page }).setLegacyMode().options({
        resultTypes: ['violations'],
        // The inks are the same in the hand: they are held against their grounds at a desk, and at all widths by `npm run access`.
        rules: { 'color-contrast': { enabled: WHOLE || !touch } },
      });
      // Behind a window stands a screen that is a place of its own: the whole matrix looks at it once more.
      if (!WHOLE && (await page.locator(WINDOW).count()) === 1) looked.include(WINDOW);
      const { violations } = await looked.analyze();
      for (const { id, impact, nodes } of violations)
        found.push(
          `${at}, ${impact} ${id}: ${nodes
            .slice(0, 3)
            .map((node) => node.target.join(' '))
            .join(' | ')} ${nodes[0].any.map(({ message }) => message).join(' ')}`,
        );
      found.push(...(await wrongWords(page, system)).map((wrong) => `${at}, ${wrong}`));
      if (touch) found.push(...(await tooSmall(page)).map((small) => `${at}, small: ${small}`));
    }
    await readIn(before);
    await context.close();
    expect(found).toEqual([]);
  });
});
