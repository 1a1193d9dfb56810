/**
 * Ten thousand recipients on the proofing table, in Chromium: how often progress is shown, how long the page is held up
 * meanwhile, what its memory comes to, and whether it can be stopped.
 */
import { batchRows, batchTemplate } from '../batch.js';
import { BASE, onPage } from './server.js';

const RECIPIENTS = 10_000;

/** Runs the measurement and prints it. */
export const bench = (): Promise<void> =>
  onPage(async (page) => {
    const files = [{ file: 'batch.md', content: batchTemplate() }];
    await page.request.post(`${BASE}/api/texts/import`, { data: { files } });
    const rows = batchRows(RECIPIENTS);
    const keys = Object.keys(rows[0] ?? {});
    const csv = [keys.join(','), ...rows.map((row) => keys.map((key) => row[key]).join(','))].join('\n');
    const made = await page.request.post(`${BASE}/api/tables?use=sample&title=Batch`, {
      headers: { 'content-type': 'application/octet-stream' },
      data: Buffer.from(csv),
    });
    const { id } = (await made.json()) as { id: string };
    await page.request.put(`${BASE}/api/tables/own/batch`, { data: { table: id } });
    await page.goto(`${BASE}/proof/batch/all`);
    const seen = await page.evaluate(async () => {
      const tasks: number[] = [];
      new PerformanceObserver((list) => tasks.push(...list.getEntries().map(({ duration }) => duration))).observe({
        entryTypes: ['longtask'],
      });
      const status = (): string => document.querySelector('.progress')?.textContent ?? '';
      const heap = (): number =>
        (performance as unknown as { memory?: { usedJSHeapSize: number } }).memory?.usedJSHeapSize ?? 0;
      const begun = performance.now();
      let [shown, last, changes] = [status(), begun, 0];
      let [first, widest] = [0, 0];
      while (!/proofed/.test(shown)) {
        await new Promise((resolve) => requestAnimationFrame(resolve));
        const now = status();
        if (now === shown) continue;
        changes += 1;
        first ||= performance.now();
        widest = Math.max(widest, performance.now() - last);
        [shown, last] = [now, performance.now()];
        if (last - begun > 180_000) throw new Error('It does not end.');
      }
      return { took: last - first, changes, widest, tasks, heap: heap() };
    });
    console.log(`${RECIPIENTS} recipients on the proofing table, in a worker; one run on this machine`);
    console.log(`progress shown, of 10 a second     ${(seen.changes / (seen.took / 1000) / 10).toFixed(1)}x`);
    console.log(
      `longest the page was held, of 50 ms ${(Math.max(0, ...seen.tasks) / 50).toFixed(1)}x (${seen.tasks.length} over it)`,
    );
    console.log(`memory of the page                  ${Math.round(seen.heap / 1_000_000)} MB`);
  });
