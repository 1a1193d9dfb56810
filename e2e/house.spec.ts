import { expect, test } from './journey.js';
import { expectProof, kept, startTemplate } from './steps.js';

test('a fact of the house stands in a text, and a change of it is seen there', async ({ page }) => {
  await page.goto('/settings/facts');
  await page.getByRole('button', { name: 'New fact' }).click();
  await page.getByLabel('Label', { exact: true }).fill('Gate number');
  await page.getByLabel('Label', { exact: true }).press('Tab');
  await page.getByLabel('Value', { exact: true }).fill('12');
  await page.getByLabel('Value', { exact: true }).press('Tab');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('button', { name: 'Save' })).toBeDisabled();
  await startTemplate(page, 'With a fact');
  await page.keyboard.type('Come to gate ');
  await page.keyboard.type('{{');
  await page.getByRole('combobox', { name: 'Insert' }).fill('Gate number');
  await page
    .getByRole('option', { name: /^Gate number/ })
    .first()
    .click();
  await expectProof(page).toContain('Come to gate 12');
  await kept(page);
  await page.goto('/settings/facts');
  await page.getByRole('button', { name: /Gate number/ }).click();
  await page.getByLabel('Value', { exact: true }).fill('14');
  await page.getByLabel('Value', { exact: true }).press('Tab');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('button', { name: 'Save' })).toBeDisabled();
  await page.goto('/write/with-a-fact');
  await expectProof(page).toContain('Come to gate 14');
});
