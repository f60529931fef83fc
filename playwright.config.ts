import { defineConfig } from '@playwright/test';

// What the database gives is held against what it is said to be.
process.env.CHECK_ROWS = '1';

export default defineConfig({
  testDir: 'tests/e2e',
  outputDir: 'test-results',
  workers: 2,
  fullyParallel: true,
  // They end what hangs; what a test waits for is an event, however slow the machine.
  timeout: 240_000,
  expect: { timeout: 40_000 },
  forbidOnly: true,
  reporter: process.env.E2E_JSON
    ? [['line'], ['json', { outputFile: process.env.E2E_JSON }]]
    : [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    trace: 'off',
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
      ],
    },
  },
});
