import { readdirSync, readFileSync } from 'node:fs';
import { expect, it } from 'vitest';

const tests = ['core', 'contract', 'server', 'web', 'demo'].flatMap((folder) =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((name) => /\.test\.tsx?$/.test(name))
    .map((name) => `${folder}/${name}`),
);

/** The text of a call from its opening parenthesis to the one that closes it. */
function call(text: string, from: number): string {
  let depth = 0;
  for (let i = from; i < text.length; i++) {
    depth += text[i] === '(' ? 1 : text[i] === ')' ? -1 : 0;
    if (depth === 0) return text.slice(from, i + 1);
  }
  return text.slice(from);
}

it('every property is tried with a seed of its own: what fails once fails again', () => {
  const NAME = 'fc.assert';
  const found = tests.flatMap((file) => {
    const text = readFileSync(file, 'utf8');
    return [...text.matchAll(/\bfc\.assert\(/g)].map(({ index }) => ({
      file,
      own: call(text, index + NAME.length),
    }));
  });
  expect(found.length).toBeGreaterThan(30);
  expect(found.filter(({ own }) => !/\bseed: \d+/.test(own)).map(({ file }) => file)).toEqual([]);
});
