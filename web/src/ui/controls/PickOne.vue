<script setup lang="ts" generic="T extends string">
/** One of a list: the library's select, named by a label of ours, that leaves the keys it does not need to others. */
import { ChevronDown } from '@lucide/vue';
import Select from 'primevue/select';
import { computed, ref } from 'vue';

export interface Choice {
  readonly value: string;
  readonly words: string;
}
defineOptions({ inheritAttrs: false });
const { options, labelledBy, label, describedBy } = defineProps<{
  modelValue?: T;
  options: readonly (Choice | T)[];
  labelledBy?: string | undefined;
  label?: string | undefined;
  describedBy?: string | undefined;
  disabled?: boolean;
  size?: 'small' | 'large';
  invalid?: boolean;
  /** A class for what takes the focus. */
  ptLabelClass?: string;
  /** Enter on a closed list belongs to the form, not to the list. */
  enterGoesOn?: boolean;
}>();
const emit = defineEmits<{ 'update:modelValue': [value: T] }>();
const list = computed(() =>
  options.map((each) => (typeof each === 'string' ? { value: each as string, words: each as string } : each)),
);
const open = ref(false);
/** Whatever a closed list would swallow goes on as if there were no list. */
function passOn(event: KeyboardEvent, enter: boolean): void {
  if (open.value || !(event.key === 'Escape' || (enter && event.key === 'Enter'))) return;
  event.stopImmediatePropagation();
  const above = (event.currentTarget as HTMLElement).parentElement;
  const again = new KeyboardEvent('keydown', {
    ...event,
    key: event.key,
    code: event.code,
    bubbles: true,
    cancelable: true,
  });
  if (above && !above.dispatchEvent(again)) event.preventDefault();
}
</script>

<template>
  <Select
    v-bind="$attrs"
    :model-value="modelValue"
    :options="list"
    option-value="value"
    option-label="words"
    :aria-labelledby="labelledBy"
    :aria-label="label"
    :disabled="disabled"
    :size="size"
    :invalid="invalid"
    :label-id="$attrs['input-id'] as string | undefined"
    :label-class="ptLabelClass"
    :pt="{ label: { 'aria-describedby': describedBy } }"
    @keydown.capture="passOn($event, enterGoesOn)"
    @update:model-value="emit('update:modelValue', $event as T)"
    @before-show="open = true"
    @before-hide="open = false"
  >
    <template #dropdownicon><ChevronDown :size="14" :stroke-width="1.5" aria-hidden="true" /></template>
  </Select>
</template>
