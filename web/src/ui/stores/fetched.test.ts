import { describe, expect, it } from 'vitest';
import { fetchedList } from './fetched';

describe('A list of the server’s', () => {
  it('is empty until it came, and stays when it cannot be fetched again', async () => {
    const answers = [() => Promise.resolve(['a']), () => Promise.reject(new Error('away'))];
    const { list, loaded, load } = fetchedList(() => answers.shift()!());
    expect([list.value, loaded.value]).toEqual([[], false]);
    expect(await load()).toEqual(['a']);
    await expect(load()).rejects.toThrow('away');
    expect([list.value, loaded.value]).toEqual([['a'], true]);
  });
  it('shows what was asked for last, whatever comes first', async () => {
    const givers: ((found: string[]) => void)[] = [];
    const { list, load } = fetchedList(() => new Promise<string[]>((give) => givers.push(give)));
    const [early, late] = [load(), load()];
    givers[1]?.(['late']);
    await late;
    givers[0]?.(['early']);
    expect(await early).toEqual(['early']);
    expect(list.value).toEqual(['late']);
  });
});
