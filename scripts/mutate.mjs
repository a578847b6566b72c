/**
 * Changes the program and asks whether a test notices: `npm run mutate [-- --count 60 --seed 1 --from 1]`. Draws changes with a
 * seed over the functions that return a number in run, review, bench, solid, stock and steps: a number made larger, a
 * sign or a comparison turned, a least taken for a most. Each is carried out in a copy of the project and tried by the tests
 * of its folder, and, where those pass, by the tests of all that stands on it. Prints the survivors. `--from` goes on with a
 * draw that was interrupted, without those named.
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

const ROOT = resolve(import.meta.dirname, '..');
const FOLDERS = ['core/run', 'core/review', 'core/bench', 'core/solid', 'core/stock', 'core/steps'];
/** Tests that ask of sizes, losses, findings, hours and boards, the quick ones first. */
const WIDER = [
  'contract/samples.test.ts',
  'core/run',
  'core/steps',
  'core/solid',
  'core/bench',
  'core/plan',
  'core/units',
  'core/edit',
  'core/layup',
  'core/stock',
  'core/glueup',
  'core/review',
];
const argument = (name, usual) => {
  const at = process.argv.indexOf(`--${name}`);
  return at < 0 ? usual : Number(process.argv[at + 1]);
};
const COUNT = argument('count', 60);
const SEED = argument('seed', 1);
const FROM = argument('from', 0);
const TRY_MS = 600_000;

/** Changes that once went unnoticed, each with the tests that must notice it now. */
const NAMED = [
  ['milling’s edge error', 'core/steps/mill/mill.ts', /-2(,?\s*\])/, '-1$1', 'core/steps'],
  [
    'halves off the faces',
    'core/run/readings.ts',
    '[a + over / 2, b + over / 2]',
    '[a + over, b]',
    'core/steps',
  ],
  ['halves off unexplained', 'core/run/readings.ts', "['min', mm / 2]", "['min', 0]", 'core/steps'],
  [
    'a milled reading shared',
    'core/steps/mill/mill.ts',
    'min: face.mm, max: face.mm',
    'min: face.mm, max: 0',
    'core/steps',
  ],
  [
    'tolerance of a reading',
    'core/run/readings.ts',
    'settingStep.mm / 4',
    'settingStep.mm / 3',
    'core/steps',
  ],
  ['worst of a reading', 'core/run/readings.ts', 'settingStep.mm / 2', 'settingStep.mm', 'core/steps'],
  [
    'too short to cut, at the boundary',
    'core/steps/crosscut/crosscut.ts',
    '> length + 1e-6',
    '>= length - 1e-6',
    'core/steps',
  ],
  [
    'too short to mitre, at the boundary',
    'core/steps/oblique/oblique.ts',
    'needed >= size[u]',
    'needed > size[u]',
    'core/steps/net.test.ts',
  ],
  ['days of outside work', 'core/steps/outside/outside.ts', '* 24', '* 8', 'core/bench'],
  ['settling before a trim', 'core/steps/trim/trim.ts', 'needsSettled: true,', '', 'core/bench'],
  [
    'a quarter turn carried over',
    'core/edit/carry.ts',
    '{ ...part, endForEnd, rollOver, quarter, locked }',
    '{ ...part, endForEnd, rollOver, locked }',
    'core/edit',
  ],
  ['long grain to 20 degrees', 'core/solid/contacts.ts', '<= 20)', '< 20)', 'core/steps/net.test.ts'],
  [
    'warp before resawing',
    'core/stock/problem.ts',
    '(t - lost + rules.resawKerf)',
    '(t + rules.resawKerf)',
    'core/stock/net.test.ts',
  ],
  [
    'the remnant’s kerf',
    'core/stock/pack.ts',
    '- rules.remnant - rules.ripKerf',
    '- rules.remnant',
    'core/stock/net.test.ts',
  ],
  ['the pace’s 0.75', 'core/glueup/pace.ts', '* 0.75', '* 0.9', 'core/glueup/pace.test.ts'],
];

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

/** What can be changed of a node, as a replacement of its text. */
function changes(node) {
  if (ts.isNumericLiteral(node))
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
        all.push({ file, line, from: at.getStart(), to: at.end, was: at.getText(), text });
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

const copy = mkdtempSync(join(tmpdir(), 'junta-mutate-'));
for (const name of ['core', 'contract', 'demo', 'package.json', 'tsconfig.json', 'vitest.config.ts', 'web'])
  cpSync(join(ROOT, name), join(copy, name), { recursive: true });
symlinkSync(join(ROOT, 'node_modules'), join(copy, 'node_modules'));

/** Whether tests fail; what never ends counts as noticed. */
const fails = (paths) =>
  new Promise((done) => {
    const child = spawn(
      process.execPath,
      ['node_modules/vitest/vitest.mjs', 'run', '--bail', '1', ...paths],
      {
        cwd: copy,
        stdio: 'ignore',
      },
    );
    const timer = setTimeout(() => child.kill('SIGKILL'), TRY_MS);
    child.on('exit', (code) => {
      clearTimeout(timer);
      done(code !== 0);
    });
  });

const survivors = [];
let tried = 0;
console.log(`${drawn.length} of ${all.length} possible changes, seed ${SEED}`);
try {
  for (const [name, file, was, text, tests] of FROM ? [] : NAMED) {
    const path = join(copy, file);
    const before = readFileSync(path, 'utf8');
    const changed = before.replace(was, text);
    if (changed === before) throw new Error(`mutate: “${name}” finds nothing to change in ${file}`);
    writeFileSync(path, changed);
    const noticed = await fails([tests]);
    writeFileSync(path, before);
    tried += 1;
    if (!noticed) survivors.push(`${name} (${file})`);
    console.log(`    ${noticed ? 'noticed ' : 'SURVIVES'} ${name}`);
  }
  for (const [i, { file, line, from, to, was, text }] of drawn.entries()) {
    if (i + 1 < FROM) continue;
    tried += 1;
    const path = join(copy, file);
    const before = readFileSync(path, 'utf8');
    writeFileSync(path, before.slice(0, from) + text + before.slice(to));
    const folder = file.split('/').slice(0, 2).join('/');
    // The slow searches of the stock and the offers come last.
    const near =
      folder === 'core/review'
        ? [
            'core/review/review.test.ts',
            'core/review/outlook.test.ts',
            'core/review/glueups.test.ts',
            'core/review/ways.test.ts',
            'core/review/crossgrain.test.ts',
            'core/review/early.test.ts',
          ]
        : [folder];
    let noticed = await fails(near);
    for (let w = 0; w < WIDER.length && !noticed; w += 4) noticed = await fails(WIDER.slice(w, w + 4));
    writeFileSync(path, before);
    const what = `${file}:${line}: ${was} -> ${text}`;
    if (!noticed) survivors.push(what);
    console.log(`${String(i + 1).padStart(3)} ${noticed ? 'noticed ' : 'SURVIVES'} ${what}`);
  }
} finally {
  rmSync(copy, { recursive: true, force: true });
}
console.log(`\n${survivors.length} of ${tried} survive${survivors.length ? ':' : ''}`);
for (const each of survivors) console.log(`  ${each}`);
