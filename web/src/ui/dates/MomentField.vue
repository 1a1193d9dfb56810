<script setup lang="ts">
/** A day and a time of day, each typed as people type them. */
import { computed, ref, watch } from 'vue';
import DayField from './DayField.vue';
import type { DateFieldProps } from './props';
import WholeField from './WholeField.vue';

const { modelValue } = defineProps<DateFieldProps>();
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
      :size="size"
      :raw="raw"
      :label="label"
      :labelled-by="labelledBy"
      :described-by="describedBy"
      :invalid="invalid"
      @update:model-value="setDay($event)"
    />
    <div>
      <WholeField
        class="time"
        type="time"
        :model-value="time"
        :locale="locale"
        :size="size"
        :raw="raw"
        aria-label="Time of day"
        :described-by="describedBy"
        :invalid="invalid"
        @update:model-value="setTime($event)"
      />
    </div>
  </div>
</template>

<style scoped>
.moment {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 112px;
  gap: 8px;
}
.moment :deep(.time) {
  width: 100%;
}
</style>
