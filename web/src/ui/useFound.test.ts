import { describe, expect, it } from 'vitest';
import { useFound } from './useFound';

/** A search whose answers arrive when the test says so. */
function slow() {
  const waiting = new Map<string, { answer: (hits: string[]) => void; fail: (error: Error) => void }>();
  const search = (words: string) => new Promise<string[]>((answer, fail) => waiting.set(words, { answer, fail }));
  return { search, waiting };
}

describe('what a typed line finds', () => {
  it('takes only the newest answer, in whatever order they come', async () => {
    const { search, waiting } = slow();
    const found = useFound(search);
    void found.find('s');
    const last = found.find('si');
    waiting.get('si')?.answer(['Siobhán']);
    waiting.get('s')?.answer(['Samuel', 'Siobhán']);
    await last;
    expect(found.hits.value).toEqual(['Siobhán']);
  });

  it('waits with the choice for the words as they stand', async () => {
    const { search, waiting } = slow();
    const found = useFound(search);
    const first = found.find('s');
    waiting.get('s')?.answer(['Samuel', 'Siobhán']);
    await first;
    void found.find('sio');
    const chosen = found.chosen();
    waiting.get('sio')?.answer(['Siobhán']);
    expect(await chosen).toBe('Siobhán');
  });

  it('says why nothing was found', async () => {
    const { search, waiting } = slow();
    const found = useFound(search);
    const asked = found.find('x');
    waiting.get('x')?.fail(new Error('The server cannot be reached.'));
    await asked;
    expect(found.problem.value).toBe('The server cannot be reached.');
    expect(await found.chosen()).toBeUndefined();
  });

  it('goes round with the arrows', async () => {
    const found = useFound(async () => ['a', 'b', 'c']);
    await found.find('');
    const press = (key: string) => found.step({ key, preventDefault: () => undefined } as KeyboardEvent);
    expect([press('ArrowUp'), found.current.value, press('ArrowDown'), found.current.value, press('x')]).toEqual([
      true,
      'c',
      true,
      'a',
      false,
    ]);
  });
});
