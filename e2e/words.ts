import type { Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';

const table = readFileSync(join(import.meta.dirname, '../docs/words.md'), 'utf8');
/** What docs/words.md has retired: anywhere in a text, or alone as a label. */
const retired = table
  .split('\n')
  .filter((line) => line.startsWith('| ') && !line.startsWith('| word') && !line.startsWith('| ---'))
  .flatMap((line) => line.split('|')[3].split(';'))
  .map((words) => words.trim())
  .filter((words) => words !== '');
const alone = new Set(retired.filter((words) => words.startsWith('`')).map((words) => words.slice(1, -1)));
const anywhere = retired.filter((words) => !words.startsWith('`'));

/** Units that a shop of the one system does not read, with a number before them. */
const FOREIGN = {
  inch: /\d[ \u00a0]?(mm|cm|kg|g|°C|GPa|MPa|kPa|kN|N|m²|m³|g\/m²|l|ml)(?![\w/])/,
  mm: /\d[ \u00a0]?(in|ft|ft²|lb|lbf|psi|°F|oz|bd ft|board feet)(?![\w/])/,
} as const;

/** “1 joints”; not “Joint 1 gets”, no fraction, no verb. */
const PLURAL_OF_ONE =
  /(?<![\d./,]|[A-Z][a-z]+ )\b1 (?!is\b|was\b|across\b|less\b|plus\b|needs\b|takes\b|makes\b|gives\b|lies\b)[a-z-]+s\b/;
/** Names that carry a size of their own: of a drill, of the pipe of a clamp; and citations of tables. */
const NAMES = /Brad-point drill, 8 mm|\d\/\d in pipe|Table \d+-\d+ in/g;
/** The exact value of a length, told in both systems where it is pointed at. */
const EXACT = /^-?[\d.]+ in = -?[\d.]+ mm$/;

/** All that a place shows or says: each text and name by itself, and paragraphs that are set in pieces as a whole. */
const textsOf = (page: Page): Promise<{ text: string; whole: boolean }[]> =>
  page.evaluate(() => {
    const [single, composed] = [new Set<string>(), new Set<string>()];
    const tidy = (text: string | null) => (text ?? '').replace(/\s+/g, ' ').trim();
    const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_ELEMENT);
    for (let node = walk.nextNode(); node; node = walk.nextNode()) {
      const element = node as HTMLElement;
      if (!element.checkVisibility() || element.matches('script, style, option')) continue;
      for (const name of ['aria-label', 'title', 'placeholder']) single.add(tidy(element.getAttribute(name)));
      const own = [...element.childNodes].filter((child) => child.nodeType === Node.TEXT_NODE);
      single.add(tidy(own.map((child) => child.textContent).join('')));
      if (element.matches('p, li, dd, td, th, label, button, a, span') && element.children.length > 0)
        composed.add(tidy(element.textContent));
    }
    return [
      ...[...single].map((text) => ({ text, whole: false })),
      ...[...composed].map((text) => ({ text, whole: true })),
    ];
  });

/** What is wrong with the words of a place: retired ones, plurals of one, raw ids, units of the other system. */
export async function wrongWords(page: Page, system: 'inch' | 'mm'): Promise<string[]> {
  const wrong: string[] = [];
  for (const { text, whole } of await textsOf(page)) {
    if (text === '' || EXACT.test(text)) continue;
    const cut = text.slice(0, 90);
    if (alone.has(text)) wrong.push(`retired label: ${cut}`);
    for (const words of anywhere) if (text.includes(words)) wrong.push(`retired “${words}”: ${cut}`);
    if (!whole && PLURAL_OF_ONE.test(text)) wrong.push(`plural of one: ${cut}`);
    if (/[0-9a-f]{8}-[0-9a-f]{4}-/.test(text)) wrong.push(`raw id: ${cut}`);
    // Coefficients of the tables are numbers alone, as are numbers set beside one another; a sum that is shown to be done again
    // has all the figures it needs.
    if (!whole && !/ = -?[\d.]+/.test(text) && /\d\.\d{5,}/.test(text) && !/^[\d., –]+$/.test(text))
      wrong.push(`too many digits: ${cut}`);
    const unit = FOREIGN[system].exec(text.replace(NAMES, ''));
    if (unit) wrong.push(`${unit[0]} in ${system === 'inch' ? 'an inch' : 'a metric'} shop: ${cut}`);
  }
  return [...new Set(wrong)];
}
