/** The mailroom: mail answered, sent, scheduled, taken back; one each to many; a kill in the middle. */
import { pick } from './steps';
import { expect, test, type Page } from './journey.js';
import PostalMime from 'postal-mime';
import { OwnServer } from './own-server.js';
import { signIn } from './people.js';

test.use({ storageState: { cookies: [], origins: [] } });
const recipient = (page: Page) => page.getByLabel('Recipient', { exact: true });
const question = (page: Page, key: string) => page.locator(`[data-question="${key}"]`);
async function way(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'Other ways' }).click();
  await page.getByRole('menuitem', { name }).click();
}
interface Letter {
  readonly id: string;
  readonly recipients: readonly string[];
  readonly subject: string;
}
/** What the stand-in took of somebody's mail, the newest first. */
const letters = async (page: Page): Promise<Letter[]> =>
  (await page.request.get('/api/mailroom/letters')).json() as Promise<Letter[]>;

test('a letter is answered from the mailroom, scheduled, taken back, and goes as the engine renders it', async ({
  page,
}) => {
  await signIn(page.request, 'kofi');
  await page.request.put('/api/me/ways', {
    data: {
      signs: false,
      order: 'together',
      look: 'house',
      images: true,
      tried: true,
      from: '09:00',
      to: '17:00',
      days: [1, 2, 3, 4, 5],
    },
  });
  await page.goto('/mailroom');
  await page
    .getByRole('navigation', { name: 'Stacks' })
    .getByRole('button', { name: /^Hans-Jürgen Groß/ })
    .click();
  await expect(page.getByRole('region', { name: 'Letter' })).toContainText('eine Führung auf Deutsch');
  await expect(page.getByRole('complementary', { name: 'Answer with' })).toContainText('14.5.2027');
  await page.getByRole('complementary', { name: 'Answer with' }).getByRole('combobox').fill('tour');
  await page.getByRole('option', { name: /A guided tour/ }).click();
  await expect(recipient(page)).toHaveValue('Hans-Jürgen Groß <hj@marrowstone.example>');
  await question(page, 'tour_day')
    .getByRole('button', { name: /take .*14 May 2027/ })
    .click();
  await question(page, 'tour_time')
    .getByRole('button', { name: /take 14:30/ })
    .click();
  await question(page, 'party').locator('.control').fill('12');
  await question(page, 'guide_name').locator('.control').fill('Łucja 王');
  await expect(page.getByText('nothing is blank').first()).toBeVisible();
  await way(page, 'Send later…');
  const later = page.getByRole('dialog', { name: 'Send later' });
  await later.locator('.row').last().click();
  await expect(page.getByText(/^It goes Monday/)).toBeVisible();

  await page.goto('/mailroom/waiting');
  const stacks = page.getByRole('navigation', { name: 'Stacks' });
  await stacks.getByRole('button', { name: /^Hans-Jürgen Groß.*Your tour on/ }).click();
  await expect(stacks.getByRole('button', { name: /^Hans-Jürgen Groß.*Führung/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByText('Taken back: it is an unfinished message again.')).toBeVisible();
  await page.goto('/fill');
  await page
    .getByRole('link', { name: /A guided tour Hans-Jürgen Groß/ })
    .first()
    .click();
  await way(page, 'Send now');
  await expect(page.getByText('It is sent in 30 seconds.')).toBeVisible();
  await page.goto('/mailroom/waiting');
  await stacks.getByRole('button', { name: /^Hans-Jürgen Groß.*Your tour on/ }).click();
  await page.getByRole('button', { name: 'Send now' }).click();
  await expect
    .poll(
      async () =>
        (await letters(page)).filter(({ recipients }) => recipients.includes('hj@marrowstone.example')).length,
    )
    .toBe(1);
  const [letter] = (await letters(page)).filter(({ recipients }) => recipients.includes('hj@marrowstone.example'));
  const { html } = (await (await page.request.get(`/api/mailroom/letters/${letter?.id}`)).json()) as { html: string };
  expect(html).toContain('Łucja 王 will show your group of 12 round the garden');
  await page.goto('/recipients/hj@marrowstone.example');
  await expect(page.getByRole('region', { name: 'Person', exact: true })).toContainText('A guided tour');
});

test.describe('to many', () => {
  let server: OwnServer;
  test.use({ baseURL: 'http://127.0.0.1:4192' });
  test.beforeEach(async () => {
    server = new OwnServer(4192);
    await server.start();
  });
  test.afterEach(() => server.end());

  /** Begins a mailing on the renewal of memberships. */
  async function begin(page: Page): Promise<void> {
    await signIn(page.request, 'petra');
    await page.goto('/fill/new?template=membership-renewal');
    await expect(recipient(page)).toBeVisible();
    await expect(page.getByText('3 blanks', { exact: true })).toBeVisible();
    await page.getByRole('button', { name: 'Other ways' }).click();
    await page.getByRole('menuitem', { name: 'To many, one message each…' }).click();
    await expect(page).toHaveURL(/\/many\//);
  }
  const ready = (page: Page, count: number) => expect(page.locator('footer.bar')).toContainText(`${count} ready`);

  test('questions that differ, messages by themselves, one first, the rest, stopped and gone on with', async ({
    page,
  }) => {
    await begin(page);
    await pick(page.getByLabel('From a recipient list'), 'Members to renew (36)');
    await page.getByRole('button', { name: 'Add', exact: true }).first().click();
    await ready(page, 36);
    await page
      .getByLabel(/^Paste people/)
      .fill('Ann Lee <ann@pasted.example>\nnobody at all\nfriend01@quillmere.example');
    await page.getByRole('button', { name: 'Add', exact: true }).last().click();
    await expect(page.getByText('1 person added; 2 lines are set apart.')).toBeVisible();
    await expect(page.getByRole('region', { name: 'Set apart' })).toContainText('1 × Still blank: Ends on, Amount.');
    // The letter differs for each: a column of the table.
    await page
      .getByRole('form', { name: 'Asked once' })
      .getByRole('button', { name: 'differs for each' })
      .first()
      .click();
    const table = page.getByRole('grid', { name: 'Recipients' });
    await expect(table.getByRole('columnheader', { name: /^Letter/ })).toBeVisible();
    const row = (at: number) => table.getByRole('row').nth(at);
    await row(2).getByRole('rowheader').click();
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('Enter');
    await pick(row(2).getByRole('combobox'), 'Last letter');
    await expect(row(2)).toContainText('Last letter');
    const message = page.frameLocator('iframe[title="The message"]').locator('body');
    await expect(message).toContainText('This is the last letter on this.');
    await row(3).getByRole('button', { name: /out$/ }).click();
    await ready(page, 35);

    await page.getByRole('button', { name: 'Send…' }).click();
    const dialog = page.getByRole('dialog');
    await expect(dialog).toContainText('to 35 people');
    await dialog.getByLabel('Type 35 to go on').fill('35');
    await page.keyboard.press('Control+Enter');
    await expect(page.getByText('1 of 37 sent')).toBeVisible();
    const sent = async (): Promise<Letter[]> =>
      (await letters(page)).filter(({ recipients: to }) => !to.includes('petra@larkmoor.example'));
    expect(await sent()).toHaveLength(1);
    await page.getByRole('button', { name: 'Pause' }).click();
    await page.getByRole('button', { name: 'Go on' }).click();
    await expect(page.getByText('35 of 37 sent')).toBeVisible();
    await expect(page.getByText('done', { exact: true })).toBeVisible();
    const went = (await sent()).map(({ recipients: to }) => to[0]);
    expect(new Set(went).size).toBe(went.length);
    expect(went).toHaveLength(35);
    expect(went).not.toContain('ann@pasted.example');
  });

  test('goes on after a kill in the middle: nobody twice, nobody forgotten', async ({ page }) => {
    await begin(page);
    const table = [
      'First name,Email,Ends,Amount',
      ...Array.from({ length: 400 }, (_, at) => `Pé${at},p${at}@kill.example,2027-03-01,35`),
    ];
    await page.getByLabel(/^Paste people/).fill(table.join('\n'));
    await page.getByRole('button', { name: 'Add', exact: true }).last().click();
    await ready(page, 400);
    const id = page.url().split('/').pop();
    const drive = (body: object) => page.request.post(`/api/mailings/${id}/drive`, { data: body });
    await drive({ act: 'first', count: 400 });
    await expect
      .poll(
        async () =>
          ((await (await page.request.get(`/api/mailings/${id}/progress`)).json()) as { counts: { gone?: number } })
            .counts.gone ?? 0,
      )
      .toBe(1);
    await drive({ act: 'rest' });
    // As soon as some have gone, and before all have.
    await expect
      .poll(
        async () =>
          ((await (await page.request.get(`/api/mailings/${id}/progress`)).json()) as { counts: { gone?: number } })
            .counts.gone ?? 0,
        { intervals: [20] },
      )
      .toBeGreaterThan(1);
    await server.stop('SIGKILL');
    await server.start();
    await page.reload();
    // Four hundred mails take their time on a machine that does other work.
    await expect(page.getByText('400 of 400 sent')).toBeVisible({ timeout: 120_000 });
    const counts = await page.evaluate(async () => {
      const found: string[] = [];
      const rows = (await (await fetch(`/api/mailings/${location.pathname.split('/').pop()}/rows`)).json()) as {
        state: string;
        address: string;
      }[];
      for (const row of rows) if (row.state === 'gone') found.push(row.address);
      return { gone: found.length, distinct: new Set(found).size };
    });
    expect(counts).toEqual({ gone: 400, distinct: 400 });
    const last = (await letters(page))[0];
    const letter = (await (await page.request.get(`/api/mailroom/letters/${last?.id}`)).json()) as { html: string };
    expect(letter.html).toMatch(/Dear Pé\d+,/);
  });
});

test('a message parsed from the stand-in is what was handed over, part by part', async ({ page }) => {
  await signIn(page.request, 'maeve');
  await page.goto('/fill/new?template=visit-thanks');
  await recipient(page).fill('Дмитро Шевченко <dmytro@parts.example>');
  await recipient(page).press('Enter');
  await question(page, 'photographs').locator('input').check();
  await page.getByRole('button', { name: 'Other ways' }).click();
  const waiting = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'Open as draft (.eml)' }).click();
  const draft = await PostalMime.parse((await import('node:fs')).readFileSync(await (await waiting).path()));
  await way(page, 'Send now');
  await expect(page.getByText('It is sent in 30 seconds.')).toBeVisible();
  const [outgoing] = (
    (await (await page.request.get('/api/outgoing')).json()) as { id: string; address: string }[]
  ).filter(({ address }) => address === 'dmytro@parts.example');
  await page.request.patch(`/api/outgoing/${outgoing?.id}`, { data: { act: 'now' } });
  await expect
    .poll(
      async () => (await letters(page)).filter(({ recipients }) => recipients.includes('dmytro@parts.example')).length,
    )
    .toBe(1);
  const [letter] = (await letters(page)).filter(({ recipients }) => recipients.includes('dmytro@parts.example'));
  const taken = (await (await page.request.get(`/api/mailroom/letters/${letter?.id}`)).json()) as {
    html: string;
    text: string;
    subject: string;
  };
  expect([taken.subject, taken.text.trim(), taken.html.trim()]).toEqual([
    draft.subject,
    draft.text?.trim(),
    draft.html?.trim(),
  ]);
  expect(taken.text).toContain('Dear Дмитро,');
});
