/** Steps that several journeys take, as a person would take them. */
import type { Editor } from '@tiptap/core';
import { expect, type FileChooser, type Locator, type Page } from '@playwright/test';
import type { TextDocument } from '@vocabula/core';
import { writeText } from '@vocabula/core/markdown';

/** Starts a template with that title and puts the caret into its body. */
export async function startTemplate(page: Page, title: string): Promise<void> {
  await page.goto('/write');
  await page.getByLabel(/^Title/).fill(title);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Manuscript' })).toBeVisible();
  await page.locator('.body p').first().click();
}

/** Files as the browser's own dialog gives them. */
export type GivenFiles = Parameters<FileChooser['setFiles']>[0];
/** Answers the dialog for files that something on the page opens. */
export async function giveFiles(page: Page, opener: Locator, files: GivenFiles): Promise<void> {
  const chooser = page.waitForEvent('filechooser');
  await opener.click();
  await (await chooser).setFiles(files);
}

/** Selects words of the manuscript by their text, as dragging over them would. */
export async function select(page: Page, words: string): Promise<void> {
  await page.evaluate((wanted) => {
    const walker = document.createTreeWalker(document.querySelector('.ProseMirror') as Node, NodeFilter.SHOW_TEXT);
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const at = node.textContent?.indexOf(wanted) ?? -1;
      if (at < 0) continue;
      (document.querySelector('.ProseMirror') as HTMLElement).focus();
      getSelection()?.setBaseAndExtent(node, at, node, at + wanted.length);
      return;
    }
    throw new Error(`“${wanted}” is not in the manuscript`);
  }, words);
  // The editor learns of a selection after the browser has made it.
  await expect.poll(() => selectedWords(page)).toBe(words);
  await expect(page.getByRole('dialog', { name: 'Make of these words' })).toBeVisible();
}

/** What the editor holds to be selected. */
const selectedWords = (page: Page): Promise<string> =>
  page.locator('.ProseMirror').evaluate((element) => {
    const { state } = (element as unknown as { editor: Editor }).editor;
    return state.doc.textBetween(state.selection.from, state.selection.to, ' ');
  });

/** The words of the running proof, without what it shows as left out. */
export async function proofWords(page: Page): Promise<string> {
  const body = proof(page);
  return body
    .evaluate((element) => {
      const copy = element.cloneNode(true) as HTMLElement;
      for (const gone of copy.querySelectorAll('details')) gone.remove();
      return (copy.textContent ?? '').replace(/\u00A0/g, ' ');
    })
    .catch((error: unknown) => {
      // From one text to the next its frame is another: while there is none, nothing is said.
      if (String(error).includes('Frame was detached')) return '';
      throw error;
    });
}
export const proof = (page: Page): Locator => page.frameLocator('iframe[title="Proof"]').locator('body');

/** Waits until the proof says something, or does not. */
export const expectProof = (page: Page) => expect.poll(() => proofWords(page));

/** Waits until the working copy is kept, what was typed last included: its state follows the keystroke's painting. */
export async function kept(page: Page): Promise<void> {
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => setTimeout(done, 50))));
  await expect(page.getByRole('status').filter({ hasText: /^kept \d/ })).toBeVisible();
}

/** What is on the clipboard, as plain text and as HTML. */
export const clipboard = (page: Page): Promise<{ text: string; html: string }> =>
  page.evaluate(async () => {
    const [item] = await navigator.clipboard.read();
    const read = async (type: string): Promise<string> => (await item?.getType(type))?.text() ?? '';
    return { text: await read('text/plain'), html: await read('text/html') };
  });

/** Pastes where the caret is, as another program would have put it on the clipboard. */
export async function paste(page: Page, text: string, html: string): Promise<void> {
  await page.evaluate(
    async (parts) => {
      const blob = (type: string, content: string) => new Blob([content], { type });
      await navigator.clipboard.write([
        new ClipboardItem({ 'text/plain': blob('text/plain', parts.text), 'text/html': blob('text/html', parts.html) }),
      ]);
    },
    { text, html },
  );
  await page.keyboard.press('Control+v');
}

/** The text as its file would be, from what is kept. */
export async function storedText(page: Page, name: string): Promise<string> {
  const { document } = (await (await page.request.get(`/api/texts/${name}`)).json()) as { document: TextDocument };
  return writeText(document);
}

/** Opens a copy of a text, so that what is done to it is seen by no other journey. @returns its name */
export async function openCopy(page: Page, of: string, title: string): Promise<string> {
  const { document } = (await (await page.request.get(`/api/texts/${of}`)).json()) as { document: TextDocument };
  const { call: _call, ...front } = document.attrs.front;
  const data = { kind: front.kind, title, document: { ...document, attrs: { ...document.attrs, front } } };
  const { name } = (await (await page.request.post('/api/texts', { data })).json()) as { name: string };
  await page.goto(`/write/${name}`);
  await expect(page.getByRole('textbox', { name: 'Manuscript' })).toBeVisible();
  // Journeys begin once all that comes with the page is there.
  await expectProof(page).not.toBe('');
  return name;
}

/** Publishes the working copy of a text, without the page for it. */
export async function publish(page: Page, name: string, note = 'For a journey'): Promise<void> {
  const { revision } = (await (await page.request.get(`/api/versions/${name}`)).json()) as { revision: number };
  const answer = await page.request.post(`/api/versions/${name}/publish`, { data: { revision, note } });
  if (!answer.ok()) throw new Error(await answer.text());
}

/** Picks an option of a select, by its words or its place; of two with the same words in different groups, the first. */
export async function pick(select: Locator, option: string | number): Promise<void> {
  await select.click();
  const page = select.page();
  const wanted =
    typeof option === 'number'
      ? page.getByRole('option').nth(option)
      : page.getByRole('option', { name: option, exact: true }).first();
  await wanted.click();
  // The focus comes back to the field once the list is gone.
  await expect(page.locator('.p-select-overlay')).toHaveCount(0);
}
