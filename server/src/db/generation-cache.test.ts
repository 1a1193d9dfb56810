import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { addFolder } from '../rights/store.js';
import { makePublished, start, type Started } from '../testing/start.js';
import { Kept } from './generation-cache.js';

let server: Started;
let made: number;
const kept = new Kept<number>(['rights'], 2);
const make = (): Promise<number> => Promise.resolve((made += 1));
const folder = (id: string) => ({ id, parent: 'root', title: id });
beforeEach(async () => {
  made = 0;
  server = await start();
});
afterEach(() => server.stop());

describe('what is kept', () => {
  it('is made once, and anew when its topic has changed, by whichever process', async () => {
    const { read } = server.database;
    expect([await kept.get(read, 'a', make), await kept.get(read, 'a', make)]).toEqual([1, 1]);
    await makePublished(server, 'Visit');
    expect(await kept.get(read, 'a', make)).toBe(1);
    const other = await start(server.url);
    await other.database.write((writer) => addFolder(writer, folder('far')));
    await other.stop();
    expect(await kept.get(read, 'a', make)).toBe(2);
  });
  it('is nothing of a transaction that has changed something: it may be taken back', async () => {
    const { read } = server.database;
    expect(await kept.get(read, 'a', make)).toBe(1);
    const failed = server.database.write(async (writer) => {
      expect(await kept.get(writer, 'a', make)).toBe(1);
      await addFolder(writer, folder('gone'));
      expect(await kept.get(writer, 'a', make)).toBe(2);
      expect(await kept.get(writer, 'a', make)).toBe(3);
      throw new Error('taken back');
    });
    await expect(failed).rejects.toThrow('taken back');
    expect(await kept.get(read, 'a', make)).toBe(1);
  });
  it('is the last that was asked for, of so many at most', async () => {
    const { read } = server.database;
    for (const key of ['a', 'b', 'a', 'c', 'a']) await kept.get(read, key, make);
    expect(made).toBe(3);
    await kept.get(read, 'b', make);
    expect(made).toBe(4);
  });
});
