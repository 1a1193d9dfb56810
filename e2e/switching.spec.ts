/** Typing and switching from message to message, quickly and on a slow network: nothing is lost, nothing lands elsewhere. */
import { once } from 'node:events';
import { createServer, request, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { expect, test } from './journey.js';
import { readText } from '@vocabula/core/markdown';
import { signIn } from './people';

/** How long they do; `SWITCHING_SECONDS` for a shorter or longer look. */
const SECONDS = Number(process.env.SWITCHING_SECONDS ?? 60);
const SOURCE =
  '---\nvocabula: 1\nkind: message\ntitle: Typing\nsubject: "Hello {{name}}"\nto: "{{recipient.email}}"\nvariables:\n  name: { type: text, label: Name, required: true }\n  words: { type: text, label: Words }\n---\nDear {{name}}, {{words}}\n';

/** Of what is kept, one in so many does not arrive, or its answer does not. */
const LOST_OF = 10;
/** Milliseconds that each request is under way. */
const SLOWNESS = [50, 750] as const;

/**
 * The application behind a slow network that loses some of what is to be kept on its way there, and some answers on
 * their way back.
 * @returns its address, and what makes the network good again
 */
async function behindSlowNetwork(target: string): Promise<{ address: string; calm: () => void; server: Server }> {
  let isCalm = false;
  const pause = (): Promise<void> =>
    new Promise((resolve) => setTimeout(resolve, SLOWNESS[0] + Math.random() * (SLOWNESS[1] - SLOWNESS[0])));
  const server = createServer((asked, answer) => {
    void (async () => {
      const isSlow = !isCalm && asked.url?.startsWith('/api/fills/');
      const chance = isSlow && asked.method === 'PUT' ? Math.random() * LOST_OF : LOST_OF;
      if (isSlow) await pause();
      if (chance < 0.5) return answer.destroy();
      const onward = request(`${target}${asked.url}`, { method: asked.method, headers: asked.headers }, (given) => {
        if (chance < 1) return void given.resume().on('end', () => answer.destroy());
        answer.writeHead(given.statusCode ?? 500, given.headers);
        given.pipe(answer);
      });
      onward.on('error', () => answer.destroy());
      asked.pipe(onward);
    })();
  }).listen(0, '127.0.0.1');
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  return { address: `http://127.0.0.1:${port}`, calm: () => void (isCalm = true), server };
}

test('four people type and switch: every kept answer is the one typed, where it was typed', async ({
  browser,
  baseURL,
}) => {
  const network = await behindSlowNetwork(String(baseURL));
  test.setTimeout(SECONDS * 1000 + 120_000);
  const author = await browser.newContext({ storageState: 'test-results/maeve.json' });
  const { document } = readText(SOURCE);
  const made = await (
    await author.request.post('/api/texts', { data: { kind: 'message', title: 'Typing', document } })
  ).json();
  await author.request.post(`/api/versions/${made.name}/publish`, { data: { revision: made.revision, note: 'x' } });

  const typeAndSwitch = async (who: string): Promise<void> => {
    const context = await browser.newContext({ storageState: undefined, baseURL: network.address });
    const page = await context.newPage();
    await signIn(page.request, who);
    const ids: string[] = [];
    for (let at = 0; at < 3; at += 1)
      ids.push((await (await page.request.post('/api/fills', { data: { text: made.name } })).json()).id as string);
    await page.goto(`/fill/${ids[0]}`);
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
    network.calm();
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
  await Promise.all(['ines', 'kofi', 'petra', 'hana'].map(typeAndSwitch));
  await author.close();
  network.server.closeAllConnections();
  network.server.close();
});
