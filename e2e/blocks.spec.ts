import { expect, test } from './journey.js';
import { expectProof, kept, select, startTemplate, storedText } from './steps.js';

test('a block is made of a selection, stands live here and elsewhere, is gone to and come back from, and is turned into a copy', async ({
  page,
}) => {
  await startTemplate(page, 'With a block');
  await page.keyboard.type('Dear guest,');
  await page.keyboard.press('Enter');
  await page.keyboard.type('The gate opens at nine.');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Until then.');
  await page.keyboard.press('Enter');
  await page.keyboard.type('The gate opens at nine.');
  await select(page, 'The gate opens at nine.');
  await page.keyboard.press('Alt+Enter');
  await page.keyboard.press('v');
  await page.keyboard.press('Escape');
  await select(page, 'nine');
  await page.keyboard.press('Alt+Enter');
  await page.keyboard.press('v');
  await page.getByLabel('Name of the variable').fill('Hour');
  await page.getByRole('button', { name: /^Make it, in 2 places/ }).click();

  await page.locator('.body > p').nth(1).click({ clickCount: 3 });
  await page.keyboard.press('Alt+Enter');
  await page.keyboard.press('b');
  await page.getByLabel(/^Title of the block/).fill('Gate hours');
  await expect(page.getByText('It uses: Hour.')).toBeVisible();
  await page.getByLabel(/also replace the same words, 1/).check();
  await page.getByRole('button', { name: 'Make the block' }).click();
  await expect(page.locator('.body .included')).toHaveCount(2);
  await kept(page);
  expect(await storedText(page, 'with-a-block')).toMatch(
    /Dear guest,\s+\{\{> gate-hours\}\}\s+Until then\.\s+\{\{> gate-hours\}\}/,
  );
  expect(await storedText(page, 'gate-hours')).toContain('The gate opens at {{hour}}.');
  await expectProof(page).toContain('The gate opens at [Hour].');

  // There and back: what is changed there is changed here.
  await page.locator('.body .included').first().click();
  await page.getByRole('tab', { name: 'Chosen' }).click();
  await page.getByRole('button', { name: 'Open the block' }).click();
  await expect(page).toHaveURL(/\/write\/gate-hours/);
  await page.locator('.body p').first().click();
  await page.keyboard.press('End');
  await page.keyboard.type(' Knock twice.');
  await kept(page);
  await page.getByRole('link', { name: /With a block/ }).click();
  await expectProof(page).toContain('Knock twice.');

  // Live into copy.
  await page.locator('.body .included').first().click();
  await page.getByRole('tab', { name: 'Chosen' }).click();
  await page.getByRole('button', { name: 'Turn into a copy' }).click();
  await expect(page.locator('.body .included')).toHaveCount(1);
  await kept(page);
  expect(await storedText(page, 'with-a-block')).toMatch(
    /The gate opens at \{\{hour\}\}\. Knock twice\.\s+Until then\.\s+\{\{> gate-hours\}\}/,
  );
});

test('a block is edited where it stands, by key: its own words are kept, and those around it stay as they are', async ({
  page,
}) => {
  const files = [
    {
      file: 'hut-hours.md',
      content: '---\nvocabula: 1\nkind: block\ntitle: Hut hours\n---\nThe hut is open in May.\n',
    },
    {
      file: 'to-the-hut.md',
      content:
        '---\nvocabula: 1\nkind: message\ntitle: To the hut\nsubject: S\n---\nDear guest,\n\n{{> hut-hours}}\n\nUntil then.\n',
    },
  ];
  expect((await page.request.post('/api/texts/import', { data: { files } })).ok()).toBe(true);
  for (const name of ['hut-hours', 'to-the-hut'])
    await page.request.post(`/api/versions/${name}/publish`, { data: { revision: 1, note: 'For the journey' } });
  const before = await storedText(page, 'to-the-hut');

  await page.goto('/write/to-the-hut');
  await page.locator('.body > p').first().click();
  await page.keyboard.press('F6');
  await expect(page.getByRole('treeitem', { name: /Hut hours/ })).toBeVisible();
  await page.getByRole('treeitem', { name: /Hut hours/ }).focus();
  await page.keyboard.press('e');
  const words = page.getByRole('textbox', { name: 'Words of Hut hours' });
  await expect(words).toBeFocused();
  const open = page.getByRole('group', { name: 'Block Hut hours' });
  await expect(open).toContainText('changes 1 published template');
  await page.keyboard.press('Control+End');
  await page.keyboard.type(' Bring a key.');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Shut the door.');
  await expectProof(page).toContain('Bring a key.');
  await expect
    .poll(() => storedText(page, 'hut-hours'))
    .toContain('The hut is open in May. Bring a key.\n\nShut the door.');
  await expect(open.getByRole('status')).toContainText(/^kept/);
  // What would go into the text around it is not put in from here.
  await page.keyboard.press('Alt+Enter');
  await expect(page.getByRole('dialog', { name: 'Insert' })).toHaveCount(0);
  // Its own undo, then back to the text, where the block is chosen and shows what it says now.
  await page.keyboard.press('Control+z');
  await expect(words).not.toContainText('Shut the door.');
  await page.keyboard.press('Control+y');
  await expect(words).toContainText('Shut the door.');
  await page.keyboard.press('Escape');
  await expect(open).toHaveCount(0);
  await expect(page.getByRole('textbox', { name: 'Manuscript' })).toBeFocused();
  await expect(page.locator('.included.ProseMirror-selectednode')).toContainText('Bring a key.');
  await kept(page);
  expect(await storedText(page, 'to-the-hut')).toBe(before);
  // Colleagues go on with what was published.
  const begun = await page.request.post('/api/fills', { data: { text: 'to-the-hut' } });
  expect(JSON.stringify(await begun.json())).not.toContain('Bring a key.');
});
