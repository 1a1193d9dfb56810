<script setup lang="ts">
/** One question with the control that fits its type. */
import { vTip } from '../ui/controls/tip';
import { valueType, type Question, type RowValue } from '@vocabula/core';
import type { FoundValue } from '@vocabula/core/filling';
import Checkbox from 'primevue/checkbox';
import InputText from 'primevue/inputtext';
import Textarea from 'primevue/textarea';
import { computed, defineAsyncComponent, useId } from 'vue';
import PushButton from '../ui/controls/PushButton.vue';
import TypedField from '../ui/TypedField.vue';
import { whenInWords } from '../ui/today';
import { showSource } from '../ui/typedValues';
import DayField from '../ui/dates/DayField.vue';
import MomentField from '../ui/dates/MomentField.vue';
import WholeField from '../ui/dates/WholeField.vue';
import OptionsField from './OptionsField.vue';

/** Asked for by few templates, and loaded with the select they need. */
const ImageField = defineAsyncComponent(() => import('./ImageField.vue'));
const RowsField = defineAsyncComponent(() => import('./RowsField.vue'));

const props = defineProps<{
  question: Question;
  given: unknown;
  adds: string;
  /** Nobody has confirmed the value yet. */
  unsure?: boolean;
  /** Where a borrowed value came from: a moment, or words. */
  from?: string | undefined;
  /** Values found in a mail or on the clipboard that fit. */
  offers?: readonly FoundValue[];
}>();
const emit = defineEmits<{ answer: [value: unknown] }>();
/** Kinds of a field of one line. */
const INPUTS: Readonly<Record<string, string>> = { email: 'email', phone: 'tel', link: 'url' };
const id = useId();
// A newer version of the template may ask for another type under the same key.
const variable = computed(() => props.question.variable);
const control = computed(() => valueType(variable.value.type).control);
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
const origin = computed(() => {
  const { source, required } = props.question;
  if (source === 'recipient') return 'from the recipient';
  if (source === 'sender') return 'from your profile';
  if (source === 'last' || source === 'memory')
    return `${source === 'last' ? 'from' : 'remembered from'} ${whenInWords(props.from ?? '')}`;
  if (source === 'clipboard') return `from the clipboard: “${props.from ?? ''}”`;
  return source === 'default' ? 'default' : required ? '' : 'optional';
});
/** Not what it says already. */
const others = computed(() => (props.offers ?? []).filter(({ value }) => value !== text.value).slice(0, 3));
const describedBy = computed(() => (invalid.value ? `${id}-problem` : variable.value.help ? `${id}-help` : undefined));
</script>

<template>
  <div class="question" :data-question="question.key">
    <label v-if="control === 'tick'" class="tick">
      <Checkbox
        :input-class="{ control: true }"
        binary
        :model-value="question.value === true"
        @update:model-value="emit('answer', $event)"
      />
      <span>{{ question.label }}</span><span v-if="adds" class="quiet small">adds “{{ adds }}”</span>
    </label>
    <template v-else>
      <span :id="id" class="label"
        >{{ question.label
        }}<span v-if="question.required && question.value === undefined" class="unseen"> required</span>
        <span class="quiet small" :class="{ source: question.source !== 'none', unsure }">{{ origin }}</span><span
          v-if="unsure"
          class="small confirm"
        >
          to confirm <kbd>⏎</kbd></span
        ></span
      >
      <DayField
        v-if="control === 'day'"
        raw
        size="large"
        :model-value="text"
        :locale="question.locale"
        :labelled-by="id"
        :described-by="describedBy"
        :invalid="invalid"
        @update:model-value="emit('answer', $event)"
      />
      <MomentField
        v-else-if="control === 'moment'"
        raw
        size="large"
        :model-value="text"
        :locale="question.locale"
        :labelled-by="id"
        :described-by="describedBy"
        :invalid="invalid"
        @update:model-value="emit('answer', $event)"
      />
      <WholeField
        v-else-if="control === 'time'"
        raw
        class="control"
        size="large"
        type="time"
        :model-value="text"
        :locale="question.locale"
        :aria-labelledby="id"
        :described-by="describedBy"
        :invalid="invalid"
        @update:model-value="emit('answer', $event)"
      />
      <TypedField
        v-else-if="control === 'number'"
        class="control"
        size="large"
        :type="question.type"
        inputmode="decimal"
        :model-value="text"
        :locale="question.locale"
        :aria-labelledby="id"
        :aria-describedby="describedBy"
        :aria-invalid="invalid"
        @update:model-value="emit('answer', $event)"
      />
      <ImageField
        v-else-if="control === 'image'"
        :model-value="text"
        :labelled-by="id"
        :described-by="describedBy"
        @update:model-value="emit('answer', $event)"
      />
      <Textarea
        v-else-if="control === 'lines'"
        class="control"
        rows="3"
        :model-value="text"
        :invalid="invalid"
        :aria-labelledby="id"
        :aria-describedby="describedBy"
        @update:model-value="emit('answer', $event)"
      />
      <OptionsField
        v-else-if="control === 'options'"
        :question="question"
        :shown="shown"
        :words="text"
        :labelled-by="id"
        :described-by="describedBy"
        @answer="emit('answer', $event)"
      />
      <RowsField
        v-else-if="control === 'rows'"
        :columns="variable.columns ?? []"
        :rows="(Array.isArray(shown) ? shown : []) as readonly RowValue[]"
        :label="question.label"
        :locale="question.locale"
        @answer="emit('answer', $event)"
      />
      <InputText
        v-else
        class="control"
        size="large"
        autocomplete="off"
        :type="INPUTS[control] ?? 'text'"
        :model-value="text"
        :invalid="invalid"
        :aria-labelledby="id"
        :aria-describedby="describedBy"
        @update:model-value="emit('answer', $event)"
      />
    </template>
    <p v-if="others.length" class="offers small">
      <PushButton
        v-for="offer in others"
        :key="offer.value"
        kind="plain"
        size="small"
        v-tip="offer.around"
        @click="emit('answer', offer.value)"
      >
        take {{ showSource(question.type, offer.value, question.locale) }}
        <span class="quiet">“{{ offer.words }}”</span>
      </PushButton>
    </p>
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
.tick :deep(.p-checkbox) {
  flex: none;
  align-self: flex-start;
}
p {
  margin-top: 4px;
}
.label .unsure {
  border-bottom-color: var(--ink);
  color: var(--ink);
}
.confirm {
  color: var(--warning);
}
.offers {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.offers :deep(.p-button) {
  height: 24px;
  text-decoration: underline;
  color: var(--action);
}
</style>
