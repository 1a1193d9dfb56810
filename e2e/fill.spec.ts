import { readFileSync } from 'node:fs';
import { expect, test, type Page } from './journey.js';
import PostalMime from 'postal-mime';
import { compile, dayIn, render, type Message } from '@vocabula/core';
import { readHouse } from '@vocabula/core/house';
import { readText } from '@vocabula/core/markdown';
import { profileOf } from './people.js';
import { clipboard } from './steps.js';

/** Opens a template by a few letters on the call line. */
async function call(page: Page, letters: string): Promise<void> {
  await page.goto('/catalogue');
  await expect(page.getByRole('heading', { name: 'Catalogue' })).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.keyboard.type(letters);
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Recipient', { exact: true })).toBeFocused();
}

/** What the engine makes of a demo template with the demo's sender, today. */
function rendered(file: string, recipient: Record<string, string>, answers: Record<string, unknown>): Message {
  const text = (name: string) => {
    for (const folder of ['visits', 'members', 'blocks'])
      try {
        return readText(readFileSync(`demo/library/${folder}/${name}.md`, 'utf8')).document;
      } catch {
        continue;
      }
    return undefined;
  };
  const document = text(file);
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  if (!document) throw new Error(`no ${file}`);
  const { signature, ...sender } = profileOf('maeve');
  const { house } = readHouse(readFileSync('demo/library/house.yaml', 'utf8'));
  return render(compile({ name: file, document }, { library: { get: text }, senderSignature: signature, house }), {
    recipient,
    sender: { ...sender },
    answers,
    today: dayIn(new Date(), zone),
    zone,
  });
}

test('from the call line to the clipboard by keyboard alone, rich and plain as the engine renders them', async ({
  page,
}) => {
  await call(page, 'visi');
  await page.keyboard.type('siob');
  await page.keyboard.press('Enter');
  await expect(page.getByText('1 blank', { exact: true })).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText(/Gate: still blank/)).toBeVisible();
  await page.keyboard.press('r');
  await expect(page.getByText('nothing is blank').first()).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('Copied with our look.')).toBeVisible();
  const { text, html } = await clipboard(page);
  const [, ...lines] = readFileSync('demo/recipients/group-leaders.csv', 'utf8').split('\n');
  const row = (lines.find((line) => line.startsWith('Siobhán')) ?? '').split(',');
  const keys = ['first_name', 'last_name', 'email', 'organisation', 'visit_date', 'party'];
  const recipient = Object.fromEntries(keys.map((key, at) => [key, row[at] ?? '']));
  const message = rendered('group-visit-confirmed', recipient, { gate: 'river' });
  expect(text).toBe(message.text);
  // The clipboard cleans HTML; the words and the form must still be there.
  for (const piece of ['the river gate beside the boathouse', '<strong'])
    expect([piece, html.includes(piece)]).toEqual([piece, true]);
});

test('dates, numbers, options and ticks with fitting controls, Enter going on, and a draft a mail program opens', async ({
  page,
}) => {
  await call(page, 'visit');
  await page.keyboard.type('Ann Lee <ann@quillmere.example>');
  await page.keyboard.press('Enter');
  const question = (key: string) => page.locator(`[data-question="${key}"]`);
  await expect(question('visit_date').locator('.control')).toBeFocused();
  await page.keyboard.type('14/6/27');
  await page.keyboard.press('Enter');
  await expect(question('visit_date').locator('.control')).toHaveValue(/14 June 2027/);
  const focused = () =>
    page.evaluate(() => document.activeElement?.closest<HTMLElement>('[data-question]')?.dataset.question);
  for (let step = 0; step < 20 && (await focused()) !== 'party'; step += 1) await page.keyboard.press('Enter');
  await page.keyboard.type('abc');
  await expect(question('party')).toContainText(/number/);
  await page.keyboard.press('Control+a');
  await page.keyboard.type('15');
  await page.keyboard.press('Enter');
  await page.keyboard.type('n');
  const message = page.frameLocator('iframe[title="The message"]').locator('body');
  await expect(message).toContainText('the north gate on Quarry Lane');
  await page.keyboard.press('Enter');
  await expect(question('guide').locator('.control')).toBeFocused();
  await page.keyboard.press('Space');
  await expect(message).toContainText('where your guide will meet you');
  await expect(message).toContainText('The picnic lawn is yours');
  await expect(page.getByText('nothing is blank').first()).toBeVisible();

  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Other ways' }).click();
  await page.getByRole('menuitem', { name: 'Open as draft (.eml)' }).click();
  const download = await waiting;
  expect(download.suggestedFilename()).toBe('group-visit-confirmed.eml');
  const mail = await PostalMime.parse(readFileSync(await download.path()));
  const expected = rendered(
    'group-visit-confirmed',
    { first_name: 'Ann', last_name: 'Lee', email: 'ann@quillmere.example' },
    { visit_date: '2027-06-14', party: '15', gate: 'north', guide: true },
  );
  expect(mail.subject).toBe(expected.subject);
  expect(mail.to?.map((each) => each.address)).toEqual(expected.to.map(({ address }) => address));
  expect(mail.text?.trimEnd()).toBe(expected.text.trimEnd());
  expect(mail.html?.trimEnd()).toBe(expected.html);
  expect(mail.headers.find((header) => header.key === 'x-unsent')?.value).toBe('1');
});

test('a blank is named, and gone past only by asking for it', async ({ page }) => {
  await call(page, 'weather');
  await page.keyboard.type('José');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText(/Cause, What we offer instead: still blank/)).toBeVisible();
  await page.keyboard.press('Control+Shift+Enter');
  await expect(page.getByText(/^Copied with our look, with \d blanks/)).toBeVisible();
  expect((await clipboard(page)).text).toContain('[Cause]');
});
