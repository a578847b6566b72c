import { spawnSync } from 'node:child_process';
import { needDatabase } from './machine.mjs';
import { needPackages } from './packages.mjs';

/* npm run torture: see scripts/torture/main.ts. Bundled like the application, so that what runs is what is tested. */
needPackages();
needDatabase();
const { build } = await import('./build.mjs');
await build();
const { bundleTorture } = await import('./torture/bundle.mjs');
await bundleTorture('dist/torture');
process.exit(
  spawnSync(process.execPath, ['--enable-source-maps', 'dist/torture/main.mjs'], { stdio: 'inherit' })
    .status ?? 1,
);
