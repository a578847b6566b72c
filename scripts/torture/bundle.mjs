import { build } from 'esbuild';

/** Bundles the torture and its worker into a folder. */
export const bundleTorture = (outdir) =>
  build({
    entryPoints: ['scripts/torture/main.ts', 'scripts/torture/documents.worker.ts'],
    outdir,
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    sourcemap: true,
    logLevel: 'warning',
  });
