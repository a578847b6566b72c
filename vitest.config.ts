import { defineConfig } from 'vitest/config';

/** Tests of the interface change modules and the page they stand on: each file has a world of its own. */
const alone = ['web/**/*.test.{ts,tsx}'];

export default defineConfig({
  test: {
    testTimeout: 120_000,
    hookTimeout: 120_000,
    maxWorkers: 2,
    projects: [
      {
        extends: true,
        test: {
          name: 'core',
          include: ['{core,contract,server,scripts,demo}/**/*.test.{ts,tsx}'],
          // Modules are loaded once a worker: three times as fast as a world a file.
          isolate: false,
        },
      },
      { extends: true, test: { name: 'web', include: alone } },
    ],
  },
});
