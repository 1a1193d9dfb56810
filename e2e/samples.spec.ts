import { expect, test } from '@playwright/test';
import { expectProof, startTemplate } from './steps.js';

const csv = (name: string, text: string | Buffer) => ({
  name,
  mimeType: 'text/csv',
  buffer: Buffer.isBuffer(text) ? text : Buffer.from(text),
});

test('a CSV of recipients is recognised, shown, taken, and serves the proofs', async ({ page }) => {
  await page.goto('/samples');
  const choosing = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Import CSV…' }).first().click();
  const bytes = Buffer.from('Vorname;E-mail;Visit date;Party\nZoë;zoe@x.example;2027-05-11;21\nJürgen;;;4\n', 'latin1');
  await (await choosing).setFiles(csv('autumn_walks.csv', bytes));
  const panel = page.getByRole('region', { name: 'Import' });
  await expect(panel).toContainText('CSV, separated by semicolon, Windows-1252: 2 rows, 4 columns.');
  const row = (name: string) => panel.getByRole('row', { name: new RegExp(`^${name} `) });
  await expect(row('E-mail')).toContainText('email');
  await expect(row('Visit date')).toContainText('date');
  await expect(row('Party')).toContainText('number');
  await expect(panel.getByLabel('Call it')).toHaveValue('autumn walks');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('cell', { name: 'Jürgen' })).toBeVisible();

  await startTemplate(page, 'Autumn');
  await page.keyboard.type('Dear {{');
  await page.getByLabel('Sample set').selectOption({ label: 'autumn walks' });
  await page.locator('.body p').first().click();
  await page.keyboard.press('End');
  await page.keyboard.type('{{');
  await page.getByRole('combobox', { name: 'Insert' }).fill('vorname');
  await page.keyboard.press('Enter');
  await expectProof(page).toContain('Dear Zoë');
  await page.keyboard.press('F9');
  await expectProof(page).toContain('Dear Jürgen');
});

test('a table that is none is refused in words that name the line', async ({ page }) => {
  await page.goto('/samples');
  for (const [name, text, words] of [
    ['ragged.csv', 'a,b\n1,2\n1,2,3\n', 'Line 3'],
    ['empty.csv', '', 'empty'],
    ['book.csv', Buffer.from([0x50, 0x4b, 3, 4, 20, 0, 0, 0]), 'spreadsheet'],
  ] as const) {
    const choosing = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: 'Import CSV…' }).first().click();
    await (await choosing).setFiles(csv(name, text));
    await expect(page.getByRole('alert')).toContainText(words);
    await page.getByRole('button', { name: 'Back' }).click();
  }
  const choosing = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Import CSV…' }).first().click();
  await (await choosing).setFiles(csv('twice.csv', 'name,name\nAnn,Lee\n'));
  await expect(page.getByRole('region', { name: 'Import' })).toContainText('name_2');
  await expect(page.getByRole('button', { name: 'Import with these names 1 rows' })).toBeVisible();
});
