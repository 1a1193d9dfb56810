<script setup lang="ts">
/** A box that is ticked or not; with a value, one of several that add up to a list. It stands in its label. */
import Checkbox from 'primevue/checkbox';
import { computed } from 'vue';

defineOptions({ inheritAttrs: false });
// A default keeps Vue from taking what is not given for `false`.
const {
  modelValue = undefined,
  checked,
  value,
} = defineProps<{
  modelValue?: boolean | readonly unknown[];
  /** Where it is not bound with `v-model`. */
  checked?: boolean;
  value?: unknown;
  indeterminate?: boolean;
  disabled?: boolean;
}>();
const emit = defineEmits<{ 'update:modelValue': [value: never]; change: [isTicked: boolean] }>();
const isTicked = computed(() => (Array.isArray(modelValue) ? modelValue.includes(value) : (modelValue ?? checked)));

function set(ticked: boolean): void {
  const next = Array.isArray(modelValue)
    ? ticked
      ? [...(modelValue as unknown[]), value]
      : modelValue.filter((each) => each !== value)
    : ticked;
  // Bound values are a boolean or a list of what `value` is.
  emit('update:modelValue', next as never);
  emit('change', ticked);
}
</script>

<template>
  <Checkbox
    v-bind="$attrs"
    binary
    :model-value="isTicked"
    :indeterminate="indeterminate"
    :disabled="disabled"
    @update:model-value="set($event)"
  />
</template>
