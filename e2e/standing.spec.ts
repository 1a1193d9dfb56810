/** A standing reply: tried on the past, mended, switched on; a mail comes, the server is killed, and one answer goes. */
import { DEMO_DATABASE, expect, test, type Page } from './journey.js';
import { OwnServer } from './own-server.js';
import { signIn } from './people.js';

test.use({ baseURL: 'http://127.0.0.1:4197' });
let server: OwnServer;
test.beforeEach(() => {
  server = new OwnServer(4197, { from: DEMO_DATABASE });
});
test.afterEach(() => server.end());

interface Letter {
  readonly id: string;
  readonly subject: string;
  readonly recipients: readonly string[];
}
// Nobody is behind an address that can be none: the stand-in's made-up recipients do not answer by themselves.
const NELL = 'nell@late.invalid';
let mails = 0;
async function comes(page: Page, subject: string, body: string, more = ''): Promise<void> {
  mails += 1;
  const raw = `From: Nell Gow <${NELL}>\r\nTo: ines@larkmoor.example\r\nSubject: ${subject}\r\nMessage-ID: <nell-${mails}@late.invalid>\r\n${more}\r\n${body}\r\n`;
  const answer = await page.request.post('/api/mailroom/drop', {
    data: Buffer.from(raw),
    headers: { 'content-type': 'application/octet-stream' },
  });
  expect(answer.status()).toBe(201);
}
const toNell = async (page: Page): Promise<string[]> =>
  ((await (await page.request.get('/api/mailroom/letters')).json()) as Letter[])
    .filter(({ recipients }) => recipients.includes(NELL))
    .map(({ subject }) => subject);
const decided = async (page: Page): Promise<string[]> =>
  ((await (await page.request.get('/api/standing/decisions')).json()) as { what: string; why: string }[])
    .map(({ what, why }) => (why ? `${what}: ${why}` : what))
    .toReversed();

test('a standing reply is tried on the past, mended, switched on, and answers once, whatever happens', async ({
  page,
}) => {
  await server.start();
  await signIn(page.request, 'ines');
  await page.goto('/mailroom');
  await page.getByRole('link', { name: 'Standing replies' }).click();
  await page.getByRole('link', { name: /^Coming late/ }).press('Enter');
  const past = page.getByRole('region', { name: 'Tried on the past' });
  await expect(past).toContainText(/Of \d+ mails since .* it would have answered 25/);
  // Those about roses are marked, and the condition is mended until none of them is left.
  const wrong = past.getByRole('button', { name: /^Wrong: Late flowering/ });
  for (const at of [0, 1, 2]) {
    await wrong.nth(at).press('Enter');
    await expect(past).toContainText(`${at + 1} of them marked as wrong`);
  }
  const form = page.getByRole('form', { name: 'The rule' });
  await expect(form.getByRole('button', { name: 'Switch it on' })).toBeDisabled();
  await form.getByLabel('Value 1').fill('be late');
  await expect(past).toContainText('What was marked as wrong is not answered any more.');
  await expect(past).toContainText('would have answered 22');
  await past
    .getByRole('button', { name: /^Wrong: / })
    .first()
    .focus();
  await past
    .getByRole('button', { name: /Jutta|Daiyu|Ada|Kees|Nuala/ })
    .first()
    .press('Enter');
  await expect(page.getByRole('region', { name: 'The reply' })).toContainText('Re: We shall be late');
  // It keeps working hours; here it need not.
  await form.getByLabel(/within my working hours/).uncheck();
  await expect(form.getByRole('button', { name: 'Switch it on' })).toBeEnabled();
  await form.getByRole('button', { name: 'Switch it on' }).press('Enter');
  await expect(page.getByText('On: it answers what comes from now on.')).toBeVisible();

  // A mail comes, and the server is killed at once; the answer goes once all the same, and says that a program wrote it.
  await comes(page, 'We shall be late', 'We come at 11:30.');
  await server.stop('SIGKILL');
  await server.start();
  await expect.poll(() => decided(page), { timeout: 30_000 }).toEqual(['send']);
  await comes(page, 'Re: We shall be late', 'Even later, at 12:30.');
  await comes(page, 'Automatic reply: We shall be late', 'I am away.', 'Auto-Submitted: auto-replied\r\n');
  await expect
    .poll(() => decided(page), { timeout: 30_000 })
    .toEqual([
      'send',
      expect.stringContaining('its sender got a standing reply'),
      'nothing: a program or a mailing list sent it',
    ]);
  await expect.poll(() => toNell(page), { timeout: 60_000 }).toEqual(['Auto: Re: We shall be late']);
  await page.reload();
  await page.getByRole('button', { name: 'What was decided on mail that came' }).press('Enter');
  await expect(page.getByRole('region', { name: 'Decided' })).toContainText('Coming late: sent');
});
