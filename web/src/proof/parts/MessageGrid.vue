<script setup lang="ts">
/** Grid of recipients by what varies: values, and passages kept or left out. */
import { computed, ref } from 'vue';
import { vTip } from '../../ui/controls/tip';
import GridTable from '../../ui/grid/GridTable.vue';
import type { GridPlace } from '../../ui/grid/useGrid';
import type { GridColumn } from '../../ui/grid/useGridColumns';
import type { SentSheet } from '../table/protocol';

const props = defineProps<{
  /** Numbers of the recipients that are shown, in order. */
  numbers: readonly number[];
  /** Sheets by the number of their recipient; undefined until they are computed. */
  sheets: readonly (SentSheet | undefined)[];
  labelOf: (at: number) => string;
  values: readonly { readonly at: number; readonly key: string; readonly label: string }[];
  passages: readonly { readonly at: number; readonly tag: string; readonly label: string }[];
  /** Index of the current row. */
  chosen: number;
}>();
const emit = defineEmits<{
  choose: [index: number];
  open: [at: number, query: Record<string, string>];
}>();

const column = ref(0);
const place = computed({
  get: (): GridPlace => ({ row: props.chosen, column: column.value }),
  set: (to) => {
    column.value = to.column;
    if (to.row !== props.chosen) emit('choose', to.row);
  },
});
const columns = computed((): GridColumn[] => [
  { id: 'recipient', label: 'Recipient', width: 132, class: 'name' },
  ...props.values.map(({ key, label }) => ({ id: `value ${key}`, label, width: 96, class: 'value' })),
  ...props.passages.map(({ tag, label }) => ({ id: `passage ${tag}`, label, width: 24, class: 'passage' })),
]);
const valueAt = (index: number) => props.values[index - 1];
const passageAt = (index: number) => props.passages[index - 1 - props.values.length];
const sheetOf = (row: number): SentSheet | undefined => props.sheets[props.numbers[row] ?? -1];
const isKept = (row: number, index: number): boolean => sheetOf(row)?.kept[passageAt(index)?.at ?? -1] === '1';
const isBlank = (row: number, index: number): boolean =>
  sheetOf(row)?.blanks.includes(valueAt(index)?.key ?? '') ?? false;
const textAt = (row: number, index: number): string => sheetOf(row)?.values[valueAt(index)?.at ?? -1] ?? '';
const passageWords = (row: number, index: number): string => (isKept(row, index) ? 'kept' : 'left out');

function open({ row, column: index }: GridPlace): void {
  const number = props.numbers[row];
  if (number === undefined) return;
  const [value, passage] = [valueAt(index), passageAt(index)];
  emit('open', number, value ? { value: value.key } : passage ? { passage: passage.tag } : {});
}
</script>

<template>
  <GridTable
    v-model:place="place"
    class="messages"
    label="Recipients and what varies"
    :row-count="numbers.length"
    :columns="columns"
    :row-height="28"
    :head-height="84"
    row-header
    @open="open"
    @press="$event.column > 0 && open($event)"
  >
    <template #head="{ column: { label, class: kind } }">
      <span v-tip="label" class="title" :class="kind"
        ><span>{{ label }}</span></span
      >
    </template>
    <template #cell="{ row, index }">
      <span v-if="index === 0" class="text who"
        ><span v-if="sheetOf(row)?.blanks.length" class="error" title="blank">⚠</span
        ><span v-else-if="sheetOf(row)?.findings.length" class="warning" title="findings">‸</span
        ><span class="label">{{ labelOf(numbers[row] ?? 0) }}</span></span
      >
      <span
        v-else-if="valueAt(index)"
        class="text"
        :class="{ missing: isBlank(row, index) }"
        :title="textAt(row, index)"
        >{{ textAt(row, index) || (isBlank(row, index) ? '[blank]' : '—') }}</span
      >
      <span v-else class="text mark" :title="`${passageAt(index)?.label}: ${passageWords(row, index)}`"
        ><i :class="isKept(row, index) ? 'kept' : 'gone'" /><span class="unseen">{{
          passageWords(row, index)
        }}</span></span
      >
    </template>
  </GridTable>
</template>

<style scoped>
.messages {
  height: 100%;
}
.messages :deep(.line) {
  cursor: pointer;
}
.messages :deep(.line[aria-selected='true']),
.messages :deep(.line[aria-selected='true'] .frozen) {
  background: var(--selected);
}
.title {
  display: flex;
  align-items: end;
  height: 100%;
  padding: 4px 6px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.title > span {
  overflow: hidden;
  text-overflow: ellipsis;
}
.title.passage {
  position: relative;
  padding: 0;
}
.passage > span {
  position: absolute;
  left: 4px;
  bottom: 4px;
  writing-mode: vertical-rl;
  transform: rotate(180deg);
  font-weight: 400;
  font-size: 0.75rem;
  line-height: 1rem;
  max-height: 76px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.text {
  display: block;
  height: 100%;
  padding: 4px 6px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.who {
  display: flex;
  gap: 4px;
}
.label {
  overflow: hidden;
  text-overflow: ellipsis;
}
.missing {
  background: linear-gradient(transparent 58%, var(--saffron) 58%, var(--saffron) 92%, transparent 92%);
}
.mark {
  display: grid;
  place-items: center;
  padding: 0;
}
i {
  width: 10px;
  height: 14px;
  border-left: 2px solid var(--ink);
}
i.gone {
  border-left: 2px dotted var(--edge);
}
i.kept {
  border-top: 2px solid var(--ink);
  border-bottom: 2px solid var(--ink);
}
</style>
