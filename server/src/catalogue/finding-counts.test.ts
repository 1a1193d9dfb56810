import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { User } from '../people/user.js';
import { FindingCounts } from './finding-counts.js';

const ann = { id: 'ann', role: 'author', name: 'Ann', address: 'ann@x.example', session: 's' } as User;
const bo = { ...ann, id: 'bo' };

let counted: string[];
let fails: boolean;
let errors: number;
let counts: FindingCounts;
beforeEach(() => {
  vi.useFakeTimers();
  [counted, fails, errors] = [[], false, 0];
  const call = (_service: string, _method: string, [name, user]: [string, User]): Promise<void> => {
    counted.push(`${name} ${user.id}`);
    return fails ? Promise.reject(new Error('not now')) : Promise.resolve();
  };
  counts = new FindingCounts({ call: call as never }, { error: () => void (errors += 1) });
});
afterEach(() => vi.useRealTimers());

describe('findings', () => {
  it('are counted soon, and at most once a second however often a text is saved', async () => {
    for (let save = 0; save < 20; save += 1) {
      counts.later('visit', ann);
      await vi.advanceTimersByTimeAsync(100);
    }
    // Two seconds of saving, from the first tenth on.
    expect(counted).toEqual(['visit ann', 'visit ann']);
    await vi.advanceTimersByTimeAsync(2000);
    expect(counted).toHaveLength(3);
  });
  it('are counted as the last who saved sees them, of each text once', async () => {
    counts.later('visit', ann);
    counts.later('tour', ann);
    counts.later('visit', bo);
    await vi.advanceTimersByTimeAsync(100);
    expect(counted).toEqual(['visit bo', 'tour ann']);
  });
  it('are counted without waiting where a server ends, and never twice', async () => {
    counts.later('visit', ann);
    await counts.countAll();
    expect(counted).toEqual(['visit ann']);
    await vi.advanceTimersByTimeAsync(5000);
    expect(counted).toHaveLength(1);
  });
  it('that cannot be counted are logged, and the next are counted', async () => {
    fails = true;
    counts.later('visit', ann);
    await counts.countAll();
    fails = false;
    counts.later('visit', ann);
    await counts.countAll();
    expect([counted.length, errors]).toEqual([2, 1]);
  });
});
