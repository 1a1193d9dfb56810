<script setup lang="ts">
/** A date that is typed as people type dates, or picked from a calendar. */
import { CalendarDays } from '@lucide/vue';
import { dayNumber, isDay } from '@vocabula/core';
import { defineAsyncComponent, ref, useTemplateRef } from 'vue';
import PushButton from '../ui/controls/PushButton.vue';
import TypedField from '../ui/TypedField.vue';

/** Loaded when it is first wanted. */
const DayCalendar = defineAsyncComponent(() => import('./DayCalendar.vue'));
defineProps<{
  modelValue: string;
  locale: string;
  labelledBy: string;
  describedBy?: string | undefined;
  invalid: boolean;
}>();
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
    <TypedField
      class="control"
      size="large"
      type="date"
      :model-value="modelValue"
      :locale="locale"
      :aria-labelledby="labelledBy"
      :aria-describedby="describedBy"
      :aria-invalid="invalid"
      placeholder="14 June, 14/6/27, tomorrow, +14"
      @keydown.alt.down.prevent="open = true"
      @update:model-value="emit('update:modelValue', $event)"
    />
    <PushButton
      ref="button"
      kind="plain"
      aria-label="Calendar"
      aria-haspopup="dialog"
      :aria-expanded="open"
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
  display: flex;
}
.day > :deep(.p-button) {
  position: absolute;
  right: 2px;
  top: 2px;
}
.control {
  padding-right: 36px;
}
</style>
