/** A set that is worked on: changes are shown at once, sent in order, and can be undone one by one. */
import type { StoredTable, TableChange } from '@vocabula/contract';
import type { SampleColumn } from '@vocabula/core/proof';
import { computed, ref, shallowRef } from 'vue';
import { api, ApiProblem } from '../api/client';
import { useNotice } from '../ui/notice';

type Cells = Readonly<Record<string, string>>;

/** How long one types on before cells are sent, in milliseconds. */
const PAUSE = 400;
/** As many changes as are sent together. */
const MOST = 900;

export function useSet(changed: () => Promise<void>) {
  const notice = useNotice();
  const table = shallowRef<StoredTable>();
  const saving = ref(false);
  const columns = computed(() => table.value?.columns ?? []);
  let waiting: TableChange[] = [];
  let timer: ReturnType<typeof setTimeout> | undefined;
  let sending: Promise<void> = Promise.resolve();

  async function open(id: string): Promise<void> {
    await flush();
    table.value = await api.table(id);
  }
  function close(): void {
    table.value = undefined;
  }
  /** Sends what waits, after whatever is under way. */
  function flush(): Promise<void> {
    clearTimeout(timer);
    const changes = waiting;
    waiting = [];
    for (let from = 0; from < changes.length; from += MOST) {
      const part = changes.slice(from, from + MOST);
      sending = sending.then(() => send(part));
    }
    return sending;
  }
  async function send(changes: readonly TableChange[]): Promise<void> {
    const now = table.value;
    if (!now) return;
    saving.value = true;
    try {
      const saved = await api.changeTable(now.id, { revision: now.revision, changes: [...changes] });
      const worked = now.columns.some(({ value }) => value !== undefined);
      const structural = changes.some(({ what }) => what !== 'cells' && what !== 'title');
      // What is worked out, and the places of new rows, only the server knows.
      if (worked || structural) {
        const fresh = await api.table(now.id);
        if (table.value?.id === fresh.id && waiting.length === 0) table.value = fresh;
        else if (table.value?.id === saved.id) table.value = { ...table.value, revision: saved.revision };
      } else if (table.value?.id === saved.id) table.value = { ...table.value, revision: saved.revision };
      await changed();
    } catch (problem) {
      notice.fail(problem);
      // The set as it is now, with whoever’s changes.
      if (problem instanceof ApiProblem && problem.status > 0) table.value = await api.table(now.id);
      else waiting = [...changes, ...waiting];
    } finally {
      saving.value = false;
    }
  }

  /** Writes cells of rows that follow each other, and offers to undo all of it at once. */
  function write(row: number, ...lines: readonly Cells[]): void {
    const now = table.value;
    const changes = lines.flatMap((cells, index) => {
      const position = now?.positions[row + index];
      const before = now?.cells[row + index];
      if (position === undefined || !before) return [];
      const old = Object.fromEntries(Object.keys(cells).map((key) => [key, before[key] ?? '']));
      return [{ position, cells, old }];
    });
    put(changes);
    notice.say('Changed.', () => put(changes.map(({ position, old }) => ({ position, cells: old }))));
  }
  function put(changes: readonly { readonly position: number; readonly cells: Cells }[]): void {
    const now = table.value;
    if (!now) return;
    const all = [...now.cells];
    for (const { position, cells } of changes) {
      const row = now.positions.indexOf(position);
      if (row < 0) continue;
      all[row] = { ...all[row], ...cells };
      const last = waiting.at(-1);
      if (last?.what === 'cells' && last.position === position) Object.assign(last.cells, cells);
      else waiting.push({ what: 'cells', position, cells: { ...cells } });
    }
    table.value = { ...now, cells: all };
    clearTimeout(timer);
    timer = setTimeout(() => void flush(), PAUSE);
  }
  /** Makes changes of the whole at once. */
  async function change(...changes: TableChange[]): Promise<void> {
    waiting.push(...changes);
    await flush();
  }
  /** Puts a column in, or changes the one of its key. */
  const putColumn = (column: SampleColumn): Promise<void> => {
    const { value, ...rest } = column;
    return change({ what: 'column', column: { ...rest, ...(value ? { value } : {}) } });
  };
  async function removeRow(row: number): Promise<void> {
    const now = table.value;
    const position = now?.positions[row];
    const cells = now?.cells[row];
    if (!now || position === undefined || !cells) return;
    const own = Object.fromEntries(
      columns.value.filter(({ value }) => !value).map(({ key }) => [key, cells[key] ?? '']),
    );
    await change({ what: 'remove-rows', positions: [position] });
    notice.say('The row is gone.', () => change({ what: 'add-rows', rows: [own] }));
  }

  return { table, columns, saving, open, close, flush, write, change, putColumn, removeRow };
}

export type WorkedSet = ReturnType<typeof useSet>;
