import { spawnSync } from 'node:child_process';
import { build } from './build.mjs';
import { browserProgram, needBrowser, needDatabase } from './machine.mjs';
import { needPackages } from './packages.mjs';

/*
 * npm run access: every route, tab and window at 1280, 768 and 390 px before the accessibility checker, with fingers on the two
 * narrow ones. npm test looks at each place once.
 */
needPackages();
needDatabase();
needBrowser();
await build();
const { status } = spawnSync(
  process.execPath,
  ['node_modules/@playwright/test/cli.js', 'test', 'e2e/everywhere.spec.ts', '--reporter=list'],
  { stdio: 'inherit', env: { ...process.env, JUNTA_MATRIX: '1', JUNTA_BROWSER: browserProgram() } },
);
process.exit(status ?? 1);
