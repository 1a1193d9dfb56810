import { existsSync } from 'node:fs';
import { defineConfig } from '@playwright/test';

/** Chromium without windows where it is installed: the same engine, in less time. */
const BROWSERS = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'];

export default defineConfig({
  testDir: 'e2e',
  globalSetup: './e2e/global-setup.ts',
  // Generous, because other work may share the machine: a journey that is right passes however slow the day is.
  timeout: 180_000,
  expect: { timeout: 30_000 },
  // Each file has a server of its own. One more at a time than there are cores, since journeys also wait.
  workers: 3,
  // The slowest are said at the end.
  reportSlowTests: { max: 20, threshold: 10_000 },
  use: {
    locale: 'en-GB',
    viewport: { width: 1280, height: 800 },
    // Journeys begin as the demo's author; those of others sign in themselves.
    storageState: 'test-results/maeve.json',
    permissions: ['clipboard-read', 'clipboard-write'],
    launchOptions: {
      executablePath: BROWSERS.find((path) => existsSync(path))!,
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
      ],
    },
  },
});
