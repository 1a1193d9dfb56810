// @vitest-environment happy-dom
import type { Fill, FillSummary } from '@vocabula/contract';
import { PLAIN_HOUSE } from '@vocabula/core';
import { NO_CHANGES } from '@vocabula/core/filling';
import { createPinia, setActivePinia } from 'pinia';
import { afterEach, beforeEach, describe, expect, it, vi, type MockInstance } from 'vitest';
import { effectScope, type EffectScope } from 'vue';
import { api, ApiProblem } from '../api/client';
import { useFill, type Filling } from './useFill';

const fillOf = (id: string, answers: Record<string, unknown> = {}): Fill =>
  ({
    id,
    fields: { email: `${id}@people.example` },
    answers,
    offered: {},
    confirmed: [],
    changes: NO_CHANGES,
    original: undefined,
    all: false,
    texts: [],
    house: PLAIN_HOUSE,
    signature: undefined,
    notes: [],
    state: 'unfinished',
    standing: 'current',
  }) as unknown as Fill;
let page: EffectScope;
let save: MockInstance<typeof api.saveFill>;
/** What the server keeps of each message. */
let kept: Record<string, unknown>;
beforeEach(() => {
  setActivePinia(createPinia());
  vi.useFakeTimers();
  kept = {};
  save = vi.spyOn(api, 'saveFill').mockImplementation((id, { answers }) => {
    kept[id] = answers;
    return Promise.resolve({ standing: 'current' } as FillSummary);
  });
});
afterEach(async () => {
  page.stop();
  await vi.advanceTimersByTimeAsync(10_000);
  vi.restoreAllMocks();
  vi.useRealTimers();
});
const opened = (): Filling => {
  page = effectScope();
  return page.run(() => useFill()) as Filling;
};
const pass = (ms: number) => vi.advanceTimersByTimeAsync(ms);

describe('a message that is filled', () => {
  it('is kept under its own id with its own answers, although another is shown within the pause', async () => {
    const filling = opened();
    filling.take(fillOf('one'));
    filling.answers.value = { name: 'Ann' };
    filling.take(fillOf('two'));
    filling.answers.value = { name: 'Bo' };
    await pass(3000);
    expect(kept).toEqual({ one: { name: 'Ann' }, two: { name: 'Bo' } });
  });
  it('is no change of it when it is opened', async () => {
    opened().take(fillOf('one', { name: 'Ann' }));
    await pass(3000);
    expect(save).not.toHaveBeenCalled();
  });
  it('opened again shows what waits to be kept, and the older state never comes after it', async () => {
    save.mockRejectedValueOnce(new ApiProblem(0, 'offline', 'away'));
    const before = opened();
    before.take(fillOf('one'));
    before.answers.value = { name: 'Ann' };
    page.stop();
    await pass(10);
    const again = opened();
    again.take(fillOf('one'));
    expect(again.answers.value).toEqual({ name: 'Ann' });
    again.answers.value = { name: 'Ann Lee' };
    await pass(10_000);
    expect(kept.one).toEqual({ name: 'Ann Lee' });
    expect(save.mock.calls.at(-1)?.[1].answers).toEqual({ name: 'Ann Lee' });
  });
  it('is not settled while its last answer is refused, although another page hears of no failure', async () => {
    const filling = opened();
    filling.take(fillOf('one'));
    const refusal = new ApiProblem(422, 'bad', 'too long');
    save.mockRejectedValueOnce(refusal);
    filling.answers.value = { name: 'Ann' };
    await pass(500);
    expect(filling.keeping.value.kind).toBe('failed');
    save.mockRejectedValueOnce(refusal);
    // Handing over waits for this: nothing older than what is shown may leave.
    await expect(filling.settled()).rejects.toBe(refusal);
    await filling.settled();
    expect([kept.one, filling.keeping.value.kind]).toEqual([{ name: 'Ann' }, 'kept']);
  });
  it('does not wait for another one that cannot be kept', async () => {
    const filling = opened();
    save.mockRejectedValueOnce(new ApiProblem(0, 'offline', 'away'));
    filling.take(fillOf('one'));
    filling.answers.value = { name: 'Ann' };
    await pass(500);
    filling.take(fillOf('two'));
    expect(filling.keeping.value.kind).toBe('kept');
    await expect(filling.settled()).resolves.toBeUndefined();
  });
});
