/** Rows in view, current cell, keys and editing of a grid: the same for every grid of the application. */
import { useVirtualizer } from '@tanstack/vue-virtual';
import { computed, nextTick, ref, type Ref } from 'vue';
import { useGridColumns, type GridColumn } from './useGridColumns';

/** A cell by the indexes of its row and column. */
export interface GridPlace {
  readonly row: number;
  readonly column: number;
}
export interface GridOptions {
  readonly rowCount: () => number;
  readonly columns: () => readonly GridColumn[];
  /** Height of a row and of the head, in pixels. */
  readonly rowHeight: number;
  readonly headHeight: number;
  /** The scrolling element that takes the keys. */
  readonly room: Readonly<Ref<HTMLElement | null>>;
  /** The current cell. */
  readonly place: Ref<GridPlace>;
  /** Text that editing a cell starts from; undefined if the cell cannot be edited. */
  readonly textOf: (place: GridPlace) => string | undefined;
  /** Called when a cell was edited or cleared. */
  readonly write: (place: GridPlace, text: string) => void;
  /** Called for Enter, Space or a double click on a cell that cannot be edited. */
  readonly open: (place: GridPlace) => void;
}

/** Rows that PageUp and PageDown move by. */
const PAGE = 12;
/** Pixels that Shift + arrow changes the width of a column by. */
const WIDTH_STEP = 16;

export function useGrid(options: GridOptions) {
  const { room, place, textOf, write, open } = options;
  const { headers, widths, totalWidth, template, resize } = useGridColumns(options.columns);
  const virtualizer = useVirtualizer(
    computed(() => ({
      count: options.rowCount(),
      getScrollElement: () => room.value,
      estimateSize: () => options.rowHeight,
      overscan: 12,
      scrollPaddingStart: options.headHeight,
    })),
  );
  const rows = computed(() => virtualizer.value.getVirtualItems());
  const bodyHeight = computed(() => virtualizer.value.getTotalSize());

  /** Text in the open editor; undefined while no cell is edited. */
  const edited = ref<string>();
  /** Whether editing began with a typed letter. */
  const isTyped = ref(false);
  const within = (value: number, count: number): number => Math.max(0, Math.min(count - 1, value));

  function scrollToRow(row: number): void {
    virtualizer.value.scrollToIndex(row);
  }
  async function move(row: number, column: number): Promise<void> {
    edited.value = undefined;
    place.value = { row: within(row, options.rowCount()), column: within(column, widths.value.length) };
    scrollToRow(place.value.row);
    await nextTick();
    room.value?.querySelector('.now')?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }
  /** Opens the editor of the current cell, or opens the cell if it cannot be edited. @param typed first text typed */
  async function begin(typed?: string): Promise<void> {
    const text = textOf(place.value);
    if (text === undefined) return typed === undefined ? open(place.value) : undefined;
    isTyped.value = typed !== undefined;
    // A typed letter does not replace the value of a list.
    edited.value = options.columns()[place.value.column]?.options ? text : (typed ?? text);
    await nextTick();
  }
  /** Writes what was edited and closes the editor. */
  function keep(): void {
    const text = edited.value;
    if (text === undefined) return;
    edited.value = undefined;
    if (text !== textOf(place.value)) write(place.value, text);
  }
  async function leave(row: number, column: number): Promise<void> {
    keep();
    room.value?.focus();
    await move(row, column);
  }
  function cancel(): void {
    edited.value = undefined;
    room.value?.focus();
  }
  /** Keys on the grid itself. Its buttons and editors handle their own keys. */
  function onKey(event: KeyboardEvent): void {
    if (event.target !== room.value) return;
    const { row, column } = place.value;
    const plain = !event.ctrlKey && !event.metaKey && !event.altKey;
    const to = targetOf(event, place.value);
    const sideways = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (event.shiftKey && sideways) resize(column, sideways * WIDTH_STEP);
    else if (to) void move(to.row, to.column);
    else if (event.key === 'Enter' || event.key === 'F2') void begin();
    else if (event.key === ' ' && textOf(place.value) === undefined) open(place.value);
    else if (event.key === 'Delete' && textOf(place.value) !== undefined) write({ row, column }, '');
    else if (event.key.length === 1 && plain && textOf(place.value) !== undefined) void begin(event.key);
    else return;
    event.preventDefault();
  }
  /** Keys in an editor: Enter moves down, Tab sideways, Escape discards the edit. */
  function onEditorKey(event: KeyboardEvent): void {
    if (event.isComposing || event.defaultPrevented) return;
    const { row, column } = place.value;
    if (event.key === 'Enter') void leave(row + 1, column);
    else if (event.key === 'Tab') void leave(row, column + (event.shiftKey ? -1 : 1));
    else if (event.key === 'Escape') cancel();
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
  return {
    ...{ headers, widths, totalWidth, template, rows, bodyHeight, edited, isTyped },
    ...{ move, begin, keep, cancel, scrollToRow, onKey, onEditorKey },
  };
}

/** The cell that a key moves to; undefined for other keys. Indexes may lie outside the grid. */
function targetOf({ key, ctrlKey, metaKey }: KeyboardEvent, { row, column }: GridPlace): GridPlace | undefined {
  const far = ctrlKey || metaKey;
  const targets: Readonly<Record<string, GridPlace>> = {
    ArrowDown: { row: far ? Infinity : row + 1, column },
    ArrowUp: { row: far ? 0 : row - 1, column },
    ArrowRight: { row, column: far ? Infinity : column + 1 },
    ArrowLeft: { row, column: far ? 0 : column - 1 },
    PageDown: { row: row + PAGE, column },
    PageUp: { row: row - PAGE, column },
    Home: { row: far ? 0 : row, column: 0 },
    End: { row: far ? Infinity : row, column: Infinity },
  };
  return targets[key];
}
