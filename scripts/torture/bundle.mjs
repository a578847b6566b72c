import { build } from 'esbuild';
import { FOR_NODE } from '../build.mjs';

/** Bundles the torture and its worker into a folder. */
export const bundleTorture = (outdir) =>
  build({
    ...FOR_NODE,
    entryPoints: ['scripts/torture/main.ts', 'scripts/torture/documents.worker.ts'],
    outdir,
    outExtension: { '.js': '.mjs' },
  });
