<script setup lang="ts">
/** The calendar below a day: the focus goes into it, and back to its button. */
import DatePicker from 'primevue/datepicker';
import Popover from 'primevue/popover';
import { nextTick, onMounted, useId, useTemplateRef } from 'vue';

const { opener } = defineProps<{ day: Date | null; opener: HTMLElement }>();
const emit = defineEmits<{ pick: [day: Date]; close: [] }>();
const popover = useTemplateRef('popover');
const id = useId();

/** Told in the tick it is mounted, it would stand there without its place, its focus and its keys. */
onMounted(async () => {
  await nextTick();
  popover.value?.show({ currentTarget: opener } as unknown as Event);
});
/** The library gives a day its place in the tab order a moment after it shows them. */
function shown(): void {
  setTimeout(() => document.getElementById(id)?.querySelector<HTMLElement>('.p-datepicker-day[tabindex="0"]')?.focus());
}
function pick(value: unknown): void {
  if (!(value instanceof Date)) return;
  emit('pick', value);
  popover.value?.hide();
  opener.focus();
}
</script>

<template>
  <Popover :id="id" ref="popover" aria-label="Calendar" @show="shown" @hide="emit('close')">
    <DatePicker inline :model-value="day" @update:model-value="pick" />
  </Popover>
</template>
