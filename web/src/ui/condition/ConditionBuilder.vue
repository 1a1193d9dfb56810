<script setup lang="ts">
/** A condition built of comparisons and shown in words; its expression can be opened and written. */
import { vTip } from '../controls/tip';
import PushButton from '../controls/PushButton.vue';
import {
  isGroup,
  readConditions,
  sayConditions,
  writeConditions,
  type ConditionGroup as Group,
  type TypeName,
  type Variable,
} from '@vocabula/core';
import { computed, ref, watch } from 'vue';
import ConditionGroup from './ConditionGroup.vue';
import ExpressionField, { type ExpressionProblem } from './ExpressionField.vue';
import { firstComparison, type Named } from './names';

const props = defineProps<{
  names: readonly Named[];
  problems: readonly ExpressionProblem[];
  value: string | undefined;
  /** What it comes to, said in other words than for a recipient. */
  comes?: string;
}>();
const source = defineModel<string>({ required: true });
const variableOf = (name: string): Variable | undefined => props.names.find((each) => each.name === name)?.variable;
const typeOf = (name: string): TypeName | undefined => variableOf(name)?.type;

/** The expression as a group; undefined if it says more than can be built. */
function groupOf(expression: string): Group | undefined {
  if (expression.trim() === '') return { join: 'all', not: false, parts: [firstComparison(props.names[0])] };
  const tree = readConditions(expression, typeOf);
  return tree && (isGroup(tree) ? tree : { join: 'all', not: false, parts: [tree] });
}
const group = ref(groupOf(source.value));
const writing = ref(group.value === undefined);
const words = computed(() =>
  group.value ? sayConditions(group.value, { variableOf, locale: 'en-GB' }) : 'as the expression says',
);
watch(source, (now) => {
  // What is not whole yet is in the group only.
  if (group.value && writeConditions(group.value, typeOf) === now) return;
  group.value = groupOf(now);
  if (!group.value) writing.value = true;
});
function build(next: Group): void {
  group.value = next;
  source.value = writeConditions(next, typeOf);
}
</script>

<template>
  <div class="builder">
    <p class="words" aria-live="polite">{{ words }}</p>
    <ConditionGroup
      v-if="!writing && group"
      :model-value="group"
      :names="names"
      outermost
      place=""
      @update:model-value="build"
    />
    <ExpressionField v-else v-model="source" label="Expression" :names="names" :problems="problems" :value="value" />
    <p class="below small">
      <span v-if="!writing" class="quiet">{{
        comes ?? (value === undefined ? 'waiting for a value' : `for this recipient: ${value}`)
      }}</span>
      <PushButton
        kind="plain"
        size="small"
        :disabled="writing && !group"
        v-tip="group ? undefined : 'This expression is too complex for the builder'"
        @click="writing = !writing"
      >
        {{ writing ? 'Build it' : 'Write the expression' }}
      </PushButton>
    </p>
  </div>
</template>

<style scoped>
.builder {
  display: grid;
  gap: 8px;
  width: 100%;
}
.words {
  font-weight: 600;
  font-size: 0.8125rem;
  overflow-wrap: anywhere;
}
.below {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 8px;
}
</style>
