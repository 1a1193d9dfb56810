<script setup lang="ts">
/** The recipients, one row each, with a column for each question that differs. */
import { vTip } from '../ui/controls/tip';
import type { MailedRow } from '@vocabula/contract';
import { labelOf, type Question } from '@vocabula/core';
import { useVirtualizer } from '@tanstack/vue-virtual';
import { computed, useTemplateRef } from 'vue';
import PickOne, { type Choice } from '../ui/controls/PickOne.vue';
import PushButton from '../ui/controls/PushButton.vue';
import TypedField from '../ui/TypedField.vue';

const props = defineProps<{
  rows: readonly MailedRow[];
  columns: readonly Question[];
  /** What is answered for all. */
  shared: Readonly<Record<string, unknown>>;
  /** Whether anything can still be changed. */
  open: boolean;
}>();
const chosen = defineModel<string | undefined>('chosen');
const emit = defineEmits<{
  answer: [row: string, answers: Record<string, unknown>];
  out: [row: string, out: boolean];
  once: [key: string];
}>();
const STATES: Readonly<Record<string, string>> = {
  ready: 'ready',
  apart: 'set apart',
  waiting: 'waiting',
  sending: 'going',
  gone: 'gone',
  refused: 'not taken',
  uncertain: 'may have gone',
  'taken back': 'left out',
};
const table = useTemplateRef('table');
const virtual = useVirtualizer(
  computed(() => ({
    count: props.rows.length,
    getScrollElement: () => table.value,
    estimateSize: () => 36,
    overscan: 12,
  })),
);
const shown = computed(() =>
  virtual.value.getVirtualItems().flatMap(({ index, start }) => {
    const row = props.rows[index];
    return row ? [{ row, index, start }] : [];
  }),
);
const layout = computed(() => `minmax(112px, 1fr) ${props.columns.map(() => '132px').join(' ')} 96px`);
const cell = (row: MailedRow, { key, source, value }: Question): unknown =>
  row.answers[key] ?? props.shared[key] ?? (source === 'default' ? value : '') ?? '';
const isPicked = ({ type }: Question): boolean => type === 'choice' || type === 'yes-no';
/** What is picked, as it reads: a select stands in the row that is chosen alone, since hundreds of them are slow. */
const wordsOf = (row: MailedRow, column: Question): string =>
  optionsOf(column).find(({ value }) => value === String(cell(row, column)))?.words ?? '';
const NONE: Choice = { value: '', words: '' };
const choicesOf = ({ type, variable }: Question): Choice[] => [
  NONE,
  ...(type === 'choice'
    ? (variable.options ?? []).map((option) => ({ value: option.key, words: labelOf(option) }))
    : [
        { value: 'true', words: variable.words?.yes ?? 'Yes' },
        { value: 'false', words: variable.words?.no ?? 'No' },
      ]),
];
/** The choices of each column, by key. */
const choices = computed(
  () => new Map(props.columns.filter(isPicked).map((column) => [column.key, choicesOf(column)])),
);
const optionsOf = ({ key }: Question): Choice[] => choices.value.get(key) ?? [];
function set(row: MailedRow, { key, type }: Question, typed: string): void {
  const value = type === 'yes-no' ? typed === 'true' : typed;
  emit('answer', row.id, { ...row.answers, [key]: value });
}
function onKey(event: KeyboardEvent): void {
  const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
  if (step === 0 || (event.target as Element).closest('[role=combobox]')) return;
  const next = props.rows[props.rows.findIndex(({ id }) => id === chosen.value) + step];
  if (!next) return;
  event.preventDefault();
  chosen.value = next.id;
  virtual.value.scrollToIndex(props.rows.indexOf(next));
}
</script>

<template>
  <div
    ref="table"
    class="table"
    role="grid"
    aria-label="Recipients"
    :aria-rowcount="rows.length + 1"
    tabindex="0"
    @keydown="onKey"
  >
    <div class="line heading small" role="row" :style="{ gridTemplateColumns: layout }">
      <span role="columnheader">Recipient</span>
      <span v-for="column in columns" :key="column.key" role="columnheader"
        >{{ column.label }}
        <PushButton
          v-if="open"
          kind="plain"
          size="small"
          v-tip="`Ask ${column.label} once`"
          @click="emit('once', column.key)"
          >once</PushButton
        ></span
      >
      <span role="columnheader">State</span>
    </div>
    <div class="all" :style="{ height: `${virtual.getTotalSize()}px` }" role="presentation">
      <div
        v-for="{ row, index, start } in shown"
        :key="row.id"
        class="line each"
        role="row"
        :aria-rowindex="index + 2"
        :aria-selected="row.id === chosen"
        :style="{ gridTemplateColumns: layout, transform: `translateY(${start}px)` }"
        @click="chosen = row.id"
      >
        <span class="who" role="gridcell"
          >{{ row.name || row.address }} <span class="quiet small">{{ row.name ? row.address : '' }}</span></span
        >
        <span v-for="column in columns" :key="column.key" role="gridcell">
          <span v-if="isPicked(column) && row.id !== chosen" class="picked">{{ wordsOf(row, column) }}</span>
          <PickOne
            v-else-if="isPicked(column)"
            :model-value="String(cell(row, column))"
            :disabled="!open"
            size="small"
            :label="`${column.label}, ${row.name || row.address}`"
            :options="optionsOf(column)"
            @update:model-value="set(row, column, $event)"
          />
          <TypedField
            v-else
            :type="column.type"
            :model-value="String(cell(row, column))"
            :locale="column.locale"
            :disabled="!open"
            :aria-label="`${column.label}, ${row.name || row.address}`"
            @update:model-value="set(row, column, $event)"
          />
        </span>
        <span class="state small" role="gridcell" v-tip="row.why">
          <span :class="{ warning: row.state === 'apart' || row.state === 'uncertain', error: row.state === 'refused' }"
            >{{ row.state === 'apart' ? '‸ ' : '' }}{{ STATES[row.state] ?? row.state }}</span
          >
          <PushButton
            v-if="open"
            kind="plain"
            size="small"
            :aria-label="
              row.state === 'taken back'
                ? `Take ${row.name || row.address} in again`
                : `Leave ${row.name || row.address} out`
            "
            @click.stop="emit('out', row.id, row.state !== 'taken back')"
          >
            {{ row.state === 'taken back' ? 'in' : 'out' }}
          </PushButton>
        </span>
      </div>
    </div>
  </div>
</template>

<style scoped>
.table {
  overflow: auto;
  border-right: 1px solid var(--hair);
  min-width: 0;
}
.table:focus-visible {
  outline-offset: -2px;
}
.line {
  display: grid;
  align-items: center;
  gap: 8px;
  padding: 0 12px;
  height: 36px;
  border-bottom: 1px solid var(--hair);
}
.heading {
  position: sticky;
  top: 0;
  z-index: 1;
  background: var(--table);
  color: var(--quiet);
}
.all {
  position: relative;
}
.each {
  position: absolute;
  left: 0;
  right: 0;
}
.each[aria-selected='true'] {
  background: var(--selected);
  box-shadow: inset 3px 0 var(--action);
}
.who,
.state {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.state {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
.picked {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  padding-left: 9px;
}
.line button {
  height: 20px;
  padding: 0 4px;
  color: var(--action);
}
.line :deep(.p-select),
.line :deep(input) {
  height: 28px;
}
</style>
