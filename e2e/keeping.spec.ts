import { expect, test, type APIRequestContext, type Page } from './journey.js';
import { kept, startTemplate } from './steps.js';

/** Saves the text as somebody else would: the same document with other words in it. */
async function saveElsewhere(request: APIRequestContext, name: string, from: string, to: string): Promise<void> {
  const address = `/api/texts/${name}`;
  const theirs = (await (await request.get(address)).json()) as { revision: number; document: unknown };
  const words = JSON.stringify(theirs.document).replace(from, to);
  await request.put(address, { data: { document: JSON.parse(words), revision: theirs.revision } });
}
async function writeAt(page: Page, line: number, words: string): Promise<void> {
  await page.locator('.body p').nth(line).click();
  await page.keyboard.press('End');
  await page.keyboard.type(words);
}

test('a text saved from elsewhere meanwhile is brought together part by part, and neither side is lost', async ({
  page,
  request,
}) => {
  await startTemplate(page, 'Two hands');
  await page.keyboard.type('The first paragraph.');
  await page.keyboard.press('Enter');
  await page.keyboard.type('The second paragraph.');
  await kept(page);
  await saveElsewhere(request, 'two-hands', 'The first paragraph.', 'Their first paragraph.');
  await writeAt(page, 1, ' And mine.');
  const dialog = page.getByRole('dialog', { name: /saved from somewhere else/ });
  await expect(dialog).toContainText('Their first paragraph.');
  await expect(dialog).toContainText('only you changed this');
  await expect(dialog).toContainText('Nothing is lost');
  await page.keyboard.press('Control+Enter');
  await expect(dialog).toHaveCount(0);
  await kept(page);
  await page.reload();
  await expect(page.locator('.body p')).toHaveText(['Their first paragraph.', 'The second paragraph. And mine.']);

  await kept(page);
  await saveElsewhere(request, 'two-hands', 'Their first paragraph.', 'Their other words.');
  await writeAt(page, 0, ' My other words.');
  await expect(dialog.locator('.undecided')).toHaveCount(1);
  await expect(dialog.getByRole('button', { name: /^Go on with this text/ })).toBeDisabled();
  await dialog.getByRole('radio', { name: 'Theirs' }).check();
  await expect(dialog).toContainText('Yours as it is now is kept as a copy.');
  await page.keyboard.press('Control+Enter');
  await expect(page.locator('.body p').first()).toHaveText('Their other words.');
  await kept(page);
  await page.goto('/catalogue');
  await page.getByLabel('Filter the list').fill('two hands');
  await expect(page.getByRole('listbox', { name: 'Texts' }).getByText('Two hands (my copy)')).toBeVisible();
});

test('without a connection writing goes on, is kept in the browser through a reload, and is saved when it returns', async ({
  page,
  context,
  request,
}) => {
  await startTemplate(page, 'On the train');
  await page.keyboard.type('Before the tunnel.');
  await kept(page);
  await context.setOffline(true);
  await page.keyboard.type(' In the tunnel.');
  await expect(page.getByRole('status').filter({ hasText: 'not connected: kept in this browser' })).toBeVisible();
  await page.keyboard.type(' Still in it.');
  await context.setOffline(false);
  await kept(page);
  const stored = await (await request.get('/api/texts/on-the-train')).text();
  expect(stored).toContain('Before the tunnel. In the tunnel. Still in it.');

  // The server is out of reach, and the window is closed before it comes back.
  await page.route('**/api/texts/on-the-train', (route) => route.abort());
  await page.keyboard.type(' Out.');
  await expect(page.getByRole('status').filter({ hasText: 'not connected: kept in this browser' })).toBeVisible();
  page.once('dialog', (dialog) => void dialog.accept());
  await page.goto('/catalogue');
  await page.unroute('**/api/texts/on-the-train');
  await page.goto('/write/on-the-train');
  await expect(page.locator('.body')).toContainText('Still in it. Out.');
  await kept(page);
  expect(await (await request.get('/api/texts/on-the-train')).text()).toContain('Still in it. Out.');
});
