<script setup lang="ts">
/** The recipients of a mailing, one row each, with a column for each question that differs between them. */
import type { MailedRow } from '@vocabula/contract';
import { labelOf, type Question } from '@vocabula/core';
import { computed, ref, useTemplateRef } from 'vue';
import type { Choice } from '../ui/controls/PickOne.vue';
import PushButton from '../ui/controls/PushButton.vue';
import { vTip } from '../ui/controls/tip';
import GridTable from '../ui/grid/GridTable.vue';
import type { GridPlace } from '../ui/grid/useGrid';
import type { GridColumn } from '../ui/grid/useGridColumns';
import { showSource, understand } from '../ui/typedValues';

const props = defineProps<{
  rows: readonly MailedRow[];
  /** Questions with an answer of their own for each recipient. */
  columns: readonly Question[];
  /** Answers for all recipients. */
  shared: Readonly<Record<string, unknown>>;
  /** Whether the mailing can still be changed. */
  open: boolean;
}>();
/** Id of the current row. */
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
  sending: 'sending',
  gone: 'sent',
  refused: 'refused',
  uncertain: 'may be sent',
  'taken back': 'left out',
};
const grid = useTemplateRef<{ begin(): Promise<void> }>('grid');
const currentColumn = ref(0);
const place = computed({
  get: (): GridPlace => ({
    row: Math.max(
      0,
      props.rows.findIndex(({ id }) => id === chosen.value),
    ),
    column: currentColumn.value,
  }),
  set: (to) => {
    currentColumn.value = to.column;
    chosen.value = props.rows[to.row]?.id;
  },
});
const gridColumns = computed((): GridColumn[] => [
  { id: 'recipient', label: 'Recipient', width: 164 },
  ...props.columns.map((question): GridColumn => {
    const options = optionsOf(question);
    return { id: `answer ${question.key}`, label: question.label, width: 132, ...(options && { options }) };
  }),
  { id: 'state', label: 'State', width: 104 },
]);
const questionAt = (index: number): Question | undefined => props.columns[index - 1];
const nameOf = ({ name, address }: MailedRow): string => name || address;

/** The answer of a recipient as source text; empty for none. */
const sourceOf = (row: MailedRow, { key, source, value }: Question): string =>
  String(row.answers[key] ?? props.shared[key] ?? (source === 'default' ? value : '') ?? '');
const NONE: Choice = { value: '', words: '' };
/** What a question offers to pick from; undefined for typed answers. */
function optionsOf({ type, variable: { options = [], words } }: Question): Choice[] | undefined {
  if (type === 'choice') return [NONE, ...options.map((option) => ({ value: option.key, words: labelOf(option) }))];
  const [yes, no] = [words?.yes ?? 'Yes', words?.no ?? 'No'];
  return type === 'yes-no' ? [NONE, { value: 'true', words: yes }, { value: 'false', words: no }] : undefined;
}
/** The answer in words. */
function answerWords(row: MailedRow, question: Question, { options }: GridColumn): string {
  const source = sourceOf(row, question);
  if (options) return options.find(({ value }) => value === source)?.words ?? '';
  return showSource(question.type, source, question.locale);
}
/** What editing starts from: the value of an option, or the answer in words. */
function textOf({ row: index, column: at }: GridPlace): string | undefined {
  const [row, question, grid] = [props.rows[index], questionAt(at), gridColumns.value[at]];
  if (!row || !question || !grid || !props.open) return undefined;
  return grid.options ? sourceOf(row, question) : answerWords(row, question, grid);
}
/** Writes an answer: the value of an option, or text as people type it. */
function write({ row: index, column: at }: GridPlace, text: string): void {
  const [row, question] = [props.rows[index], questionAt(at)];
  if (!row || !question) return;
  const { key, type, locale } = question;
  const { [key]: _own, ...others } = row.answers;
  // A yes-no without an answer of its own has that of all.
  if (type === 'yes-no' && text === '') return emit('answer', row.id, others);
  const value = type === 'yes-no' ? text === 'true' : type === 'choice' ? text : understand(type, text, locale);
  emit('answer', row.id, { ...others, [key]: value });
}
</script>

<template>
  <GridTable
    ref="grid"
    v-model:place="place"
    class="recipients"
    label="Recipients"
    :row-count="rows.length"
    :columns="gridColumns"
    :row-height="36"
    :text-of="textOf"
    :row-name="(row) => nameOf(rows[row]!)"
    row-header
    @write="write"
    @press="questionAt($event.column) && grid?.begin()"
  >
    <template #head="{ column: { label }, index }">
      <span class="text small quiet"
        >{{ label }}
        <PushButton
          v-if="open && questionAt(index)"
          v-tip="`Ask ${label} once, for all`"
          kind="plain"
          size="small"
          @click="emit('once', questionAt(index)?.key ?? '')"
          >once</PushButton
        ></span
      >
    </template>
    <template #cell="{ row: at, index, column }">
      <template v-for="row in rows.slice(at, at + 1)" :key="row.id">
        <span v-if="index === 0" class="text"
          >{{ nameOf(row) }} <span class="quiet small">{{ row.name ? row.address : '' }}</span></span
        >
        <span v-else-if="questionAt(index)" class="text" :class="{ editable: open }">{{
          answerWords(row, questionAt(index)!, column)
        }}</span>
        <span v-else v-tip="row.why" class="text state small">
          <span :class="{ warning: row.state === 'apart' || row.state === 'uncertain', error: row.state === 'refused' }"
            >{{ row.state === 'apart' ? '‸ ' : '' }}{{ STATES[row.state] ?? row.state }}</span
          >
          <PushButton
            v-if="open"
            kind="plain"
            size="small"
            :aria-label="row.state === 'taken back' ? `Take ${nameOf(row)} in again` : `Leave ${nameOf(row)} out`"
            @click.stop="emit('out', row.id, row.state !== 'taken back')"
          >
            {{ row.state === 'taken back' ? 'in' : 'out' }}
          </PushButton>
        </span>
      </template>
    </template>
  </GridTable>
</template>

<style scoped>
.recipients {
  border-right: 1px solid var(--hair);
}
.recipients :deep(.line) {
  align-items: stretch;
}
.recipients :deep(.line[aria-selected='true']),
.recipients :deep(.line[aria-selected='true'] .frozen) {
  background: var(--selected);
}
.text {
  display: block;
  padding: 8px 12px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.editable {
  height: 100%;
  cursor: cell;
}
.state {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
.recipients :deep(button.p-button) {
  height: 20px;
  padding: 0 4px;
  color: var(--action);
}
</style>
