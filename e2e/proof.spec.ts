import { expect, test, type Page } from './journey.js';
import { kept, openCopy } from './steps.js';

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
