import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: 'e2e',
  outputDir: 'test-results/browser',
  // Roomy: pictures of wood are computed, and a shared machine may be several times slower than usual, or stand still for a minute.
  timeout: 480_000,
  expect: { timeout: 90_000 },
  // What failed runs once more on a house of its own, and is named by `npm test`: a race is to be found and mended, and known as one.
  retries: 1,
  // Each worker has a database and a server of its own.
  workers: 2,
  reporter: [['dot'], ['json', { outputFile: 'test-results/browser.json' }]],
  use: {
    // What never comes is told where it was waited for, not when the test ends.
    actionTimeout: 150_000,
    navigationTimeout: 150_000,
    // Requests of a service worker cannot be stopped on their way: the test that has one says so.
    serviceWorkers: 'block',
    viewport: { width: 1280, height: 800 },
    // Pictures of wood are computed for the pixels there are: on a device of a quarter of them the same tests cost less.
    deviceScaleFactor: 0.25,
    launchOptions: {
      executablePath: process.env.JUNTA_BROWSER ?? '/usr/bin/chromium',
      args: [
        // Nothing here draws with the graphics card, and standing in for one costs more than the pages do.
        '--disable-gpu',
        // A name that is not loopback: pages there are no secure context, as on a phone in the shop.
        '--host-resolver-rules=MAP shop.test 127.0.0.1',
        '--disable-background-networking',
        '--disable-component-update',
        ...(process.getuid?.() === 0 ? ['--no-sandbox'] : []),
      ],
    },
    screenshot: 'only-on-failure',
  },
});
