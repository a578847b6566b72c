/**
 * Changes the program and asks whether a test notices: `npm run mutate [-- --count 60 --seed 1 --from 1]`. Draws changes with a
 * seed over the functions that return a number in run, review, bench, solid, stock and steps: a number made larger, a
 * sign or a comparison turned, a least taken for a most. First all tests run once in a copy of the project that writes down which
 * of them come to the place of each change, and how long they take; then each change is carried out in a copy and tried by those
 * tests alone, the quick ones first. Prints the survivors. `--from` goes on with a draw that was interrupted, without those named.
 */
import { spawn } from 'node:child_process';
import {
  cpSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import ts from 'typescript';
import { NAMED } from './named.mjs';

const ROOT = resolve(import.meta.dirname, '..');
const FOLDERS = ['core/run', 'core/review', 'core/bench', 'core/solid', 'core/stock', 'core/steps'];
const argument = (name, usual) => {
  const at = process.argv.indexOf(`--${name}`);
  return at < 0 ? usual : Number(process.argv[at + 1]);
};
const COUNT = argument('count', 60);
const SEED = argument('seed', 1);
const FROM = argument('from', 0);
/** A change that makes tests take so much longer than before, and this much, counts as noticed. */
const SLOWER = 4;
const PATIENCE_MS = 60_000;
/** Numbers so small are the hair that sums of floating numbers are off by: half as much again is meant to change nothing. */
const HAIR = 1e-5;
/** What is tried at once: the quickest tests that come to the place, up to so long, ms; then longer ones. */
const BATCHES_MS = [8_000, 60_000, Infinity];

const walk = (folder) =>
  readdirSync(join(ROOT, folder)).flatMap((name) => {
    const path = `${folder}/${name}`;
    if (statSync(join(ROOT, path)).isDirectory()) return walk(path);
    return /\.ts$/.test(name) && !/\.(test|fixture|d)\.ts$|index\.ts$/.test(name) ? [path] : [];
  });
const files = FOLDERS.flatMap(walk);
const config = ts.readConfigFile(join(ROOT, 'tsconfig.json'), ts.sys.readFile).config;
const { options } = ts.parseJsonConfigFileContent(config, ts.sys, ROOT);
const program = ts.createProgram(
  files.map((file) => join(ROOT, file)),
  { ...options, noEmit: true },
);
const checker = program.getTypeChecker();

const SWAPS = new Map([
  [ts.SyntaxKind.PlusToken, '-'],
  [ts.SyntaxKind.MinusToken, '+'],
  [ts.SyntaxKind.AsteriskToken, '/'],
  [ts.SyntaxKind.SlashToken, '*'],
  [ts.SyntaxKind.LessThanToken, '<='],
  [ts.SyntaxKind.LessThanEqualsToken, '<'],
  [ts.SyntaxKind.GreaterThanToken, '>='],
  [ts.SyntaxKind.GreaterThanEqualsToken, '>'],
]);
const isNumber = (node) => (checker.getTypeAtLocation(node).flags & ts.TypeFlags.NumberLike) !== 0;

/** What can be changed of a node, as a replacement of its text; numbers in types and names change nothing that runs. */
function changes(node) {
  if (ts.isNumericLiteral(node) && Number(node.text) > 0 && Number(node.text) <= HAIR) return [];
  if (ts.isNumericLiteral(node) && !ts.isLiteralTypeNode(node.parent) && node.parent.name !== node)
    return [[node, String(Number(node.text) === 0 ? 1 : Number(node.text) * 1.5)]];
  if (
    ts.isBinaryExpression(node) &&
    SWAPS.has(node.operatorToken.kind) &&
    isNumber(node.left) &&
    isNumber(node.right)
  )
    return [[node.operatorToken, SWAPS.get(node.operatorToken.kind)]];
  if (
    ts.isPropertyAccessExpression(node) &&
    node.expression.getText() === 'Math' &&
    ['min', 'max'].includes(node.name.text)
  )
    return [[node.name, node.name.text === 'min' ? 'max' : 'min']];
  return [];
}

const all = [];
for (const file of files) {
  const source = program.getSourceFile(join(ROOT, file));
  (function visit(node, inside) {
    let own = inside;
    if (ts.isFunctionLike(node) && node.body) {
      const signature = checker.getSignatureFromDeclaration(node);
      own ||=
        signature && (checker.getReturnTypeOfSignature(signature).flags & ts.TypeFlags.NumberLike) !== 0;
    }
    if (own)
      for (const [at, text] of changes(node)) {
        const line = source.getLineAndCharacterOfPosition(at.getStart()).line + 1;
        const place = { start: node.getStart(), end: node.end };
        all.push({ file, line, from: at.getStart(), to: at.end, was: at.getText(), text, place });
      }
    ts.forEachChild(node, (child) => visit(child, own));
  })(source, false);
}

/** Numbers from 0 to 1 that come again for the same seed (mulberry32). */
let state = SEED;
function random() {
  state = (state + 0x6d2b79f5) | 0;
  let t = Math.imul(state ^ (state >>> 15), 1 | state);
  t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
  return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
}
const drawn = [];
while (drawn.length < Math.min(COUNT, all.length)) {
  const one = all[Math.floor(random() * all.length)];
  if (!drawn.includes(one)) drawn.push(one);
}

const CONFIG = `export default {
  test: {
    include: ['{core,contract}/**/*.test.ts'],
    isolate: false,
    testTimeout: 600_000,
    hookTimeout: 600_000,
    maxWorkers: Number(process.env.WORKERS),
    setupFiles: process.env.REACH ? ['./reach.ts'] : [],
  },
};
`;
/** Writes a line for each test: its file, its whole name, how long it took, and the places that it or what its file prepares came to. */
const REACH = `import { appendFileSync } from 'node:fs';
import { afterAll, afterEach, beforeEach } from 'vitest';
const prepared = new Set<number>();
const lines: { file: string; name: string; ms: number; reached: Set<number> }[] = [];
let now = prepared;
(globalThis as Record<string, unknown>).__reach = (place: number) => now.add(place);
let began = 0;
beforeEach(() => {
  now = new Set();
  began = performance.now();
});
afterEach(({ task }) => {
  const names = [task.name];
  for (let suite = task.suite; suite; suite = suite.suite) names.unshift(suite.name);
  lines.push({ file: task.file.filepath, name: names.join(' '), ms: performance.now() - began, reached: now });
  now = prepared;
});
afterAll(() => {
  for (const { reached, ...line } of lines) {
    const all = [...new Set([...reached, ...prepared])];
    if (all.length > 0) appendFileSync(process.env.REACH as string, JSON.stringify({ ...line, reached: all }) + '\\n');
  }
});
`;
const copies = [0, 1].map(() => {
  const copy = mkdtempSync(join(tmpdir(), 'junta-mutate-'));
  for (const name of ['core', 'contract', 'demo', 'package.json', 'tsconfig.json', 'web'])
    cpSync(join(ROOT, name), join(copy, name), { recursive: true });
  symlinkSync(join(ROOT, 'node_modules'), join(copy, 'node_modules'));
  writeFileSync(join(copy, 'vitest.config.ts'), CONFIG);
  writeFileSync(join(copy, 'reach.ts'), REACH);
  return copy;
});

/** Runs tests in a copy; true if one fails or they never end. */
const fails = (copy, args, { ms = Infinity, env = {} } = {}) =>
  new Promise((done) => {
    const child = spawn(process.execPath, ['node_modules/vitest/vitest.mjs', 'run', ...args], {
      cwd: copy,
      stdio: 'ignore',
      env: { ...process.env, WORKERS: '1', ...env },
    });
    const timer = Number.isFinite(ms) ? setTimeout(() => child.kill('SIGKILL'), ms) : undefined;
    child.on('exit', (code) => {
      clearTimeout(timer);
      done(code !== 0);
    });
  });

/** The tests that come to each of the drawn places, the quickest first. */
async function reaching() {
  const [copy] = copies;
  const kept = new Map();
  for (const file of new Set(drawn.map((each) => each.file))) {
    const before = readFileSync(join(copy, file), 'utf8');
    kept.set(file, before);
    const points = drawn.flatMap((each, k) =>
      each.file === file
        ? [
            [each.place.start, 1, `(globalThis.__reach?.(${k}), `],
            [each.place.end, 0, ')'],
          ]
        : [],
    );
    // From the end, so that places before stay where they are; where one ends and another begins, the end comes first in the text.
    points.sort((a, b) => b[0] - a[0] || b[1] - a[1]);
    let text = before;
    for (const [at, , what] of points) text = text.slice(0, at) + what + text.slice(at);
    writeFileSync(join(copy, file), text);
  }
  const log = join(copy, 'reached.jsonl');
  writeFileSync(log, '');
  if (await fails(copy, [], { env: { REACH: log, WORKERS: '2' } }))
    throw new Error('mutate: tests fail before anything was changed');
  for (const [file, before] of kept) writeFileSync(join(copy, file), before);
  const tests = drawn.map(() => []);
  for (const line of readFileSync(log, 'utf8').split('\n').filter(Boolean)) {
    const test = JSON.parse(line);
    for (const k of test.reached) tests[k].push({ ...test, file: test.file.slice(copy.length + 1) });
  }
  return tests.map((each) => each.toSorted((a, b) => a.ms - b.ms));
}

/** Whether one of the tests that come to a place notices what was changed there. */
async function noticedBy(copy, tests) {
  let at = 0;
  for (const most of BATCHES_MS) {
    const batch = [];
    let ms = 0;
    for (; at < tests.length && (batch.length === 0 || ms + tests[at].ms < most); at++) {
      batch.push(tests[at]);
      ms += tests[at].ms;
    }
    if (batch.length === 0) continue;
    const names = batch.map(({ name }) => name.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&'));
    const args = ['--bail', '1', '-t', `(?:${names.join('|')})$`, ...new Set(batch.map(({ file }) => file))];
    if (await fails(copy, args, { ms: ms * SLOWER + PATIENCE_MS })) return true;
  }
  return false;
}

const survivors = [];
let tried = 0;
console.log(`${drawn.length} of ${all.length} possible changes, seed ${SEED}`);
try {
  for (const [name, file, was, text, tests] of FROM ? [] : NAMED) {
    const path = join(copies[0], file);
    const before = readFileSync(path, 'utf8');
    const changed = before.replace(was, text);
    if (changed === before) throw new Error(`mutate: “${name}” finds nothing to change in ${file}`);
    writeFileSync(path, changed);
    const noticed = await fails(copies[0], ['--bail', '1', tests], { env: { WORKERS: '2' } });
    writeFileSync(path, before);
    tried += 1;
    if (!noticed) survivors.push(`${name} (${file})`);
    console.log(`    ${noticed ? 'noticed ' : 'SURVIVES'} ${name}`);
  }
  const tests = await reaching();
  console.log(
    `${tests.filter((each) => each.length > 0).length} of ${drawn.length} places are come to by a test`,
  );
  const waiting = [...drawn.entries()].filter(([i]) => i + 1 >= FROM);
  const work = async (copy) => {
    for (let next = waiting.shift(); next; next = waiting.shift()) {
      const [i, { file, line, from, to, was, text }] = next;
      const path = join(copy, file);
      const before = readFileSync(path, 'utf8');
      writeFileSync(path, before.slice(0, from) + text + before.slice(to));
      const noticed = await noticedBy(copy, tests[i]);
      writeFileSync(path, before);
      tried += 1;
      const what = `${file}:${line}: ${was} -> ${text} (${tests[i].length} tests come to it)`;
      if (!noticed) survivors.push(what);
      console.log(`${String(i + 1).padStart(3)} ${noticed ? 'noticed ' : 'SURVIVES'} ${what}`);
    }
  };
  await Promise.all(copies.map(work));
} finally {
  for (const copy of copies) rmSync(copy, { recursive: true, force: true });
}
console.log(`\n${survivors.length} of ${tried} survive${survivors.length ? ':' : ''}`);
for (const each of survivors) console.log(`  ${each}`);
