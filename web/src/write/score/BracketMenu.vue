<script setup lang="ts">
/** What can be done with a bracket, as a menu where it stands. */
import Menu from 'primevue/menu';
import { computed, nextTick, onMounted, useTemplateRef } from 'vue';
import MenuLine from '../../ui/controls/MenuLine.vue';
import type { MenuAct } from '../../ui/controls/menuActs';
import type { Passages } from '../desk/usePassages';
import type { Bracket } from '../editor/brackets';
import { actsOf } from './acts';

const props = defineProps<{ passages: Passages; bracket: Bracket }>();
const emit = defineEmits<{ act: [run: () => void]; close: [] }>();
const menu = useTemplateRef<HTMLElement>('menu');
const acts = computed(() => actsOf(props.passages, props.bracket));
const items = computed((): MenuAct[] =>
  acts.value.map(({ words, keys, run }) => ({ label: words, keys, command: () => emit('act', run) })),
);
onMounted(async () => {
  await nextTick();
  menu.value?.querySelector<HTMLElement>('[role=menu]')?.focus();
});
/** Its own keys do their acts here too; those of the menu are the library's. */
function onKey(event: KeyboardEvent): void {
  const own = acts.value.find(({ is }) => is(event));
  if (event.key === 'Escape' || event.key === 'Tab') emit('close');
  else if (own) emit('act', own.run);
  else return;
  event.preventDefault();
  event.stopPropagation();
}
</script>

<template>
  <div
    ref="menu"
    class="at"
    @keydown.capture="onKey"
    @focusout="(event) => !menu?.contains(event.relatedTarget as Node) && emit('close')"
  >
    <Menu :model="items" aria-label="The bracket"
      ><template #item="{ item }"><MenuLine :act="item as MenuAct" /></template
    ></Menu>
  </div>
</template>

<style scoped>
.at {
  position: absolute;
  width: 260px;
  z-index: 12;
}
</style>
