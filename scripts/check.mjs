import { spawnSync } from 'node:child_process';
import { pathToFileURL } from 'node:url';

const bin = (path, ...args) => [process.execPath, [`node_modules/${path}`, ...args]];
const CHECKS = [
  ['types', ...bin('typescript/bin/tsc', '-p', '.')],
  ['lint', ...bin('eslint/bin/eslint.js', '.', '--max-warnings', '0')],
  ['format', ...bin('@biomejs/biome/bin/biome', 'format', '.')],
  [
    'direction of imports',
    ...bin(
      'dependency-cruiser/bin/dependency-cruise.mjs',
      '--config',
      '.dependency-cruiser.cjs',
      '--output-type',
      'err',
      'core',
      'contract',
      'server',
      'web',
      'demo',
    ),
  ],
  ['unused code', ...bin('knip/bin/knip.js', '--no-progress')],
];

/** Runs every static check; gives how many passed and failed. Prints only what failed. */
export function check() {
  let failed = 0;
  for (const [name, command, args] of CHECKS) {
    const result = spawnSync(command, args, { encoding: 'utf8' });
    if (result.status === 0) console.log(`  ok  ${name}`);
    else {
      failed += 1;
      console.log(`  --  ${name}\n${(result.stdout + result.stderr).slice(0, 6000)}`);
    }
  }
  return { passed: CHECKS.length - failed, failed };
}

if (import.meta.url === pathToFileURL(process.argv[1]).href) process.exit(check().failed ? 1 : 0);
