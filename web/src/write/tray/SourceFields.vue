<script setup lang="ts">
/** How a variable is asked (its usual answer, whether one is required), or where its value comes from. */
import TickBox from '../../ui/controls/TickBox.vue';
import PickOne from '../../ui/controls/PickOne.vue';
import InputText from 'primevue/inputtext';
import { isMissing, labelFromKey, valueType, type Variable } from '@vocabula/core';
import { computed } from 'vue';
import { today } from '../../ui/today';

const props = defineProps<{
  variable: Variable;
  locale: string;
  fields: readonly string[];
  part: 'question' | 'source';
}>();
const emit = defineEmits<{ set: [name: keyof Variable, value: unknown] }>();
/** Rows and images are remembered no more than what is personal. */
const isRemembered = computed(() => {
  const { isPersonal, column } = valueType(props.variable.type);
  return !isPersonal && column !== undefined;
});
const groups = computed(() => [
  ['Recipient', props.fields.filter((name) => name.startsWith('recipient.'))] as const,
  ['My fields', props.fields.filter((name) => name.startsWith('sender.'))] as const,
]);
/** A field that the chosen sample set lacks is still what the variable says. */
const elsewhere = computed(() => {
  const { from = '' } = props.variable;
  return from.includes('.') && !props.fields.includes(from) ? from : undefined;
});
const usual = computed(() => {
  const value = props.variable.default;
  return Array.isArray(value) ? value.map(String) : String(value ?? '');
});
const problem = computed(() => {
  const { variable } = props;
  if (variable.default === undefined || isMissing(variable.default)) return '';
  const parsed = valueType(variable.type).parse(variable.default, variable, { today: today(), locale: props.locale });
  return 'problem' in parsed ? parsed.problem : '';
});
const text = (event: Event): string => (event.target as HTMLInputElement).value;
function toggle(key: string): void {
  const keys = Array.isArray(usual.value) ? usual.value : [];
  const next = (props.variable.options ?? [])
    .map((option) => option.key)
    .filter((each) => (each === key ? !keys.includes(key) : keys.includes(each)));
  emit('set', 'default', next.length > 0 ? next : undefined);
}
</script>

<template>
  <template v-if="part === 'question'">
    <label v-if="variable.type === 'yes-no'" class="field"
      ><span>Default</span
      ><PickOne :model-value="String(usual)" @update:model-value="emit('set', 'default', $event)">
        <option value="">not said</option>
        <option value="true">yes</option>
        <option value="false">no</option>
      </PickOne></label
    >
    <label v-else-if="variable.type === 'choice'" class="field"
      ><span>Default</span
      ><PickOne :model-value="String(usual)" @update:model-value="emit('set', 'default', $event)">
        <option value="">none</option>
        <option v-for="option in variable.options" :key="option.key" :value="option.key">
          {{ option.label ?? labelFromKey(option.key) }}
        </option>
      </PickOne></label
    >
    <fieldset v-else-if="variable.type === 'choices'" class="field usual">
      <legend class="quiet small">Default</legend>
      <label v-for="option in variable.options" :key="option.key"
        ><TickBox :checked="usual.includes(option.key)" @change="toggle(option.key)" />
        {{ option.label ?? labelFromKey(option.key) }}</label
      >
    </fieldset>
    <label v-else-if="variable.type !== 'list'" class="field"
      ><span>Default</span
      ><InputText
        :model-value="String(usual)"
        :aria-invalid="problem !== ''"
        @change="emit('set', 'default', text($event).trim())"
      /><span v-if="problem" class="error small">{{ problem }}</span></label
    >
    <label class="tick"
      ><TickBox :checked="variable.required ?? false" @change="emit('set', 'required', $event)" /> required</label
    >
  </template>
  <template v-else>
    <label class="field"
      ><span>Filled from</span
      ><PickOne :model-value="variable.from ?? ''" @update:model-value="emit('set', 'from', $event)">
        <option value="">asked</option>
        <option value="last">the last answer for the same recipient</option>
        <option value="clipboard">the clipboard</option>
        <option v-if="elsewhere" :value="elsewhere">{{ elsewhere }}</option>
        <optgroup v-for="[label, names] in groups" :key="label" :label="label">
          <option v-for="name in names" :key="name" :value="name">
            {{ labelFromKey(name.split('.')[1] ?? name) }}
          </option>
        </optgroup>
      </PickOne></label
    >
    <label v-if="isRemembered" class="tick"
      ><TickBox :checked="variable.remember ?? false" @change="emit('set', 'remember', $event)" /> remember the
      answer</label
    >
  </template>
</template>

<style scoped>
.usual {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 2px;
  font-size: 0.8125rem;
}
</style>
