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
  await page.getByRole('button', { name: 'Edit the block' }).click();
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
