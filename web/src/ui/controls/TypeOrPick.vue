<script setup lang="ts">
/** A field in which one types, with values to pick from below it. What was typed is said when it is left, as a field's `change`. */
import Select from 'primevue/select';
import { ref, watch } from 'vue';

const { modelValue, options } = defineProps<{
  modelValue: string;
  options: readonly string[];
  label: string;
  invalid?: boolean;
}>();
const emit = defineEmits<{ change: [value: string] }>();
const typed = ref(modelValue);
watch(
  () => modelValue,
  (now) => (typed.value = now),
);
function commit(): void {
  if (typed.value.trim() !== modelValue) emit('change', typed.value.trim());
}
function take(value: unknown): void {
  typed.value = typeof value === 'string' ? value : '';
  if (options.includes(typed.value)) commit();
}
</script>

<template>
  <Select
    editable
    :model-value="typed"
    :options="[...options]"
    :invalid="invalid"
    :aria-label="label"
    @update:model-value="take"
    @blur="commit"
    @keydown.enter="commit"
  />
</template>
