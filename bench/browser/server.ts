/** A server of its own and a browser, for what is measured in pages. */
import { chromium, type Page } from '@playwright/test';
import { signIn } from '../../e2e/people.js';
import { startServer, stopServer, temporaryFolder } from '../server.js';

const PORT = 4195;
export const BASE = `http://127.0.0.1:${PORT}`;

/** Runs work on a page of a fresh server, and clears away after it. */
export async function onPage(work: (page: Page) => Promise<void>): Promise<void> {
  const server = await startServer(temporaryFolder(), PORT);
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
    await stopServer(server);
  }
}
