import { defineConfig } from '@playwright/test';

/** One worker: the tests share one server and one database, and kill both. */
export default defineConfig({
  testDir: 'tests',
  fullyParallel: false,
  workers: 1,
  // Time limits end what hangs. On a loaded machine what is awaited comes late.
  timeout: 600_000,
  expect: { timeout: 90_000 },
  forbidOnly: true,
  reporter: [['list'], ['./count-reporter.ts']],
  outputDir: '../.data/e2e-results',
  use: {
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    launchOptions: {
      executablePath: process.env['CHROME_BIN'] ?? '/usr/bin/chromium',
      args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-gpu', '--disable-background-networking'],
    },
    // What a device keeps is tested where it is meant; elsewhere every page comes from the server.
    serviceWorkers: 'block',
    screenshot: 'only-on-failure',
  },
});
