<script setup lang="ts">
/** A button that opens a small form below it, loaded when it is first wanted. Escape and leaving it close it. */
import { defineAsyncComponent, ref, useTemplateRef } from 'vue';
import PushButton from './PushButton.vue';

defineOptions({ inheritAttrs: false });
const { label, width = 320 } = defineProps<{ label: string; width?: number }>();
const emit = defineEmits<{ open: [] }>();
const OpenPopover = defineAsyncComponent(() => import('./OpenPopover.vue'));
const open = ref(false);
const button = useTemplateRef<{ $el: HTMLElement }>('button');
const popover = useTemplateRef<{ hide(): void }>('popover');
const form = useTemplateRef<HTMLElement>('form');

function toggle(): void {
  if (open.value) return popover.value?.hide();
  open.value = true;
  emit('open');
}
const focusFirst = (): void =>
  form.value?.querySelector<HTMLElement>('input:not(:disabled), button:not(:disabled), [role=combobox]')?.focus();
const close = (): void => popover.value?.hide();
</script>

<template>
  <PushButton
    ref="button"
    kind="plain"
    v-bind="$attrs"
    :aria-label="label"
    aria-haspopup="dialog"
    :aria-expanded="open"
    @mousedown.prevent
    @click="toggle"
    ><slot name="button">{{ label }}</slot></PushButton
  >
  <OpenPopover
    v-if="open && button"
    ref="popover"
    :label="label"
    :opener="button.$el"
    @shown="focusFirst"
    @close="open = false"
  >
    <div ref="form" :style="{ width: `min(${width}px, 90vw)` }"><slot :close="close" /></div>
  </OpenPopover>
</template>
