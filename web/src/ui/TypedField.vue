<script setup lang="ts">
/** A value that is typed as people type it: understood when it is left, or as soon as there is no doubt. */
import type { TypeName } from '@vocabula/core';
import InputText from 'primevue/inputtext';
import { ref, watch } from 'vue';
import { showSource, understand } from './typedValues';

const { modelValue, type, locale, lazy } = defineProps<{
  modelValue: string;
  type: TypeName;
  locale: string;
  /** Hands on what is typed only when it is left. */
  lazy?: boolean;
}>();
const emit = defineEmits<{ 'update:modelValue': [source: string] }>();
const text = ref('');
let typing = false;
watch(
  () => modelValue,
  (source) => {
    // What somebody is typing is not put into other words under their hands.
    if (!typing || understand(type, text.value, locale) !== source) text.value = showSource(type, source, locale);
  },
  { immediate: true },
);

function commit(): void {
  typing = false;
  // What is shown is not typed: a time in words need not be understood again.
  if (text.value === showSource(type, modelValue, locale)) return;
  const source = understand(type, text.value, locale);
  if (source !== modelValue) emit('update:modelValue', source);
  text.value = showSource(type, source, locale);
}
/** While it is typed, what is whole already shows in the message: numbers, a year of four digits, minutes of two. */
function typed(): void {
  typing = true;
  if (lazy) return;
  const whole = type === 'number' || type === 'money' || /(\d{4}|:\d{2})$/.test(text.value.trim());
  const source = understand(type, text.value, locale);
  if (whole && source !== modelValue) emit('update:modelValue', source);
}
</script>

<template>
  <InputText
    v-model="text"
    autocomplete="off"
    @update:model-value="typed"
    @change="commit"
    @blur="commit"
    @keydown.enter="commit"
  />
</template>
