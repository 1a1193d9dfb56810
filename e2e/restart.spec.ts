import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { signIn } from './people.js';
import { kept, startTemplate } from './steps.js';

test.use({ baseURL: 'http://127.0.0.1:4191' });
let folder: string;
let server: ChildProcess | undefined;

async function startServer(): Promise<void> {
  const child = spawn(process.execPath, ['--import', 'tsx', 'server/src/main.ts'], {
    env: {
      ...process.env,
      PORT: '4191',
      DATABASE_URL: `file:${join(folder, 'restart.db')}`,
      VOCABULA_DEMO: 'demo',
      LOG_LEVEL: 'silent',
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  server = child;
  await new Promise<void>((resolve, reject) => {
    child.once('exit', () => reject(new Error('the server ended')));
    child.stdout?.on('data', (data: Buffer) => data.toString().includes('http://') && resolve());
  });
}
async function stopServer(signal: NodeJS.Signals): Promise<void> {
  const child = server;
  server = undefined;
  if (!child) return;
  const ended = new Promise<void>((resolve) => child.once('exit', () => resolve()));
  child.kill(signal);
  await ended;
}
test.beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'vocabula-'));
});
test.afterEach(async () => {
  await stopServer('SIGKILL');
  rmSync(folder, { recursive: true, force: true });
});

test('what was written and filled is found as it was after a stop, and after the process was killed', async ({
  page,
}) => {
  await startServer();
  await signIn(page.request, 'maeve');
  await startTemplate(page, 'Kept through a stop');
  await page.keyboard.type('These words stay.');
  await kept(page);
  const address = page.url();
  await page.goto('/fill/new?template=group-visit-confirmed');
  await page.getByLabel('Recipient', { exact: true }).fill('Ann Lee');
  await page.keyboard.press('Enter');
  await expect(page.getByText('kept', { exact: true })).toBeVisible();
  const filling = page.url();

  await stopServer('SIGTERM');
  await startServer();
  await page.goto(address);
  await expect(page.locator('.body')).toContainText('These words stay.');
  await page.goto(filling);
  await expect(page.getByLabel('Recipient', { exact: true })).toHaveValue('Ann Lee');

  // While the server is away, nothing that is typed is lost: it is kept as soon as there is one again.
  await page.goto(address);
  await page.locator('.body p').first().click();
  await page.keyboard.press('End');
  await stopServer('SIGKILL');
  await page.keyboard.type(' And these, typed while it was away.');
  await expect(page.getByText(/^not connected: kept in this browser/)).toBeVisible();
  await startServer();
  await kept(page);
  await page.reload();
  await expect(page.locator('.body')).toContainText('typed while it was away.');
});
