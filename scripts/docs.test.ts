import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { stepSchemas } from '../contract/steps';
import { jobFileSchema } from '../contract/jsonschema';
import { declaredFindings } from './findings';
// @ts-expect-error plain JavaScript without declarations
import { NAMED } from './named.mjs';
import { TABLES, withTable } from './tables';

const read = (file: string): string => readFileSync(file, 'utf8');
const readme = read('README.md');
const documents = [
  'README.md',
  ...readdirSync('docs')
    .filter((name) => name.endsWith('.md'))
    .map((name) => `docs/${name}`),
];

it('every change that must be noticed finds what it changes: the program has not moved away from it', () => {
  const changes = NAMED as readonly [string, string, string | RegExp, string, string][];
  for (const [name, file, was, becomes, tests] of changes) {
    const text = read(file);
    expect(text.replace(was, becomes), name).not.toBe(text);
    expect(existsSync(tests), name).toBe(true);
  }
});

describe('the documents', () => {
  it('the README names both commands in its first screen, and they exist', () => {
    const first = readme.split('\n').slice(0, 12).join('\n');
    const { scripts } = JSON.parse(read('package.json'));
    for (const name of ['start', 'test']) {
      expect(first).toContain(`npm ${name}`);
      expect(scripts).toHaveProperty(name);
    }
    for (const [, name] of readme.matchAll(/npm run (?:-s )?([a-z]+)/g)) expect(scripts).toHaveProperty(name);
  });
  it('every link leads somewhere, and every picture is shown', () => {
    for (const document of documents)
      for (const [, target] of read(document).matchAll(/\]\((?!https?:)([^)#]+)\)/g))
        expect(
          existsSync(document.startsWith('docs/') ? `docs/${target}` : target),
          `${document}: ${target}`,
        ).toBe(true);
    for (const picture of readdirSync('docs/screenshots'))
      expect(readme).toContain(`docs/screenshots/${picture}`);
  });
  it('the format names every field and every kind of step that the contract knows', () => {
    const format = read('docs/format.md');
    const schema = jobFileSchema() as { properties: Record<string, unknown> };
    for (const field of Object.keys(schema.properties))
      expect(format).toContain(
        `\`${field}\``
          .replace('`format`', '"format"')
          .replace('`version`', '"version"')
          .replaceAll('`"', '"')
          .replaceAll('"`', '"'),
      );
    for (const kind of Object.keys(stepSchemas)) expect(format).toContain(`\`${kind}\``);
  });
  it('their tables are those of the code: `npm run tables` writes them', () => {
    for (const [name, { file, table }] of Object.entries(TABLES)) {
      const text = read(file);
      expect(withTable(text, name, table()) === text, `${file}: ${name}`).toBe(true);
    }
  });
  it('every finding has words, is declared once, and is raised in the file that declares it', () => {
    const declared = declaredFindings();
    expect(declared.length).toBeGreaterThan(70);
    expect(new Set(declared.map(({ code }) => code)).size).toBe(declared.length);
    for (const { code, words, file } of declared) {
      expect(words, code).toMatch(/^[A-Z].{10,}\.$/);
      const used = read(file).split(`'${code}'`).length - 1;
      expect(used, `${code} in ${file}`).toBeGreaterThan(1);
    }
  });
  it('what is recalled from memory says so where it stands', () => {
    for (const file of [
      'core/wood/species.data.json',
      'core/wood/ciede2000.data.json',
      'core/kit/lumber.data.json',
      'core/kit/adhesives.data.json',
      'core/kit/clamps.data.json',
      'core/kit/emc.data.json',
    ]) {
      expect(JSON.parse(read(file)).about).toMatch(/from memory/);
      expect(read('docs/sources.md')).toContain(file);
    }
  });
});
