<script setup lang="ts">
/** A day, a time of day or a number as people type it. What is none stays in the field, with a line that says so. */
import { isDay } from '@vocabula/core';
import { computed, ref, useId, watch } from 'vue';
import TypedField from '../TypedField.vue';
import { readersLocale } from './reader';

defineOptions({ inheritAttrs: false });
const { modelValue, type, locale, describedBy, invalid, raw, bounds } = defineProps<{
  /** `2026-03-14`, `09:30` or `4.5`; empty for none. */
  modelValue: string;
  type: 'date' | 'time' | 'number';
  /** The least and the greatest number; numbers only. */
  bounds?: readonly [least: number, greatest: number] | undefined;
  /** How it is read and shown; the reader's own by default. */
  locale?: string | undefined;
  describedBy?: string | undefined;
  invalid?: boolean;
  /** Hands on what is no date or time as well, to a place that judges it itself. */
  raw?: boolean;
}>();
const emit = defineEmits<{ 'update:modelValue': [source: string] }>();
const EXAMPLE = { date: '14 June, 14/6/27, tomorrow, +14', time: '14:30, 2 pm', number: '' } as const;
const PROBLEM = {
  date: 'Type a date such as 14 June or 2027-06-14.',
  time: 'Type a time such as 14:30 or 2 pm.',
  number: 'Type a number.',
} as const;
const problem = computed(() =>
  type === 'number' && bounds ? `Type a number from ${bounds[0]} to ${bounds[1]}.` : PROBLEM[type],
);

const id = useId();
/** What was typed that could not be understood. */
const odd = ref<string>();
watch(
  () => modelValue,
  () => (odd.value = undefined),
);
const IS_WHOLE: Readonly<Record<typeof type, (source: string) => boolean>> = {
  date: isDay,
  time: (source) => /^\d{2}:\d{2}(:\d{2})?$/.test(source),
  number: (source) =>
    /^-?\d+(\.\d+)?$/.test(source) && (!bounds || (Number(source) >= bounds[0] && Number(source) <= bounds[1])),
};
/** Whether it can be handed on. Empty means none, which numbers with bounds cannot be. */
const isWhole = (source: string): boolean => (source === '' ? !bounds : IS_WHOLE[type](source));
function typed(source: string): void {
  odd.value = raw || isWhole(source) ? undefined : source;
  if (odd.value === undefined) emit('update:modelValue', source);
}
const describes = computed(() => (odd.value === undefined ? describedBy : `${id}-odd`));
</script>

<template>
  <TypedField
    v-bind="$attrs"
    :type="type"
    :lazy="bounds !== undefined"
    :model-value="odd ?? modelValue"
    :locale="locale ?? readersLocale"
    :aria-describedby="describes"
    :aria-invalid="invalid || odd !== undefined"
    :placeholder="EXAMPLE[type]"
    @update:model-value="typed"
  />
  <span v-if="odd !== undefined" :id="`${id}-odd`" class="error small" role="alert">⚠ {{ problem }}</span>
</template>
