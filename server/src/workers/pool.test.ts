/** Worker threads: bounded in time and memory, fair, and as good as the code they run. */
import { afterAll, describe, expect, it } from 'vitest';
import { Workers, type WorkerLimits } from './pool.js';

const limits: WorkerLimits = { time: 8000, memory: 256, threads: 2 };
const workers = new Workers({ quick: limits, long: limits });
afterAll(() => workers.close());
const NOTHING = { images: {}, attachments: {} };
const read = (words: string, by = 'ann') =>
  workers.run('readAs', { name: 'a.md', bytes: Buffer.from(words), kept: NOTHING, colours: {} }, by, 'long');

describe('a task', () => {
  it('gives what its code gives, and throws what it throws', async () => {
    expect((await read('# Hello')).document.content.at(-1)).toBeDefined();
    const empty = workers.run('broughtBy', { name: 'a.md', bytes: Buffer.from('') }, 'ann');
    await expect(empty).rejects.toMatchObject({ status: 422, code: 'bad-file' });
  });
  it('that takes too long is ended and told so, and the next goes on', async () => {
    await expect(read('![ '.repeat(650_000))).rejects.toMatchObject({ status: 422, code: 'too-costly' });
    expect((await read('Words')).suggestedTitle).toBe('a');
  }, 60_000);
  it('that takes too much memory is ended and told so, and the process goes on', async () => {
    const lists = '- a\n'.repeat(480_000);
    await expect(read(lists)).rejects.toMatchObject({ status: 422, code: 'too-costly' });
    expect((await read('Words')).suggestedTitle).toBe('a');
  }, 60_000);
  it('of one person waits for theirs before it; those of others do not', async () => {
    const order: string[] = [];
    const long = 'Some words of a paragraph.\n\n'.repeat(3500);
    // Both threads have begun and read before.
    await Promise.all([read(long, 'cy'), read(long, 'di')]);
    await Promise.all([
      ...[1, 2, 3, 4, 5, 6].map((at) => read(long, 'ann').then(() => order.push(`ann ${at}`))),
      read('Words', 'bo').then(() => order.push('bo')),
    ]);
    expect(order.filter((each) => each !== 'bo')).toEqual([1, 2, 3, 4, 5, 6].map((at) => `ann ${at}`));
    expect(order.indexOf('bo')).toBeLessThan(order.indexOf('ann 6'));
  }, 60_000);
});
