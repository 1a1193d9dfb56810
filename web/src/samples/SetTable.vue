<script setup lang="ts">
/** The cells of a sample set or recipient list, edited in place, and the form of a column beside them. */
import { computed, ref, useTemplateRef, watch } from 'vue';
import PushButton from '../ui/controls/PushButton.vue';
import GridTable from '../ui/grid/GridTable.vue';
import type { GridPlace } from '../ui/grid/useGrid';
import type { GridColumn } from '../ui/grid/useGridColumns';
import TypeMark from '../ui/TypeMark.vue';
import ColumnForm from './ColumnForm.vue';
import { gridOf, statsInWords, statsOf } from './stats';
import type { WorkedSet } from './useSet';

const props = defineProps<{ set: WorkedSet }>();
const { table, columns } = props.set;
const HEAD = 56;
/** Widths of columns, in pixels; the first rows decide. */
const [MIN_WIDTH, MAX_WIDTH, ROWS_MEASURED] = [212, 320, 200];
const LETTER = 7;

const grid = useTemplateRef<{ move(row: number, column: number): Promise<void>; focus(): void }>('grid');
const place = ref<GridPlace>({ row: 0, column: 0 });
/** Key of the column whose form is open; empty for a new column. */
const openColumn = ref<string>();
const cells = computed(() => table.value?.cells ?? []);
const gridColumns = computed(() =>
  columns.value.map(({ key, name, type, value }): GridColumn => {
    const lengths = cells.value.slice(0, ROWS_MEASURED).map((row) => (row[key] ?? '').length);
    const width = Math.max(name.length + 3, ...lengths) * LETTER + 28;
    return {
      ...{ id: key, label: name, width: Math.max(MIN_WIDTH, Math.min(MAX_WIDTH, width)) },
      class: [type === 'number' ? 'number' : '', value === undefined ? '' : 'calculated'].join(' '),
    };
  }),
);
const heads = computed(() =>
  columns.value.map((column) => ({
    ...column,
    stats: statsInWords(statsOf(cells.value.map((row) => row[column.key] ?? ''))),
    problem: table.value?.problems[column.key],
  })),
);
const keyOf = (column: number): string => columns.value[column]?.key ?? '';
const isCalculated = (column: number): boolean => columns.value[column]?.value !== undefined;
const textOf = ({ row, column }: GridPlace): string | undefined =>
  isCalculated(column) ? undefined : (cells.value[row]?.[keyOf(column)] ?? '');

watch(
  () => table.value?.id,
  () => {
    place.value = { row: 0, column: 0 };
    openColumn.value = undefined;
  },
);
function write({ row, column }: GridPlace, text: string): void {
  props.set.write(row, { [keyOf(column)]: text });
}
/** Writes a pasted table into the cells from the current one on; missing rows are added, calculated columns are kept. */
async function paste(text: string): Promise<void> {
  const { row, column } = place.value;
  const rowOf = (line: readonly string[]): Record<string, string> =>
    Object.fromEntries(
      line.flatMap((cell, index) =>
        column + index < columns.value.length && !isCalculated(column + index) ? [[keyOf(column + index), cell]] : [],
      ),
    );
  const pasted = gridOf(text).map(rowOf);
  const present = Math.max(0, Math.min(pasted.length, cells.value.length - row));
  props.set.write(row, ...pasted.slice(0, present));
  const added = pasted.slice(present);
  if (added.length > 0) await props.set.change({ what: 'add-rows', rows: added });
}
async function addRow(): Promise<void> {
  await props.set.change({ what: 'add-rows', rows: [{}] });
  await grid.value?.move(cells.value.length - 1, 0);
  grid.value?.focus();
}
defineExpose({ addRow, openNew: () => (openColumn.value = '') });
</script>

<template>
  <div class="set">
    <GridTable
      ref="grid"
      v-model:place="place"
      :label="table?.title"
      :row-count="cells.length"
      :columns="gridColumns"
      :head-height="HEAD"
      :text-of="textOf"
      @write="write"
      @paste="paste"
      @open="({ column }) => (openColumn = keyOf(column))"
    >
      <template #head="{ index }">
        <button
          class="column"
          :aria-expanded="openColumn === keyOf(index)"
          @click="openColumn = openColumn === keyOf(index) ? undefined : keyOf(index)"
        >
          <span class="name"
            ><TypeMark :type="heads[index]?.type ?? 'text'" />{{ heads[index]?.name
            }}<i v-if="heads[index]?.value"> = </i></span
          >
          <span v-if="heads[index]?.problem" class="error stats">⚠ {{ heads[index]?.problem }}</span>
          <span v-else class="quiet stats">{{ heads[index]?.stats }}</span>
        </button>
      </template>
      <template #cell="{ row, column }">
        <span class="text"
          >{{ cells[row]?.[column.id] }}<span v-if="!cells[row]?.[column.id]" class="quiet">—</span></span
        >
      </template>
      <p v-if="cells.length === 0" class="quiet none">
        This set has no rows yet. <PushButton size="small" @click="addRow">Add a row</PushButton>
      </p>
    </GridTable>
    <ColumnForm
      v-if="openColumn !== undefined"
      :key="openColumn"
      :set="set"
      :column="openColumn"
      @close="openColumn = undefined"
    />
  </div>
</template>

<style scoped>
.set {
  position: relative;
  min-height: 0;
  min-width: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
}
.column {
  width: 100%;
  height: 55px;
  display: grid;
  align-content: center;
  justify-items: start;
  gap: 1px;
  border: 0;
  border-radius: 0;
  padding: 0 12px;
  text-align: left;
  background: var(--table);
  min-width: 0;
}
.column:hover,
.column[aria-expanded='true'] {
  background: var(--hover);
}
.column:focus-visible {
  outline-offset: -2px;
}
.name {
  display: flex;
  gap: 6px;
  align-items: center;
  font-weight: 600;
}
.stats {
  font-size: 0.75rem;
  line-height: 1rem;
  font-weight: 400;
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.text {
  display: block;
  padding: 6px 12px;
  overflow: hidden;
  text-overflow: ellipsis;
  cursor: cell;
}
.set :deep(.cell.number) {
  text-align: right;
}
.set :deep(.cell.calculated) {
  font-style: italic;
}
.none {
  padding: 16px;
}
</style>
