/** Looking back at the demo's half year: the ledger, one text, and words that people write put into Write. */
import { expect, test } from './journey.js';
import { signIn } from './people.js';

test('a sentence that is often rewritten is found and put into Write', async ({ page }) => {
  await page.goto('/looking-back');
  const ledger = page.getByRole('table', { name: 'Texts and what happened to their messages' });
  // The most used first; a share has its span and its count.
  await expect(ledger.getByRole('row').nth(1)).toContainText('Welcome as a member');
  await expect(ledger.getByRole('row').nth(2)).toContainText('Group visit confirmed');
  await expect(ledger.getByRole('row').nth(1)).toContainText(/\d+ %\s*\d+–\d+ % of \d+/);
  await expect(ledger.getByRole('row').nth(1).getByRole('img')).toHaveAccessibleName(/^26 weeks: \d+ in the last/);
  await page.getByRole('searchbox', { name: 'Filter the ledger' }).fill('lost');
  await expect(ledger.getByRole('row')).toHaveCount(2);
  await page.getByRole('link', { name: 'Lost and found' }).focus();
  await page.keyboard.press('Enter');
  const manuscript = page.getByRole('region', { name: 'The text' });
  const sentence = manuscript.getByRole('button', { name: /^The gardeners know of it, and will look/ });
  await sentence.focus();
  await page.keyboard.press('Space');
  await expect(sentence).toHaveAttribute('aria-pressed', 'true');
  const said = page.getByRole('region', { name: 'The sentence' });
  await expect(said).toContainText('“The gardeners know of it.”');
  await said
    .getByRole('listitem')
    .filter({ hasText: '“The gardeners know of it.”' })
    .getByRole('button', { name: 'Put it in Write' })
    .click();
  await expect(page).toHaveURL(/\/write\/lost-and-found$/);
  await expect(page.getByText('is in the working copy')).toBeVisible();
  await expect(page.locator('.body')).toContainText('have not found it yet. The gardeners know of it.');
  await expect(page.locator('.body')).not.toContainText('will look under the benches');
});

test('what messages propose is put into Write together, by key', async ({ page }) => {
  await page.goto('/looking-back/group-visit-confirmed?time=all');
  const proposed = page.getByRole('form', { name: 'Proposed changes' });
  await expect(proposed.getByRole('listitem').first()).toContainText(
    /Let people choose: “The entrance fee comes to \[.*\]\.”, “The entrance fee will be \[.*\]\.” or “Together/,
  );
  await proposed.getByRole('checkbox').last().focus();
  await page.keyboard.press('Space');
  const put = proposed.getByRole('button', { name: /^Put \d+ in Write$/ });
  const many = Number(/\d+/.exec((await put.textContent()) ?? '')?.[0]);
  expect(many).toBeGreaterThan(0);
  await put.focus();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/write\/group-visit-confirmed$/);
  await expect(page.getByText('in the working copy')).toBeVisible();
  await page.getByRole('tab', { name: /Variables/ }).click();
  await expect(page.getByRole('button', { name: /Comes or Will be or Together/ }).first()).toBeVisible();
});

test('the ledger is sorted by key, kept to a time, and exported', async ({ page }) => {
  await page.goto('/looking-back');
  const ledger = page.getByRole('table', { name: 'Texts and what happened to their messages' });
  await page.getByRole('columnheader', { name: 'Text', exact: true }).focus();
  await page.keyboard.press('Enter');
  await expect(ledger.getByRole('row').nth(1)).toContainText('A guided tour');
  const all = await page.locator('footer').innerText();
  await page.getByLabel('Period').click();
  await page.getByRole('option', { name: 'last 4 weeks' }).click();
  await expect(page).toHaveURL(/time=28/);
  await expect.poll(() => page.locator('footer').innerText()).not.toBe(all);
  const csv = await page.request.get(
    String(await page.getByRole('link', { name: 'Export as CSV' }).getAttribute('href')),
  );
  expect(csv.headers()['content-type']).toContain('text/csv');
  const [head = '', ...rows] = (await csv.text()).trim().split(/\r?\n/);
  expect(head).toContain('reworded, at least');
  expect(rows.length).toBeGreaterThan(15);
});

test('colleagues look back at their own messages alone', async ({ page }) => {
  await signIn(page.request, 'hana');
  await page.goto('/looking-back');
  await expect(page.getByText('Only you see these figures.')).toBeVisible();
  await expect(page.getByRole('row').nth(1)).toContainText('Membership renewal');
  const refused = await page.request.get('/api/insight/texts/membership-renewal');
  expect(refused.status()).toBe(403);
});
