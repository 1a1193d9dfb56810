<script setup lang="ts">
/** Recipients against what varies: values, and passages kept or left out. */
import { vTip } from '../../ui/controls/tip';
import { useVirtualizer } from '@tanstack/vue-virtual';
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';
import type { SentSheet } from '../table/protocol';

const props = defineProps<{
  numbers: readonly number[];
  sheets: readonly (SentSheet | undefined)[];
  labelOf: (at: number) => string;
  values: readonly { readonly at: number; readonly key: string; readonly label: string }[];
  passages: readonly { readonly at: number; readonly tag: string; readonly label: string }[];
  chosen: number;
}>();
const emit = defineEmits<{
  choose: [index: number];
  open: [at: number, query: Record<string, string>];
}>();
const ROW = 28;
const room = useTemplateRef<HTMLElement>('room');
const column = ref(0);
const rows = useVirtualizer(
  computed(() => ({
    count: props.numbers.length,
    getScrollElement: () => room.value,
    estimateSize: () => ROW,
    overscan: 12,
  })),
);
const width = computed(() => 132 + props.values.length * 96 + props.passages.length * 24);
const grid = computed(() => `132px repeat(${props.values.length}, 96px) repeat(${props.passages.length}, 24px)`);
const columns = computed(() => 1 + props.values.length + props.passages.length);

function queryOf(at: number): Record<string, string> {
  const value = props.values[at - 1];
  const passage = props.passages[at - 1 - props.values.length];
  return at === 0 ? {} : value ? { value: value.key } : passage ? { passage: passage.tag } : {};
}
function open(index: number, at: number): void {
  const number = props.numbers[index];
  if (number !== undefined) emit('open', number, queryOf(at));
}
async function onKey(event: KeyboardEvent): Promise<void> {
  const by = { ArrowDown: 1, ArrowUp: -1, PageDown: 12, PageUp: -12, Home: -Infinity, End: Infinity }[event.key];
  const across = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
  if (by !== undefined) {
    const to = Math.max(0, Math.min(props.numbers.length - 1, props.chosen + by));
    emit('choose', to);
    rows.value.scrollToIndex(to);
  } else if (across !== undefined) column.value = Math.max(0, Math.min(columns.value - 1, column.value + across));
  else if (event.key === 'Enter' || event.key === ' ') open(props.chosen, column.value);
  else return;
  event.preventDefault();
  await nextTick();
}
watch(
  () => props.chosen,
  (to) => rows.value.scrollToIndex(to),
);
</script>

<template>
  <div
    ref="room"
    class="grid"
    role="grid"
    tabindex="0"
    aria-label="Recipients and what varies"
    :aria-rowcount="numbers.length"
    :aria-activedescendant="`cell-${chosen}-${column}`"
    @keydown="onKey"
  >
    <div class="top" role="row" :style="{ gridTemplateColumns: grid, width: `${width}px` }">
      <span class="cell name" role="columnheader">Recipient</span>
      <span v-for="each in values" :key="each.key" v-tip="each.label" class="cell" role="columnheader">{{
        each.label
      }}</span>
      <span v-for="each in passages" :key="each.tag" v-tip="each.label" class="cell tall" role="columnheader"
        ><span>{{ each.label }}</span></span
      >
    </div>
    <div class="body" :style="{ height: `${rows.getTotalSize()}px`, width: `${width}px` }">
      <div
        v-for="item in rows.getVirtualItems()"
        :key="item.index"
        class="line"
        role="row"
        :aria-selected="item.index === chosen"
        :style="{ transform: `translateY(${item.start}px)`, gridTemplateColumns: grid }"
      >
        <span
          :id="`cell-${item.index}-0`"
          class="cell name"
          role="rowheader"
          :class="{ now: item.index === chosen && column === 0 }"
          @click="emit('choose', item.index)"
          @dblclick="open(item.index, 0)"
          ><span v-if="sheets[numbers[item.index] ?? -1]?.blanks.length" class="error" title="blank">⚠</span
          ><span v-else-if="sheets[numbers[item.index] ?? -1]?.findings.length" class="warning" title="findings">‸</span
          ><span class="who">{{ labelOf(numbers[item.index] ?? 0) }}</span></span
        >
        <span
          v-for="(each, index) in values"
          :id="`cell-${item.index}-${index + 1}`"
          :key="each.key"
          class="cell"
          role="gridcell"
          :class="{
            now: item.index === chosen && column === index + 1,
            missing: sheets[numbers[item.index] ?? -1]?.blanks.includes(each.key),
          }"
          :title="sheets[numbers[item.index] ?? -1]?.values[each.at]"
          @click="open(item.index, index + 1)"
          >{{
            sheets[numbers[item.index] ?? -1]?.values[each.at] ||
            (sheets[numbers[item.index] ?? -1]?.blanks.includes(each.key) ? '[blank]' : '—')
          }}</span
        >
        <span
          v-for="(each, index) in passages"
          :id="`cell-${item.index}-${index + 1 + values.length}`"
          :key="each.tag"
          class="cell mark"
          role="gridcell"
          :class="{ now: item.index === chosen && column === index + 1 + values.length }"
          :title="`${each.label}: ${sheets[numbers[item.index] ?? -1]?.kept[each.at] === '1' ? 'kept' : 'left out'}`"
          @click="open(item.index, index + 1 + values.length)"
          ><i :class="sheets[numbers[item.index] ?? -1]?.kept[each.at] === '1' ? 'kept' : 'gone'" /><span
            class="unseen"
            >{{ sheets[numbers[item.index] ?? -1]?.kept[each.at] === '1' ? 'kept' : 'left out' }}</span
          ></span
        >
      </div>
    </div>
  </div>
</template>

<style scoped>
.grid {
  overflow: auto;
  font-size: 0.8125rem;
  position: relative;
  height: 100%;
}
.top {
  display: grid;
  position: sticky;
  top: 0;
  z-index: 2;
  background: var(--table);
  border-bottom: 1px solid var(--edge);
  height: 84px;
  align-items: end;
  font-weight: 600;
  min-width: 100%;
}
.body {
  position: relative;
  min-width: 100%;
}
.line {
  position: absolute;
  top: 0;
  left: 0;
  min-width: 100%;
  display: grid;
  height: 28px;
  border-bottom: 1px solid var(--hair);
  align-items: stretch;
}
.line[aria-selected='true'] {
  background: var(--selected);
}
.cell {
  padding: 4px 6px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  cursor: pointer;
}
.name {
  position: sticky;
  left: 0;
  background: var(--table);
  border-right: 1px solid var(--hair);
  display: flex;
  gap: 4px;
  z-index: 1;
}
.who {
  overflow: hidden;
  text-overflow: ellipsis;
}
.line[aria-selected='true'] .name {
  background: var(--selected);
  box-shadow: inset 3px 0 var(--action);
}
.grid:focus .now {
  outline: 2px solid var(--action);
  outline-offset: -2px;
}
.grid:focus-visible {
  outline-offset: -2px;
}
.tall {
  height: 84px;
  padding: 0;
  position: relative;
}
.tall span {
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
.missing {
  text-align: left;
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
