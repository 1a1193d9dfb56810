<script setup lang="ts">
/** What can be put in at the caret: placeholders, passages, blocks. Opened by Alt Enter or by typing {{. */
import { computed, onMounted, ref, useTemplateRef } from 'vue';
import { entriesFor, type Entry, type Insertable, type Insertion } from './insertions';

const props = defineProps<{ insertable: Insertable; place: { left: number; top: number } }>();
const emit = defineEmits<{ choose: [insertion: Insertion]; close: [] }>();
const input = useTemplateRef('input');
const typed = ref('');
const at = ref(0);
const shown = computed(() => entriesFor(props.insertable, typed.value));
onMounted(() => input.value?.focus());

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
    choose(shown.value[at.value]);
  } else if (event.key === 'Escape') {
    event.preventDefault();
    event.stopPropagation();
    emit('close');
  }
}
</script>

<template>
  <section
    class="insert sheet"
    role="dialog"
    aria-label="Insert"
    :style="{ left: `${place.left}px`, top: `${place.top}px` }"
    @keydown="onKey"
  >
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
          {{ entry.group }}
        </li>
        <li
          :id="`insert-${index}`"
          class="row"
          role="option"
          :aria-selected="index === at"
          @mousedown.prevent="choose(entry)"
          @mousemove="at = index"
        >
          <span>{{ entry.words }}</span><span class="quiet small right">{{ entry.detail }}</span>
        </li>
      </template>
    </ul>
  </section>
</template>

<style scoped>
.insert {
  position: fixed;
  width: 340px;
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
  max-height: 280px;
  overflow: auto;
}
.rows > li {
  border: 0;
}
.row {
  display: flex;
  gap: 12px;
  padding: 4px 12px;
  cursor: pointer;
  font-size: 0.8125rem;
  line-height: 1.25rem;
}
.group {
  padding: 6px 12px 2px;
}
</style>
