// @vitest-environment happy-dom
import type { StoredTable } from '@vocabula/contract';
import { createPinia, setActivePinia } from 'pinia';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { effectScope, type EffectScope } from 'vue';
import { api, ApiProblem } from '../api/client';
import { useNotice } from '../ui/notice';
import { useSet } from './useSet';

const stored = (change: Partial<StoredTable> = {}): StoredTable => ({
  id: 's',
  use: 'sample',
  title: 'Spring',
  rows: 2,
  revision: 1,
  updatedAt: '',
  ownOf: [],
  keys: [],
  owner: undefined,
  keepUntil: undefined,
  folder: undefined,
  mayChange: true,
  mayShare: true,
  columns: [{ key: 'name', name: 'Name', type: 'text' }],
  cells: [{ name: 'Ann' }, { name: 'Bo' }],
  positions: [0, 4],
  problems: {},
  ...change,
});
const sent = vi.fn();
beforeEach(() => {
  setActivePinia(createPinia());
  vi.useFakeTimers();
  sent.mockReset();
  vi.spyOn(api, 'table').mockResolvedValue(stored());
  vi.spyOn(api, 'changeTable').mockImplementation((_id, body) => {
    sent(body);
    return Promise.resolve({ ...stored(), revision: body.revision + 1 });
  });
});
let page: EffectScope;
afterEach(async () => {
  page.stop();
  // What waits goes when a page is left: to the server of the test.
  await vi.advanceTimersByTimeAsync(10_000);
  vi.restoreAllMocks();
  vi.useRealTimers();
});
const opened = async () => {
  page = effectScope();
  const set = page.run(() => useSet(() => Promise.resolve())) as ReturnType<typeof useSet>;
  await set.open('s');
  return set;
};

it('shows a written cell at once, sends it after a pause, and undoes it', async () => {
  const set = await opened();
  set.write(1, { name: 'Zoë' });
  expect(set.table.value?.cells[1]).toEqual({ name: 'Zoë' });
  expect(sent).not.toHaveBeenCalled();
  await vi.runAllTimersAsync();
  expect(sent).toHaveBeenCalledWith({ revision: 1, changes: [{ what: 'cells', position: 4, cells: { name: 'Zoë' } }] });
  await useNotice().run();
  await vi.runAllTimersAsync();
  expect(set.table.value?.cells[1]).toEqual({ name: 'Bo' });
  expect(sent).toHaveBeenLastCalledWith({
    revision: 2,
    changes: [{ what: 'cells', position: 4, cells: { name: 'Bo' } }],
  });
});

it('sends several cells of a row as one change, and what is worked out comes from the server', async () => {
  const set = await opened();
  set.write(0, { name: 'A' });
  set.write(0, { name: 'Ab' });
  await set.flush();
  expect(sent).toHaveBeenCalledTimes(1);
  expect(sent.mock.calls[0]?.[0].changes).toEqual([{ what: 'cells', position: 0, cells: { name: 'Ab' } }]);
  await set.putColumn({ key: 'twice', name: 'Twice', type: 'text', value: 'name + name' });
  expect(api.table).toHaveBeenCalledTimes(2);
});

it('undoes all that was pasted at once', async () => {
  const set = await opened();
  set.write(0, { name: 'Cléo' }, { name: 'Dag' }, { name: 'beyond the last row' });
  expect(set.table.value?.cells).toEqual([{ name: 'Cléo' }, { name: 'Dag' }]);
  await useNotice().run();
  expect(set.table.value?.cells).toEqual([{ name: 'Ann' }, { name: 'Bo' }]);
});

it('shows the set as it is when somebody else was quicker, and keeps what could not be sent', async () => {
  const set = await opened();
  vi.mocked(api.changeTable).mockRejectedValueOnce(new ApiProblem(409, 'stale-revision', 'changed elsewhere'));
  vi.mocked(api.table).mockResolvedValueOnce(stored({ revision: 7, cells: [{ name: 'Eve' }, { name: 'Bo' }] }));
  set.write(0, { name: 'Mine' });
  await set.flush();
  expect(set.table.value).toMatchObject({ revision: 7, cells: [{ name: 'Eve' }, { name: 'Bo' }] });
  expect(useNotice().current?.words).toBe('changed elsewhere');

  vi.mocked(api.changeTable).mockRejectedValueOnce(new ApiProblem(0, 'offline', 'not reached'));
  set.write(1, { name: 'Kept' });
  await set.flush();
  expect(set.table.value?.cells[1]).toEqual({ name: 'Kept' });
  await set.flush();
  expect(sent).toHaveBeenLastCalledWith({
    revision: 7,
    changes: [{ what: 'cells', position: 4, cells: { name: 'Kept' } }],
  });
});
