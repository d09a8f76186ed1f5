import { defineConfig } from '@playwright/test';

/** Journeys through the production build in Debian's headless Chromium. `scripts/test.mjs` starts the application. */
export default defineConfig({
  testDir: 'e2e',
  workers: 1,
  // Patience for a small machine that others use too: what is slow is measured in bench, not here.
  timeout: 180_000,
  expect: { timeout: 20_000 },
  forbidOnly: true,
  reporter: [['list'], ['json', { outputFile: 'var/test/e2e.json' }]],
  outputDir: 'var/test/e2e',
  use: {
    baseURL: process.env.SPIRAXIS_URL ?? 'http://127.0.0.1:3000',
    viewport: { width: 1280, height: 800 },
    screenshot: 'only-on-failure',
    actionTimeout: 30_000,
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
