/**
 * Writing in a long text, measured in Chromium against a server of its own: 5,000 words with 200 placeholders and 60
 * passages. How long a keystroke takes to be seen in the proof, the longest task it makes, and how much longer the
 * text takes to open than the same words without any placeholder or passage.
 */
import { figure } from '../figures.js';
import type { Page } from '@playwright/test';
import { BASE, onPage } from './server.js';

const PARAGRAPHS = 120;
const KEYS = 150;
const OPENINGS = 8;

/** 42 words a paragraph; every second one in a passage, with placeholders through all of them. */
function source(title: string, filled: boolean): string {
  const words = 'the garden opens its gate at nine and the guide waits beside the old willow'.split(' ');
  let placeholders = 0;
  const paragraphs = Array.from({ length: PARAGRAPHS }, (_, index) => {
    const line = Array.from({ length: 42 }, (_word, at) => words[(index + at) % words.length] as string);
    for (const at of [7, 25]) if (filled && placeholders < 200) line[at] = `{{v${placeholders++ % 30}}}`;
    const text = `${line.join(' ')}.`;
    return filled && index % 2 === 1 ? `{{#p${index % 10}}}\n\n${text}\n\n{{/p${index % 10}}}` : text;
  });
  const variables = filled
    ? [
        ...Array.from({ length: 30 }, (_, at) => `  v${at}: { type: text, default: value ${at} }`),
        ...Array.from({ length: 10 }, (_, at) => `  p${at}: { type: yes-no, default: true }`),
      ].join('\n')
    : '';
  return `---\nvocabula: 1\nkind: message\ntitle: ${title}\nsubject: Long\n${filled ? `variables:\n${variables}\n` : ''}---\n${paragraphs.join('\n\n')}\n`;
}

const quantile = (values: readonly number[], q: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * q))] ?? NaN;

/** Milliseconds from the address being gone to until the manuscript's last words stand and the frame is painted. */
async function opening(page: Page, name: string): Promise<number> {
  await page.goto(`${BASE}/write`);
  const link = page.locator(`a[href="/write/${name}"]`).first();
  await link.waitFor();
  await link.evaluate((element) => void (element.id = 'opened-here'));
  return page.evaluate(async () => {
    const begun = performance.now();
    document.getElementById('opened-here')?.click();
    const until = (done: () => boolean): Promise<void> =>
      new Promise((resolve) => {
        const look = (): void => (done() ? resolve() : void requestAnimationFrame(look));
        look();
      });
    await until(() => document.querySelectorAll('.ProseMirror p').length > 100);
    await new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve)));
    return performance.now() - begun;
  });
}

/** Types letters and times each until the proof shows it; with the longest task that the page had meanwhile. */
async function typing(
  page: Page,
): Promise<{ readonly times: number[]; readonly longest: number; readonly over: number }> {
  await page.locator('.body > p').nth(20).click();
  await page.keyboard.type(' zq');
  await page.waitForTimeout(1500);
  return page.evaluate(async (keys) => {
    const tasks: number[] = [];
    const observer = new PerformanceObserver((list) =>
      tasks.push(...list.getEntries().map(({ duration }) => duration)),
    );
    observer.observe({ entryTypes: ['longtask'] });
    const frame = document.querySelector<HTMLIFrameElement>('iframe[title="Proof"]');
    const shown = (): string => frame?.contentDocument?.body?.textContent ?? '';
    const times: number[] = [];
    let typed = '';
    for (let at = 0; at < keys; at += 1) {
      typed += String.fromCharCode(97 + (at % 26));
      const wanted = typed;
      const begun = performance.now();
      document.execCommand('insertText', false, typed.at(-1));
      await new Promise<void>((resolve, reject) => {
        const look = (): void => {
          if (performance.now() - begun > 5000) reject(new Error('the proof does not follow'));
          else if (shown().includes(`zq${wanted}`)) resolve();
          else setTimeout(look, 1);
        };
        look();
      });
      times.push(performance.now() - begun);
      await new Promise((resolve) => setTimeout(resolve, 60));
    }
    observer.disconnect();
    return { times, longest: Math.max(0, ...tasks), over: tasks.length };
  }, KEYS);
}

/** Runs the comparison and prints its table. */
export const bench = (): Promise<void> =>
  onPage(async (page) => {
    const files = (['Long', 'Plain'] as const).map((title) => ({
      file: `${title.toLowerCase()}.md`,
      content: source(title, title === 'Long'),
    }));
    await page.request.post(`${BASE}/api/texts/import`, { data: { files } });
    await opening(page, 'long');
    const times: Record<'long' | 'plain', number[]> = { long: [], plain: [] };
    for (let round = 0; round < OPENINGS; round += 1)
      for (const name of ['plain', 'long'] as const) times[name].push(await opening(page, name));
    const [long, plain] = [quantile(times.long, 0.5), quantile(times.plain, 0.5)];
    console.log('5,000 words, 200 placeholders, 60 passages; one run on this machine');
    console.log(`opening, against the same words plain    ${(long / plain).toFixed(2)}x (median of ${OPENINGS})`);
    await opening(page, 'long');
    const { times: keys, longest, over } = await typing(page);
    console.log(
      `keystroke to proof, of 50 ms              p50 ${(quantile(keys, 0.5) / 50).toFixed(2)}x  p95 ${(quantile(keys, 0.95) / 50).toFixed(2)}x`,
    );
    figure('keystroke to proof, p95 of 50 ms', quantile(keys, 0.95) / 50, 1);
    figure('longest task while typing, of 50 ms', longest / 50, 1);
    console.log(`longest task of ${KEYS} keystrokes, of 50 ms  ${(longest / 50).toFixed(2)}x (${over} over it)`);
  });
