import { spawn } from 'node:child_process';
import { availableParallelism } from 'node:os';
import { pathToFileURL } from 'node:url';

const bin = (path, ...args) => [process.execPath, [`node_modules/${path}`, ...args]];
const CHECKS = [
  ['lint', ...bin('eslint/bin/eslint.js', '.', '--max-warnings', '0')],
  ['types', ...bin('typescript/bin/tsc', '-p', '.')],
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

/** One check with what it printed. */
const checked = ([name, command, args]) =>
  new Promise((done) => {
    const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'] });
    let said = '';
    for (const stream of [child.stdout, child.stderr])
      stream.setEncoding('utf8').on('data', (text) => (said += text));
    child.on('error', (error) => done({ name, ok: false, said: String(error) }));
    child.on('close', (code) => done({ name, ok: code === 0, said }));
  });

/**
 * Runs every static check, as many at once as there are processors, the longest first; gives how many passed and failed.
 * Prints only what failed.
 */
export async function check() {
  const waiting = [...CHECKS];
  let failed = 0;
  const work = async () => {
    for (let next = waiting.shift(); next; next = waiting.shift()) {
      const { name, ok, said } = await checked(next);
      if (!ok) failed += 1;
      console.log(ok ? `  ok  ${name}` : `  --  ${name}\n${said.slice(0, 6000)}`);
    }
  };
  await Promise.all(Array.from({ length: Math.min(4, availableParallelism()) }, work));
  return { passed: CHECKS.length - failed, failed };
}

if (import.meta.url === pathToFileURL(process.argv[1]).href) process.exit((await check()).failed ? 1 : 0);
