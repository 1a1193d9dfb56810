<script setup lang="ts">
/** Words in a colour of the house, or on the tint of one. Authors pick names, never values. */
import { tint } from '@vocabula/core';
import { computed } from 'vue';
import { useHouse } from '../../ui/house';
import ActMenu from '../../ui/controls/ActMenu.vue';
import type { MenuAct } from '../../ui/controls/menuActs';
import type { Desk } from '../desk/useDesk';

const props = defineProps<{ desk: Pick<Desk, 'fields'> }>();
const house = useHouse();
const { fields } = props.desk;
const editor = computed(() => fields.active.value);
const colours = computed(() => Object.entries(house.house.style.colours));
const on = (mark: 'colour' | 'highlight', name: string): boolean =>
  fields.beat.value >= 0 && editor.value.isActive(mark, { name });
function set(mark: 'colour' | 'highlight', name: string | undefined): void {
  const chain = editor.value.chain().focus();
  if (name === undefined) chain.unsetMark(mark).run();
  else chain.setMark(mark, { name }).run();
}
const group = (mark: 'colour' | 'highlight', label: string): MenuAct => ({
  label,
  items: [
    ...colours.value.map(([name, { light }]) => ({
      label: name,
      swatch: mark === 'colour' ? light : tint(light),
      checked: on(mark, name),
      command: () => set(mark, name),
    })),
    { label: 'none', swatch: 'none', command: () => set(mark, undefined) },
  ],
});
const items = computed(() => [group('colour', 'Text colour'), group('highlight', 'Background tint')]);
</script>

<template>
  <ActMenu
    label="Colour"
    :items="items"
    :aria-pressed="fields.beat.value >= 0 && (editor.isActive('colour') || editor.isActive('highlight'))"
    @mousedown.prevent
    ><slot
  /></ActMenu>
</template>
