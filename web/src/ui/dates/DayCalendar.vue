<script setup lang="ts">
/** The calendar below a day: the focus goes into it, and back to its button. */
import DatePicker from 'primevue/datepicker';
import { useTemplateRef } from 'vue';
import OpenPopover from '../controls/OpenPopover.vue';

defineProps<{ day: Date | null; opener: HTMLElement }>();
const emit = defineEmits<{ pick: [day: Date]; close: [] }>();
const popover = useTemplateRef('popover');
const calendar = useTemplateRef<{ $el: HTMLElement }>('calendar');

/** The library gives a day its place in the tab order a moment after it shows them. */
function focusDay(): void {
  setTimeout(() => calendar.value?.$el.querySelector<HTMLElement>('.p-datepicker-day[tabindex="0"]')?.focus());
}
function pick(value: unknown): void {
  if (!(value instanceof Date)) return;
  emit('pick', value);
  popover.value?.hide();
}
</script>

<template>
  <OpenPopover ref="popover" label="Calendar" :opener="opener" @shown="focusDay" @close="emit('close')">
    <DatePicker ref="calendar" inline :model-value="day" @update:model-value="pick" />
  </OpenPopover>
</template>
