import { expect, test } from './journey.js';
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
