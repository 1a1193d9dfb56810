// @vitest-environment happy-dom
import type { ChangeMailed, MailedRow, Mailing } from '@vocabula/contract';
import { NO_CHANGES } from '@vocabula/core/filling';
import { createPinia, setActivePinia } from 'pinia';
import { afterEach, beforeEach, describe, expect, it, vi, type MockInstance } from 'vitest';
import { effectScope, type EffectScope } from 'vue';
import { api, ApiProblem } from '../api/client';
import { useMailing, type ManyMessages } from './useMailing';

const rowOf = (id: string, name: string): MailedRow => ({
  id,
  position: 0,
  address: `${name}@people.example`,
  name,
  state: 'draft',
  why: '',
  fields: { name },
  answers: {},
  changes: NO_CHANGES,
});
const mailingOf = (id: string): Mailing =>
  ({
    id,
    text: 'visit',
    title: 'Visit',
    state: 'preparing',
    createdAt: '',
    counts: {},
    apart: [],
    broken: [],
    version: 1,
    texts: [],
    others: [],
    house: {},
    signature: undefined,
    zone: 'UTC',
    changes: NO_CHANGES,
    answers: { day: 'Monday' },
    differing: [],
  }) as unknown as Mailing;

let page: EffectScope;
let change: MockInstance<typeof api.changeMailed>;
/** What the server keeps of each row. */
let kept: Record<string, ChangeMailed>;
beforeEach(() => {
  setActivePinia(createPinia());
  vi.useFakeTimers();
  kept = {};
  vi.spyOn(api, 'mailing').mockImplementation((id) => Promise.resolve(mailingOf(id)));
  vi.spyOn(api, 'mailingProgress').mockImplementation((id) => Promise.resolve(mailingOf(id)));
  vi.spyOn(api, 'mailingRows').mockImplementation((id) =>
    Promise.resolve(
      ['one', 'two'].map((row) => ({ ...rowOf(`${id}-${row}`, row), ...(kept[`${id}-${row}`] as object) })),
    ),
  );
  change = vi.spyOn(api, 'changeMailed').mockImplementation((_id, row, body) => {
    kept[row] = { ...kept[row], ...body };
    return Promise.resolve({ ...rowOf(row, row.slice(-3)), ...(kept[row] as object) });
  });
});
afterEach(async () => {
  page.stop();
  await vi.advanceTimersByTimeAsync(10_000);
  vi.restoreAllMocks();
  vi.useRealTimers();
});
async function opened(id: string): Promise<ManyMessages> {
  page = effectScope();
  const many = page.run(() => useMailing(id)) as ManyMessages;
  await many.load();
  return many;
}
const answer = (many: ManyMessages, value: string): void => {
  many.worked.answers.value = { ...many.worked.answers.value, greeting: value };
};
const pass = (ms: number) => vi.advanceTimersByTimeAsync(ms);
const sentTo = () => change.mock.calls.map(([mailing, row, { answers }]) => [mailing, row, answers]);

describe('one message each to many', () => {
  it('keeps what is typed for one under that one, although another is shown by then', async () => {
    const many = await opened('m1');
    answer(many, 'Hello One');
    many.chosen.value = 'm1-two';
    await pass(0);
    expect(many.worked.answers.value).toEqual({ day: 'Monday' });
    answer(many, 'Hello Two');
    await pass(2000);
    expect(sentTo()).toEqual([
      ['m1', 'm1-one', { greeting: 'Hello One' }],
      ['m1', 'm1-two', { greeting: 'Hello Two' }],
    ]);
  });
  it('keeps it in its own mailing, although that page was left and another mailing is open', async () => {
    const many = await opened('m1');
    change.mockRejectedValueOnce(new ApiProblem(0, 'offline', 'away'));
    answer(many, 'Hello One');
    page.stop();
    await pass(10);
    await opened('m2');
    await pass(10_000);
    expect(sentTo().map(([mailing, row]) => [mailing, row])).toEqual(
      Array.from({ length: sentTo().length }, () => ['m1', 'm1-one']),
    );
    expect(kept['m1-one']?.answers).toEqual({ greeting: 'Hello One' });
  });
  it('shows what is on its way when it is opened again, and never puts the older over it', async () => {
    const many = await opened('m1');
    change.mockRejectedValue(new ApiProblem(0, 'offline', 'away'));
    answer(many, 'Hello One');
    page.stop();
    await pass(10);
    const again = await opened('m1');
    await pass(0);
    expect(again.worked.answers.value.greeting).toBe('Hello One');
    change.mockImplementation((_id, row, body) => {
      kept[row] = { ...kept[row], ...body };
      return Promise.resolve({ ...rowOf(row, 'one'), ...(kept[row] as object) });
    });
    answer(again, 'Hello again');
    await pass(10_000);
    expect(kept['m1-one']?.answers).toEqual({ greeting: 'Hello again' });
    expect(sentTo().at(-1)?.[2]).toEqual({ greeting: 'Hello again' });
  });
});
