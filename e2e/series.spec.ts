/** A series to one recipient: started by key, killed in the middle, gone on with, answered, stopped. */
import { DEMO_DATABASE, expect, test, type Page } from './journey.js';
import { OwnServer } from './own-server.js';
import { signIn } from './people.js';

test.use({ baseURL: 'http://127.0.0.1:4196' });
let server: OwnServer;
test.beforeEach(() => {
  server = new OwnServer(4196, { from: DEMO_DATABASE });
});
test.afterEach(() => server.end());

interface Letter {
  readonly subject: string;
  readonly recipients: readonly string[];
}
// Nobody is behind an address that can be none: the stand-in's made-up recipients do not answer by themselves.
const lettersTo = async (page: Page, address: string): Promise<string[]> =>
  ((await (await page.request.get('/api/mailroom/letters')).json()) as Letter[])
    .filter(({ recipients }) => recipients.includes(address))
    .map(({ subject }) => subject);
const forward = (page: Page, days: number) => page.request.post('/api/mailroom/clock', { data: { hours: days * 24 } });

const template = (title: string, words: string): string =>
  `---\nvocabula: 1\nkind: message\ntitle: ${title}\nsubject: "${title}"\nto: "{{recipient.email}}"\nvariables:\n  first_name: { type: text, label: First name, from: recipient.first_name, required: true }\n  plant: { type: text, label: Plant, required: true }\n---\nDear {{first_name}},\n\n${words}\n`;
const FILES = {
  sown: template('Sown', 'your {{plant}} is sown.'),
  sprouted: template('Sprouted', 'your {{plant}} has sprouted.'),
  flowered: template('Flowered', 'your {{plant}} flowers.'),
  'a-plant-grows':
    '---\nvocabula: 1\nkind: series\ntitle: A plant grows\nsteps:\n  - { text: sown }\n  - { text: sprouted, wait: 10 days }\n  - { text: flowered, wait: 20 days }\n---\n',
};

test('a series is started, goes on after a kill, sends nothing twice, and stops when it is answered', async ({
  page,
}) => {
  await server.start();
  await signIn(page.request, 'maeve');
  const files = Object.entries(FILES).map(([name, content]) => ({ file: `${name}.md`, content }));
  await page.request.post('/api/texts/import', { data: { files } });
  for (const name of Object.keys(FILES)) {
    const { revision } = (await (await page.request.get(`/api/versions/${name}`)).json()) as { revision: number };
    const published = await page.request.post(`/api/versions/${name}/publish`, { data: { revision, note: 'First' } });
    expect([name, published.status()]).toEqual([name, 200]);
  }
  // Found in the call line as any template is, and started from the keyboard.
  await page.goto('/fill');
  await page.getByRole('combobox', { name: 'Find a template' }).fill('a plant grows');
  await expect(page.getByRole('option', { name: /A plant grows/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'A plant grows' })).toBeVisible();
  await page.getByLabel('Recipient', { exact: true }).fill('Nell Gow <nell@grows.invalid>');
  await page.keyboard.press('Enter');
  await page.getByLabel(/^Plant/).fill('blue gentian');
  await expect(page.getByRole('region', { name: 'What will go' })).toContainText('Flowered');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('heading', { name: 'Nell Gow' })).toBeVisible();

  // Whenever it is looked, and however often it is killed meanwhile, each message goes once.
  await forward(page, 4);
  await expect.poll(() => lettersTo(page, 'nell@grows.invalid'), { timeout: 60_000 }).toEqual(['Sown']);
  await server.stop('SIGKILL');
  await server.start();
  await forward(page, 12);
  await server.stop('SIGKILL');
  await server.start();
  await expect.poll(() => lettersTo(page, 'nell@grows.invalid'), { timeout: 60_000 }).toEqual(['Sprouted', 'Sown']);
  await page.reload();
  await expect(page.getByText(/2 of 3 sent/).first()).toBeVisible();

  // An answer comes in its thread, as any mail program sends one.
  const outgoing = (await (await page.request.get('/api/outgoing')).json()) as { id: string; address: string }[];
  const last = outgoing.find(({ address }) => address === 'nell@grows.invalid');
  expect(last).toBeDefined();
  const answer = [
    'From: Nell Gow <nell@grows.invalid>',
    'To: maeve@larkmoor.example',
    'Subject: Re: Sprouted',
    'Message-ID: <answer-1@grows.invalid>',
    `Date: ${new Date().toUTCString()}`,
    '',
    'How lovely.',
    '',
  ].join('\r\n');
  await page.goto('/mailroom');
  const taken = await page.request.post('/api/mailroom/drop', {
    headers: { 'content-type': 'application/octet-stream' },
    data: Buffer.from(answer),
  });
  expect(await taken.json()).toMatchObject({ taken: 1 });
  await page.goto('/series');
  await expect
    .poll(
      async () => {
        await page.reload();
        return page.getByText('stopped: answered').count();
      },
      { timeout: 60_000, intervals: [1000] },
    )
    .toBeGreaterThan(0);
  await forward(page, 40);
  await page.waitForTimeout(7000);
  expect(await lettersTo(page, 'nell@grows.invalid')).toEqual(['Sprouted', 'Sown']);
  await page.goto('/recipients/nell@grows.invalid');
  await expect(page.getByRole('region', { name: 'Person', exact: true })).toContainText(
    'stopped: answered · 2 of 3 sent',
  );
});
