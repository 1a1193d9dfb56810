/** From the working copy to what colleagues use, and back. */
import { expect, test, type Browser, type Page } from './journey.js';
import { signIn } from './people.js';
import { kept, publish, select, startTemplate } from './steps.js';

const as = async (browser: Browser, key: string): Promise<Page> => {
  const page = await (await browser.newContext({ storageState: { cookies: [], origins: [] } })).newPage();
  await signIn(page.request, key);
  return page;
};
/** Puts a block into a template, both published, and goes to the block. */
async function blockInTemplate(page: Page, title: string): Promise<{ block: string; template: string }> {
  const [block, template] = [`${title}-block`, `${title}-template`];
  const source = (kind: string, name: string, body: string): string =>
    `---\nvocabula: 1\nkind: ${kind}\ntitle: ${name}\n${kind === 'message' ? `subject: Hello\nto: "{{recipient.email}}"\n` : ''}---\n${body}\n`;
  const files = [
    { file: `${block}.md`, content: source('block', `${title} block`, 'The gate opens at nine.') },
    {
      file: `${template}.md`,
      content: source('message', `${title} template`, `Dear {{recipient.first_name}},\n\n{{> ${block}}}`),
    },
  ];
  await page.request.post('/api/texts/import', { data: { files } });
  await publish(page, block);
  await publish(page, template);
  await page.goto(`/write/${block}`);
  return { block, template };
}

test('publishing a block shows every template that changes, before and after, and colleagues get it at once', async ({
  browser,
  page,
}) => {
  const { template } = await blockInTemplate(page, 'impact');
  await expect(page.getByText('Colleagues use version 1')).toBeVisible();
  await page.locator('.body p').first().click();
  await page.keyboard.press('End');
  await page.keyboard.type(' Dogs are welcome.');
  await kept(page);
  await expect(page.getByText('your changes are kept, not published')).toBeVisible();
  const colleague = await as(browser, 'ines');
  const words = async (): Promise<string> =>
    JSON.stringify(await (await colleague.request.get(`/api/texts/${template}/closure?for=fill`)).json());
  expect(await words()).not.toContain('Dogs');

  await page.getByRole('button', { name: 'Publish…' }).click();
  const impact = page.getByRole('region', { name: 'Impact' });
  await expect(impact.getByText(/1 template of 1 read differently: 40 sample messages change/)).toBeVisible();
  await expect(impact.locator('.after').first()).toContainText('Dogs are welcome.');
  await expect(impact.locator('.before').first()).not.toContainText('Dogs');
  await page.getByRole('button', { name: 'What changed' }).click();
  await expect(page.getByRole('region', { name: 'Words' }).locator('mark').last()).toContainText('Dogs are welcome.');
  // Without a word on what is new it is not done.
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('⚠ say what is new')).toBeVisible();
  await page.getByLabel('What is new, in a line').fill('Dogs may come');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText(/Published: colleagues use version 2/)).toBeVisible();
  expect(await words()).toContain('Dogs are welcome.');
  await colleague.context().close();
});

test('errors stop it and are named; open remarks are named too, hang on their words, and are never rendered', async ({
  page,
}) => {
  await startTemplate(page, 'Remarked upon');
  await page.keyboard.type('We open at nine.');
  await select(page, 'at nine');
  await page.keyboard.press('Alt+Enter');
  await page.keyboard.press('m');
  await page.keyboard.type('Is that so in winter?');
  await page.getByRole('button', { name: 'Add remark' }).click();
  await expect(page.locator('.remarked')).toHaveText('at nine');
  await page.getByRole('tab', { name: /^Remarks/ }).click();
  await expect(page.getByText('Is that so in winter?')).toBeVisible();
  // The words it hangs on are found again when others come before them.
  await page.locator('.body p').first().click();
  await page.keyboard.press('Home');
  await page.keyboard.type('In spring and autumn, ');
  await kept(page);
  await page.reload();
  await expect(page.locator('.remarked')).toHaveText('at nine');
  await page.getByRole('button', { name: 'Publish…' }).click();
  await expect(page.getByText(/1 error stops it/)).toBeVisible();
  await expect(page.getByText('The template has no subject.')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Publish as version 1/ })).toBeDisabled();
  await expect(page.getByRole('region', { name: 'Open remarks' })).toContainText('Is that so in winter?');
  await page.getByRole('link', { name: 'Fix them in Write' }).click();
  await page.getByRole('tab', { name: /^Remarks/ }).click();
  await page.getByRole('button', { name: 'Settle' }).click();
  await expect(page.locator('.remarked')).toHaveCount(0);
});
