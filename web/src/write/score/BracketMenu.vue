<script setup lang="ts">
/** What can be done with a bracket, as a menu. */
import { computed, nextTick, onMounted, useTemplateRef } from 'vue';
import type { Passages } from '../desk/usePassages';
import type { Bracket } from '../editor/brackets';
import { actsOf } from './acts';

const props = defineProps<{ passages: Passages; bracket: Bracket }>();
const emit = defineEmits<{ act: [run: () => void]; close: [] }>();
const menu = useTemplateRef<HTMLElement>('menu');
const acts = computed(() => actsOf(props.passages, props.bracket));
onMounted(async () => {
  await nextTick();
  menu.value?.querySelector('button')?.focus();
});
function onKey(event: KeyboardEvent): void {
  const items = [...(menu.value?.querySelectorAll('button') ?? [])];
  const at = items.indexOf(document.activeElement as HTMLButtonElement);
  const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
  const own = acts.value.find(({ is }) => is(event));
  if (step !== 0 && !event.shiftKey) items[(at + step + items.length) % items.length]?.focus();
  else if (event.key === 'Escape' || event.key === 'Tab') emit('close');
  else if (own) emit('act', own.run);
  else return;
  event.preventDefault();
  event.stopPropagation();
}
</script>

<template>
  <div
    ref="menu"
    class="menu sheet"
    role="menu"
    aria-label="The bracket"
    @keydown="onKey"
    @focusout="(event) => !menu?.contains(event.relatedTarget as Node) && emit('close')"
  >
    <button v-for="act in acts" :key="act.id" role="menuitem" class="row" tabindex="-1" @click="emit('act', act.run)">
      {{ act.words }} <kbd class="right">{{ act.keys }}</kbd>
    </button>
  </div>
</template>

<style scoped>
.menu {
  position: absolute;
  width: 260px;
  z-index: 12;
}
.row {
  display: flex;
  padding: 4px 12px;
  font-size: 0.8125rem;
  line-height: 1.25rem;
}
</style>
