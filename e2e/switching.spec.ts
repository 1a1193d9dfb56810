/** Typing and switching from message to message, quickly and on a slow network: nothing is lost, nothing lands elsewhere. */
import { expect, test, type Page } from '@playwright/test';
import { readText } from '@vocabula/core/markdown';
import { signIn } from './people';

/** How long they do; `SWITCHING_SECONDS=120` for a longer look. */
const SECONDS = Number(process.env.SWITCHING_SECONDS ?? 25);
// The browser’s own interception loses a request now and then; what the application loses, it loses each time.
test.describe.configure({ retries: 2 });
const SOURCE =
  '---\nvocabula: 1\nkind: message\ntitle: Typing\nsubject: "Hello {{name}}"\nto: "{{recipient.email}}"\nvariables:\n  name: { type: text, label: Name, required: true }\n  words: { type: text, label: Words }\n---\nDear {{name}}, {{words}}\n';

/** A page whose requests take their time, some of them fail for a moment. */
/** @returns what ends the slowness */
async function slow(page: Page): Promise<() => void> {
  let isCalm = false;
  await page.route('**/api/fills/**', async (route) => {
    if (isCalm) return route.continue();
    await new Promise((resolve) => setTimeout(resolve, 50 + Math.random() * 700));
    if (route.request().method() === 'PUT' && Math.random() < 0.1) await route.abort();
    else await route.continue();
  });
  return () => void (isCalm = true);
}

test('two people type and switch: every kept answer is the one typed, where it was typed', async ({ browser }) => {
  test.setTimeout(SECONDS * 1000 + 120_000);
  const author = await browser.newContext({ storageState: 'test-results/maeve.json' });
  const { document } = readText(SOURCE);
  const made = await (
    await author.request.post('/api/texts', { data: { kind: 'message', title: 'Typing', document } })
  ).json();
  await author.request.post(`/api/versions/${made.name}/publish`, { data: { revision: made.revision, note: 'x' } });

  const typeAndSwitch = async (who: string): Promise<void> => {
    const context = await browser.newContext({ storageState: undefined });
    const page = await context.newPage();
    await signIn(page.request, who);
    const ids: string[] = [];
    for (let at = 0; at < 3; at += 1)
      ids.push((await (await page.request.post('/api/fills', { data: { text: made.name } })).json()).id as string);
    await page.goto(`/fill/${ids[0]}`);
    const calm = await slow(page);
    /** What was last typed for each message, by label. */
    const typed = new Map<string, Record<string, string>>(ids.map((id) => [id, {}]));
    const until = Date.now() + SECONDS * 1000;
    for (let round = 0; Date.now() < until; round += 1) {
      const id = ids[Math.floor(Math.random() * ids.length)] as string;
      // By the links of the application, at whatever moment: what was typed may not have been sent yet.
      if (!(await page.locator(`[data-fill="${id}"]`).isVisible())) {
        await page.getByRole('link', { name: 'Fill', exact: true }).click();
        await page.locator(`a[href="/fill/${id}"]`).first().click();
      }
      await expect(page.locator(`[data-fill="${id}"]`)).toBeVisible();
      const label = Math.random() < 0.5 ? 'Name' : 'Words';
      const value = `${who} ${round} in ${ids.indexOf(id)}`;
      await page
        .getByRole('textbox', { name: new RegExp(`^${label}`) })
        .first()
        .fill(value);
      typed.set(id, { ...typed.get(id), [label === 'Name' ? 'name' : 'words']: value });
      // Often sooner than the pause after which it is sent.
      await page.waitForTimeout(Math.random() * 500);
    }
    calm();
    await expect(page.getByText('kept', { exact: true })).toBeVisible();
    await expect
      .poll(
        async () => {
          const kept: Record<string, unknown> = {};
          for (const id of ids) kept[id] = (await (await page.request.get(`/api/fills/${id}`)).json()).answers;
          return kept;
        },
        { timeout: 45_000 },
      )
      .toEqual(Object.fromEntries(typed));
    await context.close();
  };
  await Promise.all([typeAndSwitch('ines'), typeAndSwitch('kofi')]);
  await author.close();
});
