import { spawnSync } from 'node:child_process';
import { needBrowser, needDatabase } from './machine.mjs';
import { needPackages } from './packages.mjs';

/*
 * npm run bench: every measurement in one table, as ratios within one run where there is something to compare with.
 * The benchmarks are bundled like the application itself, so that they measure what runs.
 */
needPackages();
needDatabase();
needBrowser();
const { build, FOR_NODE } = await import('./build.mjs');
await build();
const { build: bundle } = await import('esbuild');
await bundle({
  ...FOR_NODE,
  entryPoints: ['benchmarks/run.ts'],
  outfile: 'dist/benchmarks.mjs',
});
process.exit(
  spawnSync(process.execPath, ['dist/benchmarks.mjs', ...process.argv.slice(2)], { stdio: 'inherit' })
    .status ?? 1,
);
