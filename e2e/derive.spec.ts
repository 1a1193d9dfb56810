/** Past mails become a template: compared, one left out, started with, and proofed with its sample set. */
import { expect, test } from './journey.js';

const mail = (
  first: string,
  day: string,
  party: number,
  guide: boolean,
  more = '',
): { name: string; mimeType: string; buffer: Buffer } => ({
  name: `${first}.eml`,
  mimeType: 'message/rfc822',
  buffer: Buffer.from(
    [
      'From: Maeve Aldous <maeve@larkmoor.example>',
      `To: ${first} Test <${first.toLowerCase()}@quillmere.example>`,
      `Subject: Your visit on ${day}`,
      'Date: Fri, 27 Nov 2026 10:00:00 +0000',
      'MIME-Version: 1.0',
      'Content-Type: text/html; charset=utf-8',
      '',
      `<p>Dear ${first},</p><p>We look forward to seeing your group of ${party} on ${day}.${guide ? ' A guide will meet you at the gate.' : ''}</p>${more}<p>Kind regards<br>Maeve</p>`,
      '',
    ].join('\r\n'),
  ),
});
const MAILS = [
  mail('Ann', '3 April 2027', 12, true),
  mail('Bo', '14 May 2027', 30, false),
  mail('Una', '1 June 2027', 7, true),
  mail('Owen', '22 April 2027', 18, false),
  mail('Priya', '9 July 2027', 12, true, '<p>The geese send their regards.</p>'),
];

test('past mails become a published template, with a sample set of made-up people', async ({ page }) => {
  await page.goto('/write');
  await page.getByRole('link', { name: 'Past mails…' }).focus();
  await page.keyboard.press('Enter');
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page.getByRole('button', { name: 'Choose files…' }).first().click(),
  ]);
  await chooser.setFiles(MAILS);
  await expect(page.getByRole('status').filter({ hasText: 'word for word' })).toHaveText('4 of 5 match word for word');
  const proposals = page.getByRole('table', { name: 'What varies' });
  await expect(proposals.getByRole('row')).toHaveCount(4);
  await expect(proposals).toContainText('2027-04-03');
  // The odd one comes first, and says where it differs.
  await page.getByRole('button', { name: 'Priya.eml', exact: true }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('Only in this mail: “The geese send their regards.”')).toBeVisible();
  await page.getByRole('button', { name: 'Leave Priya.eml out' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'word for word' })).toHaveText('4 of 4 match word for word');
  await proposals.getByRole('textbox').nth(1).fill('Party');
  await page.keyboard.press('Tab');
  await page.getByLabel('Title of the template').fill('Visit from mails');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/write\/visit-from-mails$/);
  await expect(page.locator('.body')).toContainText(/your group of .*Party on .*Visit date/);
  // Its sample set: as many as the mails, none of their names.
  const sets = (await (await page.request.get('/api/tables?use=sample')).json()) as {
    id: string;
    title: string;
    rows: number;
  }[];
  const set = sets.find(({ title }) => title === 'Visit from mails');
  expect(set?.rows).toBe(4);
  const rows = JSON.stringify(await (await page.request.get(`/api/tables/${set?.id}`)).json());
  expect(rows).toContain('2027-04-03');
  expect(rows).not.toContain('ann@quillmere.example');
  await page.getByRole('button', { name: 'Publish…' }).click();
  await page.getByLabel('What is new, in a line').fill('From past mails');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText(/Published: colleagues use version 1/)).toBeVisible();
});

test('what went from a template says what was changed by hand', async ({ page }) => {
  await page.goto('/from-mails');
  await page.getByRole('button', { name: 'Group visit confirmed' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'word for word' })).toBeVisible();
  await expect(page.getByRole('table', { name: 'What varies' })).toContainText('date');
});
