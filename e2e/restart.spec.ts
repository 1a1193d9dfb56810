import { expect, test } from './journey.js';
import { OwnServer } from './own-server.js';
import { signIn } from './people.js';
import { kept, startTemplate } from './steps.js';

test.use({ baseURL: 'http://127.0.0.1:4191' });
let server: OwnServer;
test.beforeEach(() => {
  server = new OwnServer(4191);
});
test.afterEach(() => server.end());

test('what was written and filled is found as it was after a stop, and after the process was killed', async ({
  page,
}) => {
  await server.start();
  await signIn(page.request, 'maeve');
  await startTemplate(page, 'Kept through a stop');
  await page.keyboard.type('These words stay.');
  await kept(page);
  const address = page.url();
  await page.goto('/fill/new?template=group-visit-confirmed');
  await page.getByLabel('Recipient', { exact: true }).fill('Ann Lee');
  await page.keyboard.press('Enter');
  await expect(page.getByText('kept', { exact: true })).toBeVisible();
  const filling = page.url();

  await server.stop('SIGTERM');
  await server.start();
  await page.goto(address);
  await expect(page.locator('.body')).toContainText('These words stay.');
  await page.goto(filling);
  await expect(page.getByLabel('Recipient', { exact: true })).toHaveValue('Ann Lee');

  // While the server is away, nothing that is typed is lost: it is kept as soon as there is one again.
  await page.goto(address);
  await page.locator('.body p').first().click();
  await page.keyboard.press('End');
  await server.stop('SIGKILL');
  await page.keyboard.type(' And these, typed while it was away.');
  await expect(page.getByText(/^not connected: kept in this browser/)).toBeVisible();
  await server.start();
  await kept(page);
  await page.reload();
  await expect(page.locator('.body')).toContainText('typed while it was away.');
});
