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
    await page.getByLabel('Sample set').waitFor();
    await page.frameLocator('iframe[title="Proof"]').getByText('Dear Siobhán').waitFor();
  },
  async deriving(page) {
    await page.goto('/from-mails');
    await page.getByRole('button', { name: 'Group visit confirmed' }).click();
    await page.getByText('match word for word').waitFor();
  },
  async languages(page) {
    await page.goto('/languages/danke-fuer-den-besuch');
    await page.getByRole('list', { name: 'Lines' }).getByText('tell us if one should go').waitFor();
  },
  async 'looking-back'(page) {
    await page.goto('/looking-back');
    await page.getByRole('link', { name: 'Group visit confirmed' }).waitFor();
  },
  async 'looking-back-text'(page) {
    await page.goto('/looking-back/group-visit-confirmed');
    await page.getByRole('button', { name: 'Put it in Write' }).first().waitFor();
  },
  async trial(page) {
    await page.goto('/trial/membership-welcome');
    await page.getByText('which bed you would show a friend first').first().waitFor();
  },
  async series(page) {
    await page.goto('/write/around-a-visit');
    await page.getByText('For example with').waitFor();
    await page.frameLocator('iframe[title="The message"]').getByText('We look forward').waitFor();
  },
  async 'standing-reply'(page) {
    await signIn(page, 'ines');
    await page.goto('/standing');
    await page.getByRole('link', { name: /^Coming late/ }).click();
    const wrong = page.getByRole('button', { name: /^Wrong: Late flowering/ }).first();
    await wrong.click();
    await page.getByText('1 of them marked as wrong').waitFor();
    await page.frameLocator('iframe[title="The message"]').getByText('Thank you for telling us').waitFor();
  },
  async samples(page) {
    await page.goto('/samples?for=group-visit-confirmed');
    await page.getByRole('gridcell').first().waitFor();
    await page.getByRole('grid').focus();
    await page.keyboard.press('ArrowDown');
  },
  async 'proof-one'(page) {
    await proofed(page, 'one?at=1');
    await page.frameLocator('iframe[title="Message"]').getByText('The picnic lawn is yours').hover();
    await page.getByText('Kept because').waitFor();
  },
  async 'proof-all'(page) {
    await proofed(page, 'all');
    await page.locator('.slip').nth(5).waitFor();
  },
  async 'proof-arrives'(page) {
    await page.goto('/proof/school-day/arrives?family=word');
    await page.locator('iframe').nth(1).waitFor();
    await page.getByText(/messages proofed$/).waitFor();
  },
  async 'proof-pairing'(page) {
    await proofed(page, 'pairing');
    const next = page.getByRole('button', { name: /^Looked at, next/ });
    for (let at = 1; at <= 3; at += 1) {
      await next.click();
      await page.getByText(new RegExp(`^${at} of `)).waitFor();
    }
  },
  async versions(page) {
    await publish(page, 'opening-hours', 'The tea house keeps the hours of the garden');
    await reword(page, 'opening-hours', [['Paths may be icy.', 'Paths may be icy: bring sticks.']]);
    await publish(page, 'opening-hours', 'Sticks for the winter');
    await page.goto('/versions/opening-hours');
    await page.locator('mark').first().waitFor();
  },
  async fill(page) {
    await page.goto('/fill/new?template=group-visit-confirmed');
    await page.getByLabel('Recipient', { exact: true }).fill('siobhán');
    await page.getByRole('option').first().waitFor();
    await page.keyboard.press('Enter');
    await page.locator('[data-question="guide"] input').check();
    await page.keyboard.press('F2');
  },
  async 'call-line'(page) {
    await page.goto('/catalogue');
    await page.getByRole('heading', { name: 'Catalogue' }).waitFor();
    await page.keyboard.press('Control+k');
    await page.getByRole('option', { name: /at hand 4/ }).waitFor();
    await page.keyboard.press('ArrowDown');
  },
  async many(page) {
    await page.goto('/fill/new?template=membership-renewal');
    await page.getByText('3 blanks', { exact: true }).waitFor();
    await page.getByRole('button', { name: 'Other ways' }).click();
    await page.getByRole('menuitem', { name: 'To many, one message each…' }).click();
    await page.getByLabel('From a recipient list').click();
    await page.getByRole('option', { name: 'Members to renew (36)' }).click();
    await page.getByRole('button', { name: 'Add', exact: true }).first().click();
    await page.getByText('36 ready').waitFor();
    await page.getByLabel(/^Paste people/).fill('Ann Lee <ann@quillmere.example>\nnobody at all');
    await page.getByRole('button', { name: 'Add', exact: true }).last().click();
    await page.getByText(/1 person added/).waitFor();
    const once = page.getByRole('form', { name: 'Asked once' });
    await once.getByRole('button', { name: 'differs for each' }).first().click();
    const row = (at) => page.getByRole('grid').getByRole('row').nth(at);
    await row(3).getByRole('gridcell').first().click();
    await row(3).getByRole('combobox').click();
    await page.getByRole('option', { name: 'Second letter' }).click();
    await row(5).getByRole('rowheader').click();
    await row(3).getByRole('rowheader').click();
  },
  async mailroom(page) {
    await page.goto('/mailroom');
    await page
      .getByRole('button', { name: /^Tomás Breen/ })
      .first()
      .click();
    await page
      .getByRole('complementary', { name: 'Answer with' })
      .getByRole('button', { name: /Lost and found/ })
      .waitFor();
  },
};

/** Signs somebody of the demo in. */
async function signIn(page, key) {
  const data = { address: `${key}@larkmoor.example`, password: 'heather-on-the-moor' };
  await page.request.post('/api/door/sign-in', { data });
}

/** Publishes a text as it is. */
async function publish(page, name, note) {
  const { revision } = await (await page.request.get(`/api/versions/${name}`)).json();
  await page.request.post(`/api/versions/${name}/publish`, { data: { revision, note } });
}

/** Saves a text with some words in the place of others. */
async function reword(page, name, pairs) {
  const { document, revision } = await (await page.request.get(`/api/texts/${name}`)).json();
  const words = pairs.reduce((text, [from, to]) => text.replace(from, to), JSON.stringify(document));
  await page.request.put(`/api/texts/${name}`, { data: { document: JSON.parse(words), revision } });
}

/** Proof of the demo's visit confirmation for the set that answers all of it. */
async function proofed(page, view) {
  const tables = await (await page.request.get('/api/tables?use=sample')).json();
  const set = tables.find(({ title }) => title === 'Visits confirmed');
  await page.goto('/proof/group-visit-confirmed/one');
  await page.getByLabel('Sample set').click();
  await page.getByRole('option', { name: set.title }).first().click();
  await page.getByText(/messages proofed$/).waitFor();
  await page.goto(`/proof/group-visit-confirmed/${view}`);
  await page.getByText(/messages proofed$/).waitFor();
}

packages();
if (!chromium() || run('npm', ['run', '-s', 'build']) !== 0) process.exit(1);
const folder = mkdtempSync(join(tmpdir(), 'vocabula-pictures-'));
const server = spawn(process.execPath, ['--enable-source-maps', 'server/dist/main.js'], {
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
    const page = await browser.newPage({ baseURL: BASE, locale: 'en-GB', viewport: { width: 1280, height: 800 } });
    await signIn(page, 'maeve');
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
