/** Coming in, being invited, and not seeing what is somebody else's. */
import { pick } from './steps';
import { expect, test, type Browser, type Page } from './journey.js';
import { password, signIn } from './people.js';

/** A page of somebody who is not signed in yet. */
const stranger = async (browser: Browser): Promise<Page> =>
  (await browser.newContext({ storageState: { cookies: [], origins: [] } })).newPage();
const as = async (browser: Browser, key: string): Promise<Page> => {
  const page = await stranger(browser);
  await signIn(page.request, key);
  return page;
};

test('one signs in by address and password, lands where one wanted to go, and signs out', async ({ browser }) => {
  const page = await stranger(browser);
  await page.goto('/catalogue/opening-hours');
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await page.getByLabel('Address').fill('petra@larkmoor.example');
  await page.getByLabel('Password').fill('not this one');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toHaveText('⚠ Address and password do not fit together.');
  await page.getByLabel('Password').fill(password);
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/catalogue\/opening-hours$/);
  await expect(page.getByRole('button', { name: 'Write', exact: true })).toBeVisible();
  await page.goto('/settings/sign-in');
  await expect(page.getByText('this one', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Sign out', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  expect((await page.request.get('/api/me')).status()).toBe(401);
  // The demo’s people are there to pick from.
  await page.getByRole('button', { name: 'Inês Duarte' }).click();
  await expect(page).toHaveURL(/\/fill$/);
});

test('an invitation is copied, followed once, and its person is as they were invited', async ({ browser }) => {
  const admin = await as(browser, 'ruairi');
  await admin.context().grantPermissions(['clipboard-read', 'clipboard-write']);
  await admin.goto('/settings/people');
  await admin.getByLabel('Name', { exact: true }).fill('Oisín Fell');
  await admin.getByLabel('Address', { exact: true }).fill('oisin@larkmoor.example');
  await pick(admin.getByRole('combobox', { name: /^Role(?! of)/ }), 'colleague');
  await admin.getByRole('button', { name: 'Create invitation' }).click();
  await admin.getByRole('button', { name: 'Copy the link' }).click();
  await expect(admin.getByText('Link copied.')).toBeVisible();
  const link = await admin.evaluate(() => navigator.clipboard.readText());
  await expect(admin.getByRole('row', { name: /Oisín Fell/ })).toContainText('invited');

  const guest = await stranger(browser);
  await guest.goto(link);
  await expect(guest.getByRole('heading', { name: 'Welcome, Oisín Fell' })).toBeVisible();
  await guest.getByLabel(/^Password/).fill('geese on the lawn');
  await guest.keyboard.press('Enter');
  await expect(guest).toHaveURL(/\/fill$/);
  // A colleague’s places, theirs first.
  await expect(guest.getByRole('navigation', { name: 'Places' }).getByRole('link')).toHaveText([
    'Fill',
    'Catalogue',
    'Mailroom',
    'Looking back',
    'Settings',
  ]);
  const again = await stranger(browser);
  await again.goto(link);
  await expect(again.getByText(/followed already/)).toBeVisible();

  await admin.reload();
  await admin
    .getByRole('row', { name: /Oisín Fell/ })
    .getByRole('button', { name: 'End' })
    .click();
  await expect(admin.getByText(/can no longer sign in/)).toBeVisible();
  await guest.goto('/fill');
  await expect(guest.getByRole('heading', { name: 'Sign in' })).toBeVisible();
});

test('what is private is not seen by a colleague, in the pages or through the interface', async ({ browser, page }) => {
  const folders = (await (await page.request.get('/api/folders')).json()) as { id: string; own: boolean }[];
  const own = folders.find((folder) => folder.own)?.id ?? '';
  await page.goto(`/catalogue?in=${own}`);
  await page.getByRole('button', { name: 'Start a text' }).click();
  await expect(page.getByLabel('In the folder')).toHaveText('My own');
  await page.getByLabel(/^Title/).fill('Surprise for the volunteers');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Manuscript' })).toBeVisible();

  for (const key of ['ines', 'petra', 'ruairi']) {
    const other = await as(browser, key);
    await other.goto('/catalogue');
    await expect(other.getByRole('listbox', { name: 'Texts' }).getByRole('option').first()).toBeVisible();
    await other.getByLabel('Filter the list').fill('surprise');
    await expect(other.getByText('No text matches this filter.')).toBeVisible();
    await other.goto('/catalogue/surprise-for-the-volunteers');
    await expect(other.getByText('Choose a text to read it here.')).toBeVisible();
    for (const address of [
      'texts/surprise-for-the-volunteers',
      'texts/surprise-for-the-volunteers/closure',
      'versions/surprise-for-the-volunteers',
    ])
      expect((await other.request.get(`/api/${address}`)).status()).toBe(404);
    await other.context().close();
  }
  // What authors do is no place of a colleague’s.
  const colleague = await as(browser, 'kofi');
  await colleague.goto('/write/opening-hours');
  await expect(colleague.getByText(/No page at this address/).first()).toBeVisible();
  expect((await colleague.request.get('/api/texts/opening-hours')).status()).toBe(403);
  expect((await colleague.request.get('/api/audit')).status()).toBe(403);
});

test('a key lets another program render, and is shown once', async ({ page, playwright, baseURL }) => {
  await page.goto('/settings/programs');
  await page.getByLabel('What it is for').fill('Website');
  await page.getByLabel('ask questions and render messages').check();
  await page.getByRole('button', { name: 'Make it' }).click();
  const key = (await page.locator('code').textContent()) ?? '';
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(page.locator('code')).toHaveCount(0);
  const program = await playwright.request.newContext({
    ...(baseURL ? { baseURL } : {}),
    storageState: { cookies: [], origins: [] },
    extraHTTPHeaders: { authorization: `Bearer ${key}` },
  });
  const answer = await program.post('/api/v1/texts/visit-moved-by-weather/render', {
    data: { recipient: { first_name: 'Ann', email: 'ann@x.example', visit_date: '2027-06-14' } },
  });
  expect(await answer.json()).toMatchObject({
    version: 1,
    to: ['ann@x.example'],
    subject: 'Monday’s visit has to wait',
  });
  await page.goto('/api/v1');
  await expect(page.getByRole('heading', { name: 'For other programs' })).toBeVisible();
  const document = await (await program.get('/api/v1/openapi.json')).json();
  expect([document.openapi, Object.keys(document.paths).length]).toEqual(['3.1.0', 12]);
  await page.goto('/settings/programs');
  await page.getByRole('listitem').filter({ hasText: 'Website' }).getByRole('button', { name: 'Take back' }).click();
  await expect(page.getByText(/is revoked/)).toBeVisible();
  expect((await program.get('/api/v1/texts')).status()).toBe(401);
});
