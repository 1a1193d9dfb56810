import { readdirSync, readFileSync } from 'node:fs';
import { expect, test } from './journey.js';
import { startTemplate, storedText } from './steps.js';

const FOLDER = 'core/fixtures/paste';
const fixtures = readdirSync(FOLDER).filter((name) => name.endsWith('.html'));

for (const fixture of fixtures)
  test(`${fixture} pasted comes out clean`, async ({ page }) => {
    const name = fixture.replace('.html', '');
    const html = readFileSync(`${FOLDER}/${fixture}`, 'utf8');
    const asked: string[] = [];
    page.on('request', (request) => {
      if (!request.url().startsWith('http://127.0.0.1') && !/^(data|blob):/.test(request.url()))
        asked.push(request.url());
    });
    await startTemplate(page, `Pasted ${name}`);
    await page.evaluate((source) => {
      const data = new DataTransfer();
      data.setData('text/html', source);
      data.setData('text/plain', 'as plain text');
      document.activeElement?.dispatchEvent(
        new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
      );
    }, html);
    const body = async (): Promise<string> =>
      (await storedText(page, `pasted-${name}`)).split('---\n').slice(2).join('---\n').trim();
    await expect.poll(body).toBe(readFileSync(`${FOLDER}/${name}.md`, 'utf8').trim());
    await expect(page.locator('.body [style*="font"], .body script, .body iframe')).toHaveCount(0);
    // Nothing is fetched from where the text came from: no tracking pixel learns of the paste.
    expect(asked).toEqual([]);
  });

test('a paste of 2 MB of HTML is refused in words, and the manuscript stays as it is', async ({ page }) => {
  await startTemplate(page, 'Pasted too much');
  await page.keyboard.type('Untouched.');
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData('text/html', `<p>${'<b>many</b> words '.repeat(140_000)}</p>`);
    document.activeElement?.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  });
  await expect(page.locator('.foot')).toContainText('more than 2 MB of formatted text');
  await expect(page.locator('.body')).toHaveText('Untouched.');
});
