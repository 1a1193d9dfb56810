// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { effectScope } from 'vue';
import { ApiProblem } from '../api/client';
import { makeKeeper, type Keeper, type KeeperListener } from './keeper';

let sent: [string, unknown][];
let fail: (id: string) => unknown;
let keeping: Keeper<unknown, void>;
let scope: ReturnType<typeof effectScope>;
const make = (more: object = {}): void => {
  keeping = makeKeeper<unknown>({
    send: async (id, state) => {
      await Promise.resolve();
      const problem = fail(id);
      if (problem) throw problem as Error;
      sent.push([id, state]);
    },
    after: 400,
    within: 1000,
    retryAfter: 3000,
    ...more,
  });
  scope = page();
};
/** A page that works with it, and hears of it. */
function page(listener: KeeperListener<unknown, void> = {}): ReturnType<typeof effectScope> {
  const made = effectScope();
  made.run(() => keeping.hear(listener));
  return made;
}
beforeEach(() => {
  vi.useFakeTimers();
  sent = [];
  fail = () => undefined;
  make();
});
afterEach(() => vi.useRealTimers());
const pass = (ms: number) => vi.advanceTimersByTimeAsync(ms);
const offline = new ApiProblem(0, 'offline', 'away');

describe('what is kept while one works', () => {
  it('is sent after a pause, the last state of each, each under its own id', async () => {
    keeping.keep('a', 1);
    keeping.keep('a', 2);
    keeping.keep('b', 3);
    expect(keeping.stateOf('a').kind).toBe('keeping');
    await pass(399);
    expect(sent).toEqual([]);
    await pass(2);
    expect(sent).toEqual([
      ['a', 2],
      ['b', 3],
    ]);
    expect(keeping.stateOf('a').kind).toBe('kept');
  });
  it('does not wait for ever while typing goes on', async () => {
    for (let at = 0; at < 12; at += 1) {
      keeping.keep('a', at);
      await pass(100);
    }
    expect(sent.length).toBeGreaterThan(0);
  });
  it('is tried again while the server is away, with its own values, although something else is shown by then', async () => {
    fail = () => offline;
    keeping.keep('a', 'of a');
    await pass(500);
    expect([sent, keeping.stateOf('a').kind]).toEqual([[], 'failed']);
    keeping.keep('b', 'of b');
    fail = () => undefined;
    await pass(4000);
    expect(sent).toEqual([
      ['a', 'of a'],
      ['b', 'of b'],
    ]);
  });
  it('that was changed while an older state could not be sent is sent as it is now', async () => {
    fail = () => offline;
    keeping.keep('a', 1);
    await pass(500);
    keeping.keep('a', 2);
    fail = () => undefined;
    await pass(4000);
    expect(sent).toEqual([['a', 2]]);
  });
  it('is sent at once when one leaves, and tried again after that', async () => {
    keeping.keep('a', 1);
    fail = () => offline;
    scope.stop();
    await pass(10);
    fail = () => undefined;
    await pass(4000);
    expect(sent).toEqual([['a', 1]]);
  });
  it('that is refused for good is dropped or held, and the others go', async () => {
    const refusal = new ApiProblem(422, 'bad', 'no');
    page({ refused: (id) => (id === 'held' ? 'hold' : 'drop') });
    fail = (id) => (id === 'b' ? undefined : refusal);
    keeping.keep('a', 1);
    keeping.keep('held', 2);
    keeping.keep('b', 3);
    await expect(keeping.flush()).rejects.toBe(refusal);
    expect(sent).toEqual([['b', 3]]);
    expect([keeping.waiting('a'), keeping.waiting('held')]).toEqual([undefined, 2]);
    fail = () => undefined;
    await pass(10_000);
    expect(sent).toHaveLength(1);
    keeping.keep('held', 4);
    await keeping.flush();
    expect(sent.at(-1)).toEqual(['held', 4]);
  });
  it('puts together what is to be put together', async () => {
    make({ merge: (waiting: number[] = [], next: number[]) => [...waiting, ...next] });
    keeping.keep('a', [1]);
    keeping.keep('a', [2]);
    fail = () => offline;
    await pass(500);
    keeping.keep('a', [3]);
    fail = () => undefined;
    await pass(4000);
    expect(sent).toEqual([['a', [1, 2, 3]]]);
  });
  it('of a page that was left never goes over what the page now open keeps of the same thing', async () => {
    fail = () => offline;
    keeping.keep('a', 'older');
    await pass(500);
    scope.stop();
    const next = page();
    keeping.keep('a', 'newer');
    fail = () => undefined;
    await pass(10_000);
    expect(sent).toEqual([['a', 'newer']]);
    next.stop();
  });
  it('is told to the pages that stand, and to no other', async () => {
    const heard: unknown[] = [];
    const first = page({ kept: (id, _, state) => heard.push(['first', id, state]) });
    page({ kept: (id) => heard.push(['second', id]), failed: (id) => heard.push(['failed', id]) });
    first.stop();
    keeping.keep('a', 1);
    await pass(500);
    fail = () => offline;
    keeping.keep('b', 2);
    await pass(500);
    expect(heard).toEqual([
      ['second', 'a'],
      ['failed', 'b'],
    ]);
  });
  it('is never sent as whoever signs in next', async () => {
    page({ refused: () => 'hold' });
    fail = () => new ApiProblem(401, 'signed-out', 'who?');
    keeping.keep('a', 1);
    await pass(500);
    fail = () => undefined;
    await pass(10_000);
    await keeping.flush();
    expect(sent).toEqual([]);
  });
  it('says of each thing by itself how far it is', async () => {
    fail = (id) => (id === 'a' ? new ApiProblem(422, 'bad', 'no') : undefined);
    page({ refused: () => 'hold' });
    keeping.keep('a', 1);
    keeping.keep('b', 2);
    await pass(500);
    expect([keeping.stateOf('a').kind, keeping.stateOf('b').kind]).toEqual(['failed', 'kept']);
    fail = () => undefined;
    keeping.keep('a', 3);
    await pass(500);
    expect(keeping.stateOf('a').kind).toBe('kept');
  });
  it('asked for by itself is sent or said not to be, a refused one too, and no other stands in its way', async () => {
    const refusal = new ApiProblem(422, 'bad', 'no');
    fail = (id) => (id === 'b' ? undefined : id === 'a' ? refusal : offline);
    page({ refused: () => 'hold' });
    keeping.keep('a', 1);
    keeping.keep('b', 2);
    keeping.keep('c', 3);
    await keeping.flush((id) => id === 'b');
    expect(sent).toEqual([['b', 2]]);
    await pass(500);
    // Before something is made of it, what was refused once is not passed over in silence.
    await expect(keeping.flush((id) => id === 'a')).rejects.toBe(refusal);
    await expect(keeping.flush((id) => id === 'b')).resolves.toBeUndefined();
    fail = () => undefined;
    await pass(10_000);
    expect(sent).toContainEqual(['c', 3]);
  });
});
