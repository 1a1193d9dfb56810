<script setup lang="ts">
/** The chosen passage: what governs it, and what can be done with its bracket. */
import { conditionInWords, labelFromKey, type Condition, type Variable } from '@vocabula/core';
import { computed } from 'vue';

const props = defineProps<{
  condition: Condition | undefined;
  variables: readonly Variable[];
  holds: boolean | undefined;
}>();
const emit = defineEmits<{ change: [condition: Condition]; unwrap: []; tick: [value: unknown] }>();
const variable = computed(() => props.variables.find((each) => each.key === props.condition?.of));
const governing = computed(() =>
  props.variables.filter((each) => ['yes-no', 'choice', 'choices', 'list'].includes(each.type)),
);
function govern(key: string): void {
  const next = props.variables.find((each) => each.key === key);
  emit('change', { of: key, is: next?.options?.[0] ? [next.options[0].key] : [], not: false, run: 0 });
}
function toggle(key: string): void {
  if (!props.condition) return;
  const is = props.condition.is.includes(key)
    ? props.condition.is.filter((each) => each !== key)
    : [...props.condition.is, key];
  if (is.length > 0) emit('change', { ...props.condition, is });
}
</script>

<template>
  <p v-if="!condition" class="quiet none">Put the caret in a passage, or choose its bracket.</p>
  <form v-else class="passage-tray" @submit.prevent>
    <p>
      <b>{{ conditionInWords(condition, variable) }}</b>
      <span class="quiet">{{
        holds === undefined ? '' : holds ? 'kept for this recipient' : 'left out for this recipient'
      }}</span>
    </p>
    <label class="field"
      ><span>Governed by</span
      ><select :value="condition.of" @change="govern(($event.target as HTMLSelectElement).value)">
        <option v-for="each in governing" :key="each.key" :value="each.key">
          {{ each.label ?? labelFromKey(each.key) }}
        </option>
      </select></label
    >
    <div v-if="variable?.options" class="options" role="group" aria-label="Kept with">
      <label v-for="option in variable.options" :key="option.key"
        ><input type="checkbox" :checked="condition.is.includes(option.key)" @change="toggle(option.key)" />
        {{ option.label ?? labelFromKey(option.key) }}</label
      >
    </div>
    <label
      ><input
        type="checkbox"
        :checked="condition.not"
        @change="emit('change', { ...condition, not: !condition.not })"
      />
      turned round: kept when it is not so</label
    >
    <p v-if="variable?.value" class="quiet small">Worked out as {{ variable.value }}</p>
    <div class="acts">
      <button
        v-if="variable?.type === 'yes-no' && !variable.value"
        type="button"
        @click="emit('tick', !holds !== condition.not)"
      >
        {{ holds ? 'See it left out' : 'See it kept' }}
      </button>
      <button v-else-if="variable?.type === 'choice'" type="button" @click="emit('tick', condition.is[0])">
        See it kept
      </button>
      <button type="button" @click="emit('unwrap')">Take the bracket off</button>
    </div>
  </form>
</template>

<style scoped>
.none {
  padding: 12px 14px;
}
.passage-tray {
  padding: 12px 14px;
  display: grid;
  gap: 10px;
  justify-items: start;
}
.field {
  width: 260px;
}
.options {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
}
.acts {
  display: flex;
  gap: 8px;
}
</style>
