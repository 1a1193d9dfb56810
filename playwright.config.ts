import { defineConfig } from '@playwright/test';

const port = 4190;

export default defineConfig({
  testDir: 'e2e',
  globalSetup: './e2e/global-setup.ts',
  // Generous, because other work may share the machine: a journey that is right passes however slow the day is.
  timeout: 180_000,
  expect: { timeout: 30_000 },
  workers: 1,
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    // Journeys begin as the demo's author; those of others sign in themselves.
    storageState: 'test-results/maeve.json',
    permissions: ['clipboard-read', 'clipboard-write'],
    launchOptions: {
      executablePath: '/usr/bin/chromium',
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
  webServer: {
    command: 'rm -rf test-results/db && mkdir -p test-results/db && node --import tsx server/src/main.ts',
    url: `http://127.0.0.1:${port}/api/health`,
    timeout: 180_000,
    env: {
      PORT: String(port),
      DATABASE_URL: 'file:test-results/db/e2e.db',
      VOCABULA_DEMO: 'demo',
      LOG_LEVEL: 'warn',
      CHECK_ANSWERS: 'yes',
    },
  },
});
