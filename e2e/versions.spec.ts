/** From the working copy to what colleagues use, and back. */
import { expect, test, type Browser, type Page } from './journey.js';
import { signIn } from './people.js';
import { kept, openCopy, publish, select, startTemplate } from './steps.js';

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

test('publishing can be timed, and is taken back', async ({ page }) => {
  const name = await openCopy(page, 'visit-moved-by-weather', 'Timed copy');
  await publish(page, name);
  await page.locator('.body p').first().click();
  await page.keyboard.press('End');
  await page.keyboard.type(' Later.');
  await kept(page);
  await page.getByRole('button', { name: 'Publish…' }).click();
  await page.getByLabel('What is new, in a line').fill('From next year');
  await page.getByLabel('At a time').check();
  await page.getByLabel('Publish at').fill('1 January 2031');
  await page.getByLabel('Time of day').fill('8:00');
  await page.getByRole('button', { name: /^Publish then/ }).click();
  await expect(page.getByText(/publishes Wednesday,? 1 January 2031/i).first()).toBeVisible();
  // A moment that comes within the journey is kept to.
  const { revision } = await (await page.request.get(`/api/versions/${name}`)).json();
  const at = new Date(Date.now() + 1500).toISOString();
  await page.request.post(`/api/versions/${name}/publish`, { data: { revision, note: 'Soon', at } });
  await expect
    .poll(async () => (await (await page.request.get(`/api/versions/${name}`)).json()).published.number, {
      timeout: 30_000,
    })
    .toBe(2);
  await page.request.post(`/api/versions/${name}/publish`, {
    data: { revision, note: 'Much later', at: '2031-01-01T08:00:00Z' },
  });
  await page.goto(`/versions/${name}`);
  await page.getByRole('button', { name: 'Take back' }).click();
  await expect(page.getByText('Taken back: it is not published by itself.')).toBeVisible();
});

test('any two states are compared, and one is restored as a new working copy', async ({ page }) => {
  const name = await openCopy(page, 'visit-moved-by-weather', 'Compared copy');
  await publish(page, name, 'As it was');
  await page.locator('.body p').first().click();
  await page.keyboard.press('End');
  await page.keyboard.type(' Written since.');
  await kept(page);
  await publish(page, name, 'With more');
  await page.goto(`/versions/${name}`);
  await expect(page.getByText('version 1 compared with version 2')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Words' }).locator('mark')).toContainText('Written since.');
  await page
    .getByRole('list', { name: 'History' })
    .getByRole('button', { name: /^Version 1/ })
    .click();
  await page.getByRole('button', { name: 'compare with Version 2' }).click();
  await expect(page.getByText('version 2 compared with version 1')).toBeVisible();
  await page.getByRole('button', { name: 'Restore version 1' }).click();
  await expect(page.getByText(/The working copy is as version 1 was/)).toBeVisible();
  await page.goto(`/write/${name}`);
  await expect(page.locator('.body')).not.toContainText('Written since.');
  await expect(page.getByText('your changes are kept, not published')).toBeVisible();
});

test('a withdrawn version stops filling at once, and unfinished messages say so and are begun anew', async ({
  browser,
  page,
}) => {
  const name = await openCopy(page, 'visit-moved-by-weather', 'Withdrawn copy');
  await publish(page, name);
  const colleague = await as(browser, 'ines');
  await colleague.goto(`/fill/new?template=${name}`);
  await colleague.getByLabel('Recipient', { exact: true }).fill('Ann Lee <ann@lee.example>');
  await colleague.keyboard.press('Enter');
  await expect(colleague.getByText('kept', { exact: true })).toBeVisible();

  await page.goto(`/versions/${name}`);
  await page.getByRole('button', { name: 'Withdraw…' }).click();
  await page.getByLabel('Why').fill('The date is wrong');
  await page.getByRole('button', { name: 'Withdraw version 1' }).click();
  await expect(page.getByText('Withdrawn: colleagues cannot use it')).toBeVisible();

  await colleague.reload();
  await expect(colleague.getByRole('alert')).toContainText('withdrawn and must not be sent');
  await colleague.keyboard.press('Control+Shift+Enter');
  await expect(colleague.getByRole('status').filter({ hasText: 'Begin the message anew' })).toBeVisible();
  await publish(page, name, 'Mended');
  await colleague.getByRole('button', { name: 'Start again' }).click();
  await expect(colleague.getByText('Started again on the current version.')).toBeVisible();
  await expect(colleague.getByLabel('Recipient', { exact: true })).toHaveValue(/Ann Lee/);
  await colleague.context().close();
});

test('who may write but not publish asks, gets it back with a remark, asks again, and it is published', async ({
  browser,
  page,
}) => {
  const tomasz = await as(browser, 'tomasz');
  const folders = (await (await tomasz.request.get('/api/folders')).json()) as { id: string; title: string }[];
  const folder = folders.find(({ title }) => title === 'Seeds and loans')?.id;
  const file = {
    file: 'seed-loan.md',
    content: '---\nvocabula: 1\nkind: message\ntitle: Seed loan\nsubject: Your seeds\n---\nThey are on their way.\n',
  };
  await tomasz.request.post('/api/texts/import', { data: { files: [file], folder } });
  await tomasz.goto('/write/seed-loan');
  await tomasz.getByRole('button', { name: 'Ask…' }).click();
  await expect(tomasz.getByText(/somebody other than who changed it publishes/)).toBeVisible();
  await tomasz.getByLabel('What is new, in a line').fill('A letter for loans');
  await tomasz.getByRole('button', { name: /^Ask to publish/ }).click();
  await expect(tomasz.getByText(/^Request sent\./)).toBeVisible();

  await page.goto('/catalogue');
  await page.getByRole('button', { name: /^Requests/ }).click();
  const request = page.getByRole('article').filter({ hasText: 'Seed loan' });
  await expect(request).toContainText('A letter for loans');
  await request.getByRole('button', { name: 'Return…' }).click();
  await page.getByLabel('What is missing').fill('By when are they due back?');
  await page.getByRole('button', { name: 'Return it' }).click();
  await expect(page.getByText('Returned to Tomasz Wrona.')).toBeVisible();

  await tomasz.goto('/catalogue?view=asked');
  await expect(tomasz.getByText('By when are they due back?')).toBeVisible();
  await tomasz.getByRole('button', { name: 'Write', exact: true }).first().click();
  await tomasz.locator('.body p').first().click();
  await tomasz.keyboard.press('End');
  await tomasz.keyboard.type(' They are due back in May.');
  await kept(tomasz);
  await tomasz.getByRole('button', { name: 'Ask…' }).click();
  await tomasz.getByLabel('What is new, in a line').fill('With the date');
  await tomasz.getByRole('button', { name: /^Ask to publish/ }).click();
  await expect(tomasz.getByText(/^Request sent\./)).toBeVisible();
  await page.goto('/catalogue?view=asked');
  await request.getByRole('button', { name: 'Publish it' }).click();
  await expect(page.getByText('“Seed loan” is published.')).toBeVisible();
  await tomasz.reload();
  await expect(tomasz.getByText('Colleagues use version 1')).toBeVisible();
  await tomasz.context().close();
});
