import { expect, test, type Page } from './journey.js';
import { expectProof, kept, openCopy, select, startTemplate, storedText } from './steps.js';

/** Puts in something new by its name, from the list that two braces open. */
async function insert(page: Page, name: string, entry: RegExp): Promise<void> {
  await page.keyboard.type('{{');
  await page.getByRole('combobox', { name: 'Insert' }).fill(name);
  const option = page.getByRole('option', { name: entry });
  await expect(option).toBeVisible();
  for (let tries = 0; tries < 12 && (await option.getAttribute('aria-selected')) !== 'true'; tries += 1)
    await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog', { name: 'Insert' })).toHaveCount(0);
}

test('a template of thirty variables and passages three deep, written by keyboard alone', async ({ page }) => {
  await page.goto('/write');
  await expect(page.getByLabel(/^Title/)).toBeFocused();
  await page.keyboard.type('Thirty variables');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Manuscript' })).toBeVisible();
  await page.getByRole('textbox', { name: 'Manuscript' }).focus();
  await page.keyboard.press('Control+Home');
  await page.keyboard.type('Your order ');
  await insert(page, 'Number 0', /New variable “Number 0”/);
  await page.keyboard.press('Enter');
  for (let line = 0; line < 3; line += 1) {
    for (let at = 1; at <= 10; at += 1) {
      await page.keyboard.type('word ');
      await insert(page, `Item ${line * 10 + at}`, new RegExp(`New variable “Item ${line * 10 + at}”`));
      await page.keyboard.type(', ');
    }
    await page.keyboard.press('Enter');
  }
  for (const name of ['Outer', 'Middle', 'Inner']) {
    await insert(page, name, new RegExp(`New optional passage “${name}”`));
    await page.keyboard.type(`Words of ${name}.`);
    await page.keyboard.press('Enter');
  }
  await page.keyboard.type('Deep.');
  await kept(page);
  const text = await storedText(page, 'thirty-variables');
  expect(text.match(/\{\{item_\d+\}\}/g)).toHaveLength(30);
  expect(text).toContain('subject: "Your order {{number_0}}"');
  expect(text.replace(/\s+/g, ' ')).toContain(
    '{{#outer}} Words of Outer. {{#middle}} Words of Middle. {{#inner}} Words of Inner. Deep. {{/inner}} {{/middle}} {{/outer}}',
  );
  // The outline by its key: the innermost is chosen, unwrapped, and put back by one undo.
  await page.keyboard.press('F6');
  const tree = page.getByRole('tree', { name: 'Outline of the passages' });
  await expect(tree.getByRole('treeitem')).toHaveCount(3);
  await expect(tree.getByRole('treeitem', { name: /optional, Inner/ })).toBeFocused();
  await page.keyboard.press('u');
  await expect(tree.getByRole('treeitem')).toHaveCount(2);
  await expect(tree.getByRole('treeitem', { name: /optional, Middle/ })).toBeFocused();
  await page.keyboard.press('F6');
  await page.keyboard.press('Control+z');
  await expect(page.locator('.body .passage')).toHaveCount(3);
});

test('words that become a variable are found wherever else they stand, and taken there by choice', async ({ page }) => {
  await startTemplate(page, 'Other places');
  await page.locator('.line.subject .line-text').click();
  await page.keyboard.type('Visit of Ann Lee');
  await page.locator('.body p').first().click();
  await page.keyboard.type('Dear Ann Lee, we expect ANN  LEE at ten. Annabel Leeson comes too.');
  await select(page, 'Ann Lee');
  await page.keyboard.press('Alt+Enter');
  await page.keyboard.press('v');
  await page.getByLabel('Name of the variable').fill('Guest');
  const others = page.getByRole('group', { name: /also in other places/ });
  await expect(others.getByRole('listitem')).toHaveCount(2);
  await expect(others).toContainText('we expect');
  await page.getByRole('button', { name: 'Make it, in 3 places' }).click();
  await kept(page);
  const text = await storedText(page, 'other-places');
  expect(text).toContain('subject: "Visit of {{guest}}"');
  expect(text).toContain('Dear {{guest}}, we expect {{guest}} at ten. Annabel Leeson comes too.');
});

test('a key is renamed everywhere and a variable taken out, each with one undo', async ({ page }) => {
  const name = await openCopy(page, 'group-visit-confirmed', 'Renamed and back');
  await page.getByRole('tab', { name: 'Variables' }).click();
  const before = await storedText(page, name);
  await page.locator('#variable-party > button').click();
  await page.getByLabel(/^Key,/).fill('group_size');
  await page.getByLabel(/^Key,/).press('Enter');
  await expect(page.locator('#variable-group_size')).toBeVisible();
  await kept(page);
  const renamed = await storedText(page, name);
  expect(renamed).toMatch(/group_size:[\s\S]*\{\{group_size\}\}/);
  expect(renamed).not.toMatch(/^ {2}party:|\{\{[#^/]?party\b/m);
  expect(renamed.replaceAll('group_size', 'party')).toBe(before);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('#variable-party')).toBeVisible();
  await kept(page);
  expect(await storedText(page, name)).toBe(before);

  await page.locator('#variable-party > button').click();
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await page.getByRole('radio', { name: /its name/ }).check();
  await page.getByRole('button', { name: 'Remove it' }).click();
  await expect(page.locator('#variable-party')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('#variable-party')).toBeVisible();
  await kept(page);
  expect(await storedText(page, name)).toBe(before);
});

test('options are pasted as lines, moved by keys, and tried out in the proof by focusing their wording', async ({
  page,
}) => {
  await startTemplate(page, 'Options');
  await page.keyboard.type('Come to the gate.');
  await select(page, 'the gate');
  await page.keyboard.press('Alt+Enter');
  await page.keyboard.press('p');
  await page.getByLabel('Label of the question').fill('Gate');
  await page.getByLabel(/^Options/).fill('North: the north gate');
  await page.getByRole('button', { name: 'Make it' }).click();
  await page.locator('#variable-gate > button').click();
  await page.getByRole('button', { name: 'Add an option' }).click();
  await page.evaluate(() => navigator.clipboard.writeText('River\nQuarry\nLake'));
  await page.getByLabel('Label of option 2').focus();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Control+v');
  await expect(page.getByLabel(/^Label of option/)).toHaveCount(4);
  await page.getByRole('button', { name: /^Lake, option 4/ }).focus();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByLabel('Label of option 3')).toHaveValue('Lake');
  await page.getByRole('button', { name: 'Wording of Lake' }).click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('the lake gate, by the ');
  await page.keyboard.type('willow');
  await expectProof(page).toContain('Come to the lake gate, by the willow.');
  await kept(page);
  expect(await storedText(page, 'options')).toMatch(/North[\s\S]*River[\s\S]*Lake[\s\S]*Quarry/);
});
