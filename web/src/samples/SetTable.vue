<script setup lang="ts">
/** The cells of a set: written in place, by key or pointer; only the rows in sight are there. */
import { useVirtualizer } from '@tanstack/vue-virtual';
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';
import TypeMark from '../ui/TypeMark.vue';
import ColumnForm from './ColumnForm.vue';
import { gridOf, statsInWords, statsOf } from './stats';
import type { WorkedSet } from './useSet';

const props = defineProps<{ set: WorkedSet }>();
const { table, columns } = props.set;
const ROW = 32;
const HEAD = 56;
const room = useTemplateRef<HTMLElement>('room');
const at = ref({ row: 0, column: 0 });
const writing = ref<string>();
const openColumn = ref<string>();

const cells = computed(() => table.value?.cells ?? []);
const rows = useVirtualizer(
  computed(() => ({
    count: cells.value.length,
    getScrollElement: () => room.value,
    estimateSize: () => ROW,
    overscan: 16,
    scrollPaddingStart: HEAD,
  })),
);
/** Whether the row of the present cell is among those that are drawn. */
const isThere = computed(() => rows.value.getVirtualItems().some(({ index }) => index === at.value.row));
/** As wide as the longest cells of the first rows ask for. */
const widths = computed(() =>
  columns.value.map(({ key, name }) => {
    const longest = cells.value
      .slice(0, 200)
      .reduce((most, row) => Math.max(most, (row[key] ?? '').length), name.length + 3);
    return Math.max(212, Math.min(320, longest * 7 + 28));
  }),
);
const total = computed(() => widths.value.reduce((sum, width) => sum + width, 0));
const template = computed(() => widths.value.map((width) => `${width}px`).join(' '));
const heads = computed(() =>
  columns.value.map((column) => ({
    ...column,
    says: statsInWords(statsOf(cells.value.map((row) => row[column.key] ?? ''))),
    problem: table.value?.problems[column.key],
  })),
);
const keyOf = (column: number): string => columns.value[column]?.key ?? '';
const isWorked = (column: number): boolean => columns.value[column]?.value !== undefined;

watch(
  () => table.value?.id,
  () => {
    at.value = { row: 0, column: 0 };
    writing.value = openColumn.value = undefined;
  },
);
async function move(row: number, column: number): Promise<void> {
  at.value = {
    row: Math.max(0, Math.min(cells.value.length - 1, row)),
    column: Math.max(0, Math.min(columns.value.length - 1, column)),
  };
  rows.value.scrollToIndex(at.value.row);
  await nextTick();
  room.value?.querySelector('.now')?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
}
async function begin(with_?: string): Promise<void> {
  if (isWorked(at.value.column)) {
    openColumn.value = keyOf(at.value.column);
    return;
  }
  writing.value = with_ ?? cells.value[at.value.row]?.[keyOf(at.value.column)] ?? '';
  await nextTick();
  const field = room.value?.querySelector<HTMLInputElement>('.now input');
  field?.focus();
  if (with_ === undefined) field?.select();
}
function keep(): void {
  const { row, column } = at.value;
  const key = keyOf(column);
  if (writing.value === undefined) return;
  if (writing.value !== (cells.value[row]?.[key] ?? '')) props.set.write(row, { [key]: writing.value });
  writing.value = undefined;
}
async function leave(row: number, column: number): Promise<void> {
  keep();
  room.value?.focus();
  await move(row, column);
}
function onKey(event: KeyboardEvent): void {
  const { row, column } = at.value;
  if (event.target !== room.value) return;
  const to = {
    ArrowDown: [row + 1, column],
    ArrowUp: [row - 1, column],
    ArrowRight: [row, column + 1],
    ArrowLeft: [row, column - 1],
    PageDown: [row + 15, column],
    PageUp: [row - 15, column],
    Home: [event.ctrlKey ? 0 : row, 0],
    End: [event.ctrlKey ? Infinity : row, Infinity],
  }[event.key];
  if (to) void move(to[0] ?? 0, to[1] ?? 0);
  else if (event.key === 'Enter' || event.key === 'F2') void begin();
  else if (event.key === 'Delete' && !isWorked(column)) props.set.write(row, { [keyOf(column)]: '' });
  else if (event.key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey) void begin(event.key);
  else return;
  event.preventDefault();
}
function onFieldKey(event: KeyboardEvent): void {
  const { row, column } = at.value;
  if (event.isComposing) return;
  if (event.key === 'Enter') void leave(row + 1, column);
  else if (event.key === 'Tab') void leave(row, column + (event.shiftKey ? -1 : 1));
  else if (event.key === 'Escape') {
    writing.value = undefined;
    room.value?.focus();
  } else return;
  event.preventDefault();
  event.stopPropagation();
}
/** What was copied elsewhere goes into the cells from here on; rows that are missing are added. */
async function onPaste(event: ClipboardEvent): Promise<void> {
  const text = event.clipboardData?.getData('text/plain') ?? '';
  if (writing.value !== undefined || text === '') return;
  event.preventDefault();
  const grid = gridOf(text);
  const { row, column } = at.value;
  const rowOf = (line: readonly string[]): Record<string, string> =>
    Object.fromEntries(
      line.flatMap((cell, index) =>
        column + index < columns.value.length && !isWorked(column + index) ? [[keyOf(column + index), cell]] : [],
      ),
    );
  const there = Math.max(0, Math.min(grid.length, cells.value.length - row));
  props.set.write(row, ...grid.slice(0, there).map(rowOf));
  const more = grid.slice(there).map(rowOf);
  if (more.length > 0) await props.set.change({ what: 'add-rows', rows: more });
}
function onCopy(event: ClipboardEvent): void {
  if (writing.value !== undefined || event.target !== room.value) return;
  event.clipboardData?.setData('text/plain', cells.value[at.value.row]?.[keyOf(at.value.column)] ?? '');
  event.preventDefault();
}
async function addRow(): Promise<void> {
  await props.set.change({ what: 'add-rows', rows: [{}] });
  await move(cells.value.length - 1, 0);
  room.value?.focus();
}
defineExpose({ addRow, openNew: () => (openColumn.value = '') });
</script>

<template>
  <div class="set">
    <div
      ref="room"
      class="room"
      role="grid"
      tabindex="0"
      :aria-label="table?.title"
      :aria-rowcount="cells.length"
      :aria-activedescendant="isThere ? `c-${at.row}-${at.column}` : undefined"
      @keydown="onKey"
      @paste="onPaste"
      @copy="onCopy"
    >
      <div class="top" role="row" :style="{ gridTemplateColumns: template, width: `${total}px` }">
        <button
          v-for="(column, index) in heads"
          :key="column.key"
          class="column"
          role="columnheader"
          :class="{ frozen: index === 0 }"
          :aria-expanded="openColumn === column.key"
          @click="openColumn = openColumn === column.key ? undefined : column.key"
        >
          <span class="name"><TypeMark :type="column.type" />{{ column.name }}<i v-if="column.value"> = </i></span>
          <span v-if="column.problem" class="error says">⚠ {{ column.problem }}</span>
          <span v-else class="quiet says">{{ column.says }}</span>
        </button>
      </div>
      <div class="body" role="rowgroup" :style="{ height: `${rows.getTotalSize()}px`, width: `${total}px` }">
        <div
          v-for="item in rows.getVirtualItems()"
          :key="item.index"
          class="line"
          role="row"
          :aria-rowindex="item.index + 1"
          :style="{ transform: `translateY(${item.start}px)`, gridTemplateColumns: template }"
        >
          <div
            v-for="(column, index) in columns"
            :id="`c-${item.index}-${index}`"
            :key="column.key"
            class="cell"
            role="gridcell"
            :class="{
              frozen: index === 0,
              number: column.type === 'number',
              worked: column.value !== undefined,
              now: item.index === at.row && index === at.column,
            }"
            @click="move(item.index, index)"
            @dblclick="begin()"
          >
            <input
              v-if="writing !== undefined && item.index === at.row && index === at.column"
              v-model="writing"
              :aria-label="`${column.name}, row ${item.index + 1}`"
              @keydown="onFieldKey"
              @blur="keep"
            />
            <template v-else
              >{{ cells[item.index]?.[column.key] || ''
              }}<span v-if="!cells[item.index]?.[column.key]" class="quiet">—</span></template
            >
          </div>
        </div>
      </div>
      <p v-if="cells.length === 0" class="quiet none">
        This set has no rows yet. <button @click="addRow">Add a row</button>
      </p>
    </div>
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
.room {
  overflow: auto;
  font-size: 0.8125rem;
  min-height: 0;
}
.room:focus-visible {
  outline-offset: -2px;
}
.top {
  display: grid;
  position: sticky;
  top: 0;
  z-index: 3;
  background: var(--table);
  border-bottom: 1px solid var(--edge);
  min-width: 100%;
}
.column {
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
.says {
  font-size: 0.75rem;
  line-height: 1rem;
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
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
  height: 32px;
  min-width: 100%;
  border-bottom: 1px solid var(--hair);
}
.cell {
  padding: 6px 12px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  cursor: cell;
}
.frozen {
  position: sticky;
  left: 0;
  z-index: 1;
  background: var(--table);
  border-right: 1px solid var(--hair);
}
.number {
  text-align: right;
}
.worked {
  font-style: italic;
}
.now {
  box-shadow: inset 0 0 0 1px var(--edge);
}
.room:focus-within .now {
  box-shadow: inset 0 0 0 2px var(--action);
}
.cell input {
  height: 28px;
  margin: -4px -8px;
  width: calc(100% + 16px);
  padding: 2px 7px;
}
.none {
  padding: 16px;
}
</style>
