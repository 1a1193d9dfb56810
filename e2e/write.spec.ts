import type { TextDocument } from '@vocabula/core';
import { writeText } from '@vocabula/core/markdown';
import { expect, test, type Locator } from './journey.js';
import { kept, paste, proof, select, startTemplate } from './steps.js';

test('a pasted old mail: its markers become typed variables in one step, subject included, and are kept', async ({
  page,
}) => {
  await startTemplate(page, 'Old reminder');
  await page.locator('.line.subject .line-text').click();
  await page.keyboard.type('For [First name]');
  await page.locator('.body p').first().click();
  const words =
    'Dear [First name], come on <<date>>. Your number is ____. Ask for YOUR GUIDE at the gate, [First name].';
  await paste(
    page,
    words,
    `<p style="color:red" onclick="alert(1)"><b>Dear [First name]</b>, come on &lt;&lt;date&gt;&gt;. Your number is ____. Ask for YOUR GUIDE at the gate, [First name].</p><script>alert(2)</script>`,
  );
  await expect(page.getByText('4 markers found in what was pasted.')).toBeVisible();
  await expect(page.locator('.body')).not.toContainText('alert');
  await expect(page.locator('.body strong')).toHaveCount(1);
  await page.getByRole('button', { name: /Turn 4 into variables/ }).click();
  await expect(page.locator('[data-placeholder]')).toHaveCount(6);
  await expect(page.locator('.line.subject [data-placeholder="first_name"]')).toHaveCount(1);
  await expect(page.locator('.body [data-placeholder="first_name"]')).toHaveCount(2);
  await expect(page.locator('.body [data-placeholder="date"]')).toHaveCount(1);
  await kept(page);
  await page.reload();
  await expect(page.locator('[data-placeholder]')).toHaveCount(6);
  await page.getByRole('tab', { name: /Variables/ }).click();
  await expect(page.getByRole('button', { name: /Date/ }).first()).toBeVisible();
});

const OLD_LETTER = [
  'Subject: Your visit on &lt;&lt;visit date&gt;&gt;',
  'To: visits@larkmoor.example',
  'Dear [First name],',
  'We have kept <mark>4 places</mark> for [number] people under [Member], at the <span style="background-color: #ffff00">north gate</span>. Ask for ............... there.',
  '[If vegetarian: The kitchen knows.]',
  'Please bring boots. (delete if not needed)',
  'We serve *choose: tea / coffee*.',
  'Option A: Come by bus 14.',
  'Option B: Park on the meadow.',
]
  .map((line) => `<p>${line}</p>`)
  .join('');

test('an old letter with markers of every kind becomes a template from the keyboard', async ({ page }) => {
  await startTemplate(page, 'Old markers');
  await paste(page, 'x', OLD_LETTER);
  await expect(page.getByText('11 markers found in what was pasted.')).toBeVisible();
  await expect(page.locator('.line.subject')).toContainText('Your visit on <<visit date>>');
  await expect(page.locator('.line.to')).toContainText('visits@larkmoor.example');
  await expect(page.getByRole('group', { name: 'Filled from fields' })).toContainText(
    'Member from recipient.member, a column of “',
  );
  // From the text into the list, to the label of what is highlighted, and to turning all of them.
  await expect(page.getByRole('textbox', { name: 'Manuscript' })).toBeFocused();
  const focus = async (on: Locator): Promise<void> => {
    for (let count = 0; count < 60; count += 1) {
      await page.keyboard.press('Tab');
      if (await on.evaluate((element) => element === document.activeElement)) return;
    }
    throw new Error('The list is not reached by Tab.');
  };
  await focus(page.getByRole('textbox', { name: 'Label for north gate' }));
  await page.keyboard.type('Gate');
  await focus(page.getByRole('button', { name: 'Turn 11 into variables' }));
  await page.keyboard.press('Enter');
  await expect(page.getByText('11 variables in 12 places.')).toBeVisible();
  await kept(page);
  const made = (await (await page.request.get('/api/texts/old-markers')).json()) as { document: TextDocument };
  const written = writeText(made.document);
  for (const declared of [
    'visit_date: { type: date, label: Visit date, from: recipient.visit_date, required: true }',
    'member: { type: text, label: Member, from: recipient.member, required: true }',
    'places: { type: number, label: Places, required: true }',
    'vegetarian: { type: yes-no, label: Vegetarian, required: true }',
    'coffee: { label: coffee, wording: "coffee" }',
  ])
    expect(written).toContain(declared);
  const choice = 'come_by_bus_14_or_park_on_the_meadow';
  const passage = (of: string, words: string): string => `{{#${of}}}\n${words}\n{{/${of}}}`;
  expect(written.split('---\n')[2]?.trimEnd().split('\n\n')).toEqual([
    'Dear {{first_name}},',
    'We have kept {{places}} places for {{number}} people under {{member}}, at the {{gate}}. Ask for {{for_}} there.',
    passage('vegetarian', 'The kitchen knows.'),
    passage('please_bring_boots', 'Please bring boots.'),
    'We serve {{tea_or_coffee}}.',
    passage(`${choice}.come_by_bus_14`, 'Come by bus 14.'),
    passage(`${choice}.park_on_the_meadow`, 'Park on the meadow.'),
  ]);
});

test('selected words become options to pick from, and an address pasted over words a link', async ({ page }) => {
  await startTemplate(page, 'Options and a link');
  await page.keyboard.type('Come to the north gate and see the map.');
  await select(page, 'the north gate');
  await page.keyboard.press('Alt+Enter');
  await page.keyboard.press('p');
  await page.getByLabel('Label of the question').fill('Gate');
  await page.getByLabel(/^Options/).fill('North: the north gate on Quarry Lane\nRiver: the river gate');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.locator('.body [data-placeholder="gate"]')).toHaveCount(1);
  await select(page, 'the map');
  await paste(
    page,
    'https://larkmoor.example/map',
    '<a href="https://larkmoor.example/map">https://larkmoor.example/map</a>',
  );
  await expect(page.locator('.body a')).toHaveText('the map');
  await expect(proof(page).locator('a')).toHaveAttribute('href', 'https://larkmoor.example/map');
});

test('Enter in a passage leaves both halves in it; Backspace selects a placeholder before it deletes', async ({
  page,
}) => {
  await page.goto('/write/group-visit-confirmed');
  const passage = page.locator('.passage').first();
  await expect(passage).toBeVisible();
  // All that comes with the page is there: a caret that is put while it is being filled goes where it was before.
  await expect(proof(page)).toContainText('picnic lawn');
  const before = await passage.locator(':scope > p').count();
  await passage.locator('p').first().click();
  await page.keyboard.press('End');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Second half');
  await expect(passage.locator(':scope > p')).toHaveCount(before + 1);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  const count = await page.locator('[data-placeholder]').count();
  await page.locator('.body > p').first().click();
  await page.keyboard.press('End');
  await page.keyboard.press('ArrowLeft');
  // The editor learns of a moved caret after the browser has moved it.
  await page.waitForTimeout(150);
  await page.keyboard.press('Backspace');
  await expect(page.locator('.placeholder.ProseMirror-selectednode')).toHaveCount(1);
  await expect(page.locator('[data-placeholder]')).toHaveCount(count);
  await page.keyboard.press('Backspace');
  await expect(page.locator('[data-placeholder]')).toHaveCount(count - 1);
});
