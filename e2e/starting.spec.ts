import { expect, test, type Page } from './journey.js';
import { bomb, brokenMail, mail, markdown, page as htmlPage, plain, wordDocument, type GivenFile } from './files.js';
import { giveFiles, kept, storedText } from './steps.js';

async function startFrom(page: Page, source: string, title: string): Promise<void> {
  await page.goto('/write');
  await page.getByLabel(/^Title/).fill(title);
  await page.getByRole('radio', { name: source }).check();
}
async function startFromFile(page: Page, given: GivenFile, title: string): Promise<void> {
  await startFrom(page, 'A file', title);
  await giveFiles(page, page.getByRole('button', { name: 'Choose a file…' }), given);
}
async function begin(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Start', exact: true }).click();
  await expect(page.getByRole('textbox', { name: 'Manuscript' })).toBeVisible();
}
const bodyOf = (text: string): string => text.split('---\n').slice(2).join('---\n').trim();

test('a mail gives subject, addresses, words and attachments; its subject becomes the title only when taken', async ({
  page,
}) => {
  await startFromFile(page, mail, 'From a mail');
  await expect(page.getByText('Found as a title')).toBeVisible();
  await begin(page);
  await kept(page);
  const text = await storedText(page, 'from-a-mail');
  expect(text).toContain('title: From a mail');
  expect(text).toMatch(/subject: "?Your visit – Friday/);
  expect(text).toContain('ann@lee.example');
  expect(text).toContain('rules.txt');
  expect(bodyOf(text)).toBe('Dear **Ann**, bring café money.');
});

for (const [given, body] of [
  [htmlPage, '# Visit\n\nCome *soon*.'],
  [markdown, '# Visit\n\nCome **soon**.'],
  [plain, 'Visit\n\nCome soon.'],
  [wordDocument, 'Come **soon**'],
] as const)
  test(`${given.name} comes out clean`, async ({ page }) => {
    const name = `from-${given.name.replace('.', '-')}`;
    await startFromFile(page, given, name);
    await begin(page);
    await kept(page);
    expect(bodyOf(await storedText(page, name))).toBe(body);
  });

test('a starter and a copy of a text are started from; the call word stays with the other', async ({ page }) => {
  await startFrom(page, 'A starter', 'From a starter');
  await expect(page.getByRole('listbox', { name: 'Starters' }).getByRole('option')).not.toHaveCount(0);
  expect(await page.getByRole('listbox', { name: 'Starters' }).getByRole('option').count()).toBeGreaterThanOrEqual(10);
  await page.getByRole('listbox', { name: 'Starters' }).getByRole('option').first().click();
  await begin(page);
  await expect(page.locator('[data-placeholder]').first()).toBeVisible();

  await startFrom(page, 'A copy', 'From a copy');
  await page.getByLabel('Find the text to copy').fill('group visit conf');
  await page.getByRole('option', { name: /Group visit confirmed/ }).click();
  await begin(page);
  await kept(page);
  const [own, copied] = [await storedText(page, 'from-a-copy'), await storedText(page, 'group-visit-confirmed')];
  expect(bodyOf(own)).toBe(bodyOf(copied));
  expect([/^call:/m.test(own), /^call:/m.test(copied)]).toEqual([false, true]);
});

test('a mail that is broken is read as far as it goes; a document that unpacks to too much is refused in words', async ({
  page,
}) => {
  await startFromFile(page, brokenMail, 'From a broken mail');
  await expect(page.getByText('Found as a title').or(page.getByRole('alert'))).toBeVisible();
  await startFromFile(page, bomb(), 'From a bomb');
  await expect(page.locator('.error', { hasText: /unpacks|too|large|more than/i }).first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Start', exact: true })).toBeDisabled();
});
