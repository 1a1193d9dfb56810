/** A text is put into another language by keyboard, published, kept up with its original, and offered where it is read. */
import type { WorkingCopy } from '@vocabula/contract';
import { expect, test } from './journey.js';

test('a text is put into another language line by line, published, and offered to who reads it', async ({ page }) => {
  test.setTimeout(120_000);
  const { request } = page;
  const source = `---
vocabula: 1
kind: message
title: Path closed
subject: "The path is closed on {{day}}"
variables:
  first_name: { type: text, label: First name, from: recipient.first_name, required: true }
  day: { type: date, label: Day, required: true }
  rain: { type: yes-no, label: Rain }
---
Dear {{first_name}},

The **upper path** is closed on {{day}}{{#rain}}, for it has rained{{/rain}}.

With good wishes
`;
  const files = [{ file: 'path-closed.md', content: source }];
  expect((await request.post('/api/texts/import', { data: { files } })).ok()).toBe(true);
  const publish = async (name: string): Promise<void> => {
    const { revision } = (await (await request.get(`/api/texts/${name}`)).json()) as WorkingCopy;
    const done = await request.post(`/api/versions/${name}/publish`, { data: { revision, note: 'For the journey' } });
    expect(done.ok()).toBe(true);
  };
  await publish('path-closed');

  await page.goto('/languages/path-closed');
  await page.getByRole('button', { name: 'New language version' }).press('Enter');
  const dialog = page.getByRole('dialog', { name: 'New language version' });
  await expect(dialog.getByRole('combobox', { name: 'Language' })).toBeFocused();
  await page.keyboard.press('Space');
  await expect(page.getByRole('option', { name: 'German (Germany)' })).toBeVisible();
  // Typing finds it in the list.
  await page.keyboard.type('German', { delay: 30 });
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(dialog.getByRole('combobox', { name: 'Language' })).toHaveText('German (Germany)');
  await page.keyboard.press('Tab');
  await page.keyboard.type('Weg gesperrt');
  await page.keyboard.press('Enter');
  const status = page.getByRole('main').getByRole('status');
  await expect(status).toHaveText('7 to translate');

  // One line after the other: Enter says that it fits, and goes on to the next.
  await page.getByRole('button', { name: 'Next line to do' }).press('Enter');
  // For 200 ms after it got the focus, an editor takes a caret at its very beginning for a slip of the browser.
  const settled = (): Promise<void> => page.waitForTimeout(250);
  await expect(page.getByRole('textbox', { name: /^Subject/ })).toBeFocused();
  await settled();
  // Words before the placeholder are written anew; it stays where it is.
  await page.keyboard.press('Home');
  for (let step = 0; step < 'The path is closed on '.length; step += 1) await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.type('Der Weg ist gesperrt am ');
  await page.keyboard.press('Enter');
  await expect(status).toHaveText('6 to translate');
  await settled();
  await page.keyboard.press('Home');
  for (let step = 0; step < 'Dear'.length; step += 1) await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.type('Guten Tag');
  await page.keyboard.press('Enter');
  await expect(status).toHaveText('5 to translate');
  await settled();
  // Bold by its key, in words of its own; the placeholder and the passage stay.
  await page.keyboard.press('Home');
  for (let step = 0; step < 'The upper path is closed on '.length; step += 1)
    await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.type('Der obere Weg ist gesperrt am ');
  await page.keyboard.press('Enter');
  for (const label of ['Mit guten Wünschen', 'Vorname', 'Tag', 'Regen']) {
    await settled();
    await page.keyboard.press('Control+A');
    await page.keyboard.type(label);
    await page.keyboard.press('Enter');
  }
  await expect(status).toHaveText('Every line says what the original says.');
  await expect(page.getByText(/^kept/)).toBeVisible();
  const made = (await (await request.get('/api/texts/weg-gesperrt/file')).text()).replace(/\r/g, '');
  expect(made).toContain('subject: "Der Weg ist gesperrt am {{day}}"');
  expect(made).toContain('translation_of: path-closed');
  expect(made).toContain('Der obere Weg ist gesperrt am {{day}}{{#rain}}, for it has rained{{/rain}}.');
  await publish('weg-gesperrt');

  // The original changes: the line is marked, with the words that are new.
  const { document, revision } = (await (await request.get('/api/texts/path-closed')).json()) as WorkingCopy;
  const changed = JSON.stringify(document).replace('With good wishes', 'With good wishes from the garden');
  await request.put('/api/texts/path-closed', { data: { document: JSON.parse(changed), revision } });
  await page.reload();
  await expect(status).toHaveText('1 changed');
  await expect(page.locator('mark')).toHaveText(/from the garden/);

  // Somebody whose field says so is offered it, with what was answered.
  const begun = await request.post('/api/fills', {
    data: {
      text: 'path-closed',
      recipient: { email: 'jutta@quillmere.invalid', first_name: 'Jutta', language: 'Deutsch' },
      answers: { day: '2027-05-11' },
    },
  });
  await page.goto(`/fill/${((await begun.json()) as { id: string }).id}`);
  const message = page.frameLocator('iframe').first();
  await expect(message.getByText('Dear Jutta')).toBeVisible();
  await page.getByRole('button', { name: 'Use “Weg gesperrt”' }).press('Enter');
  await expect(message.getByText('Guten Tag Jutta')).toBeVisible();
  await expect(message.getByText(/gesperrt am 11\. Mai 2027/)).toBeVisible();
});
