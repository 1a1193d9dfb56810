<script setup lang="ts">
/** One of some options, or several: by letter, by arrow, or pressed. */
import { labelOf, type Question } from '@vocabula/core';
import Checkbox from 'primevue/checkbox';
import InputText from 'primevue/inputtext';
import RadioButton from 'primevue/radiobutton';
import { computed, useId } from 'vue';

const props = defineProps<{
  question: Question;
  shown: unknown;
  /** Other words than the options’, as text. */
  words: string;
  labelledBy: string;
  describedBy?: string | undefined;
}>();
const emit = defineEmits<{ answer: [value: unknown] }>();
const id = useId();
/** The option that the way through the questions stops at. */
const stop = computed(() =>
  Math.max(
    0,
    options.value.findIndex(({ key }) => isOn(key)),
  ),
);
const several = computed(() => props.question.type === 'choices');
const picked = computed(() => (Array.isArray(props.shown) ? (props.shown as string[]) : []));
const isOn = (key: string): boolean => (several.value ? picked.value.includes(key) : props.shown === key);

/** The letter that picks each option: its first letter not taken yet. */
const options = computed(() => {
  const taken = new Set<string>();
  return (props.question.variable.options ?? []).map((option) => {
    const label = labelOf(option);
    const letter =
      [...label.toLowerCase()].find((character) => /[a-z0-9]/.test(character) && !taken.has(character)) ?? '';
    taken.add(letter);
    return { key: option.key, label, letter };
  });
});
/** Letters pick; arrows are the library's. */
function onKey(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  const at = options.value.findIndex(({ letter }) => letter === event.key.toLowerCase());
  const option = options.value[at];
  if (!option) return;
  event.preventDefault();
  choose(option.key);
  (event.currentTarget as HTMLElement).querySelectorAll('input')[at]?.focus();
}
function choose(key: string): void {
  if (!several.value) return emit('answer', key);
  emit('answer', isOn(key) ? picked.value.filter((each) => each !== key) : [...picked.value, key]);
}
</script>

<template>
  <div
    class="options"
    :role="several ? 'group' : 'radiogroup'"
    :aria-labelledby="labelledBy"
    :aria-describedby="describedBy"
    @keydown="onKey"
  >
    <label v-for="(option, index) in options" :key="option.key" class="option">
      <Checkbox
        v-if="several"
        :model-value="isOn(option.key)"
        binary
        size="small"
        :input-class="{ control: index === stop }"
        @update:model-value="choose(option.key)"
      />
      <RadioButton
        v-else
        :model-value="shown"
        :value="option.key"
        :name="id"
        size="small"
        :input-class="{ control: index === stop }"
        @update:model-value="choose(option.key)"
      />
      <i class="quiet small" aria-hidden="true">{{ option.letter }}</i>{{ option.label }}
    </label>
    <InputText
      v-if="question.variable.other && !several"
      size="large"
      class="other"
      placeholder="or other words"
      aria-label="Other words"
      :model-value="options.some((option) => option.key === shown) ? '' : words"
      @keydown.stop
      @update:model-value="emit('answer', $event)"
    />
  </div>
</template>

<style scoped>
.options {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.option {
  display: inline-flex;
  align-items: center;
  gap: 8px;
  height: 36px;
  padding: 0 12px;
  border: 1px solid var(--edge);
  border-radius: 3px;
  background: var(--sheet);
  cursor: pointer;
}
.option:hover {
  background: var(--hover);
}
.option:has(input:checked) {
  background: var(--selected);
  box-shadow: inset 0 -3px var(--action);
  font-weight: 600;
}
.option:has(input:focus-visible) {
  outline: 2px solid var(--action);
  outline-offset: 2px;
}
i {
  font-style: normal;
}
.other {
  width: 160px;
}
</style>
