import { expect, test, type CDPSession, type Page } from './journey.js';
import { kept, openCopy, storedText } from './steps.js';

/** A text with words inside and beside an optional phrase and a placeholder. */
async function openEdges(page: Page, title: string): Promise<string> {
  const name = title.toLowerCase();
  const source = `---\nvocabula: 1\nkind: message\ntitle: ${title}\nvariables:\n  name: { type: text }\n  rain: { type: yes-no, default: false }\n---\nab{{#rain}}cd{{/rain}}ef {{name}} gh\n`;
  await page.request.post('/api/texts/import', { data: { files: [{ file: `${name}.md`, content: source }] } });
  await page.goto(`/write/${name}`);
  await expect(page.locator('.body .phrase')).toBeVisible();
  return name;
}
/** Puts the caret behind the words that begin a line, by keys from its start. */
async function caretAt(page: Page, steps: number): Promise<void> {
  await page.locator('.body p').first().click();
  await page.keyboard.press('Home');
  for (let step = 0; step < steps; step += 1) await page.keyboard.press('ArrowRight');
}
const body = async (page: Page, name: string): Promise<string> => {
  await kept(page);
  return (await storedText(page, name)).split('---\n')[2]?.trim() ?? '';
};

test('one arrow press crosses an edge without passing a letter, the foot names the path, and typing does what it shows', async ({
  page,
}) => {
  const name = await openEdges(page, 'Edges');
  const path = page.locator('.foot');
  await caretAt(page, 2);
  await expect(path).not.toContainText('Rain');
  await page.keyboard.press('ArrowRight');
  await expect(path).toContainText('Rain');
  await page.keyboard.type('1');
  expect(await body(page, name)).toBe('ab{{#rain}}1cd{{/rain}}ef {{name}} gh');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.type('2');
  await page.keyboard.press('ArrowRight');
  await expect(path).not.toContainText('Rain');
  await page.keyboard.type('3');
  expect(await body(page, name)).toBe('ab{{#rain}}1cd2{{/rain}}3ef {{name}} gh');
  // Back over the edge: the same place, inside again.
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowLeft');
  await expect(path).toContainText('Rain');
  await page.keyboard.type('4');
  expect(await body(page, name)).toBe('ab{{#rain}}1cd24{{/rain}}3ef {{name}} gh');
});

test('an input method composes in a passage, beside it, beside a placeholder and in the subject', async ({ page }) => {
  const name = await openEdges(page, 'Composing');
  const client = await page.context().newCDPSession(page);
  await caretAt(page, 4);
  await compose(client, ['k', 'か', 'かわ', '川']);
  await page.keyboard.press('End');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowLeft');
  await compose(client, ['h', 'ひ', '日']);
  await page.locator('.line.subject .line-text').click();
  await compose(client, ['´', 'é']);
  expect(await body(page, name)).toBe('ab{{#rain}}c川d{{/rain}}ef {{name}}日 gh');
  expect(await storedText(page, name)).toContain('subject: "é"');
});

/** Composes step by step, as an input method does, and takes the last. */
async function compose(client: CDPSession, steps: readonly string[]): Promise<void> {
  for (const text of steps)
    await client.send('Input.imeSetComposition', { text, selectionStart: text.length, selectionEnd: text.length });
  await client.send('Input.insertText', { text: steps.at(-1) ?? '' });
}

test('the paragraph with the caret stands level in manuscript and proof', async ({ page }) => {
  await openCopy(page, 'group-visit-confirmed', 'Level');
  const last = page.locator('.body > p').last();
  await last.click();
  await page.keyboard.press('End');
  await page.keyboard.type(' Level.');
  const shown = page.frameLocator('iframe[title="Proof"]').getByText('Level.');
  await expect(shown).toBeVisible();
  await expect
    .poll(async () => {
      const [left, right] = [await last.boundingBox(), await shown.boundingBox()];
      const pane = await page.locator('.pane').boundingBox();
      if (!left || !right || !pane) return 'not shown';
      // Both in sight: in the same band of the window, as far as the shorter pane can scroll.
      return right.y >= pane.y && right.y + right.height <= pane.y + pane.height + 400
        ? 'in sight'
        : `${left.y} ${right.y}`;
    })
    .toBe('in sight');
});
