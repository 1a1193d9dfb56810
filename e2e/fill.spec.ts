import { expect, test } from '@playwright/test';

test('from the call line to the clipboard by keyboard alone', async ({ page }) => {
  await page.goto('/fill');
  await page.getByRole('combobox', { name: 'Find a template' }).fill('visit');
  await expect(page.getByRole('option', { name: /Group visit confirmed/ })).toBeVisible();
  await page.keyboard.press('Enter');
  const recipient = page.getByLabel('Recipient', { exact: true });
  await expect(recipient).toBeFocused();
  await page.keyboard.type('siob');
  await expect(page.getByRole('option', { name: /Siobhán/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByText('1 blank', { exact: true })).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText(/Gate: still blank/)).toBeVisible();
  await page.keyboard.press('r');
  await expect(page.getByText('nothing is blank').first()).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('Copied, rich and plain.')).toBeVisible();
  const text = await page.evaluate<string>('navigator.clipboard.readText()');
  expect(text).toContain('Dear Siobhán,');
  expect(text).toContain('the river gate beside the boathouse');
});
