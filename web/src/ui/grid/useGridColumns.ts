/** Columns of a grid and their widths, which the user can change. */
import { getCoreRowModel, useVueTable, type ColumnDef } from '@tanstack/vue-table';
import { computed } from 'vue';
import type { Choice } from '../controls/PickOne.vue';

export interface GridColumn {
  readonly id: string;
  /** Name of the column, shown in its head and read with its editor. */
  readonly label: string;
  /** Width in pixels until the user changes it. */
  readonly width: number;
  /** Class of its head and cells. */
  readonly class?: string;
  /** What a cell can be set to, where it is one of a list. Its text is the value of an option then. */
  readonly options?: readonly Choice[];
}
const MIN_WIDTH = 24;
/** The table library manages columns only: its row model would hold an object for each of 100,000 rows. */
const NO_ROWS: unknown[] = [];

export function useGridColumns(gridColumns: () => readonly GridColumn[]) {
  const columns = computed(() =>
    gridColumns().map(({ id, label, width }): ColumnDef<unknown> => ({
      id,
      header: label,
      size: width,
      minSize: Math.min(width, MIN_WIDTH),
    })),
  );
  const table = useVueTable<unknown>({
    data: NO_ROWS,
    get columns() {
      return columns.value;
    },
    columnResizeMode: 'onChange',
    getCoreRowModel: getCoreRowModel(),
  });
  const headers = computed(() => table.getFlatHeaders());
  const widths = computed(() => headers.value.map((header) => header.getSize()));
  const totalWidth = computed(() => widths.value.reduce((sum, width) => sum + width, 0));
  /** Value of `grid-template-columns`. */
  const template = computed(() => widths.value.map((width) => `${width}px`).join(' '));

  /** Makes a column wider by some pixels, or narrower by a negative number of them. */
  function resize(column: number, by: number): void {
    const header = headers.value[column];
    if (!header) return;
    const size = Math.max(MIN_WIDTH, header.getSize() + by);
    table.setColumnSizing((sizes) => ({ ...sizes, [header.id]: size }));
  }
  return { headers, widths, totalWidth, template, resize };
}
