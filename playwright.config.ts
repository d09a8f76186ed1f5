import { defineConfig } from '@playwright/test';
import { keptAt } from './e2e/signIn';

interface Lane {
  url: string;
  databaseUrl: string;
  ownerUrl: string;
  bus: number;
  secret: string;
}

/** Lanes that `scripts/test.mjs` has opened: an application, a database and a bus for each worker. One when there are none. */
const lanes = JSON.parse(process.env.SPIRAXIS_LANES ?? '[]') as Lane[];
const at = lanes.length > 0 ? Number(process.env.TEST_PARALLEL_INDEX ?? 0) : 0;
const lane = lanes[at];
if (lane) {
  // What a journey starts by itself stands on its own lane's database.
  process.env.SPIRAXIS_DATABASE_URL = lane.databaseUrl;
  process.env.SPIRAXIS_OWNER_URL = lane.ownerUrl;
  process.env.SPIRAXIS_BUS_PORT = String(lane.bus);
  process.env.SPIRAXIS_URL = lane.url;
  process.env.SPIRAXIS_SECRET = lane.secret;
  process.env.SPIRAXIS_DEMO = '1';
}

/** Journeys through the production build in Debian's headless Chromium. `scripts/test.mjs` starts the application. */
export default defineConfig({
  testDir: 'e2e',
  globalSetup: './e2e/signIn.ts',
  workers: Math.max(1, lanes.length),
  // Patience for a small machine that others use too: what is slow is measured in bench, not here.
  timeout: 600_000,
  expect: { timeout: 90_000 },
  forbidOnly: true,
  reporter: [['list'], ['json', { outputFile: 'var/test/e2e.json' }]],
  outputDir: 'var/test/e2e',
  use: {
    baseURL: process.env.SPIRAXIS_URL ?? 'http://127.0.0.1:3000',
    storageState: keptAt(at),
    serviceWorkers: 'block',
    viewport: { width: 1280, height: 800 },
    screenshot: 'only-on-failure',
    actionTimeout: 90_000,
    launchOptions: {
      executablePath: '/usr/bin/chromium-headless-shell',
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
