import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, openSync, readFileSync, rmSync } from 'node:fs';
import { browserProgram, needBrowser, needDatabase, needPaper, temporaryInMemory } from './machine.mjs';
import { needPackages } from './packages.mjs';

/*
 * npm test: static checks, unit and server tests on a real database, and the real interface in a browser on the
 * built application, in two workers, each on a database and server of its own. Ends with the plain line `N passed, N failed`.
 */
needPackages();
needDatabase();
needBrowser();
needPaper();
temporaryInMemory();
const { check } = await import('./check.mjs');
const { build } = await import('./build.mjs');

/** Runs a program of the tests; with `log` its words go to that file. Gives its exit code. */
const run = (args, env = {}, log) =>
  new Promise((done) => {
    const out = log ? openSync(log, 'w') : 'inherit';
    const child = spawn(process.execPath, args, {
      stdio: ['ignore', out, out],
      env: { ...process.env, ...env },
    });
    child.on('exit', (code) => done(code ?? 1));
  });
/** What a runner wrote, or nothing: a run that wrote nothing counts as one failure. */
const report = (file) => (existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : undefined);

const total = { passed: 0, failed: 0 };
const add = ({ passed, failed }) => {
  total.passed += passed;
  total.failed += failed;
};
rmSync('test-results', { recursive: true, force: true });
mkdirSync('test-results', { recursive: true });

console.log('Checks');
add(await check());

// One build for all: the tests of the starter, the torture and the browser use it.
let built = true;
try {
  await build();
} catch (error) {
  console.error(error);
  built = false;
  add({ passed: 0, failed: 1 });
}

const units = async () => {
  const code = await run(
    [
      'node_modules/vitest/vitest.mjs',
      'run',
      '--reporter=default',
      '--reporter=json',
      '--outputFile.json=test-results/unit.json',
    ],
    { NO_COLOR: '1' },
    'test-results/unit.log',
  );
  const unit = report('test-results/unit.json');
  if (code) console.log(readFileSync('test-results/unit.log', 'utf8').slice(-12_000));
  return unit
    ? { passed: unit.numPassedTests, failed: unit.numFailedTests + (code && !unit.numFailedTests ? 1 : 0) }
    : { passed: 0, failed: 1 };
};
/** The titles of tests that failed first and passed after. */
const unsteady = (suite) => [
  ...(suite.suites ?? []).flatMap(unsteady),
  ...(suite.specs ?? [])
    .filter(({ tests }) => tests.some(({ status }) => status === 'flaky'))
    .map(({ file, title }) => `${file}: ${title}`),
];
const browsers = async () => {
  const code = await run(['node_modules/@playwright/test/cli.js', 'test'], {
    JUNTA_BROWSER: browserProgram(),
  });
  const told = report('test-results/browser.json');
  const browser = told?.stats;
  for (const title of told?.suites.flatMap(unsteady) ?? [])
    console.log(`Passed only when it ran again: ${title}`);
  return browser
    ? {
        passed: browser.expected + browser.flaky,
        failed: browser.unexpected + (code && !browser.unexpected ? 1 : 0),
      }
    : { passed: 0, failed: 1 };
};
if (built) {
  console.log('\nUnit and server tests');
  add(await units());
  console.log('\nThe interface in a browser');
  add(await browsers());
}

console.log(`\n${total.passed} passed, ${total.failed} failed`);
process.exit(total.failed ? 1 : 0);
