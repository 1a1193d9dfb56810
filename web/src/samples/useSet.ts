/** A set that is worked on: changes are shown at once, sent in order, and can be undone one by one. */
import type { StoredTable, TableChange } from '@vocabula/contract';
import type { SampleColumn } from '@vocabula/core/proof';
import { computed, shallowRef } from 'vue';
import { api } from '../api/client';
import { isTemporary, makeKeeper } from '../ui/keeper';
import { useNotice } from '../ui/notice';

type Cells = Readonly<Record<string, string>>;

/** As many changes as are sent together. */
const MOST = 900;

/** What waits and what is new; what is typed into the same row goes together. */
function joined(waiting: readonly TableChange[] = [], next: readonly TableChange[]): readonly TableChange[] {
  const all = [...waiting];
  for (const change of next) {
    const last = all.at(-1);
    if (change.what === 'cells' && last?.what === 'cells' && last.position === change.position)
      all[all.length - 1] = { ...last, cells: { ...last.cells, ...change.cells } };
    else all.push(change);
  }
  return all;
}

/** Of each set that was opened: the revision that its changes are based on. */
const revisions = new Map<string, number>();
const keeper = makeKeeper<readonly TableChange[]>({ merge: joined, send });
async function send(id: string, changes: readonly TableChange[]): Promise<void> {
  for (let from = 0; from < changes.length; from += MOST) {
    const part = changes.slice(from, from + MOST);
    const saved = await api.changeTable(id, { revision: revisions.get(id) ?? 0, changes: part });
    revisions.set(id, saved.revision);
  }
}

/** A set with what was typed into it and waits to be sent. */
function withCells(given: StoredTable, waiting: readonly TableChange[]): StoredTable {
  const cells = [...given.cells];
  for (const change of waiting) {
    const row = change.what === 'cells' ? given.positions.indexOf(change.position) : -1;
    if (change.what === 'cells' && row >= 0) cells[row] = { ...cells[row], ...change.cells };
  }
  return { ...given, cells };
}

export function useSet(changed: () => Promise<void>) {
  const notice = useNotice();
  const table = shallowRef<StoredTable>();
  const columns = computed(() => table.value?.columns ?? []);
  const keeping = computed(() => keeper.stateOf(table.value?.id ?? ''));
  /** A set that is fetched again, after its changes were refused. */
  let fetching: Promise<void> = Promise.resolve();

  async function open(id: string): Promise<void> {
    // What cannot be sent just now goes later, as changes of the set they were made in.
    await flush();
    show(await api.table(id));
  }
  function show(fresh: StoredTable): void {
    revisions.set(fresh.id, fresh.revision);
    table.value = withCells(fresh, keeper.waiting(fresh.id) ?? []);
  }
  function close(): void {
    table.value = undefined;
  }
  keeper.hear({
    async kept(id, _, changes) {
      const { value: now } = table;
      if (now?.id !== id) return;
      table.value = { ...now, revision: revisions.get(id) ?? now.revision };
      const calculates = now.columns.some(({ value }) => value !== undefined);
      const structural = changes.some(({ what }) => what !== 'cells' && what !== 'title');
      // What is calculated, and the places of new rows, only the server knows.
      try {
        if (calculates || structural) {
          const fresh = await api.table(id);
          if (table.value?.id === id && !keeper.waiting(id)) show(fresh);
        }
        await changed();
      } catch (problem) {
        notice.fail(problem);
      }
    },
    refused,
  });
  /** Sends what waits. What could not be sent is told of; where the server was away it is tried again. */
  async function flush(): Promise<void> {
    await keeper.flush().catch((problem: unknown) => isTemporary(problem) && notice.fail(problem));
    await fetching;
  }
  /** The set as it is now, with whoever’s changes. */
  function refused(id: string, _changes: readonly TableChange[], problem: unknown): 'drop' {
    notice.fail(problem);
    if (table.value?.id === id) fetching = api.table(id).then(show, (again: unknown) => notice.fail(again));
    return 'drop';
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
    const made: TableChange[] = [];
    for (const { position, cells } of changes) {
      const row = now.positions.indexOf(position);
      if (row < 0) continue;
      all[row] = { ...all[row], ...cells };
      made.push({ what: 'cells', position, cells: { ...cells } });
    }
    table.value = { ...now, cells: all };
    if (made.length > 0) keeper.keep(now.id, made);
  }
  /** Makes changes of the whole at once. */
  async function change(...changes: TableChange[]): Promise<void> {
    if (!table.value) return;
    keeper.keep(table.value.id, changes);
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
    notice.say('Row deleted.', () => change({ what: 'add-rows', rows: [own] }));
  }

  return { table, columns, keeping, open, close, flush, write, change, putColumn, removeRow };
}

export type WorkedSet = ReturnType<typeof useSet>;
