<script setup lang="ts">
/** Words in a colour of the house, or on the tint of one. Authors pick names, never values. */
import { tint } from '@vocabula/core';
import { computed } from 'vue';
import { useHouse } from '../../ui/house';
import PopMenu from '../../ui/PopMenu.vue';
import type { Desk } from '../desk/useDesk';

const props = defineProps<{ desk: Desk }>();
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
</script>

<template>
  <PopMenu
    label="Colour"
    :width="220"
    :pressed="on('colour', '') || editor.isActive('colour') || editor.isActive('highlight')"
  >
    <template #default="{ close }">
      <template v-for="mark in ['colour', 'highlight'] as const" :key="mark">
        <p class="quiet small group-name">{{ mark === 'colour' ? 'Words in' : 'Words on the tint of' }}</p>
        <button
          v-for="[name, colour] in colours"
          :key="name"
          type="button"
          class="row"
          role="menuitemradio"
          :aria-checked="on(mark, name)"
          :class="{ selected: on(mark, name) }"
          @click="
            set(mark, name);
            close(false);
          "
        >
          <i class="swatch" :style="{ background: mark === 'colour' ? colour.light : tint(colour.light) }" />{{ name }}
        </button>
        <button
          type="button"
          class="row"
          role="menuitem"
          @click="
            set(mark, undefined);
            close(false);
          "
        >
          <i class="swatch none" />none
        </button>
      </template>
    </template>
  </PopMenu>
</template>

<style scoped>
.group-name {
  padding: 6px 12px 2px;
}
.swatch {
  width: 14px;
  height: 14px;
  border: 1px solid var(--edge);
}
.none {
  border-style: dashed;
}
</style>
