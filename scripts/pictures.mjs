/** `npm run pictures [-- NAME…]`: takes the pictures of the documentation anew, from a fresh demo. */
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium as browserType } from '@playwright/test';
import { chromium, CHROMIUM, packages, run } from './setup.mjs';

const PORT = 4179;
const BASE = `http://127.0.0.1:${PORT}`;

/** Each picture by its file name: how to get to what it shows. */
const PICTURES = {
  async catalogue(page) {
    await page.goto('/catalogue/group-visit-confirmed');
    await page.getByRole('heading', { name: /^Variables/ }).waitFor();
  },
  async write(page) {
    await page.goto('/write/group-visit-confirmed');
    await page.locator('.passage p').first().click();
  },
  async samples(page) {
    await page.goto('/samples');
    await page.getByRole('cell').first().waitFor();
  },
  async fill(page) {
    await page.goto('/fill/new?template=group-visit-confirmed');
    await page.getByLabel('Recipient', { exact: true }).fill('siobhán');
    await page.getByRole('option').first().waitFor();
    await page.keyboard.press('Enter');
    await page.keyboard.press('F2');
  },
};

packages();
if (!chromium() || run('npm', ['run', '-s', 'build']) !== 0) process.exit(1);
const folder = mkdtempSync(join(tmpdir(), 'vocabula-pictures-'));
const server = spawn(process.execPath, ['--import', 'tsx', 'server/src/main.ts'], {
  stdio: ['ignore', 'ignore', 'inherit'],
  env: {
    ...process.env,
    PORT: String(PORT),
    DATABASE_URL: `file:${join(folder, 'demo.db')}`,
    VOCABULA_DEMO: 'demo',
    LOG_LEVEL: 'warn',
  },
});
try {
  await answering();
  const browser = await browserType.launch({
    executablePath: CHROMIUM,
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--no-first-run'],
  });
  const wanted = process.argv.slice(2);
  for (const [name, go] of Object.entries(PICTURES)) {
    if (wanted.length > 0 && !wanted.includes(name)) continue;
    const page = await browser.newPage({ baseURL: BASE, viewport: { width: 1280, height: 800 } });
    await go(page);
    // Words that just changed are underlined for a moment.
    await page.waitForTimeout(1200);
    await page.screenshot({ path: `docs/screenshots/${name}.png` });
    await page.close();
    console.log(`docs/screenshots/${name}.png`);
  }
  await browser.close();
} finally {
  server.kill();
  rmSync(folder, { recursive: true, force: true });
}

/** Waits until the server answers. */
async function answering() {
  for (let attempt = 0; attempt < 100; attempt += 1) {
    const ok = await fetch(`${BASE}/api/health`).then(
      (answer) => answer.ok,
      () => false,
    );
    if (ok) return;
    await new Promise((done) => setTimeout(done, 200));
  }
  throw new Error('The server does not answer.');
}
