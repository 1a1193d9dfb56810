<script setup lang="ts">
/** What can be put in at the caret: placeholders, passages, blocks. Opened by Alt Enter or by typing {{. */
import type { Variable } from '@vocabula/core';
import { computed, onMounted, ref, useTemplateRef } from 'vue';
import { useAtPoint, type Point } from '../../ui/controls/atPoint';
import type { Desk } from '../desk/useDesk';
import { entriesFor, GROUP_LABELS, type Entry, type Insertion } from './insertions';

const props = defineProps<{ desk: Pick<Desk, 'insertable' | 'previews' | 'proof'>; place: Point }>();
const emit = defineEmits<{ choose: [insertion: Insertion]; close: [] }>();
const { insertable, previews, proof } = props.desk;
const input = useTemplateRef('input');
const list = useTemplateRef('list');
const style = useAtPoint(list, () => props.place);
const typed = ref('');
const at = ref(0);
const shown = computed(() => entriesFor(insertable.value, typed.value));
const current = computed(() => shown.value[at.value]);
onMounted(() => input.value?.focus());

const variableOf = (name: string): Variable | undefined => {
  const { columns, variables, facts } = insertable.value;
  return [...columns, ...variables, ...facts].find(({ key }) => key === name);
};
/** What an entry would put in, as it reads for the current recipient. */
function reads({ insertion }: Entry): string {
  if (insertion.what === 'block' || insertion.what === 'copy') return previews.block(insertion.name);
  if (insertion.what !== 'placeholder') return '';
  const variable = variableOf(insertion.name);
  return variable ? previews.shown(variable, insertion.view) : (proof.values.value.get(insertion.name)?.words ?? '');
}
const firstLine = (entry: Entry): string => reads(entry).split('\n')[0]?.slice(0, 60) ?? '';

function choose(entry: Entry | undefined): void {
  if (entry) emit('choose', entry.insertion);
}
function onKey(event: KeyboardEvent): void {
  const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
  if (step !== 0) {
    event.preventDefault();
    at.value = (at.value + step + shown.value.length) % Math.max(1, shown.value.length);
    document.getElementById(`insert-${at.value}`)?.scrollIntoView({ block: 'nearest' });
  } else if (event.key === 'Enter') {
    event.preventDefault();
    choose(current.value);
  } else if (event.key === 'Escape') {
    event.preventDefault();
    event.stopPropagation();
    emit('close');
  }
}
</script>

<template>
  <section ref="list" class="insert sheet" role="dialog" aria-label="Insert" :style="style" @keydown="onKey">
    <input
      ref="input"
      v-model="typed"
      role="combobox"
      aria-expanded="true"
      aria-controls="insert-list"
      :aria-activedescendant="`insert-${at}`"
      aria-label="Insert"
      placeholder="variable, passage or block"
      autocomplete="off"
      @input="at = 0"
      @blur="emit('close')"
    />
    <ul id="insert-list" class="rows" role="listbox" aria-label="What can be put in">
      <template v-for="(entry, index) in shown" :key="entry.group + entry.words">
        <li v-if="entry.group !== shown[index - 1]?.group" class="group quiet small" role="presentation">
          {{ GROUP_LABELS[entry.group] }}
        </li>
        <li
          :id="`insert-${index}`"
          class="row"
          role="option"
          :aria-selected="index === at"
          @mousedown.prevent="choose(entry)"
          @mousemove="at = index"
        >
          <span class="words">{{ entry.words }}</span><span class="quiet small detail">{{
            firstLine(entry) || entry.detail
          }}</span>
        </li>
      </template>
    </ul>
    <p v-if="current && reads(current).includes('\n')" class="reads small">{{ reads(current) }}</p>
  </section>
</template>

<style scoped>
.insert {
  width: 380px;
  z-index: 12;
}
input {
  border: 0 !important;
  border-bottom: 1px solid var(--hair) !important;
  border-radius: 0;
  height: 36px !important;
  padding: 0 12px !important;
}
input:focus-visible {
  outline-offset: -2px;
}
.rows {
  max-height: 260px;
  overflow: auto;
}
.rows > li {
  border: 0;
}
.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, max-content);
  gap: 12px;
  padding: 4px 12px;
  cursor: pointer;
  font-size: 0.8125rem;
  line-height: 1.25rem;
}
.words,
.detail {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.detail {
  max-width: 180px;
}
.group {
  padding: 6px 12px 2px;
}
.reads {
  border-top: 1px solid var(--hair);
  padding: 8px 12px;
  max-height: 96px;
  overflow: hidden;
  white-space: pre-line;
}
</style>
