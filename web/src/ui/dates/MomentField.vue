<script setup lang="ts">
/** A day and a time of day, each typed as people type them. */
import { computed, ref, watch } from 'vue';
import TypedField from '../ui/TypedField.vue';
import DayField from './DayField.vue';

const { modelValue } = defineProps<{
  modelValue: string;
  locale: string;
  labelledBy: string;
  describedBy?: string | undefined;
  invalid: boolean;
}>();
const emit = defineEmits<{ 'update:modelValue': [moment: string] }>();
const split = computed(() => /^([^T]*)T?(.*)$/.exec(modelValue) ?? []);
const day = ref('');
const time = ref('');
watch(
  split,
  ([, before = '', after = '']) => {
    day.value = before;
    time.value = after;
  },
  { immediate: true },
);
/** Half of it is no moment yet, and is said to be none. */
const say = (): void =>
  emit('update:modelValue', day.value === '' && time.value === '' ? '' : `${day.value}T${time.value}`);
function setDay(source: string): void {
  day.value = source;
  say();
}
function setTime(source: string): void {
  time.value = source;
  say();
}
</script>

<template>
  <div class="moment">
    <DayField
      :model-value="day"
      :locale="locale"
      :labelled-by="labelledBy"
      :described-by="describedBy"
      :invalid="invalid"
      @update:model-value="setDay($event)"
    />
    <TypedField
      class="control"
      size="large"
      type="time"
      :model-value="time"
      :locale="locale"
      aria-label="Time of day"
      :aria-describedby="describedBy"
      :aria-invalid="invalid"
      placeholder="14:30, 2 pm"
      @update:model-value="setTime($event)"
    />
  </div>
</template>

<style scoped>
.moment {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 112px;
  gap: 8px;
}
</style>
