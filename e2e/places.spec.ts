/** Every place: what an accessibility checker says of it, at three widths, and what its first load weighs. */
import { gzipSync } from 'node:zlib';
import { expect, test, type Page } from './journey.js';
import axe from 'axe-core';

const FILLING = '/fill/new?template=group-visit-confirmed';
const PLACES: readonly (readonly [name: string, address: string, ready: (page: Page) => Promise<void>])[] = [
  ['Catalogue', '/catalogue', (page) => expect(page.getByText('Group visit confirmed').first()).toBeVisible()],
  ['Write, nothing open', '/write', (page) => expect(page.getByLabel(/^Title/)).toBeVisible()],
  ['Write', '/write/group-visit-confirmed', (page) => expect(page.locator('.passage').first()).toBeVisible()],
  ['Samples', '/samples?for=group-visit-confirmed', (page) => expect(page.getByRole('gridcell').first()).toBeVisible()],
  ...(
    [
      ['One message', 'one', '.subject'],
      ['All messages', 'all', '.slip'],
      ['Side by side', 'beside', '.sheets p'],
      ['As it arrives', 'arrives?family=word', 'iframe'],
      ['Hard cases', 'hard', '.paper .subject'],
      ['Every pairing', 'pairing', '.paper .subject'],
      ['Findings', 'findings', '.group'],
      ['Send proofs', 'send', '.taken'],
      ['Proof report', 'report', '.frame'],
    ] as const
  ).map(
    ([name, view, ready]) =>
      [
        `Proof, ${name}`,
        `/proof/group-visit-confirmed/${view}`,
        (page: Page) => expect(page.locator(ready).first()).toBeVisible(),
      ] as const,
  ),
  ['Fill, nothing open', '/fill', (page) => expect(page.getByRole('option').first()).toBeVisible()],
  ['Fill', FILLING, (page) => expect(page.getByLabel('Recipient', { exact: true })).toBeVisible()],
  [
    'Publish',
    '/publish/opening-hours',
    (page) => expect(page.getByText(/of the 3 templates|read differently/)).toBeVisible(),
  ],
  ['Versions', '/versions/opening-hours', (page) => expect(page.getByText('The first version.')).toBeVisible()],
  [
    'Requests',
    '/catalogue?view=asked',
    (page) => expect(page.getByRole('navigation', { name: 'Folders' })).toBeVisible(),
  ],
  ['Signing in, set', '/settings/sign-in', (page) => expect(page.getByText('this one', { exact: true })).toBeVisible()],
  ['Keys', '/settings/programs', (page) => expect(page.getByLabel('What it is for')).toBeVisible()],
  [
    'From past mails',
    '/from-mails',
    (page) => expect(page.getByRole('button', { name: 'Group visit confirmed' })).toBeVisible(),
  ],
  [
    'Languages',
    '/languages/danke-fuer-den-besuch',
    (page) => expect(page.getByRole('list', { name: 'Lines' })).toContainText('tell us if one should go'),
  ],
  ['Looking back', '/looking-back', (page) => expect(page.getByRole('img').first()).toBeVisible()],
  [
    'Looking back at a text',
    '/looking-back/lost-and-found',
    (page) => expect(page.getByRole('region', { name: 'The sentence' })).toBeVisible(),
  ],
  ['Trial', '/trial/membership-welcome', (page) => expect(page.getByRole('status').first()).toContainText('Version 2')],
  [
    'Write a series',
    '/write/around-a-visit',
    (page) => expect(page.getByRole('list', { name: /^Ways/ })).toBeVisible(),
  ],
  ['Series', '/series', (page) => expect(page.getByRole('region', { name: 'This series' })).toContainText('Ottoline')],
  [
    'Start a series',
    '/start/around-a-visit',
    (page) => expect(page.getByRole('region', { name: 'What will go' })).toContainText('Thank you'),
  ],
  [
    'Standing replies',
    '/standing',
    (page) => expect(page.getByRole('status').filter({ hasText: 'would have answered' })).toBeVisible(),
  ],
  ['Mailroom', '/mailroom', (page) => expect(page.getByRole('region', { name: 'Letter' })).toContainText('Siobhán')],
  [
    'A recipient',
    '/recipients/siobhan@quillmere.example',
    (page) => expect(page.getByRole('region', { name: 'Person', exact: true })).toBeVisible(),
  ],
  [
    'Handing over',
    '/settings/handing-over',
    (page) => expect(page.getByRole('button', { name: 'Copy a test' })).toBeVisible(),
  ],
  ['To many', 'a mailing', (page) => expect(page.getByRole('grid', { name: 'Recipients' })).toBeVisible()],
  ['Sign in', '/sign-in', (page) => expect(page.getByLabel('Address')).toBeVisible()],
  ['Settings', '/settings', (page) => expect(page.getByLabel(/^Name/)).toBeVisible()],
];

/** A mailing of two people, that has not gone. @returns its address */
async function mailing({ request }: Page): Promise<string> {
  const made = async (path: string, data: object): Promise<string> =>
    ((await (await request.post(path, { data })).json()) as { id: string }).id;
  const id = await made('/api/mailings', { fill: await made('/api/fills', { text: 'membership-renewal' }) });
  await made(`/api/mailings/${id}/recipients`, { paste: 'Ann Lee <ann@x.example>\nBo Li <bo@x.example>' });
  return `/many/${id}`;
}

/**
 * The critical, serious and moderate faults of a page, in words. Frames are left out: proofs stand in frames that run no
 * scripts, the checker's included; what they show is checked as a page of its own below.
 */
async function faultsOf(page: Page, minor: readonly string[] = ['minor']): Promise<string[]> {
  await page.evaluate(axe.source);
  const violations = await page.evaluate(async () => {
    const { axe: checker } = globalThis as unknown as { axe: typeof axe };
    return (await checker.run(document, { iframes: false, resultTypes: ['violations'] })).violations;
  });
  return violations
    .filter(({ impact }) => !minor.includes(impact ?? ''))
    .map(({ id, nodes }) => `${id}: ${nodes.map((node) => node.html.slice(0, 120)).join(' | ')}`);
}

for (const [name, address, ready] of PLACES)
  test(`${name} has no fault of accessibility, and nothing runs over its edge at any width`, async ({ page }) => {
    await page.goto(address === 'a mailing' ? await mailing(page) : address);
    await ready(page);
    for (const width of [1280, 900, 420]) {
      await page.setViewportSize({ width, height: 800 });
      await page.waitForTimeout(150);
      const faults = await faultsOf(page);
      expect([width, faults]).toEqual([width, []]);
      const over = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
      expect([width, over]).toEqual([width, 0]);
    }
  });

test('the call line, the table of keys and the insert list have no fault either', async ({ page }) => {
  await page.goto('/catalogue');
  await page.keyboard.press('Control+k');
  await expect(page.getByRole('dialog', { name: 'Call line' })).toBeVisible();
  expect(await faultsOf(page)).toEqual([]);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Keys' }).click();
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  expect(await faultsOf(page)).toEqual([]);
  await page.goto('/write/group-visit-confirmed');
  await page.locator('.body p').first().click();
  await page.keyboard.press('Alt+Enter');
  await expect(page.getByRole('dialog', { name: 'Insert' })).toBeVisible();
  expect(await faultsOf(page)).toEqual([]);
});

test('a rendered message has no serious fault by itself', async ({ page, request }) => {
  const { id } = (await (await request.post('/api/fills', { data: { text: 'group-visit-confirmed' } })).json()) as {
    id: string;
  };
  const answer = await request.post(`/api/fills/${id}/hand-over`, { data: { way: 'print', incomplete: true } });
  await page.setContent(((await answer.json()) as { html: string }).html);
  // Messages are read inside mail programs, which bring the landmarks and headings of a page.
  // A message is part of a mail program's page, which has the landmarks.
  expect(await faultsOf(page, ['minor', 'moderate'])).toEqual([]);
});

for (const [name, path, most, ready] of [
  ['Fill', FILLING, 300, (page) => expect(page.getByLabel('Recipient', { exact: true })).toBeFocused()],
  ['Settings', '/settings', 300, (page) => expect(page.getByRole('heading', { name: 'You' })).toBeVisible()],
  [
    'Write',
    '/write/group-visit-confirmed',
    550,
    (page) => expect(page.getByRole('textbox', { name: 'Manuscript' })).toBeVisible(),
  ],
] as readonly (readonly [string, string, number, (page: Page) => Promise<void>])[])
  test(`${name} loads at most ${most} kB of JavaScript, gzipped, before the browser is idle`, async ({ page }) => {
    const read = new Map<string, Promise<Buffer>>();
    page.on('response', (response) => {
      if (/\.js$/.test(new URL(response.url()).pathname)) read.set(response.url(), response.body());
    });
    await page.goto(path);
    await ready(page);
    await page.waitForLoadState('networkidle');
    // Every file is waited for: one that is still read would not be counted.
    const files = await Promise.all(read.values());
    const total = files.reduce((sum, file) => sum + gzipSync(file, { level: 9 }).length, 0);
    expect(files.length).toBeGreaterThan(2);
    expect(Math.round(total / 1000)).toBeLessThanOrEqual(most);
    test.info().annotations.push({ type: 'kB', description: String(Math.round(total / 1000)) });
  });
