<script setup lang="ts">
/** One question with the control that fits its type. */
import { labelOf, type Question, type RowValue } from '@vocabula/core';
import { computed, useId } from 'vue';
import TypedField from '../ui/TypedField.vue';
import DayField from './DayField.vue';
import ImageField from './ImageField.vue';
import MomentField from './MomentField.vue';
import RowsField from './RowsField.vue';

const props = defineProps<{ question: Question; given: unknown; adds: string }>();
const emit = defineEmits<{ answer: [value: unknown] }>();
const TYPED: ReadonlySet<string> = new Set(['number', 'money', 'time']);
const id = useId();
const { variable } = props.question;
/** What the control shows: the answer as typed, else the value it has from elsewhere. */
const shown = computed(() =>
  props.given === undefined || props.given === null ? (props.question.value ?? '') : props.given,
);
const text = computed(() => {
  const value = shown.value;
  if (Array.isArray(value)) return value.join(', ');
  // An image is a source and its words.
  return typeof value === 'object' ? Object.values(value).join(' ').trim() : String(value);
});
const invalid = computed(() => props.question.problem !== undefined);
const picked = computed(() => (Array.isArray(shown.value) ? (shown.value as string[]) : []));
const origin = computed(() => {
  const { source, required } = props.question;
  if (source === 'recipient') return 'from the recipient';
  if (source === 'sender') return 'from your profile';
  return source === 'default' ? 'as usual' : required ? '' : 'may stay empty';
});
const describedBy = computed(() => (invalid.value ? `${id}-problem` : variable.help ? `${id}-help` : undefined));

/** The letter that picks each option: its first letter not taken yet. */
const options = computed(() => {
  const taken = new Set<string>();
  return (variable.options ?? []).map((option) => {
    const label = labelOf(option);
    const letter =
      [...label.toLowerCase()].find((character) => /[a-z0-9]/.test(character) && !taken.has(character)) ?? '';
    taken.add(letter);
    return { key: option.key, label, letter };
  });
});
function letter(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  const option = options.value.find((each) => each.letter === event.key.toLowerCase());
  const at = options.value.findIndex((each) => each.key === shown.value);
  const step =
    event.key === 'ArrowRight' || event.key === 'ArrowDown'
      ? 1
      : event.key === 'ArrowLeft' || event.key === 'ArrowUp'
        ? -1
        : 0;
  const next = step === 0 ? undefined : options.value[(at + step + options.value.length) % options.value.length];
  const chosen = option ?? next;
  if (!chosen) return;
  event.preventDefault();
  if (props.question.type === 'choices') toggle(chosen.key);
  else emit('answer', chosen.key);
}
function toggle(key: string): void {
  emit('answer', picked.value.includes(key) ? picked.value.filter((each) => each !== key) : [...picked.value, key]);
}
</script>

<template>
  <div class="question" :data-question="question.key">
    <label v-if="question.type === 'yes-no'" class="tick">
      <input
        class="control"
        type="checkbox"
        :checked="question.value === true"
        @change="emit('answer', ($event.target as HTMLInputElement).checked)"
      />
      <span>{{ question.label }}</span><span v-if="adds" class="quiet small">adds “{{ adds }}”</span>
    </label>
    <template v-else>
      <span :id="id" class="label"
        >{{ question.label
        }}<span v-if="question.required && question.value === undefined" class="unseen"> required</span>
        <span class="quiet small" :class="{ source: question.source !== 'none' }">{{ origin }}</span></span
      >
      <DayField
        v-if="question.type === 'date'"
        :model-value="text"
        :locale="question.locale"
        :labelled-by="id"
        :described-by="describedBy"
        :invalid="invalid"
        @update:model-value="emit('answer', $event)"
      />
      <MomentField
        v-else-if="question.type === 'datetime'"
        :model-value="text"
        :locale="question.locale"
        :labelled-by="id"
        :described-by="describedBy"
        :invalid="invalid"
        @update:model-value="emit('answer', $event)"
      />
      <TypedField
        v-else-if="TYPED.has(question.type)"
        class="control"
        :type="question.type"
        :inputmode="question.type === 'time' ? undefined : 'decimal'"
        :model-value="text"
        :locale="question.locale"
        :aria-labelledby="id"
        :aria-describedby="describedBy"
        :aria-invalid="invalid"
        :placeholder="question.type === 'time' ? '14:30, 2 pm' : undefined"
        @update:model-value="emit('answer', $event)"
      />
      <ImageField
        v-else-if="question.type === 'image'"
        :model-value="text"
        :labelled-by="id"
        :described-by="describedBy"
        @update:model-value="emit('answer', $event)"
      />
      <textarea
        v-else-if="question.type === 'paragraphs'"
        class="control"
        rows="3"
        :value="text"
        :aria-labelledby="id"
        :aria-describedby="describedBy"
        :aria-invalid="invalid"
        @input="emit('answer', ($event.target as HTMLTextAreaElement).value)"
      />
      <div
        v-else-if="question.type === 'choice'"
        class="control options"
        role="radiogroup"
        tabindex="0"
        :aria-labelledby="id"
        :aria-describedby="describedBy"
        @keydown="letter"
      >
        <button
          v-for="option in options"
          :key="option.key"
          type="button"
          role="radio"
          tabindex="-1"
          :aria-checked="shown === option.key"
          :class="{ on: shown === option.key }"
          @click="emit('answer', option.key)"
        >
          <i class="quiet small" aria-hidden="true">{{ option.letter }}</i>{{ option.label }}
        </button>
        <input
          v-if="variable.other"
          class="other"
          placeholder="or other words"
          aria-label="Other words"
          :value="options.some((option) => option.key === shown) ? '' : text"
          @keydown.stop
          @input="emit('answer', ($event.target as HTMLInputElement).value)"
        />
      </div>
      <div
        v-else-if="question.type === 'choices'"
        class="control options"
        role="group"
        tabindex="0"
        :aria-labelledby="id"
        :aria-describedby="describedBy"
        @keydown="letter"
      >
        <button
          v-for="option in options"
          :key="option.key"
          type="button"
          role="checkbox"
          tabindex="-1"
          :aria-checked="picked.includes(option.key)"
          :class="{ on: picked.includes(option.key) }"
          @click="toggle(option.key)"
        >
          <i class="quiet small" aria-hidden="true">{{ option.letter }}</i>{{ option.label }}
        </button>
      </div>
      <RowsField
        v-else-if="question.type === 'list'"
        :columns="variable.columns ?? []"
        :rows="(Array.isArray(shown) ? shown : []) as readonly RowValue[]"
        :label="question.label"
        :locale="question.locale"
        @answer="emit('answer', $event)"
      />
      <input
        v-else
        class="control"
        autocomplete="off"
        :type="
          question.type === 'email'
            ? 'email'
            : question.type === 'phone'
              ? 'tel'
              : question.type === 'link'
                ? 'url'
                : 'text'
        "
        :value="text"
        :aria-labelledby="id"
        :aria-describedby="describedBy"
        :aria-invalid="invalid"
        @input="emit('answer', ($event.target as HTMLInputElement).value)"
      />
    </template>
    <p v-if="question.problem" :id="`${id}-problem`" class="error small">⚠ {{ question.problem }}</p>
    <p v-else-if="variable.help" :id="`${id}-help`" class="quiet small">{{ variable.help }}</p>
  </div>
</template>

<style scoped>
.question {
  margin-bottom: 16px;
}
.label {
  display: block;
  font-size: 0.8125rem;
  line-height: 1.25rem;
  color: var(--quiet);
}
.label .quiet {
  margin-left: 6px;
}
.label .source {
  border-bottom: 1.5px dotted var(--edge);
}
.tick {
  display: flex;
  align-items: baseline;
  gap: 8px;
  padding: 8px 0;
}
.tick input {
  flex: none;
  align-self: flex-start;
}
input.control:not([type='checkbox']),
.day :deep(.control) {
  height: 36px;
}
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
p {
  margin-top: 4px;
}
</style>
