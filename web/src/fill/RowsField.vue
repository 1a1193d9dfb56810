<script setup lang="ts">
/** A list as a small table to type or paste into. */
import { labelFromKey, labelOf, type RowValue, type Variable } from '@vocabula/core';
import { computed } from 'vue';
import PickOne from '../ui/controls/PickOne.vue';
import PushButton from '../ui/controls/PushButton.vue';
import TypedField from '../ui/TypedField.vue';
import { understand } from '../ui/typedValues';

const props = defineProps<{
  columns: readonly Variable[];
  rows: readonly RowValue[];
  label: string;
  locale: string;
}>();
const emit = defineEmits<{ answer: [rows: Record<string, unknown>[]] }>();
const asked = computed(() => props.columns.filter((column) => column.value === undefined));
const plain = (): Record<string, unknown>[] =>
  props.rows.map((row) =>
    Object.fromEntries(
      asked.value.flatMap((column) => (row[column.key] === undefined ? [] : [[column.key, row[column.key]]])),
    ),
  );

const cellName = (column: Variable, at: number): string => `${column.label ?? labelFromKey(column.key)}, row ${at + 1}`;
const choicesOf = (column: Variable): readonly (readonly [string, string])[] =>
  column.type === 'choice'
    ? (column.options ?? []).map((option) => [option.key, labelOf(option)] as const)
    : [
        ['true', column.words?.yes ?? 'Yes'],
        ['false', column.words?.no ?? 'No'],
      ];
function set(at: number, key: string, value: string): void {
  const rows = plain();
  rows[at] = { ...rows[at], [key]: value };
  emit('answer', rows);
}
function paste(at: number, column: number, event: ClipboardEvent): void {
  const text = event.clipboardData?.getData('text/plain') ?? '';
  if (!/[\t\n]/.test(text.trim())) return;
  event.preventDefault();
  const rows = plain();
  text
    .trim()
    .split(/\r?\n/)
    .forEach((line, down) =>
      line.split('\t').forEach((cell, across) => {
        const into = asked.value[column + across];
        if (into) rows[at + down] = { ...rows[at + down], [into.key]: understand(into.type, cell, props.locale) };
      }),
    );
  emit('answer', rows);
}
</script>

<template>
  <table class="list" :aria-label="label">
    <thead>
      <tr>
        <th v-for="column in asked" :key="column.key" scope="col">{{ column.label ?? labelFromKey(column.key) }}</th>
        <th><span class="unseen">Remove</span></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(row, at) in rows" :key="at">
        <td v-for="(column, index) in asked" :key="column.key">
          <PickOne
            v-if="column.type === 'yes-no' || column.type === 'choice'"
            :pt-label-class="'control'"
            enter-goes-on
            :model-value="String(row[column.key] ?? '')"
            :label="cellName(column, at)"
            :options="[{ value: '', words: '' }, ...choicesOf(column).map(([value, words]) => ({ value, words }))]"
            @update:model-value="set(at, column.key, $event)"
          />
          <TypedField
            v-else
            class="control"
            :type="column.type"
            :model-value="String(row[column.key] ?? '')"
            :locale="locale"
            :aria-label="cellName(column, at)"
            @update:model-value="set(at, column.key, $event)"
            @paste="paste(at, index, $event)"
          />
        </td>
        <td>
          <PushButton
            kind="plain"
            :aria-label="`Remove row ${at + 1}`"
            @click="
              emit(
                'answer',
                plain().filter((_, index) => index !== at),
              )
            "
          >
            −
          </PushButton>
        </td>
      </tr>
    </tbody>
  </table>
  <PushButton class="control add" @click="emit('answer', [...plain(), {}])">Add a row</PushButton>
</template>

<style scoped>
.list {
  width: 100%;
  border-collapse: collapse;
  margin-bottom: 8px;
}
th {
  text-align: left;
  font-weight: 400;
  font-size: 0.75rem;
  color: var(--quiet);
}
td {
  padding: 2px 4px 2px 0;
}
</style>
