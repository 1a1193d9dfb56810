<script setup lang="ts">
/** A date that is typed as people type dates, or picked from a calendar. */
import { CalendarDays } from '@lucide/vue';
import { dayNumber, isDay } from '@vocabula/core';
import { defineAsyncComponent, ref } from 'vue';
import TypedField from '../ui/TypedField.vue';

const DatePicker = defineAsyncComponent(() => import('primevue/datepicker'));
defineProps<{
  modelValue: string;
  locale: string;
  labelledBy: string;
  describedBy?: string | undefined;
  invalid: boolean;
}>();
const emit = defineEmits<{ 'update:modelValue': [day: string] }>();
const open = ref(false);

function picked(date: unknown): void {
  if (!(date instanceof Date)) return;
  const pad = (value: number): string => String(value).padStart(2, '0');
  emit('update:modelValue', `${date.getFullYear()}-${pad(date.getMonth() + 1)}-${pad(date.getDate())}`);
  open.value = false;
}
const local = (day: string): Date | null => {
  if (!isDay(day)) return null;
  const utc = new Date(dayNumber(day) * 86_400_000);
  return new Date(utc.getUTCFullYear(), utc.getUTCMonth(), utc.getUTCDate());
};
</script>

<template>
  <div class="day" @keydown.esc="open = false">
    <TypedField
      class="control"
      type="date"
      :model-value="modelValue"
      :locale="locale"
      :aria-labelledby="labelledBy"
      :aria-describedby="describedBy"
      :aria-invalid="invalid"
      placeholder="14 June, 14/6/27, tomorrow, +14"
      @update:model-value="emit('update:modelValue', $event)"
    />
    <button class="plain" type="button" aria-label="Calendar" :aria-expanded="open" tabindex="-1" @click="open = !open">
      <CalendarDays :size="16" :stroke-width="1.5" />
    </button>
    <DatePicker v-if="open" class="calendar" inline :model-value="local(modelValue)" @update:model-value="picked" />
  </div>
</template>

<style scoped>
.day {
  position: relative;
  display: flex;
}
.day > button {
  position: absolute;
  right: 2px;
  top: 2px;
}
.control {
  padding-right: 36px !important;
}
.calendar {
  position: absolute;
  top: 40px;
  left: 0;
  z-index: 10;
}
</style>
