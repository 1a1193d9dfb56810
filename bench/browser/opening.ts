/**
 * From asking for a place to seeing what it is for, with the demo data and a browser that has the code already. With
 * `AGAINST=FOLDER`, a built checkout of another state, both are measured in turns and given as a ratio.
 */
import { chromium, type Page } from '@playwright/test';
import { signIn } from '../../e2e/people.js';
import { quantile, startServer, stopServer, temporaryFolder } from '../server.js';

const ROUNDS = 30;
/** Each place with the first thing that is there for its user. */
const PLACES: readonly (readonly [name: string, path: string, shown: string])[] = [
  ['Catalogue', '/catalogue', '[role=option]'],
  ['Write', '/write/group-visit-confirmed', '.body p'],
  ['Fill', '/fill/new?template=visit-thanks', 'iframe[title="The message"]'],
  ['Samples', '/samples?for=group-visit-confirmed', '[role=gridcell]'],
  ['Settings', '/settings/profile', 'main input, form input'],
];

async function timesOf(page: Page, base: string, path: string, shown: string): Promise<number> {
  await page.goto('about:blank');
  const begun = performance.now();
  await page.goto(`${base}${path}`, { waitUntil: 'commit' });
  await page.locator(shown).first().waitFor();
  return performance.now() - begun;
}

export async function bench(): Promise<void> {
  const checkouts = [process.cwd(), ...(process.env.AGAINST ? [process.env.AGAINST] : [])];
  const servers = [];
  for (const checkout of checkouts) servers.push(await startServer(temporaryFolder(), 0, checkout));
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu'],
  });
  try {
    const pages: Page[] = [];
    for (const { base } of servers) {
      const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
      await signIn(page.request, 'maeve', base);
      pages.push(page);
    }
    for (const [name, path, shown] of PLACES) {
      const times: number[][] = servers.map(() => []);
      for (let round = -2; round < ROUNDS; round += 1)
        for (const [at, { base }] of servers.entries()) {
          const took = await timesOf(pages[at] as Page, base, path, shown);
          if (round >= 0) times[at]?.push(took);
        }
      const [here = [], there] = times;
      const ratio = (share: number): string =>
        there
          ? `${(quantile(here, share) / quantile(there, share)).toFixed(2)}×`
          : `${quantile(here, share).toFixed(0)} ms`;
      console.log(
        `opening ${name}: p50 ${ratio(0.5)}  p95 ${ratio(0.95)}${there ? ' of the other state' : ''} (${ROUNDS} times)`,
      );
    }
  } finally {
    await browser.close();
    for (const server of servers) await stopServer(server);
  }
}
