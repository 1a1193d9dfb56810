<script setup lang="ts">
/** One of some options, or several: by letter, by arrow, or pressed. */
import { labelOf, type Question } from '@vocabula/core';
import { computed } from 'vue';

const props = defineProps<{
  question: Question;
  shown: unknown;
  /** Other words than the options’, as text. */
  words: string;
  labelledBy: string;
  describedBy?: string | undefined;
}>();
const emit = defineEmits<{ answer: [value: unknown] }>();
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
function onKey(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  const option = options.value.find((each) => each.letter === event.key.toLowerCase());
  const at = options.value.findIndex((each) => each.key === props.shown);
  const forward = event.key === 'ArrowRight' || event.key === 'ArrowDown';
  const step = forward ? 1 : event.key === 'ArrowLeft' || event.key === 'ArrowUp' ? -1 : 0;
  const next = step === 0 ? undefined : options.value[(at + step + options.value.length) % options.value.length];
  const chosen = option ?? next;
  if (!chosen) return;
  event.preventDefault();
  choose(chosen.key);
}
function choose(key: string): void {
  if (!several.value) return emit('answer', key);
  emit('answer', isOn(key) ? picked.value.filter((each) => each !== key) : [...picked.value, key]);
}
</script>

<template>
  <div
    class="control options"
    :role="several ? 'group' : 'radiogroup'"
    tabindex="0"
    :aria-labelledby="labelledBy"
    :aria-describedby="describedBy"
    @keydown="onKey"
  >
    <button
      v-for="option in options"
      :key="option.key"
      type="button"
      :role="several ? 'checkbox' : 'radio'"
      tabindex="-1"
      :aria-checked="isOn(option.key)"
      :class="{ on: isOn(option.key) }"
      @click="choose(option.key)"
    >
      <i class="quiet small" aria-hidden="true">{{ option.letter }}</i>{{ option.label }}
    </button>
    <input
      v-if="question.variable.other && !several"
      class="other"
      placeholder="or other words"
      aria-label="Other words"
      :value="options.some((option) => option.key === shown) ? '' : words"
      @keydown.stop
      @input="emit('answer', ($event.target as HTMLInputElement).value)"
    />
  </div>
</template>

<style scoped>
.options {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  width: fit-content;
  border-radius: 3px;
}
.options button {
  height: 36px;
  background: var(--sheet);
}
.options button.on {
  background: var(--selected);
  box-shadow: inset 0 -3px var(--action);
  font-weight: 600;
}
.options i {
  font-style: normal;
}
.other {
  width: 160px !important;
  height: 36px !important;
}
</style>
