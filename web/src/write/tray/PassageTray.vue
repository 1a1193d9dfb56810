<script setup lang="ts">
/** The chosen passage: what governs it, its condition, and what can be done with its bracket. */
import TickBox from '../../ui/controls/TickBox.vue';
import PickOne from '../../ui/controls/PickOne.vue';
import { labelFromKey, type Condition, valueType } from '@vocabula/core';
import { computed } from 'vue';
import { bracketInWords } from '../caret';
import ConditionBuilder from '../../ui/condition/ConditionBuilder.vue';
import { namesOf } from '../../ui/condition/names';
import type { Desk } from '../desk/useDesk';
import type { Bracket } from '../editor/brackets';
import BracketActs from './BracketActs.vue';

const props = defineProps<{ desk: Desk; bracket: Bracket }>();
const { manuscript, passages, tray, insertable, proof } = props.desk;
const { variables } = manuscript;
const condition = computed(() => props.bracket.condition as Condition);
const variable = computed(() => passages.variableOf(props.bracket));
const holds = computed(() => passages.holds(condition.value));
const governing = computed(() =>
  variables.value.filter(({ type, key }) => {
    const { governs } = valueType(type);
    // A list does not repeat inside a line.
    return key === condition.value.of || (governs && (governs !== 'list' || props.bracket.form !== 'phrase'));
  }),
);
const names = computed(() => namesOf(insertable.value).filter(({ name }) => name !== variable.value?.key));
const problems = computed(() =>
  proof.findings.value.flatMap(({ message, place }) =>
    place.variable === variable.value?.key && place.attribute === 'value' && !place.text
      ? [{ message, offset: place.offset ?? 0, length: place.length ?? 1 }]
      : [],
  ),
);
function governBy(key: string): void {
  const next = variables.value.find((each) => each.key === key);
  passages.govern({ of: key, is: next?.options?.[0] ? [next.options[0].key] : [], not: false, run: 0 });
}
function toggle(key: string): void {
  const { is } = condition.value;
  const next = is.includes(key) ? is.filter((each) => each !== key) : [...is, key];
  if (next.length > 0) passages.govern({ ...condition.value, is: next });
}
function workOut(source: string): void {
  if (variable.value)
    tray.change(variable.value.key, (old) => ({ ...old, value: source }), `value ${variable.value.key}`);
}
</script>

<template>
  <form class="chosen" @submit.prevent>
    <p>
      <b>{{ bracketInWords(bracket, variables) }}</b>
      <span class="quiet">{{
        holds === undefined ? '' : holds ? ' kept for this recipient' : ' left out for this recipient'
      }}</span>
    </p>
    <ConditionBuilder
      v-if="variable?.value !== undefined && variable.type === 'yes-no'"
      :key="variable.key"
      :model-value="variable.value"
      :names="names"
      :problems="problems"
      :value="proof.values.value.get(variable.key)?.words"
      @update:model-value="workOut"
    />
    <label class="field"
      ><span>Governed by</span
      ><PickOne :model-value="condition.of" @update:model-value="governBy($event)">
        <option v-for="each in governing" :key="each.key" :value="each.key">
          {{ each.label ?? labelFromKey(each.key) }}
        </option>
      </PickOne></label
    >
    <div v-if="variable?.options" class="options" role="group" aria-label="Kept with">
      <label v-for="option in variable.options" :key="option.key"
        ><TickBox :checked="condition.is.includes(option.key)" @change="toggle(option.key)" />
        {{ option.label ?? labelFromKey(option.key) }}</label
      >
    </div>
    <label
      ><TickBox :checked="condition.not" @change="passages.govern({ ...condition, not: !condition.not, run: 0 })" />
      {{ variable?.type === 'list' ? 'Show when there are none' : 'Show when not met' }}</label
    >
    <BracketActs :desk="desk" :bracket="bracket" />
  </form>
</template>

<style scoped>
.field {
  width: 260px;
}
.options {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
}
</style>
