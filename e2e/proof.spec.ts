import { expect, test, type Page } from './journey.js';
import type { TextDocument } from '@vocabula/core';
import { kept, openCopy, pick } from './steps.js';

/** Makes a copy of the demo's visit confirmation, with a set of its own, and opens it in Proof. */
async function proof(page: Page, title: string, view: string): Promise<string> {
  const name = await openCopy(page, 'group-visit-confirmed', title);
  const { tables } = {
    tables: (await (await page.request.get('/api/tables?use=sample')).json()) as { id: string; title: string }[],
  };
  const set = tables.find((each) => each.title === 'Visits confirmed');
  await page.request.put(`/api/tables/own/${name}`, { data: { table: set?.id } });
  await page.goto(`/proof/${name}/${view}`);
  await expect(page.getByRole('status').filter({ hasText: /proofed$/ })).toBeVisible();
  return name;
}
/** Changes the text as its author would, elsewhere. */
async function edit(page: Page, name: string, from: string, to: string): Promise<void> {
  const { document, revision } = (await (await page.request.get(`/api/texts/${name}`)).json()) as {
    document: TextDocument;
    revision: number;
  };
  const json = JSON.stringify(document);
  if (!json.includes(from)) throw new Error(from);
  const answer = await page.request.put(`/api/texts/${name}`, {
    data: { document: JSON.parse(json.replace(from, to)), revision },
  });
  expect(answer.status()).toBe(200);
}
const message = (page: Page) => page.frameLocator('iframe[title="Message"]').locator('body');
const origin = (page: Page) => page.getByRole('region', { name: 'Where this comes from' });

test('one message: as it would arrive, in five ways, through recipients by key', async ({ page }) => {
  await proof(page, 'Proofed one by one', 'one');
  await expect(message(page)).toContainText('Dear Siobhán,');
  await page.keyboard.press('F9');
  await expect(message(page)).toContainText('Dear Tomás,');
  await page.keyboard.press('Shift+F9');
  await expect(message(page)).toContainText('Dear Siobhán,');
  await page.getByRole('button', { name: 'plain text' }).click();
  await expect(page.locator('pre')).toContainText(
    'We look forward to seeing your group of 24 on Saturday 3 April 2027.',
  );
  await page.getByRole('button', { name: '360 px' }).click();
  expect((await page.locator('.paper').boundingBox())?.width).toBe(360);
  await page.getByRole('button', { name: 'dark' }).click();
  await expect(message(page)).toHaveClass('dark');
  await page.getByRole('button', { name: 'headers' }).click();
  await expect(page.locator('dl')).toContainText('guest41@quillmere.example');
  // A link to this view leads to it.
  await page.goto(`${page.url().split('?')[0]}?at=3`);
  await expect(message(page)).toContainText('Dear Bo,');
});

test('words lead to their place in the manuscript, and a place to what it became', async ({ page }) => {
  const name = await proof(page, 'Traced both ways', 'one');
  await message(page).getByText('The picnic lawn is yours').hover();
  await expect(origin(page)).toContainText('Party of 15 or more');
  await expect(origin(page)).toContainText('Party: 24 (the recipient’s party)');
  await message(page).getByText('Siobhán').hover();
  await expect(origin(page)).toContainText('First name, the recipient’s first_name');
  await message(page).getByText('The garden is open daily').hover();
  await expect(origin(page)).toContainText('Finding us › Opening hours');
  // The same by key, from the panel.
  await origin(page).getByRole('button', { name: 'Words after' }).press('Enter');
  await expect(origin(page)).toContainText('Season');
  await message(page).getByText('The picnic lawn is yours').click();
  await expect(page.getByRole('textbox', { name: 'Manuscript' })).toBeFocused();
  await page.keyboard.type('Lo: ');
  await expect(page.locator('.passage p').first()).toHaveText(/^Lo: The picnic lawn/);
  await kept(page);
  // And back: the paragraph with the caret is lit in the message.
  await page.getByRole('button', { name: 'Proof', exact: true }).click();
  await expect(page).toHaveURL(new RegExp(`/proof/${name}/one\\?.*place=${name}\\.`));
  await expect(message(page).locator('.vs-lit').first()).toHaveText(/^Lo: The picnic lawn/);
});

test('all messages: narrowed, ordered, and a cell of the grid opens the sheet at its words', async ({ page }) => {
  await proof(page, 'All of them', 'all');
  const slips = page.locator('.slip');
  await expect(slips.first()).toContainText('Siobhán Ní Bhriain');
  await pick(page.getByLabel('Only messages with'), 'Rain plan: kept (5)');
  await expect(page.getByRole('status').filter({ hasText: /^5 of 24$/ })).toBeVisible();
  await expect(slips.first()).toContainText('Tomás');
  await pick(page.getByLabel('Only messages with'), 'all messages');
  await pick(page.getByLabel('Order'), 'length');
  await expect(slips.first()).not.toContainText('Bo Li');
  await page.getByLabel('Filter by words').fill('bo li');
  await expect(page.getByRole('rowheader')).toHaveCount(1);
  await page.getByRole('grid').focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/one\?at=3&value=visit_date/);
  await expect(message(page).locator('.vs-lit').first()).toHaveText('Friday 30 April 2027');
});

test('a finding is repaired, or set aside with a reason and comes back when its words change', async ({ page }) => {
  const name = await openCopy(page, 'group-visit-confirmed', 'With findings');
  await edit(page, name, 'The entrance fee comes to ', 'This is a old rate (see below. The fee comes to ');
  await page.goto(`/proof/${name}/findings`);
  const group = (words: string) => page.locator('.group').filter({ hasText: words });
  await group('should be “an old”').getByRole('button', { name: 'Write “an”' }).click();
  await expect(group('should be “an old”')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(group('should be “an old”')).toBeVisible();

  await group('is opened and not closed').getByRole('button', { name: 'Set aside…' }).click();
  await page.getByLabel('Reason to keep it').fill('closed in the next line');
  await page.keyboard.press('Enter');
  const aside = page.locator('.aside .group');
  await expect(aside).toContainText('“closed in the next line” — Maeve Aldous');
  await page.reload();
  await expect(aside).toContainText('closed in the next line');
  await edit(page, name, 'old rate (see below', 'new rate (see below');
  await page.reload();
  await expect(aside).toHaveCount(0);
  await expect(group('is opened and not closed').getByRole('button', { name: 'Set aside…' })).toBeVisible();
  // For whom, with the way to the message.
  await expect(group('Visit date is still blank.')).toContainText('3 of 40 recipients');
  await group('Visit date is still blank.').getByRole('link').first().click();
  await expect(page.locator('.paper')).toContainText('[Visit date]');
});

test('a proof by mail arrives as it was shown, and the report says what was seen', async ({ page }) => {
  const name = await proof(page, 'Sent and reported', 'one');
  await expect(message(page)).toContainText('Dear Siobhán,');
  const shown = (await message(page).innerText()).replace(/\s+/g, ' ').trim();
  await page.getByRole('button', { name: 'Send proofs…' }).click();
  await page.getByLabel('To', { exact: true }).fill('approver@larkmoor.example');
  await page.getByRole('button', { name: 'Send the proof' }).click();
  await expect(page.getByText('One proof sent to approver@larkmoor.example.')).toBeVisible();
  await page
    .getByRole('button', { name: /^\[Proof\] Your visit on 3 April 2027.*to approver@larkmoor\.example/ })
    .first()
    .click();
  const letter = page.frameLocator('iframe[title="Letter"]').locator('body');
  await expect(letter).toContainText('Dear Siobhán,');
  expect((await letter.innerText()).replace(/\s+/g, ' ').trim()).toBe(shown);

  await page.goto(`/proof/${name}/pairing`);
  await expect(message(page)).toContainText('Dear');
  await page.locator('.values').click();
  await page.keyboard.press('Space');
  await expect(page.getByText(/^1 of 8 looked at/)).toBeVisible();
  await page.getByRole('button', { name: 'Proof report…' }).click();
  const report = page.frameLocator('iframe[title="Proof report"]').locator('body');
  await expect(report).toContainText('24 recipients of “Visits confirmed”, 24 of them ready to send');
  await expect(report).toContainText('8 messages show 82 pairs of options; 2 cannot happen. 1 of 8 were looked at');
  await expect(report).toContainText('Looked at by Maeve Aldous');
  await expect(report.locator('article')).toHaveCount(8);
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as HTML' }).click();
  expect((await saving).suggestedFilename()).toBe(`proof-report-${name}.html`);
});

test('many recipients are proofed while the table stays alive, and it can be stopped', async ({ page }) => {
  const name = await openCopy(page, 'group-visit-confirmed', 'For thousands');
  const rows = Array.from({ length: 6000 }, (_, at) => `Guest ${at},2027-05-0${(at % 9) + 1},${(at % 60) + 1},north`);
  const made = (await (
    await page.request.post('/api/tables?use=sample&title=Very%20many', {
      headers: { 'content-type': 'application/octet-stream' },
      data: Buffer.from(`First name,Visit date,Party,Gate\n${rows.join('\n')}\n`),
    })
  ).json()) as { id: string };
  await page.request.put(`/api/tables/own/${name}`, { data: { table: made.id } });
  await page.goto(`/proof/${name}/one`);
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByRole('button', { name: 'Go on' })).toBeVisible();
  await page.getByRole('button', { name: 'Next recipient' }).click();
  await expect(message(page)).toContainText('Dear Guest 1,');
  await page.getByRole('button', { name: 'Go on' }).click();
  await expect(page.getByRole('status').filter({ hasText: /messages proofed$/ })).toBeVisible({ timeout: 90_000 });
  await page.getByRole('link', { name: /^All messages/ }).click();
  await expect(page.getByRole('status').filter({ hasText: /^6000 of 6000$/ })).toBeVisible();
});
