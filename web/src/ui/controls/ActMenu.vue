<script setup lang="ts">
/** A button that opens a menu, loaded when it is first wanted: the first act is ready, and the focus comes back. */
import type Menu from 'primevue/menu';
import { nextTick, ref, shallowRef, useId, useTemplateRef } from 'vue';
import MenuLine from './MenuLine.vue';
import { menuParts, type MenuAct } from './menuActs';
import PushButton from './PushButton.vue';

defineOptions({ inheritAttrs: false });
const { label } = defineProps<{
  label: string;
  items: MenuAct[];
  size?: 'small' | 'large';
  kind?: 'usual' | 'plain';
}>();
type Opened = InstanceType<typeof Menu> & { changeFocusedOptionIndex(at: number): void };

const id = useId();
const LateMenu = shallowRef<typeof Menu>();
const open = ref(false);
const menu = useTemplateRef<Opened>('menu');
const button = useTemplateRef<{ $el: HTMLElement }>('button');

async function toggle(event: Event): Promise<void> {
  const { currentTarget } = event;
  if (!LateMenu.value) {
    LateMenu.value = (await import('primevue/menu')).default;
    await nextTick();
  }
  menu.value?.toggle({ currentTarget } as unknown as Event);
}
async function shown(): Promise<void> {
  open.value = true;
  await nextTick();
  menu.value?.changeFocusedOptionIndex(0);
}
function hidden(): void {
  open.value = false;
  // Chosen with the pointer, the focus would be nowhere.
  if (document.activeElement === document.body) button.value?.$el.focus();
}
/** An open menu keeps Escape to itself: what lies below must not close with it. */
function onKey(event: KeyboardEvent): void {
  if (event.key === 'Escape') event.stopPropagation();
}
</script>

<template>
  <PushButton
    ref="button"
    v-bind="$attrs"
    :kind="kind ?? 'plain'"
    :size="size"
    aria-haspopup="menu"
    :aria-expanded="open"
    :aria-controls="open ? `${id}_list` : undefined"
    :aria-label="label"
    @click="toggle"
    ><slot>{{ label }}</slot></PushButton
  >
  <component
    :is="LateMenu"
    v-if="LateMenu"
    :id="id"
    ref="menu"
    popup
    :model="items"
    :aria-label="label"
    :pt="menuParts"
    @show="shown"
    @hide="hidden"
    @keydown="onKey"
  >
    <template #item="{ item }"><MenuLine :act="item as MenuAct" /></template>
    <template v-if="$slots.start" #start><slot name="start" /></template>
  </component>
</template>
