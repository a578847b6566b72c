import type { Page } from '@playwright/test';
import { demoJob, everyAddress, expect, test, TWICE } from './house';

/** What stands out of the page to its right, outside of boxes that slide, with its right edge, px. */
const tooWide = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const { scrollWidth, clientWidth } = document.documentElement;
    if (scrollWidth <= clientWidth) return [];
    const out = [...document.querySelectorAll('body *')].filter(
      (each) => each.getBoundingClientRect().right > clientWidth + 1,
    );
    const said = out.map(
      (each) =>
        `${each.tagName} ${each.getAttribute('class') ?? ''} ${(each.textContent ?? '').slice(0, 40)} to ${Math.round(each.getBoundingClientRect().right)}`,
    );
    return [`${scrollWidth} of ${clientWidth} px`, ...said.slice(0, 12)];
  });

const WIDTHS = [320, 390, 640, 768, 1024, 1280] as const;

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
test.describe.configure({ mode: 'parallel' });

// Each address is opened once, in two halves side by side.
for (const half of [0, 1])
  test(`every address, half ${half + 1}: a title, one first heading and a main part; nothing slides sideways at any width nor with text of twice the size, but for drawings and tables in boxes of their own`, async ({
    page,
    house,
  }) => {
    // A job planned with another kit than the shop has now says so in its head.
    await page.route('**/api/kit', async (route) => {
      const answer = await route.fetch({ maxRetries: 3 });
      const kit = await answer.json();
      await route.fulfill({ response: answer, json: { ...kit, shop: { ...kit.shop, woodMoisturePct: 11 } } });
    });
    const over: string[] = [];
    const all = everyAddress(await demoJob(page, house, /tiller/));
    for (const { address, title } of all.filter((_, i) => i % 2 === half)) {
      await page.setViewportSize({ width: 390, height: 844 });
      await page.goto(house.url + address);
      // A wait that ends meanwhile stands before it.
      await expect(page, address).toHaveTitle(
        title === undefined ? /Laminated tiller.* · Junta$/ : new RegExp(`(^|● .*: .* · )${title} · Junta$`),
      );
      await expect(page.locator('main'), address).toHaveCount(1);
      await expect(page.locator('h1'), address).toHaveCount(1);
      await page.locator('main h1, main [data-bench-step]').first().waitFor({ state: 'attached' });
      // Opened in the hand, then made wider and narrower, as a window is that somebody pulls.
      for (const width of WIDTHS) {
        await page.setViewportSize({ width, height: 844 });
        await page.waitForTimeout(100);
        const out = await tooWide(page);
        if (out.length > 0) over.push(`${address} at ${width}: ${out.join(', ')}`);
      }
      await page.setViewportSize({ width: 390, height: 844 });
      await page.addStyleTag({ content: TWICE });
      await expect.poll(() => tooWide(page), address).toEqual([]);
    }
    expect(over).toEqual([]);
  });
