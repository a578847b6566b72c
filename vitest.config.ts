import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['{core,contract,server,web,scripts,demo}/**/*.test.{ts,tsx}'],
    testTimeout: 120_000,
    hookTimeout: 120_000,
  },
});
