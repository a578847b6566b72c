import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, openJob, test } from './house';

/** Widths of the black bars on a printed page that are three points high, in points. */
function barWidths(pdf: Buffer): number[] {
  const file = join(mkdtempSync(join(tmpdir(), 'junta-paper-')), 'page.pdf');
  writeFileSync(file, pdf);
  const svg = execFileSync('pdftocairo', ['-svg', '-f', '1', '-l', '1', file, '-'], { encoding: 'utf8' });
  const numbers = (text: string) => [...text.matchAll(/-?\d+(?:\.\d+)?/g)].map(Number);
  return [...svg.matchAll(/<path[^>]*fill:rgb\(0%,0%,0%\)[^>]*>/g)].flatMap(([path]) => {
    const points = numbers(/ d="([^"]*)"/.exec(path)?.[1] ?? '');
    const [a = 1, , , d = 1] = numbers(/matrix\(([^)]*)\)/.exec(path)?.[1] ?? '');
    const span = (of: number[]) => Math.max(...of) - Math.min(...of);
    const width = span(points.filter((_, i) => i % 2 === 0)) * Math.abs(a);
    const height = span(points.filter((_, i) => i % 2 === 1)) * Math.abs(d);
    return Math.abs(height - 3) < 0.1 ? [width] : [];
  });
}
const words = (pdf: Buffer): string =>
  execFileSync('pdftotext', ['-', '-'], { input: pdf, encoding: 'utf8' });

for (const [paper, size] of [
  ['A4', [595, 842]],
  ['Letter', [612, 792]],
] as const)
  test(`a sheet on ${paper} is as large on paper as it says`, async ({ page, house }) => {
    const url = await openJob(page, house, 'Galley chopping block');
    await page.goto(`${url}/sheets`);
    await page
      .getByRole('radio', { name: paper })
      .or(page.getByRole('button', { name: paper }))
      .first()
      .click();
    const header = page.getByRole('article').first().locator('header');
    await expect(header).toContainText('scale 1 :');
    const scale = Number(/scale 1 : (\d+)/.exec((await header.textContent()) ?? '')?.[1]);
    const pdf = await page.pdf({ preferCSSPageSize: true });
    // The bar is as many inches of wood as the scale; its black half is half of them.
    const long = (Math.max(1, Math.round(scale)) * 72) / scale;
    const bars = barWidths(pdf);
    expect(
      bars.some((width) => Math.abs(width - long / 2) < 0.15),
      `${bars.join()} for ${long / 2}`,
    ).toBe(true);
    const text = words(pdf);
    expect(text).not.toContain('Calendar');
    expect(text).toContain('Galley chopping block');
    const info = execFileSync('pdfinfo', ['-'], { input: pdf, encoding: 'utf8' });
    const [width, height] = [.../Page size:\s+([\d.]+) x ([\d.]+)/.exec(info)!].slice(1).map(Number);
    expect(Math.abs(width - size[0]) + Math.abs(height - size[1])).toBeLessThan(2);
  });
