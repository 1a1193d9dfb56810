import { expect, test } from '@playwright/test';

test('old markers become variables in one step, subject included, and are kept', async ({ page }) => {
  await page.goto('/write');
  await page.getByPlaceholder('Volunteer rota for the week').fill('Old reminder');
  await page.getByRole('button', { name: 'Start', exact: true }).click();
  await page.locator('.line.subject .line-text').click();
  await page.keyboard.type('For [First name]');
  await page.locator('.body').click();
  await page.keyboard.type('Dear [First name], come on <<date>>.');
  await page.getByRole('button', { name: 'Find markers' }).click();
  await page.getByRole('button', { name: /Turn 2 into variables/ }).click();
  await expect(page.locator('[data-placeholder]')).toHaveCount(3);
  await expect(page.locator('.line.subject [data-placeholder]')).toHaveCount(1);
  await expect(page.getByText(/^kept /)).toBeVisible();
  await page.reload();
  await expect(page.locator('[data-placeholder]')).toHaveCount(3);
});

test('Enter in a passage leaves both halves in it; Backspace selects a placeholder before it deletes', async ({
  page,
}) => {
  await page.goto('/write/group-visit-confirmed');
  const passage = page.locator('.passage').first();
  await expect(passage).toBeVisible();
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
