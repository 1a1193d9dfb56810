<script setup lang="ts">
/** A date that is typed as people type dates, or picked from a calendar. */
import { CalendarDays } from '@lucide/vue';
import { dayNumber, isDay } from '@vocabula/core';
import { defineAsyncComponent, ref, useTemplateRef } from 'vue';
import PushButton from '../controls/PushButton.vue';
import type { DateFieldProps } from './props';
import WholeField from './WholeField.vue';

/** Loaded when it is first wanted. */
const DayCalendar = defineAsyncComponent(() => import('./DayCalendar.vue'));
defineOptions({ inheritAttrs: false });
defineProps<DateFieldProps & { disabled?: boolean }>();
const emit = defineEmits<{ 'update:modelValue': [day: string] }>();
const open = ref(false);
const button = useTemplateRef<{ $el: HTMLElement }>('button');

function picked(date: Date): void {
  const pad = (value: number): string => String(value).padStart(2, '0');
  emit('update:modelValue', `${date.getFullYear()}-${pad(date.getMonth() + 1)}-${pad(date.getDate())}`);
}
const local = (day: string): Date | null => {
  if (!isDay(day)) return null;
  const utc = new Date(dayNumber(day) * 86_400_000);
  return new Date(utc.getUTCFullYear(), utc.getUTCMonth(), utc.getUTCDate());
};
</script>

<template>
  <div class="day">
    <WholeField
      v-bind="$attrs"
      class="control"
      :size="size"
      type="date"
      :model-value="modelValue"
      :locale="locale"
      :raw="raw"
      :disabled="disabled"
      :aria-label="label"
      :aria-labelledby="labelledBy"
      :described-by="describedBy"
      :invalid="invalid"
      @keydown.alt.down.prevent="open = true"
      @update:model-value="emit('update:modelValue', $event)"
    />
    <PushButton
      ref="button"
      kind="plain"
      aria-label="Calendar"
      aria-haspopup="dialog"
      :aria-expanded="open"
      :disabled="disabled"
      @click="open = !open"
    >
      <CalendarDays :size="16" :stroke-width="1.5" />
    </PushButton>
    <DayCalendar
      v-if="open && button"
      :day="local(modelValue)"
      :opener="button.$el"
      @pick="picked"
      @close="open = false"
    />
  </div>
</template>

<style scoped>
.day {
  position: relative;
}
.day > :deep(.p-button) {
  position: absolute;
  right: 2px;
  top: 2px;
}
.day :deep(.control) {
  width: 100%;
  padding-right: 36px;
  text-overflow: ellipsis;
}
</style>
