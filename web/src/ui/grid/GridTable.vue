<script setup lang="ts">
/**
 * A grid of any number of rows, of which only those in view are drawn. Arrow keys move; Enter, F2 or typing edits a cell;
 * Shift + left or right changes the width of a column (Alt is the browser's own way back). What heads and cells show is given in slots.
 */
import { computed, useId, useTemplateRef, watch } from 'vue';
import CellEditor from './CellEditor.vue';
import { useGrid, type GridPlace } from './useGrid';
import type { GridColumn } from './useGridColumns';

const {
  rowCount,
  columns,
  label,
  rowHeight = 32,
  headHeight = 36,
  textOf = () => undefined,
  rowName = (row: number) => `row ${row + 1}`,
  rowHeader = false,
} = defineProps<{
  /** Name of the grid for screen readers. */
  label: string | undefined;
  rowCount: number;
  columns: readonly GridColumn[];
  /** Heights of a row and of the head, in pixels. */
  rowHeight?: number;
  headHeight?: number;
  /** Text that editing a cell starts from; undefined if it cannot be edited. */
  textOf?: (place: GridPlace) => string | undefined;
  /** Name of a row, for its editors. */
  rowName?: (row: number) => string;
  /** Whether the first cell names its row. */
  rowHeader?: boolean;
}>();
/** The current cell. */
const place = defineModel<GridPlace>('place', { required: true });
const emit = defineEmits<{
  /** A cell was edited or cleared. */
  write: [place: GridPlace, text: string];
  /** Enter, Space or a double click on a cell that cannot be edited. */
  open: [place: GridPlace];
  /** A click on a cell, which is the current one now. */
  press: [place: GridPlace];
  /** Text was pasted onto the current cell. */
  paste: [text: string];
}>();
defineSlots<{
  head?(props: { column: GridColumn; index: number }): unknown;
  cell(props: { row: number; column: GridColumn; index: number }): unknown;
  /** Below the rows. */
  default?(): unknown;
}>();

const id = useId();
const room = useTemplateRef<HTMLElement>('room');
const grid = useGrid({
  rowCount: () => rowCount,
  columns: () => columns,
  ...{ rowHeight, headHeight, room, place },
  textOf: (at) => textOf(at),
  write: (at, text) => emit('write', at, text),
  open: (at) => emit('open', at),
});
const { headers, totalWidth, template, rows, bodyHeight, edited, isTyped, move, begin, keep, onKey, onEditorKey } =
  grid;
const cellId = (row: number, column: number): string => `${id}-${row}-${column}`;
const isNow = (row: number, column: number): boolean => row === place.value.row && column === place.value.column;
/** The current cell, if it is drawn. */
const active = computed(() =>
  rows.value.some(({ index }) => index === place.value.row) ? cellId(place.value.row, place.value.column) : undefined,
);
watch(
  () => place.value.row,
  (row) => grid.scrollToRow(row),
);

async function press(row: number, column: number): Promise<void> {
  if (edited.value !== undefined && isNow(row, column)) return;
  keep();
  await move(row, column);
  emit('press', { row, column });
}
function done(text: string): void {
  edited.value = text;
  keep();
  room.value?.focus();
}
function onPaste(event: ClipboardEvent): void {
  const text = event.clipboardData?.getData('text/plain') ?? '';
  if (edited.value !== undefined || text === '') return;
  event.preventDefault();
  emit('paste', text);
}
function onCopy(event: ClipboardEvent): void {
  const text = textOf(place.value);
  if (edited.value !== undefined || event.target !== room.value || text === undefined) return;
  event.clipboardData?.setData('text/plain', text);
  event.preventDefault();
}
defineExpose({ move, begin, focus: () => room.value?.focus() });
</script>

<template>
  <div
    ref="room"
    class="grid"
    role="grid"
    tabindex="0"
    :aria-label="label"
    :aria-rowcount="rowCount + 1"
    :aria-colcount="columns.length"
    :aria-activedescendant="active"
    @keydown="onKey"
    @paste="onPaste"
    @copy="onCopy"
  >
    <div
      class="top"
      role="row"
      aria-rowindex="1"
      :style="{ gridTemplateColumns: template, width: `${totalWidth}px`, height: `${headHeight}px` }"
    >
      <div
        v-for="(column, index) in columns"
        :key="column.id"
        class="column-head"
        role="columnheader"
        :class="[column.class, { frozen: index === 0 }]"
      >
        <slot name="head" :column="column" :index="index">{{ column.label }}</slot>
        <span
          class="edge"
          aria-hidden="true"
          @touchstart.stop="headers[index]?.getResizeHandler()($event)"
          @mousedown.stop="headers[index]?.getResizeHandler()($event)"
        />
      </div>
    </div>
    <div class="body" role="rowgroup" :style="{ height: `${bodyHeight}px`, width: `${totalWidth}px` }">
      <div
        v-for="{ index: row, start } in rows"
        :key="row"
        class="line"
        role="row"
        :aria-rowindex="row + 2"
        :aria-selected="row === place.row"
        :style="{ transform: `translateY(${start}px)`, gridTemplateColumns: template, height: `${rowHeight}px` }"
      >
        <div
          v-for="(column, index) in columns"
          :id="cellId(row, index)"
          :key="column.id"
          class="cell"
          :role="rowHeader && index === 0 ? 'rowheader' : 'gridcell'"
          :class="[column.class, { frozen: index === 0, now: isNow(row, index) }]"
          @click="press(row, index)"
          @dblclick="begin()"
        >
          <div v-if="edited !== undefined && isNow(row, index)" class="editor" @keydown="onEditorKey">
            <CellEditor
              v-model="edited"
              :label="`${column.label}, ${rowName(row)}`"
              :options="column.options"
              :typed="isTyped"
              @leave="keep"
              @pick="done"
            />
          </div>
          <slot v-else name="cell" :row="row" :column="column" :index="index" />
        </div>
      </div>
    </div>
    <slot />
  </div>
</template>

<style scoped>
.grid {
  position: relative;
  overflow: auto;
  font-size: 0.8125rem;
}
.grid:focus-visible {
  outline-offset: -2px;
}
.grid:focus-visible:has(.now) {
  outline: none; /* the current cell shows it */
}
.top {
  position: sticky;
  top: 0;
  z-index: 3;
  display: grid;
  grid-template-rows: minmax(0, 100%);
  align-items: end;
  min-width: 100%;
  background: var(--table);
  border-bottom: 1px solid var(--edge);
  font-weight: 600;
}
.column-head {
  position: relative;
  height: 100%;
}
.edge {
  position: absolute;
  inset: 0 0 0 auto;
  width: 7px;
  cursor: col-resize;
  touch-action: none;
}
.edge:hover {
  border-right: 2px solid var(--edge);
}
.body {
  position: relative;
  min-width: 100%;
}
.line {
  position: absolute;
  top: 0;
  left: 0;
  display: grid;
  min-width: 100%;
  border-bottom: 1px solid var(--hair);
}
.cell {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.frozen {
  position: sticky;
  left: 0;
  z-index: 1;
  background: var(--table);
  border-right: 1px solid var(--hair);
}
.now {
  outline: 1px solid var(--edge);
  outline-offset: -2px;
}
.grid:focus-within .now {
  outline: 2px solid var(--action);
}
.editor {
  height: 100%;
  padding: 2px;
}
</style>
