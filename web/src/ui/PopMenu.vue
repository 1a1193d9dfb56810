<script setup lang="ts">
/** A button that opens something small below it: a menu, a form. `Esc` and leaving it close it. */
import PushButton from './controls/PushButton.vue';
import { nextTick, ref, useTemplateRef } from 'vue';

const props = withDefaults(
  defineProps<{ label: string; title?: string; pressed?: boolean; menu?: boolean; width?: number }>(),
  {
    title: '',
    pressed: false,
    menu: true,
    width: 200,
  },
);
const emit = defineEmits<{ open: [] }>();
const open = ref(false);
const place = ref({ left: 0, top: 0 });
const button = useTemplateRef<{ $el: HTMLElement }>('button');
const panel = useTemplateRef<HTMLElement>('panel');

async function show(): Promise<void> {
  const box = button.value?.$el.getBoundingClientRect();
  if (box) place.value = { left: Math.max(8, Math.min(box.left, innerWidth - props.width - 8)), top: box.bottom + 4 };
  open.value = true;
  emit('open');
  await nextTick();
  // Near the lower edge it opens upwards.
  const height = panel.value?.offsetHeight ?? 0;
  if (box && place.value.top + height > innerHeight - 8)
    place.value = { ...place.value, top: Math.max(8, box.top - height - 4) };
  await nextTick();
  panel.value?.querySelector<HTMLElement>('button:not(:disabled), input, [role=combobox]')?.focus();
}
function close(back = true): void {
  if (!open.value) return;
  open.value = false;
  if (back) button.value?.$el.focus();
}
function onKey(event: KeyboardEvent): void {
  if (event.key === 'Escape') {
    event.preventDefault();
    event.stopPropagation();
    return close();
  }
  const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
  if (!props.menu || step === 0) return;
  event.preventDefault();
  const items = [...(panel.value?.querySelectorAll<HTMLElement>('button:not(:disabled)') ?? [])];
  items[(items.indexOf(document.activeElement as HTMLElement) + step + items.length) % items.length]?.focus();
}
function left(event: FocusEvent): void {
  const to = event.relatedTarget as Node | null;
  if (to && !panel.value?.contains(to) && !button.value?.$el.contains(to)) close(false);
}
defineExpose({ close, show });
</script>

<template>
  <span class="pop">
    <PushButton
      kind="plain"
      ref="button"
      :title="title"
      :aria-label="label"
      :aria-haspopup="menu ? 'menu' : 'dialog'"
      :aria-expanded="open"
      :aria-pressed="pressed"
      @mousedown.prevent
      @click="open ? close() : show()"
    >
      <slot name="button">{{ label }}</slot>
    </PushButton>
    <div
      v-if="open"
      ref="panel"
      class="panel sheet"
      :role="menu ? 'menu' : 'dialog'"
      :aria-label="label"
      :style="{ left: `${place.left}px`, top: `${place.top}px`, width: `${width}px` }"
      @keydown="onKey"
      @focusout="left"
    >
      <slot :close="close" />
    </div>
    <div v-if="open" class="behind" @mousedown.prevent="close(false)" />
  </span>
</template>

<style scoped>
.pop {
  display: inline-flex;
}
.panel {
  position: fixed;
  z-index: 15;
  max-height: 60vh;
  overflow: auto;
}
.behind {
  position: fixed;
  inset: 0;
  z-index: 14;
}
.panel :deep(.row) {
  padding: 4px 12px;
  font-size: 0.8125rem;
  line-height: 1.25rem;
  display: flex;
  align-items: center;
  gap: 8px;
  border: 0;
}
</style>
