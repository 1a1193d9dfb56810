<script setup lang="ts">
/** Selected words are kept only where a condition on data holds. */
import InputText from 'primevue/inputtext';
import PushButton from '../../ui/controls/PushButton.vue';
import { readConditions, sayConditions, type Variable } from '@vocabula/core';
import { computed, ref } from 'vue';
import ConditionBuilder from '../../ui/condition/ConditionBuilder.vue';
import { namesOf } from '../../ui/condition/names';
import type { Making } from '../desk/making';
import type { Desk } from '../desk/useDesk';
import type { Range } from '../editor/operations/places';
import HowFar from './HowFar.vue';

const props = defineProps<{ desk: Pick<Desk, 'fields' | 'insertable'>; crossings: readonly Range[] }>();
const emit = defineEmits<{ make: [making: Making] }>();
const { fields, insertable } = props.desk;
const names = computed(() => namesOf(insertable.value));
const expression = ref('');
const label = ref('');
const range = ref<Range>(fields.active.value.state.selection);
const variableOf = (name: string): Variable | undefined => names.value.find((each) => each.name === name)?.variable;
const words = computed(() => {
  const tree = readConditions(expression.value, (name) => variableOf(name)?.type);
  return tree ? sayConditions(tree, { variableOf, locale: 'en-GB' }) : expression.value;
});
function done(): void {
  if (expression.value.trim() === '') return;
  const { from, to } = range.value;
  const called = label.value.trim() || words.value;
  emit('make', { what: 'condition', label: called.slice(0, 80), expression: expression.value, range: { from, to } });
}
</script>

<template>
  <form class="condition-form" @submit.prevent="done">
    <ConditionBuilder v-model="expression" :names="names" :problems="[]" :value="undefined" />
    <label class="field"><span>Called</span><InputText v-model="label" :placeholder="words" /></label>
    <HowFar v-if="crossings.length > 0" v-model="range" :editor="fields.main" />
    <PushButton kind="main" type="submit" :disabled="expression.trim() === ''">Keep only then</PushButton>
  </form>
</template>

<style scoped>
.condition-form {
  width: 460px !important;
}
</style>
