import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';

const SOURCES = [
  'core',
  'contract',
  'server',
  'web',
  'demo',
  'package.json',
  'package-lock.json',
  'vite.config.ts',
  'tsconfig.json',
  'scripts/build.mjs',
];

/** How everything that runs in Node is bundled: not minified, so that entities keep their names. */
export const FOR_NODE = {
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  packages: 'external',
  sourcemap: true,
  logLevel: 'warning',
};

function digest() {
  const hash = createHash('sha256');
  const visit = (path) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory()) for (const name of readdirSync(path).sort()) visit(join(path, name));
    else hash.update(path).update(readFileSync(path));
  };
  SOURCES.forEach(visit);
  return hash.digest('hex');
}

/** Writes the made-up shop to dist/demo.json, which a new installation begins with. */
export async function writeDemo() {
  const { build: bundle } = await import('esbuild');
  await bundle({ ...FOR_NODE, entryPoints: ['demo/index.ts'], outfile: 'dist/demo.mjs' });
  const { demo } = await import(pathToFileURL(`${process.cwd()}/dist/demo.mjs`).href);
  writeFileSync('dist/demo.json', JSON.stringify(demo));
}

/** All files of a folder for the service worker, each with a digest: one that changed is fetched anew. */
const filesOf = (folder) =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((name) => statSync(join(folder, name)).isFile() && !name.endsWith('.map'))
    .map((name) => ({
      url: `/${name.replaceAll('\\', '/')}`,
      revision: createHash('sha256')
        .update(readFileSync(join(folder, name)))
        .digest('hex')
        .slice(0, 16),
    }));

/** Below this a file is sent as it is, bytes: packed it would hardly be smaller. */
const WORTH_PACKING = 1024;
/** Of 11: the last two steps take twenty times as long for a fourteenth less. */
const BROTLI_QUALITY = 9;

/** Packs what the interface is made of once, beside it, so that no server packs it again for every page that is opened. */
function pack(folder) {
  for (const name of readdirSync(folder, { recursive: true, encoding: 'utf8' })) {
    if (!/\.(js|css|svg)$/.test(name)) continue;
    const whole = readFileSync(join(folder, name));
    if (whole.length < WORTH_PACKING) continue;
    const params = { [constants.BROTLI_PARAM_QUALITY]: BROTLI_QUALITY };
    writeFileSync(join(folder, `${name}.br`), brotliCompressSync(whole, { params }));
    writeFileSync(join(folder, `${name}.gz`), gzipSync(whole, { level: 9 }));
  }
}

/** Builds the interface and the server into dist/, unless nothing they are made of has changed. */
export async function build() {
  const stamp = digest();
  if (existsSync('dist/stamp') && readFileSync('dist/stamp', 'utf8') === stamp) return;
  console.log('Building ...');
  const { build: bundle } = await import('esbuild');
  const web = spawnSync(process.execPath, ['node_modules/vite/bin/vite.js', 'build', '--logLevel', 'warn'], {
    // Whoever builds, a test runner too: what is built is what is used.
    env: { ...process.env, NODE_ENV: 'production' },
    stdio: ['ignore', 'inherit', 'inherit'],
  });
  if (web.status !== 0) throw new Error('Building the interface failed.');
  await bundle({
    entryPoints: ['web/workers/service.worker.ts'],
    outfile: 'dist/web/service-worker.js',
    bundle: true,
    minify: true,
    format: 'iife',
    target: 'es2022',
    define: { FILES: JSON.stringify(filesOf('dist/web')), 'process.env.NODE_ENV': '"production"' },
    logLevel: 'warning',
  });
  pack('dist/web');
  await bundle({
    ...FOR_NODE,
    entryPoints: ['server/main.ts'],
    outfile: 'dist/server.mjs',
  });
  await writeDemo();
  writeFileSync('dist/stamp', stamp);
}

if (import.meta.url === pathToFileURL(process.argv[1]).href) await build();
