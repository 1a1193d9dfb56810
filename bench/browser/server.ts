/** A server of its own and a browser, for what is measured in pages. */
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { signIn } from '../../e2e/people.js';

const PORT = 4192;
export const BASE = `http://127.0.0.1:${PORT}`;

async function started(folder: string): Promise<() => void> {
  const child = spawn(process.execPath, ['--import', 'tsx', 'server/src/main.ts'], {
    env: {
      ...process.env,
      PORT: String(PORT),
      DATABASE_URL: `file:${join(folder, 'bench.db')}`,
      VOCABULA_DEMO: 'demo',
      LOG_LEVEL: 'silent',
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise<void>((resolve, reject) => {
    child.once('exit', () => reject(new Error('the server ended')));
    child.stdout.on('data', (data: Buffer) => data.toString().includes('http://') && resolve());
  });
  return () => void child.kill('SIGTERM');
}

/** Runs work on a page of a fresh server, and clears away after it. */
export async function onPage(work: (page: Page) => Promise<void>): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'vocabula-bench-'));
  const stop = await started(folder);
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-background-networking',
      '--disable-component-update',
      '--enable-precise-memory-info',
    ],
  });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    page.setDefaultTimeout(30_000);
    // What runs in the page was compiled with a helper that is not there.
    await page.addInitScript({ content: 'globalThis.__name = (value) => value;' });
    await signIn(page.request, 'maeve', BASE);
    await work(page);
  } finally {
    await browser.close();
    stop();
    rmSync(folder, { recursive: true, force: true });
  }
}
