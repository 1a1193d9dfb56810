/** Two versions of a template side by side: begun, looked at, ended, by key; colleagues notice the number alone. */
import { expect, test } from './journey.js';
import { signIn } from './people.js';

const source = (words: string): string =>
  `---\nvocabula: 1\nkind: message\ntitle: Tried twice\nsubject: "The garden"\nto: "{{recipient.email}}"\n---\n${words}\n`;

test('a trial is begun, looked at while messages go, and ended with one version for everybody', async ({ page }) => {
  const publish = async (note: string): Promise<void> => {
    const { revision } = (await (await page.request.get('/api/versions/tried-twice')).json()) as { revision: number };
    const published = await page.request.post('/api/versions/tried-twice/publish', { data: { revision, note } });
    expect(published.ok()).toBe(true);
  };
  const files = [{ file: 'tried-twice.md', content: source('Come and see the garden.') }];
  await page.request.post('/api/texts/import', { data: { files } });
  await publish('The first version');
  const text = (await (await page.request.get('/api/texts/tried-twice')).json()) as {
    readonly document: object;
    readonly revision: number;
  };
  const document = JSON.parse(
    JSON.stringify(text.document).replace('Come and see the garden.', 'Would you come and see the garden?'),
  ) as object;
  await page.request.put('/api/texts/tried-twice', { data: { document, revision: text.revision } });
  await publish('As a question');

  await page.goto('/versions/tried-twice');
  await page.getByRole('button', { name: 'Trial…' }).press('Enter');
  await expect(page.getByRole('region', { name: 'What differs' })).toContainText('Would you');
  await page.getByLabel(/^Smallest difference/).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('status').first()).toHaveText('Not yet: the difference may still be chance.');

  // Twelve people get it from a colleague, each in one of the two versions.
  await signIn(page.request, 'hana');
  const versions = new Map<number, string>();
  for (let at = 0; at < 12; at += 1) {
    const recipient = { first_name: 'Nell', email: `nell${at}@tried.example` };
    const fill = (await (
      await page.request.post('/api/fills', { data: { text: 'tried-twice', recipient } })
    ).json()) as { readonly id: string; readonly version: number };
    const gone = await page.request.post(`/api/fills/${fill.id}/hand-over`, {
      data: { way: 'service', at: new Date().toISOString() },
    });
    versions.set(fill.version, ((await gone.json()) as { readonly text: string }).text);
  }
  expect(versions.get(1)).toContain('Come and see the garden.');
  expect(versions.get(2)).toContain('Would you come and see the garden?');

  await signIn(page.request, 'maeve');
  await expect
    .poll(
      async () => {
        await page.reload();
        const counts = await page.getByRole('list', { name: 'Shares by version' }).innerText();
        return [...counts.matchAll(/of (\d+)/g)].reduce((sum, [, count]) => sum + Number(count), 0);
      },
      { timeout: 60_000, intervals: [1000] },
    )
    .toBe(12);
  await page.getByRole('button', { name: 'Everybody gets version 1' }).press('Enter');
  await expect(page.getByText('The words of version 1 are published for everybody.')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Past trials' })).toContainText('version 1 chosen by Maeve Aldous');
  await signIn(page.request, 'hana');
  const after = await page.request.post('/api/fills', { data: { text: 'tried-twice' } });
  expect(await after.json()).toMatchObject({ version: 3 });
});
