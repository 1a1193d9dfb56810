<script setup lang="ts">
/** A condition on data: variable, comparison, value. It becomes a worked-out yes-no with a name. */
import { isDay, labelFromKey, labelOf, type Variable } from '@vocabula/core';
import { computed, onMounted, ref, useTemplateRef, watch } from 'vue';

const props = defineProps<{ variables: readonly Variable[] }>();
const emit = defineEmits<{ done: [made: { label: string; expression: string }] }>();
const usable = computed(() =>
  props.variables.filter((variable) => variable.type !== 'list' && variable.type !== 'paragraphs'),
);
const key = ref(usable.value[0]?.key ?? '');
const first = useTemplateRef('first');
onMounted(() => first.value?.focus());
const variable = computed(() => usable.value.find((each) => each.key === key.value));
const name = computed(() => variable.value?.label ?? labelFromKey(key.value));

/** Comparisons by what kind of value it is: words, and how the expression says it. */
const COMPARISONS = {
  number: [
    ['is at least', '>='],
    ['is at most', '<='],
    ['is more than', '>'],
    ['is less than', '<'],
    ['is', '=='],
    ['is not', '!='],
  ],
  date: [
    ['is on or after', '>='],
    ['is on or before', '<='],
    ['is', '=='],
  ],
  words: [
    ['is', '=='],
    ['is not', '!='],
    ['contains', 'contains'],
  ],
  option: [
    ['is', '=='],
    ['is not', '!='],
  ],
  tick: [
    ['is yes', 'yes'],
    ['is no', 'no'],
  ],
} as const;
const kind = computed<keyof typeof COMPARISONS>(() => {
  switch (variable.value?.type) {
    case 'number':
    case 'money':
      return 'number';
    case 'date':
      return 'date';
    case 'choice':
    case 'choices':
      return 'option';
    case 'yes-no':
      return 'tick';
    default:
      return 'words';
  }
});
const comparison = ref(0);
const value = ref('');
const label = ref('');
watch(key, () => {
  comparison.value = 0;
  value.value = variable.value?.options?.[0]?.key ?? '';
});
const chosen = computed(() => COMPARISONS[kind.value][comparison.value] ?? COMPARISONS[kind.value][0]);
const shownValue = computed(() => {
  const option = variable.value?.options?.find((each) => each.key === value.value);
  return option ? labelOf(option) : value.value;
});
const words = computed(() =>
  `${name.value} ${chosen.value[0]}${kind.value === 'tick' ? '' : ` ${shownValue.value}`}`.trim(),
);
const valid = computed(() => {
  if (!variable.value) return false;
  if (kind.value === 'tick') return true;
  if (kind.value === 'number') return /^-?\d+(\.\d+)?$/.test(value.value.trim());
  return kind.value === 'date' ? isDay(value.value.trim()) : value.value.trim() !== '';
});
const expression = computed(() => {
  const operator = chosen.value[1];
  const quoted = JSON.stringify(value.value.trim());
  if (kind.value === 'tick') return operator === 'yes' ? key.value : `!${key.value}`;
  if (kind.value === 'number') return `${key.value} ${operator} ${value.value.trim()}`;
  if (variable.value?.type === 'choices')
    return operator === '==' ? `${quoted} in ${key.value}` : `!(${quoted} in ${key.value})`;
  return operator === 'contains' ? `${key.value}.contains(${quoted})` : `${key.value} ${operator} ${quoted}`;
});
function done(): void {
  if (valid.value) emit('done', { label: label.value.trim() || words.value, expression: expression.value });
}
</script>

<template>
  <form class="condition" @submit.prevent="done">
    <p v-if="usable.length === 0" class="quiet">A condition asks a variable, and there is none yet.</p>
    <template v-else>
      <div class="parts">
        <select ref="first" v-model="key" aria-label="Variable">
          <option v-for="each in usable" :key="each.key" :value="each.key">
            {{ each.label ?? labelFromKey(each.key) }}
          </option>
        </select>
        <select v-model="comparison" aria-label="Comparison">
          <option v-for="(each, index) in COMPARISONS[kind]" :key="each[0]" :value="index">{{ each[0] }}</option>
        </select>
        <select v-if="kind === 'option'" v-model="value" aria-label="Value">
          <option v-for="option in variable?.options" :key="option.key" :value="option.key">
            {{ labelOf(option) }}
          </option>
        </select>
        <input
          v-else-if="kind !== 'tick'"
          v-model="value"
          aria-label="Value"
          :placeholder="kind === 'number' ? '15' : kind === 'date' ? '2027-05-11' : 'words'"
        />
      </div>
      <label class="field"><span>Called</span><input v-model="label" :placeholder="words" /></label>
      <button class="main" :disabled="!valid">Keep only if {{ words }}</button>
    </template>
  </form>
</template>

<style scoped>
.condition {
  padding: 8px;
  width: 400px;
  display: grid;
  gap: 8px;
  justify-items: start;
}
.parts {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 8px;
  width: 100%;
}
.field {
  width: 100%;
}
</style>
