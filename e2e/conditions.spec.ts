import { expect, test } from './journey.js';
import { expectProof, kept, openCopy, select, startTemplate, storedText, publish, pick } from './steps.js';

test('a condition is built from variable, comparison and value in groups, and said in words', async ({ page }) => {
  const name = await openCopy(page, 'group-visit-confirmed', 'Conditions built');
  await page.locator('.body > p').last().click();
  await page.keyboard.press('End');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Bring two guides.');
  await select(page, 'Bring two guides.');
  await page.keyboard.press('Alt+Enter');
  await page.keyboard.press('c');
  const bar = page.getByRole('dialog', { name: 'Make of these words' });
  await pick(bar.getByLabel('Variable 1', { exact: true }), 'Party');
  await pick(bar.getByLabel('Comparison 1', { exact: true }), 'is at least');
  await bar.getByLabel('Value 1', { exact: true }).fill('15');
  await expect(bar.locator('.words')).toHaveText(/is at least 15/);
  await bar
    .getByRole('button', { name: /comparison/i })
    .last()
    .click();
  await pick(bar.getByLabel('Variable 2', { exact: true }), 'Party');
  await pick(bar.getByLabel('Comparison 2', { exact: true }), 'is');
  await bar.getByLabel('Value 2', { exact: true }).fill('3');
  await pick(bar.getByLabel('How many must be met', { exact: true }), 'any is met');
  await expect(bar.locator('.words')).toHaveText(/is at least 15 or .* is 3/);
  await bar.getByLabel('Called').fill('Two guides');
  await bar.getByRole('button', { name: 'Keep only then' }).click();
  await kept(page);
  const text = await storedText(page, name);
  expect(text).toMatch(/two_guides: \{ type: yes-no, label: Two guides, value: "?party >= 15 \|\| party == 3"? \}/);
  expect(text).toContain('{{#two_guides}}');

  // The expression is opened: what is wrong is underlined at its place, what it gives is said.
  await page.locator('.passage', { hasText: 'Bring two guides.' }).click();
  await page.getByRole('tab', { name: 'Chosen' }).click();
  await page.getByRole('button', { name: 'Write the expression' }).click();
  const field = page.getByRole('combobox', { name: 'Expression' });
  await field.fill('party >= 15 && nobody');
  await field.blur();
  await expect(page.locator('.expression .wrong')).toHaveText('nobody');
  await field.fill('par');
  await expect(page.getByRole('listbox', { name: /may name/ })).toContainText('party');
  await field.fill('party >= 1');
  await field.blur();
  await expect(page.locator('.expression')).toContainText('for this recipient: ');
  await expectProof(page).toContain('Bring two guides.');
});

test('table rows repeat over a list, with its columns inside and a total after it', async ({ page }) => {
  await startTemplate(page, 'Order');
  await page.keyboard.type('| Item | Price |');
  await page.keyboard.press('Enter');
  await page.keyboard.type('an item');
  await page.keyboard.press('Tab');
  await page.keyboard.type('its price');
  await select(page, 'an item');
  await page.keyboard.press('Alt+Enter');
  await page.keyboard.press('r');
  const bar = page.getByRole('dialog', { name: 'Make of these words' });
  await bar.getByLabel('Label of the question').fill('Tickets');
  await bar.getByLabel(/^Columns/).fill('Item\nPrice: money');
  await bar.getByRole('button').last().click();
  await expect(page.locator('.body tr')).toHaveCount(2);
  for (const [words, column] of [
    ['an item', 'Item'],
    ['its price', 'Price'],
  ] as const) {
    await select(page, words);
    await page.keyboard.type('{{');
    await page.getByRole('combobox', { name: 'Insert' }).fill(column);
    await page
      .getByRole('option', { name: new RegExp(`^${column}\\b`) })
      .first()
      .click();
  }
  // Behind the table: a total that is worked out.
  await page.keyboard.press('ArrowDown');
  await page.keyboard.type('In all: ');
  await page.getByRole('tab', { name: 'Variables' }).click();
  await page.getByRole('button', { name: 'New variable' }).click();
  await page.getByLabel('Label', { exact: true }).fill('Total');
  await page.getByLabel('Label', { exact: true }).press('Tab');
  await pick(page.getByRole('combobox', { name: /^Type/ }), 'money');
  await page.getByLabel('calculated by a formula').check();
  const source = page.getByRole('combobox', { name: 'Formula' });
  await source.fill('sum(tickets.price)');
  await source.blur();
  await page.locator('.body > p').last().click();
  await page.keyboard.press('End');
  await page.keyboard.type('{{');
  await page.getByRole('combobox', { name: 'Insert' }).fill('Total');
  await page
    .getByRole('option', { name: /^Total/ })
    .first()
    .click();
  await kept(page);
  const text = (await storedText(page, 'order')).replace(/\s+/g, ' ');
  expect(text).toContain('| {{#tickets}} | {{item}} | {{price}} | {{/tickets}}');
  expect(text).toMatch(/total: \{ type: money, label: Total, .*value: "?sum\(tickets\.price\)/);
  expect(text).toContain('In all: {{total}}');

  // In Fill the list is a small table to paste into: a row for each, and their sum.
  const { document, revision } = await (await page.request.get('/api/texts/order')).json();
  const subject = { type: 'subject', content: [{ type: 'text', text: 'Your order' }] };
  const content = document.content.map((part: { type: string }) => (part.type === 'subject' ? subject : part));
  await page.request.put('/api/texts/order', { data: { document: { ...document, content }, revision } });
  await publish(page, 'order');
  await page.goto('/fill/new?template=order');
  const first = page.getByLabel('Item, row 1');
  await page.getByRole('button', { name: 'Add a row' }).click();
  await page.evaluate(() => navigator.clipboard.writeText('Tea\t4,50\nCake\t€ 1.200,00\nBoat\t3'));
  await first.focus();
  await page.keyboard.press('Control+v');
  await expect(page.getByLabel('Item, row 3')).toHaveValue('Boat');
  const message = page.frameLocator('iframe').first().locator('body');
  await expect(message.locator('tr')).toHaveCount(4);
});
