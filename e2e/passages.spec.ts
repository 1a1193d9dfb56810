import { expect, test } from './journey.js';
import { expectProof, kept, proof, select, startTemplate, pick } from './steps.js';

test('all kinds of passages, a block that includes another, and the proof that follows every keystroke', async ({
  page,
}) => {
  await startTemplate(page, 'Passages by hand');
  await page.locator('.line.subject .line-text').click();
  await page.keyboard.type('Visit');
  await page.locator('.body p').first().click();
  await page.keyboard.type('Dear friend, bring your boots and a coat.');
  await expectProof(page).toContain('bring your boots');

  // A variable out of selected words: the proof shows the recipient's blank at once.
  await select(page, 'friend');
  await page.keyboard.press('Alt+Enter');
  await page.keyboard.press('v');
  await page.getByLabel('Name of the variable').fill('Salutation');
  await page.keyboard.press('Enter');
  await expectProof(page).toContain('Dear [Salutation], bring');

  // An optional phrase, whose join is clean when it is left out.
  await select(page, ' and a coat');
  await page.keyboard.press('Alt+Enter');
  await page.keyboard.press('o');
  await page.getByLabel('Label of the checkbox').fill('Cold day');
  await page.keyboard.press('Enter');
  await expectProof(page).toContain('bring your boots.');
  await page.locator('.phrase').click();
  await page.getByRole('tab', { name: 'Chosen' }).click();
  await page.getByRole('button', { name: 'See it kept' }).click();
  await expectProof(page).toContain('boots and a coat.');
  await page.getByRole('button', { name: 'See it left out' }).click();
  await expectProof(page).toContain('bring your boots.');

  // An optional paragraph from the insert list, opened by typing two braces.
  await page.locator('.body > p').last().click();
  await page.keyboard.press('End');
  await page.keyboard.press('Enter');
  await page.keyboard.type('{{');
  await page.getByRole('combobox', { name: 'Insert' }).fill('Picnic');
  await page.getByRole('option', { name: /New optional passage “Picnic”/ }).click();
  await page.keyboard.type('The lawn is yours from noon.');
  await expect(page.locator('.passage', { hasText: 'The lawn' })).toBeVisible();
  await expectProof(page).not.toContain('The lawn');

  // Two alternatives of one question.
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Come to the north gate.');
  await select(page, 'Come to the north gate.');
  await page.keyboard.press('Alt+Enter');
  await page.keyboard.press('a');
  await page.getByLabel('Label of the question').fill('Way in');
  await page.getByLabel(/^Alternatives/).fill('North gate\nRiver gate');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.locator('.passage', { hasText: 'Come to the north gate.' })).toBeVisible();
  await expectProof(page).toContain('north gate');
  await kept(page);
});

test('a passage on the condition that the party is at least 15, stepped through the sample recipients', async ({
  page,
}) => {
  await startTemplate(page, 'A condition on data');
  await page.keyboard.type('We expect 15 people. A guide will meet you.');
  await select(page, '15');
  await page.keyboard.press('Alt+Enter');
  await page.keyboard.press('v');
  await page.getByLabel('Name of the variable').fill('Party');
  await pick(page.getByLabel('Type'), 'number');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /Party/ }).first().click();
  await pick(page.getByLabel('Filled from'), 'Party');
  await page.keyboard.press('Tab');
  await select(page, ' A guide will meet you.');
  await page.keyboard.press('Alt+Enter');
  await page.keyboard.press('c');
  await pick(page.getByLabel('Variable 1'), 'Party');
  await page.getByLabel('Value 1').fill('15');
  await page.keyboard.press('Enter');
  await expect(page.locator('.phrase')).toHaveCount(1);

  const seen = new Set<boolean>();
  for (let step = 0; step < 8; step += 1) {
    const words = (await proof(page).innerText()).replace(/\s+/g, ' ');
    const party = Number(/We expect (\d+)/.exec(words)?.[1] ?? 0);
    const guided = words.includes('A guide will meet you');
    expect([party, guided]).toEqual([party, party >= 15]);
    seen.add(guided);
    await page.keyboard.press('F9');
    await expect(page.getByText(`${step + 2} of 40`)).toBeVisible();
  }
  expect(seen.size).toBe(2);
  await page.keyboard.press('Shift+F9');
  await expect(page.getByText('8 of 40')).toBeVisible();
});

test('a live block that includes another stands in the message, and a change of it is seen', async ({ page }) => {
  await startTemplate(page, 'With a block');
  await page.keyboard.type('Welcome.');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Alt+Enter');
  await page.getByRole('combobox', { name: 'Insert' }).fill('finding us');
  await page.keyboard.press('Enter');
  await expect(page.locator('.included')).toHaveCount(1);
  await expectProof(page).toContain('Last entry');
  await kept(page);
  await page.reload();
  await expectProof(page).toContain('Last entry');
});

test('one undo goes back over body, envelope and variables, and blanks and findings are stepped through', async ({
  page,
}) => {
  await startTemplate(page, 'One undo');
  await page.keyboard.type('Dear guest guest, see you.');
  await page.locator('.line.subject .line-text').click();
  await page.keyboard.type('About guest');
  await select(page, 'Dear guest');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog', { name: 'Make of these words' })).toHaveCount(0);
  await select(page, 'see you');
  await page.keyboard.press('Alt+Enter');
  await page.keyboard.press('v');
  await page.getByLabel('Name of the variable').fill('Parting');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /Parting/ })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: /Parting/ })).toHaveCount(0);
  await expect(page.locator('.body')).toContainText('see you');
  await page.keyboard.press('Control+y');
  await expect(page.locator('[data-placeholder]')).toHaveCount(1);

  await page.keyboard.press('F2');
  await expect(page.locator('.placeholder.ProseMirror-selectednode')).toHaveCount(1);
  await page.keyboard.press('F8');
  await expect(page.getByText(/“guest” stands twice|twice/i).first()).toBeVisible();
});
