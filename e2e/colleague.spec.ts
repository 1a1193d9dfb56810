/** The colleague's minute: found, filled, worked in, stitched, answered, handed over, by keyboard. */
import { readFileSync } from 'node:fs';
import { expect, test, type Locator, type Page } from './journey.js';
import ICAL from 'ical.js';
import PostalMime from 'postal-mime';
import { signIn } from './people.js';
import { clipboard, publish } from './steps.js';

test.use({ storageState: { cookies: [], origins: [] } });
test.beforeEach(async ({ page }) => signIn(page.request, 'ines'));

const message = (page: Page): Locator => page.frameLocator('iframe[title="The message"]').locator('body');
const question = (page: Page, key: string): Locator => page.locator(`[data-question="${key}"]`);
const recipient = (page: Page): Locator => page.getByLabel('Recipient', { exact: true });
const foot = (page: Page): Locator => page.locator('footer.bar');
const kept = (page: Page): Promise<void> => expect(page.getByText('kept', { exact: true })).toBeVisible();
async function open(page: Page, template: string): Promise<void> {
  await page.goto(`/fill/new?template=${template}`);
  await expect(recipient(page)).toBeFocused();
}
async function forWhom(page: Page, typed: string): Promise<void> {
  await recipient(page).fill(typed);
  await recipient(page).press('Enter');
}
/** The words of the message, without what it shows as left out. */
const words = (page: Page): Promise<string> =>
  message(page).evaluate((body) => {
    const copy = body.cloneNode(true) as HTMLElement;
    copy.querySelectorAll('details').forEach((each) => each.remove());
    return (copy.textContent ?? '').replace(/\u00a0/g, ' ');
  });

test('a known template for a known recipient with two answers takes ten key presses at most', async ({ page }) => {
  await page.goto('/catalogue');
  await expect(page.getByRole('heading', { name: 'Catalogue' })).toBeVisible();
  let presses = 0;
  const press = async (...keys: string[]): Promise<void> => {
    for (const key of keys) {
      await page.keyboard.press(key);
      presses += 1;
    }
  };
  await press('Control+k');
  await expect(page.getByRole('option', { name: /at hand 1/ })).toBeVisible();
  await press('1');
  await expect(recipient(page)).toBeFocused();
  await press('s', 'i', 'o', 'Enter');
  await expect(page.getByText('1 blank', { exact: true })).toBeVisible();
  await press('F2');
  await expect(question(page, 'gate').locator('.control')).toBeFocused();
  await page.keyboard.press('r'); // The first answer.
  await press('Enter');
  await expect(question(page, 'guide').locator('.control')).toBeFocused();
  await page.keyboard.press('Space'); // The second.
  await press('Control+Enter');
  await expect(page.getByText('Copied with our look.')).toBeVisible();
  expect(presses).toBeLessThanOrEqual(10);
  const { text } = await clipboard(page);
  expect(text).toContain('Please come to the river gate beside the boathouse, where your guide will meet you.');
});

test('the message is worked in where it stands: a blank, a tick, words; changed answers leave words alone; put back', async ({
  page,
}) => {
  await open(page, 'group-visit-confirmed');
  await forWhom(page, 'siob');
  await expect(message(page).locator('.vx-blank')).toHaveCount(1);
  await message(page).locator('.vx-blank').click();
  const card = page.getByRole('dialog', { name: 'About this place' });
  await card.getByRole('radio', { name: /River/ }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByText('nothing is blank').first()).toBeVisible();
  // A tick where it is left out, with what it adds in the foot.
  await message(page).locator('summary', { hasText: 'left out: Rain plan' }).click();
  await card.getByRole('checkbox').check();
  await expect(foot(page)).toContainText('adds “If it rains, the palm house has tables for 24.');
  await page.keyboard.press('Escape');
  await expect(message(page)).toContainText('the palm house has tables');

  // Words, from the keyboard: into the message, to the line, typed, taken.
  await question(page, 'party').locator('.control').focus();
  await page.keyboard.press('F6');
  await page.keyboard.press('Enter');
  await page.keyboard.press('End');
  await page.keyboard.type(' The kettle is on.');
  await page.keyboard.press('Enter');
  await expect(message(page).locator('.vx-reworded')).toContainText('seeing your group of 24');
  await kept(page);
  await page.reload();
  await expect(message(page)).toContainText('The kettle is on.');
  await question(page, 'party').locator('.control').fill('30');
  await expect.poll(() => words(page)).toMatch(/your group of 30 on .*The kettle is on\./);

  // Where both touch the same words, the person chooses.
  const line = message(page).locator('.vx-reworded');
  await line.click({ position: { x: 20, y: 6 } });
  await card.getByRole('button', { name: 'Change these words' }).click();
  await line.evaluate((element) => {
    const value = [...element.querySelectorAll('.vx-value')].find((each) => each.textContent === '30');
    const selection = element.ownerDocument.getSelection();
    if (value) selection?.selectAllChildren(value);
  });
  await page.keyboard.type('thirty or so');
  await page.keyboard.press('Enter');
  await question(page, 'party').locator('.control').fill('12');
  await expect(page.getByText(/You changed Party, which was “30” then and is “12” now/)).toBeVisible();
  await page.getByRole('button', { name: 'Keep my words' }).click();
  await expect(page.getByText(/You changed Party/)).toHaveCount(0);
  await expect.poll(() => words(page)).toContain('thirty or so');
  await question(page, 'party').locator('.control').fill('13');
  await page.getByRole('button', { name: 'Restore the original wording' }).click();
  await expect.poll(() => words(page)).toMatch(/your group of 13 on/);
  await expect(message(page).locator('.vx-reworded')).toHaveCount(0);
});

test('a rewording is suggested to whose text it is, without the recipient, and the template stays', async ({
  page,
}) => {
  await open(page, 'visit-thanks');
  await forWhom(page, 'siob');
  const line = message(page).locator('[data-l]', { hasText: 'It was good to have' });
  await line.click({ position: { x: 10, y: 8 } });
  const card = page.getByRole('dialog', { name: 'About this place' });
  await card.getByRole('button', { name: 'Change these words' }).click();
  await page.keyboard.press('End');
  await page.keyboard.type(' Come again, Siobhán.');
  await page.keyboard.press('Enter');
  // One key, on the line that has the focus, with its new words.
  await expect.poll(() => words(page)).toContain('Come again, Siobhán.');
  await expect(line).toBeFocused();
  await page.keyboard.press('s');
  await expect(page.getByText(/^Suggested to the owner of this text/)).toBeVisible();
  await signIn(page.request, 'maeve');
  const remarks = (await (await page.request.get('/api/versions/visit-thanks/remarks')).json()) as { body: string }[];
  expect(remarks.at(-1)?.body).toContain('Come again, [recipient.first_name].');
});

test('what was taken over from earlier messages is unconfirmed until Enter, and stops handing over once', async ({
  page,
}) => {
  await open(page, 'guided-tour');
  await forWhom(page, 'Ann Lee <ann@unsure.example>');
  const answers = { tour_day: '3/5/27', tour_time: '14:30', party: '17', guide_name: 'Elspeth Quillan' };
  for (const [key, value] of Object.entries(answers)) {
    await question(page, key).locator('.control').first().fill(value);
    await question(page, key).locator('.control').first().press('Enter');
  }
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('Copied with our look.')).toBeVisible();

  await open(page, 'guided-tour');
  await forWhom(page, 'Ann Lee <ann@unsure.example>');
  await expect(question(page, 'party').locator('.control')).toHaveValue('17');
  await expect(question(page, 'party')).toContainText(/from \d\d:\d\d to confirm/);
  await expect(question(page, 'guide_name')).toContainText(/remembered from/);
  // The party, the guide, and the usual options of language and season.
  await expect(foot(page)).toContainText('4 to confirm');
  await question(page, 'tour_day').locator('.control').first().fill('4/5/27');
  await question(page, 'tour_day').locator('.control').first().press('Enter');
  await question(page, 'tour_time').locator('.control').fill('15:00');
  await page.keyboard.press('Control+Enter');
  await expect(foot(page)).toContainText(/filled from elsewhere/);
  await expect(question(page, 'guide_name').locator('.control')).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(foot(page)).toContainText('3 to confirm');
  await question(page, 'party').locator('.control').press('Enter');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('Copied with our look.')).toBeVisible();
  // Somebody else has another past.
  await open(page, 'guided-tour');
  await forWhom(page, 'Bo Li <bo@unsure.example>');
  await expect(question(page, 'party').locator('.control')).toHaveValue('');
});

test('another text is stitched in: nothing asked twice, one signature, a second greeting offered for removal', async ({
  page,
}) => {
  await open(page, 'group-visit-confirmed');
  await forWhom(page, 'siob');
  await expect(message(page).locator('.vx-blank')).toHaveCount(1);
  await message(page).locator('.vx-blank').click();
  await page.getByRole('dialog', { name: 'About this place' }).getByRole('radio', { name: /North/ }).click();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Stitch…' }).click();
  const panel = page.getByRole('region', { name: 'Stitch' });
  await panel.getByLabel('after', { exact: true }).check();
  await panel.getByRole('combobox').fill('getting here');
  await expect(panel.getByRole('option', { name: /Getting here without steps/ })).toBeVisible();
  await panel.getByRole('combobox').press('Enter');
  await expect(message(page)).toContainText('The paths between the gate');
  await expect(page.getByText(/greets a second time: “Dear/)).toBeVisible();
  await page.getByRole('button', { name: 'Remove it' }).click();
  await expect.poll(async () => (await words(page)).split('Dear ').length - 1).toBe(1);
  await expect(question(page, 'first_name')).toHaveCount(1);
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('Copied with our look.')).toBeVisible();
  const { text } = await clipboard(page);
  expect(text.split('With good wishes').length - 1).toBe(1);
  expect(text.trimEnd().endsWith('Larkmoor Botanic Garden')).toBe(true);
});

test('a received mail is pasted, recognised and answered: its date is offered, its words quoted, its thread kept', async ({
  page,
}) => {
  await page.goto('/fill');
  await page.getByRole('button', { name: 'Answer a mail…' }).click();
  const mail = `From: Tomás Breen <tomas@harrowbeck.example>\nTo: Inês Duarte <ines@larkmoor.example>, Bo <bo@harrowbeck.example>\nSubject: RE: A blue umbrella\nMessage-ID: <umbrella@harrowbeck.example>\n\nI left a blue umbrella on a bench at 3.30 pm. Has it come in?\n`;
  await page.getByLabel(/^The mail you answer/).fill(mail);
  await page.getByRole('button', { name: 'Answer this' }).click();
  const answers = page.getByRole('region', { name: 'Answers' });
  await expect(answers).toContainText('Tomás Breen');
  await answers.getByRole('button', { name: /^Lost and found/ }).click();
  await expect(recipient(page)).toHaveValue('Tomás Breen <tomas@harrowbeck.example>');
  await expect(page.getByRole('heading', { name: /A blue umbrella/ })).toBeVisible();
  await question(page, 'found')
    .getByRole('radio', { name: /Yes, found/ })
    .click();
  await question(page, 'thing').locator('.control').fill('the blue umbrella');
  // Where the last thing was found is remembered, and not what is meant now.
  await question(page, 'place').locator('.control').fill('in the tea room');
  await page.getByLabel('to all').check();
  await kept(page);
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('Copied with our look.')).toBeVisible();
  expect((await clipboard(page)).text).toContain('> I left a blue umbrella on a bench at 3.30 pm.');
  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Other ways' }).click();
  await page.getByRole('menuitem', { name: 'Open as draft (.eml)' }).click();
  const draft = await PostalMime.parse(readFileSync(await (await waiting).path()));
  expect(draft.subject).toBe('Re: A blue umbrella');
  expect(draft.to?.map(({ address }) => address)).toEqual(['tomas@harrowbeck.example']);
  expect(draft.cc?.map(({ address }) => address)).toEqual(['bo@harrowbeck.example']);
  expect([draft.inReplyTo, draft.references]).toEqual([
    '<umbrella@harrowbeck.example>',
    '<umbrella@harrowbeck.example>',
  ]);

  // Dates in a mail are offered where a date is asked.
  await page.goto('/fill/new?template=arriving-late');
  await page.getByRole('button', { name: 'Answering…' }).click();
  await page
    .getByLabel(/^The mail you answer/)
    .fill('We are slow, and come at 11:15 rather than 10.\nngozi@fernley.example');
  await page.getByRole('button', { name: 'Answer this' }).click();
  await expect(recipient(page)).toHaveValue('Ngozi Okafor <ngozi@fernley.example>');
  await question(page, 'until')
    .getByRole('button', { name: /take 11:15/ })
    .click();
  await expect(message(page)).toContainText('until 11:15');
});

test('an invitation stands in calendars at its hour, in its zone', async ({ page }) => {
  await signIn(page.request, 'hana');
  await open(page, 'workshop-invitation');
  await forWhom(page, 'Ann Lee <ann@quillmere.example>');
  await question(page, 'workshop').locator('.control').fill('Grafting, an afternoon');
  const [day, time] = [
    question(page, 'starts').locator('input').nth(0),
    question(page, 'starts').locator('input').last(),
  ];
  await day.fill('11/5/2027');
  await day.press('Tab');
  await time.fill('14:30');
  await time.press('Tab');
  await expect(page.getByText('nothing is blank').first()).toBeVisible();
  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Other ways' }).click();
  await page.getByRole('menuitem', { name: 'Calendar file (.ics)' }).click();
  const calendar = new ICAL.Component(ICAL.parse(readFileSync(await (await waiting).path(), 'utf8')));
  for (const zone of calendar.getAllSubcomponents('vtimezone')) ICAL.TimezoneService.register(new ICAL.Timezone(zone));
  const event = new ICAL.Event(calendar.getFirstSubcomponent('vevent') as ICAL.Component);
  expect(event.startDate.toJSDate().toISOString()).toBe('2027-05-11T13:30:00.000Z');
  expect([event.duration.toSeconds(), event.location]).toEqual([7200, 'the potting shed, Larkmoor Botanic Garden']);
});

test('an address fills: a call word, a recipient, an answer; what nothing asks for is said', async ({ page }) => {
  await page.goto('/go/visit?to=ngozi@fernley.example&gate=river&nonsense=1');
  await expect(recipient(page)).toHaveValue('Ngozi Okafor <ngozi@fernley.example>');
  await expect(message(page)).toContainText('the river gate beside the boathouse');
  await expect(page.getByText('Nothing here asks for nonsense.')).toBeVisible();
  await page.goto('/go/nothing');
  await expect(page.getByText(/has the call word “nothing”/)).toBeVisible();
});

test('the row at hand is arranged from the keyboard, and a newer version says what would change', async ({ page }) => {
  await page.goto('/fill');
  const row = page.getByRole('region', { name: 'At hand' });
  const titles = (): Promise<string[]> => row.getByRole('button').allInnerTexts();
  await expect(row.getByRole('button')).toHaveCount(5);
  await row.getByRole('button').nth(0).focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect.poll(async () => (await titles())[0]).toContain('Arriving late');
  await page.keyboard.press('Shift+ArrowLeft');
  await expect.poll(async () => (await titles())[0]).toContain('Group visit confirmed');
  // And with the pointer: what is shown and what is kept are the same.
  await row.getByRole('button').nth(0).dragTo(row.getByRole('button').nth(2));
  await expect.poll(async () => (await titles())[2]).toContain('Group visit confirmed');
  await page.reload();
  await expect.poll(async () => (await titles())[2]).toContain('Group visit confirmed');
  await row.getByRole('button').nth(2).dragTo(row.getByRole('button').nth(0));
  await expect.poll(async () => (await titles())[0]).toContain('Group visit confirmed');

  await signIn(page.request, 'maeve');
  const source = (more: string): string =>
    `---\nvocabula: 1\nkind: message\ntitle: Two versions\nsubject: Hello\nto: "{{recipient.email}}"\n---\nDear all,${more}\n`;
  await page.request.post('/api/texts/import', { data: { files: [{ file: 'two-versions.md', content: source('') }] } });
  await publish(page, 'two-versions');
  await open(page, 'two-versions');
  await forWhom(page, 'ann@x.example');
  await kept(page);
  const { revision } = (await (await page.request.get('/api/texts/two-versions')).json()) as { revision: number };
  const { document } = (await (await page.request.get('/api/texts/two-versions')).json()) as { document: unknown };
  const changed = JSON.parse(JSON.stringify(document).replace('Dear all,', 'Dear all, and the geese,')) as unknown;
  await page.request.put('/api/texts/two-versions', { data: { document: changed, revision } });
  await publish(page, 'two-versions');
  await page.reload();
  await page.getByRole('button', { name: 'What would change?' }).click();
  await expect(page.getByRole('alert')).toContainText('and the geese');
  await page.getByRole('button', { name: 'Start again' }).click();
  await expect(message(page)).toContainText('and the geese');
});

test('handing over is set once by trying it, and then keeps to it', async ({ page }) => {
  await signIn(page.request, 'kofi');
  await page.goto('/settings/handing-over');
  await page.getByRole('button', { name: 'Copy a test' }).click();
  await expect(page.getByText(/^The test is copied/)).toBeVisible();
  expect((await clipboard(page)).html).toContain('Georgia');
  // What comes back from a mail program says by itself what arrived.
  await page.getByPlaceholder('Paste here').click();
  await page.keyboard.press('Control+v');
  await expect(page.getByText(/^Everything arrived\./)).toBeVisible();
  await expect(page.getByRole('radio', { name: /^In green Georgia/ })).toBeChecked();
  await page.evaluate(() =>
    navigator.clipboard.write([
      new ClipboardItem({
        'text/html': new Blob(['<p>A test from Vocabula</p><ul><li>one <b>bold</b> word</li></ul>'], {
          type: 'text/html',
        }),
      }),
    ]),
  );
  await page.keyboard.press('Control+v');
  await expect(page.getByText(/^Lost on the way: the font, the size, the colour, the image\./)).toBeVisible();
  await page.getByRole('radio', { name: /^With a list and a bold word/ }).check();
  await page.getByRole('radio', { name: /^My mail program adds one by itself/ }).check();
  await page.getByRole('radio', { name: /^The first press copies the subject/ }).check();
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText(/^Saved. Fill hands over in this way/)).toBeVisible();
  await open(page, 'visit-thanks');
  await forWhom(page, 'siob');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText(/^The subject is copied/)).toBeVisible();
  expect(await page.evaluate(() => navigator.clipboard.readText())).toBe('It was good to have you');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('Body copied with its structure only, without your signature.')).toBeVisible();
  const { text, html } = await clipboard(page);
  expect(text).not.toContain('With good wishes');
  expect(html).not.toContain('Verdana');
});

test('Fill is complete beside a mail program, at 420 × 700', async ({ page }) => {
  await page.setViewportSize({ width: 420, height: 700 });
  await open(page, 'group-visit-confirmed');
  await forWhom(page, 'siob');
  await expect(page.getByText('1 blank', { exact: true })).toBeVisible();
  await page.keyboard.press('F2');
  await page.keyboard.press('n');
  await expect(page.getByText('nothing is blank').first()).toBeVisible();
  for (const name of ['More', 'Other ways', /^Copy for my mail program/])
    await expect(page.getByRole('button', { name })).toBeInViewport();
  await page.getByRole('button', { name: 'More' }).click();
  for (const name of ['Stitch…', 'Answering…', /^(Keep at hand|At hand ✓)$/])
    await expect(page.getByRole('menuitem', { name })).toBeInViewport();
  await page.keyboard.press('Escape');
  // Head and foot leave two thirds of the height to what is asked.
  const taken = await page
    .locator('.fill > .head, .fill > .bar')
    .evaluateAll((parts) => parts.reduce((sum, part) => sum + part.getBoundingClientRect().height, 0));
  expect(taken).toBeLessThanOrEqual(700 / 3);
  await page.getByRole('button', { name: 'Message', exact: true }).click();
  await expect(message(page)).toContainText('the north gate on Quarry Lane');
  const wide = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(wide).toBeLessThanOrEqual(420);
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('Copied with our look.')).toBeVisible();
});
