import { defineConfig } from '@playwright/test';
import { DEVICE } from './e2e/global-setup';

const PORT = 4181;
/** Begun first: the last of the tests would otherwise be long ones that have the machine to themselves. */
const LONG = /(?:offline|outage|sweep|words|workshop)\.spec\.ts/;

/**
 * The real interface in Debian's Chromium, against a server of its own and the throwaway database of
 * DATABASE_URL.
 */
export default defineConfig({
  testDir: 'e2e',
  fullyParallel: true,
  projects: [
    { name: 'long', testMatch: LONG },
    { name: 'short', testIgnore: LONG },
  ],
  // More than processors: two tests wait a third of their time, for frames, answers and what is shown late on
  // purpose.
  workers: 3,
  // What passes only at the second try is named in the summary: a slip of the machine, or a race to look for.
  retries: 1,
  globalSetup: './e2e/global-setup.ts',
  forbidOnly: true,
  // Generous: a busy machine is no failure.
  timeout: 180_000,
  expect: { timeout: 30_000 },
  reporter: [
    ['list'],
    ['json', { outputFile: process.env.PLAYWRIGHT_JSON_OUTPUT_NAME ?? 'test-results/results.json' }],
  ],
  use: {
    // What is not there after this long is not coming: a test that fails must not hold up the others.
    actionTimeout: 60_000,
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    storageState: DEVICE,
    // Each test is a fresh browser: it need not keep the application. What is about that switches it on.
    serviceWorkers: 'block',
    // A trace of every test doubles the time that all of them take: asked for where one has to be looked
    // into.
    trace: process.env.MUDFLAT_TRACE ? 'retain-on-failure' : 'off',
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell',
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
  webServer: {
    command: `npx tsx scripts/prepare.ts --demo && NODE_ENV=production PORT=${PORT} node web/server.mjs`,
    url: `http://127.0.0.1:${PORT}/api/health`,
    timeout: 120_000,
    reuseExistingServer: false,
  },
});
