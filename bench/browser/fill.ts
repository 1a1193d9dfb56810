/**
 * A keystroke in a question to the refreshed message, for a template as long as a page, in Chromium: as a ratio to the
 * 50 ms it is to stay below at the 95th percentile. And what the call line takes to show its hits in the page.
 */
import { quantile } from '../server.js';
import { BASE, onPage } from './server.js';

const KEYS = 200;
const PARAGRAPHS = 14;

function source(): string {
  const words = 'the garden opens its gate at nine and the guide waits beside the old willow'.split(' ');
  const paragraphs = Array.from({ length: PARAGRAPHS }, (_, index) => {
    const line = Array.from({ length: 34 }, (_word, at) => words[(index + at) % words.length] as string);
    line[5] = `{{v${index % 8}}}`;
    const text = `${line.join(' ')}.`;
    return index % 3 === 2 ? `{{#p${index % 4}}}\n\n${text}\n\n{{/p${index % 4}}}` : text;
  });
  const variables = [
    ...Array.from({ length: 8 }, (_, at) => `  v${at}: { type: text, required: true }`),
    ...Array.from({ length: 4 }, (_, at) => `  p${at}: { type: yes-no, default: true }`),
  ];
  return `---\nvocabula: 1\nkind: message\ntitle: A page\nsubject: "{{v0}}"\nto: "{{recipient.email}}"\nvariables:\n${variables.join('\n')}\n---\n${paragraphs.join('\n\n')}\n`;
}

export const bench = (): Promise<void> =>
  onPage(async (page) => {
    await page.request.post(`${BASE}/api/texts/import`, {
      data: { files: [{ file: 'a-page.md', content: source() }] },
    });
    const { revision } = (await (await page.request.get(`${BASE}/api/versions/a-page`)).json()) as { revision: number };
    await page.request.post(`${BASE}/api/versions/a-page/publish`, { data: { revision, note: 'For measuring' } });
    await page.goto(`${BASE}/fill/new?template=a-page`);
    await page.locator('[data-question="v0"] .control').waitFor();
    await page.waitForTimeout(1000);
    const times = await page.evaluate(async (keys) => {
      const input = document.querySelector<HTMLInputElement>('[data-question="v0"] .control');
      const frame = document.querySelector<HTMLIFrameElement>('iframe[title="The message"]');
      const shown = (): string => frame?.contentDocument?.body?.textContent ?? '';
      const found: number[] = [];
      input?.focus();
      let typed = 'zq';
      for (let at = 0; at < keys; at += 1) {
        typed = at % 40 === 0 ? 'zq' : typed + String.fromCharCode(97 + (at % 26));
        const begun = performance.now();
        if (input) input.value = typed;
        input?.dispatchEvent(new Event('input', { bubbles: true }));
        await new Promise<void>((resolve, reject) => {
          const look = (): void => {
            if (performance.now() - begun > 5000) reject(new Error('the message does not follow'));
            else if (shown().includes(typed)) resolve();
            else setTimeout(look, 0);
          };
          look();
        });
        found.push(performance.now() - begun);
        await new Promise((resolve) => setTimeout(resolve, 40));
      }
      return found;
    }, KEYS);
    console.log(
      `keystroke in a question to the message, of 50 ms: p50 ${(quantile(times, 0.5) / 50).toFixed(2)}×  p95 ${(quantile(times, 0.95) / 50).toFixed(2)}× (${KEYS} keys, ${PARAGRAPHS} paragraphs)`,
    );
  });
