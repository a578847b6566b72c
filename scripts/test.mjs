import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { browserProgram, needBrowser, needDatabase, needPaper } from './machine.mjs';
import { needPackages } from './packages.mjs';

/*
 * npm test: static checks, unit and server tests on a real database, and the real interface in a browser on the
 * built application, in two workers, each on a database and server of its own. Ends with the plain line `N passed, N failed`.
 */
needPackages();
needDatabase();
needBrowser();
needPaper();
const { check } = await import('./check.mjs');
const { build } = await import('./build.mjs');

const run = (args, env = {}) =>
  new Promise((done) => {
    const child = spawn(process.execPath, args, { stdio: 'inherit', env: { ...process.env, ...env } });
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
add(check());

// One build for all: the tests of the starter, the torture and the browser use it.
let built = true;
try {
  await build();
} catch (error) {
  console.error(error);
  built = false;
  add({ passed: 0, failed: 1 });
}

console.log('\nUnit and server tests');
const unitCode = await run([
  'node_modules/vitest/vitest.mjs',
  'run',
  '--reporter=dot',
  '--reporter=json',
  '--outputFile.json=test-results/unit.json',
]);
const unit = report('test-results/unit.json');
add(
  unit
    ? {
        passed: unit.numPassedTests,
        failed: unit.numFailedTests + (unitCode && !unit.numFailedTests ? 1 : 0),
      }
    : { passed: 0, failed: 1 },
);

if (built) {
  console.log('\nThe interface in a browser');
  const browserCode = await run(['node_modules/@playwright/test/cli.js', 'test'], {
    JUNTA_BROWSER: browserProgram(),
  });
  const browser = report('test-results/browser.json')?.stats;
  add(
    browser
      ? {
          passed: browser.expected + browser.flaky,
          failed: browser.unexpected + (browserCode && !browser.unexpected ? 1 : 0),
        }
      : { passed: 0, failed: 1 },
  );
}

console.log(`\n${total.passed} passed, ${total.failed} failed`);
process.exit(total.failed ? 1 : 0);
