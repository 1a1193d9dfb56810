/** The catalogue: found, moved, grouped, binned; near-duplicates; out and in again. */
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test, type Page } from './journey.js';
import { giveFiles, pick } from './steps.js';

const message = (title: string, body: string): string =>
  `---\nvocabula: 1\nkind: message\ntitle: ${title}\nsubject: "About ${title}"\n---\n${body}\n`;
async function given(page: Page, texts: Record<string, string>): Promise<void> {
  const files = Object.entries(texts).map(([name, content]) => ({ file: `${name}.md`, content }));
  expect((await page.request.post('/api/texts/import', { data: { files } })).ok()).toBe(true);
}
const list = (page: Page) => page.getByRole('listbox', { name: 'Texts' });

test('texts are found in any words with a slip, chosen several at once, moved, tagged and binned, each undone', async ({
  page,
}) => {
  await given(page, {
    'rota-one': message('Rota one', 'The volunteers meet under the cedar.'),
    'rota-two': message('Rota two', 'The volunteers meet at the pond.'),
  });
  await page.goto('/catalogue');
  await page.getByLabel('Filter the list').fill('volunters cedar');
  await expect(list(page).getByRole('option')).toHaveCount(1);
  await expect(list(page).getByRole('option')).toContainText('meet under the cedar');
  await page.getByLabel('Filter the list').fill('template unpublished rota');
  await expect(list(page).getByRole('option')).toHaveCount(2);
  await page.getByLabel('Filter the list').press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(page.getByText('2 chosen')).toBeVisible();
  await page.keyboard.press('t');
  await page.getByLabel(/^Tags/).fill('autumn');
  await page.keyboard.press('Enter');
  await expect(list(page)).toContainText('#autumn');
  await list(page).focus();
  await page.keyboard.press('m');
  await pick(page.getByLabel(/^Move 2 texts into/), 'Visits');
  await page.getByRole('button', { name: 'Move', exact: true }).click();
  await expect(page.getByText('2 texts are in Visits.')).toBeVisible();
  await page.getByLabel('Filter the list').fill('in visits tagged autumn');
  await expect(list(page).getByRole('option')).toHaveCount(2);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('No text matches this filter.')).toBeVisible();
  await page.getByLabel('Filter the list').fill('tagged autumn');
  await list(page).focus();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Delete');
  await expect(page.getByText('2 texts are in the bin.')).toBeVisible();
  await page.getByRole('button', { name: /^Bin/ }).first().click();
  await page.getByLabel('Filter the list').fill('rota');
  await list(page).focus();
  await page.keyboard.press('Control+a');
  await page.getByRole('region', { name: 'The chosen texts' }).getByRole('button', { name: 'Purge…' }).click();
  await expect(page.getByRole('dialog')).toContainText('this cannot be undone');
  await page.getByRole('button', { name: 'Purge for good' }).click();
  await expect(page.getByText('2 texts are deleted for good.')).toBeVisible();
});

test('where used is walked, both ways', async ({ page }) => {
  await page.goto('/catalogue/opening-hours');
  const uses = page.getByRole('region', { name: 'Where used' });
  await expect(uses.getByRole('button', { name: 'Last entry', exact: true })).toBeVisible();
  await uses.getByRole('button', { name: 'Finding us', exact: true }).click();
  await uses.getByRole('button', { name: 'Group visit confirmed', exact: true }).click();
  await expect(uses.getByRole('button', { name: 'Entry fee', exact: true })).toBeVisible();
  await uses.getByRole('button', { name: 'back to this text' }).click();
  await uses.getByRole('button', { name: 'Read Last entry' }).click();
  await expect(page).toHaveURL(/\/catalogue\/last-entry$/);
});

test('everything goes out as a zip, and an empty place takes it in and is the same', async ({ browser, page }) => {
  await page.goto('/catalogue');
  await page.getByRole('button', { name: 'Import and export' }).click();
  const waiting = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'Export everything (zip)' }).click();
  const zip = await (await waiting).path();

  const folder = mkdtempSync(join(tmpdir(), 'vocabula-'));
  const base = 'http://127.0.0.1:4193';
  const server = await emptyServer(folder);
  try {
    const context = await browser.newContext({ baseURL: base, storageState: { cookies: [], origins: [] } });
    const other = await context.newPage();
    await other.goto('/');
    await expect(other.getByRole('heading', { name: 'The first administrator' })).toBeVisible();
    await other.getByLabel('Your name').fill('Ruairí Quinlan');
    await other.getByLabel('Address').fill('ruairi@larkmoor.example');
    await other.getByLabel(/^Password/).fill('heather on the moor');
    await other.keyboard.press('Enter');
    await expect(other.getByRole('heading', { name: 'Catalogue' })).toBeVisible();
    await other.getByRole('button', { name: 'Import and export' }).click();
    await giveFiles(other, other.getByRole('menuitem', { name: 'Import a library (zip)…' }), {
      name: 'library.zip',
      mimeType: 'application/zip',
      buffer: readFileSync(zip),
    });
    await expect(other.getByText(/library\.zip: \d+ new/)).toBeVisible();
    await pick(other.getByRole('combobox', { name: /House style/ }), 'take');
    await other.getByRole('button', { name: /^Take \d+/ }).click();
    await expect(other.getByText(/^Taken: \d+; 0 left out/)).toBeVisible();
    await expect(other.getByText('Group visit confirmed').first()).toBeVisible();
    const look = await context.request.post('/api/library/look', {
      headers: { 'content-type': 'application/octet-stream' },
      data: readFileSync(zip),
    });
    const { items } = (await look.json()) as { items: { outcome: string; path: string }[] };
    expect(items.filter(({ outcome }) => outcome !== 'same')).toEqual([]);
    await context.close();
  } finally {
    server.kill('SIGKILL');
    rmSync(folder, { recursive: true, force: true });
  }
});

async function emptyServer(folder: string): Promise<ChildProcess> {
  const child = spawn(process.execPath, ['--enable-source-maps', 'server/dist/main.js'], {
    env: {
      ...process.env,
      PORT: '4193',
      DATABASE_URL: `file:${join(folder, 'empty.db')}`,
      VOCABULA_DEMO: '',
      LOG_LEVEL: 'silent',
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise<void>((resolve, reject) => {
    child.once('exit', () => reject(new Error('the server ended')));
    child.stdout?.on('data', (data: Buffer) => data.toString().includes('http://') && resolve());
  });
  return child;
}
