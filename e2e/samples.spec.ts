import { expect, test } from './journey.js';
import { expectProof, giveFiles, startTemplate, pick } from './steps.js';

const csv = (name: string, text: string | Buffer) => ({
  name,
  mimeType: 'text/csv',
  buffer: Buffer.isBuffer(text) ? text : Buffer.from(text),
});

test('a CSV of recipients is recognised, shown, taken, and serves the proofs', async ({ page }) => {
  await page.goto('/samples');
  const bytes = Buffer.from('Vorname;E-mail;Visit date;Party\nZoë;zoe@x.example;2027-05-11;21\nJürgen;;;4\n', 'latin1');
  await giveFiles(page, page.getByRole('button', { name: 'Import…' }).first(), csv('autumn_walks.csv', bytes));
  const panel = page.getByRole('region', { name: 'Import' });
  await expect(panel).toContainText('CSV, separated by semicolon, Windows-1252: 2 rows, 4 columns.');
  const row = (name: string) => panel.getByRole('row', { name: new RegExp(`^${name} `) });
  for (const [name, type] of [
    ['E-mail', 'email'],
    ['Visit date', 'date'],
    ['Party', 'number'],
  ] as const)
    await expect(row(name).getByRole('combobox')).toHaveText(type);
  await expect(panel.getByLabel('Call it')).toHaveValue('autumn walks');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('gridcell', { name: 'Jürgen' })).toBeVisible();

  await startTemplate(page, 'Autumn');
  await page.keyboard.type('Dear {{');
  await pick(page.getByLabel('Sample set'), 'autumn walks');
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
    ['book.csv', Buffer.from([0x50, 0x4b, 3, 4, 20, 0, 0, 0]), 'damaged'],
  ] as const) {
    await giveFiles(page, page.getByRole('button', { name: 'Import…' }).first(), csv(name, text));
    await expect(page.getByRole('alert')).toContainText(words);
    await page.getByRole('button', { name: 'Back' }).click();
  }
  await giveFiles(
    page,
    page.getByRole('button', { name: 'Import…' }).first(),
    csv('twice.csv', 'name,name\nAnn,Lee\n'),
  );
  await expect(page.getByRole('region', { name: 'Import' })).toContainText('name_2');
  await expect(page.getByRole('button', { name: 'Import with these names 1 row' })).toBeVisible();
});

test('a set is written in like a sheet: cells, pasted rows, a column worked out, and every step can be undone', async ({
  page,
}) => {
  await page.request.post('/api/tables?use=sample&title=Written%20sheet', {
    headers: { 'content-type': 'application/octet-stream' },
    data: Buffer.from('Name,Party\nAnn,2\nBo,3\n'),
  });
  await page.goto('/samples');
  await page.getByRole('link', { name: /^Written sheet/ }).click();
  const cell = (words: string) => page.getByRole('gridcell', { name: words, exact: true });
  await expect(cell('Ann')).toBeVisible();
  await page.getByRole('grid').focus();
  await page.keyboard.type('Zoë');
  await page.keyboard.press('Tab');
  await page.keyboard.type('7');
  await page.keyboard.press('Enter');
  await expect(cell('Zoë')).toBeVisible();
  await expect(cell('7')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(cell('2')).toBeVisible();

  // Two rows from a spreadsheet, the second beyond the last row.
  await page.evaluate(() => navigator.clipboard.writeText('Cléo\t4\nDag\t5\n'));
  await cell('Bo').click();
  await page.getByRole('grid').focus();
  await page.keyboard.press('Control+v');
  await expect(cell('Dag')).toBeVisible();
  await expect(cell('Bo')).toHaveCount(0);

  await page.getByRole('button', { name: 'Add column' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Fee');
  await pick(page.getByRole('combobox', { name: 'Type', exact: true }), 'number');
  await page.getByLabel(/^Formula/).fill('party * nothing');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByLabel(/^Formula/)).toHaveAccessibleDescription(/nothing/);
  await page.getByLabel(/^Formula/).fill('party * 4.5');
  await page.getByRole('button', { name: 'Keep' }).click();
  await expect(cell('22.5')).toBeVisible();
  await expect(page.getByRole('columnheader', { name: /^Party/ })).toContainText('0 empty · 3 distinct');
  await page.reload();
  await expect(cell('Dag')).toBeVisible();
});

test('what a template needs and a set lacks is said, and can be made up', async ({ page }) => {
  const tables = (await (await page.request.get('/api/tables?use=sample')).json()) as { id: string; title: string }[];
  const spring = tables.find(({ title }) => title === 'Spring groups');
  await page.goto(`/samples/${spring?.id}?for=group-visit-confirmed`);
  const needs = page.getByRole('region', { name: 'What a template needs' });
  await expect(needs).toContainText('Gate');
  await needs.getByRole('button', { name: 'Create a made-up set' }).click();
  await expect(page.getByLabel('Name of the set')).toHaveValue('Made up for Group visit confirmed');
  await expect(needs).toContainText(/All \d+ columns that it needs are here/);
  await expect(page.getByRole('gridcell', { name: 'north', exact: true }).first()).toBeVisible();
  // It was marked as the template’s own, and would come first of all sets; other journeys expect neither.
  await page.request.put('/api/tables/own/group-visit-confirmed', { data: { table: null } });
  await page.request.delete(`/api/tables/${page.url().split('/samples/')[1]?.split('?')[0]}`);
});

test('days in doubtful order are asked about with real cells before anything is taken', async ({ page }) => {
  await page.goto('/samples');
  await giveFiles(
    page,
    page.getByRole('button', { name: 'Import…' }).first(),
    csv('days.csv', 'Who,Visit\nAnn,03/04/2027\nBo,05/06/2027\n'),
  );
  const question = page.getByRole('group', { name: /could be read either way: 03\/04\/2027, 05\/06\/2027/ });
  await expect(question).toBeVisible();
  await expect(page.getByRole('button', { name: 'Import 2 rows' })).toBeDisabled();
  await question.getByLabel('month first').check();
  await page.getByRole('button', { name: 'Import 2 rows' }).click();
  await expect(page.getByRole('gridcell', { name: '2027-03-04' })).toBeVisible();
});

test('ten thousand rows scroll; only those in sight are there', async ({ page }) => {
  const rows = Array.from({ length: 10_000 }, (_, at) => `Guest ${at + 1},${at % 60}`);
  await page.request.post('/api/tables?use=sample&title=Thousands', {
    headers: { 'content-type': 'application/octet-stream' },
    data: Buffer.from(`Name,Party\n${rows.join('\n')}\n`),
  });
  await page.goto('/samples');
  await page.getByRole('link', { name: /^Thousands/ }).click();
  await expect(page.getByRole('gridcell', { name: 'Guest 1', exact: true })).toBeVisible();
  await page.getByRole('grid').focus();
  await page.keyboard.press('Control+End');
  await expect(page.getByRole('gridcell', { name: 'Guest 10000', exact: true })).toBeVisible();
  expect(await page.getByRole('gridcell').count()).toBeLessThan(200);
});
