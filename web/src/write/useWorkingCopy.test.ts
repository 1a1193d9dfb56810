// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi, type MockInstance } from 'vitest';
import { emptyDocument, type TextDocument } from '@vocabula/core';
import { ApiProblem, api } from '../api/client';
import { dropUnsent, keepUnsent, unsentOf } from './unsent';
import { unmountAfterEach } from '../ui/testing/unmount';
import { useWorkingCopy } from './useWorkingCopy';

const named = (title: string): TextDocument => emptyDocument({ kind: 'message', title });
const stored = (document: TextDocument, revision: number) => ({
  name: 'own-visit',
  revision,
  updatedAt: '2026-11-24T10:00:00.000Z',
  document,
});
unmountAfterEach();
let save: MockInstance<typeof api.saveText>;

beforeEach(() => {
  vi.useFakeTimers();
  vi.spyOn(api, 'text').mockImplementation(() => Promise.resolve(stored(named('A'), 4)));
  vi.spyOn(api, 'closure').mockResolvedValue({ texts: [], version: undefined });
  save = vi
    .spyOn(api, 'saveText')
    .mockImplementation((_name, { document, revision }) => Promise.resolve(stored(document, revision + 1)));
});
afterEach(() => {
  dropUnsent('own-visit');
  vi.useRealTimers();
  vi.restoreAllMocks();
});

/** A working copy that is open, in a component as it lives in one. */
async function opened() {
  let copy!: ReturnType<typeof useWorkingCopy>;
  const wrapper = mount({
    setup() {
      copy = useWorkingCopy();
      return () => null;
    },
  });
  await copy.open('own-visit');
  return { copy, wrapper };
}
/** What was saved of this text: another file of the process may have left something to be saved of its own. */
const saved = () => save.mock.calls.filter(([name]) => name === 'own-visit').map(([, body]) => body);

describe('a working copy', () => {
  it('is kept within a second of the first change, once for several', async () => {
    const { copy } = await opened();
    copy.changed(named('B'));
    await vi.advanceTimersByTimeAsync(500);
    copy.changed(named('C'));
    expect(copy.state.value).toBe('keeping…');
    await vi.advanceTimersByTimeAsync(500);
    expect(saved().map(({ document, revision }) => [document.attrs.front.title, revision])).toEqual([['C', 4]]);
    expect(copy.state.value).toMatch(/^kept /);
    copy.changed(named('D'));
    await vi.advanceTimersByTimeAsync(1000);
    expect(saved()[1]?.revision).toBe(5);
  });

  it('that cannot be sent is kept in the browser, tried again, and loses nothing', async () => {
    const { copy } = await opened();
    save.mockImplementationOnce(() => Promise.reject(new ApiProblem(0, 'offline', 'The server cannot be reached.')));
    copy.changed(named('B'));
    await vi.advanceTimersByTimeAsync(800);
    expect([copy.failed.value, copy.state.value]).toEqual([true, 'not connected: kept in this browser']);
    expect(unsentOf('own-visit')?.document.attrs.front.title).toBe('B');
    copy.changed(named('C'));
    expect(unsentOf('own-visit')?.document.attrs.front.title).toBe('C');
    await vi.advanceTimersByTimeAsync(4000);
    expect([copy.failed.value, saved().at(-1)?.document.attrs.front.title]).toEqual([false, 'C']);
    expect(unsentOf('own-visit')).toBeUndefined();
  });

  it('is sent as soon as the connection is back', async () => {
    const { copy } = await opened();
    save.mockImplementationOnce(() => Promise.reject(new ApiProblem(0, 'offline', 'The server cannot be reached.')));
    copy.changed(named('B'));
    await vi.advanceTimersByTimeAsync(800);
    window.dispatchEvent(new Event('online'));
    await vi.advanceTimersByTimeAsync(0);
    expect([copy.failed.value, saved().length]).toEqual([false, 2]);
  });

  it('opened again goes on with what could not be sent', async () => {
    keepUnsent('own-visit', { document: named('B'), base: named('A'), revision: 4 });
    const { copy } = await opened();
    expect(copy.opened.value?.attrs.front.title).toBe('B');
    await vi.advanceTimersByTimeAsync(1000);
    expect([saved()[0]?.document.attrs.front.title, unsentOf('own-visit')]).toEqual(['B', undefined]);
  });

  it('opened again after somebody else saved is a conflict with what both came from', async () => {
    keepUnsent('own-visit', { document: named('B'), base: named('0'), revision: 3 });
    const { copy } = await opened();
    await vi.advanceTimersByTimeAsync(1000);
    const { yours, theirs, base } = copy.conflict.value ?? {};
    expect([yours, theirs?.document, base].map((each) => each?.attrs.front.title)).toEqual(['B', 'A', '0']);
    expect(saved()).toHaveLength(0);
  });

  it('is sent at once when it is left', async () => {
    const { copy, wrapper } = await opened();
    copy.changed(named('B'));
    wrapper.unmount();
    await vi.advanceTimersByTimeAsync(0);
    expect(saved()).toHaveLength(1);
  });
});

it('that waits where the browser keeps nothing is a conflict after somebody else saved, not their loss', async () => {
  vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
    throw new Error('no room');
  });
  const { copy, wrapper } = await opened();
  save.mockRejectedValueOnce(new ApiProblem(0, 'offline', 'The server cannot be reached.'));
  copy.changed(named('B'));
  await vi.advanceTimersByTimeAsync(800);
  save.mockRejectedValueOnce(new ApiProblem(0, 'offline', 'The server cannot be reached.'));
  wrapper.unmount();
  await vi.advanceTimersByTimeAsync(0);
  // Somebody else has saved since.
  vi.mocked(api.text).mockResolvedValue(stored(named('Theirs'), 9));
  save.mockRejectedValueOnce(new ApiProblem(0, 'offline', 'The server cannot be reached.'));
  const again = await opened();
  expect(again.copy.opened.value?.attrs.front.title).toBe('B');
  await vi.advanceTimersByTimeAsync(4000);
  expect(saved().at(-1)).toMatchObject({ revision: 4, document: { attrs: { front: { title: 'B' } } } });
});

describe('a conflict', () => {
  const clash = () => {
    const theirs = stored(named('A'), 9);
    save.mockImplementationOnce((_name, { document }) =>
      Promise.reject(new ApiProblem(409, 'stale-revision', 'saved elsewhere', { yours: document, theirs })),
    );
  };
  const created = () =>
    vi.spyOn(api, 'createText').mockImplementation(({ title }) => Promise.resolve(stored(named(title), 1)));

  it('stops saving until it is settled', async () => {
    const { copy } = await opened();
    clash();
    copy.changed(named('B'));
    await vi.advanceTimersByTimeAsync(10_000);
    expect([saved().length, copy.conflict.value?.theirs.revision]).toEqual([1, 9]);
  });

  it('keeps as a copy whatever is not all in the text that was settled on, and saves that', async () => {
    const { copy } = await opened();
    const make = created();
    clash();
    copy.changed(named('B'));
    await vi.advanceTimersByTimeAsync(1000);
    const titles = await copy.settle({ document: named('B'), losesMine: false, losesTheirs: true });
    expect(titles).toEqual(['A (other copy)']);
    expect(make.mock.calls.map(([body]) => body.document?.attrs.front.title)).toEqual(['A']);
    expect(saved().at(-1)).toMatchObject({ revision: 9, document: { attrs: { front: { title: 'B' } } } });
    expect(copy.conflict.value).toBeUndefined();
  });

  it('loses nothing that is typed while it is told a second time', async () => {
    const { copy } = await opened();
    const refusals: (() => void)[] = [];
    save.mockImplementation(
      () =>
        new Promise((_, refuse) =>
          refusals.push(() =>
            refuse(
              new ApiProblem(409, 'stale-revision', 'saved elsewhere', {
                yours: named('B'),
                theirs: stored(named('A'), 9),
              }),
            ),
          ),
        ),
    );
    copy.changed(named('B'));
    await vi.advanceTimersByTimeAsync(800);
    // Typed while the first refusal is on its way: it waits, and is sent too.
    copy.changed(named('B and'));
    refusals[0]?.();
    await vi.advanceTimersByTimeAsync(0);
    copy.changed(named('B and more'));
    await vi.advanceTimersByTimeAsync(10_000);
    for (const refuse of refusals) refuse();
    await vi.advanceTimersByTimeAsync(10_000);
    expect(copy.conflict.value?.yours.attrs.front.title).toBe('B and more');
  });

  it('keeps also what was typed since', async () => {
    const { copy } = await opened();
    const make = created();
    clash();
    copy.changed(named('B'));
    await vi.advanceTimersByTimeAsync(1000);
    copy.changed(named('B and more'));
    expect(copy.conflict.value?.yours.attrs.front.title).toBe('B and more');
    await copy.settle({ document: named('A'), losesMine: true, losesTheirs: false });
    expect(make.mock.calls.map(([body]) => body.document?.attrs.front.title)).toEqual(['B and more']);
  });
});
