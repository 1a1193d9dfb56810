<script setup lang="ts">
/** Where the answers of a template's questions come from, one row a question. */
import type { StandingRule } from '@vocabula/contract';
import { compileBundle, labelFromKey, type Slot } from '@vocabula/core';
import InputText from 'primevue/inputtext';
import { computed, shallowRef } from 'vue';
import { api } from '../api/client';
import PickOne from '../ui/controls/PickOne.vue';
import { useHouse } from '../ui/house';
import { firstSource, sourceKey, sourcesFor, type Source } from './sources';

const { text, values } = defineProps<{ text: string; values: StandingRule['values'] }>();
const emit = defineEmits<{ change: [values: StandingRule['values']] }>();
const house = useHouse();
const asked = shallowRef<readonly Slot[]>();
const problem = shallowRef('');
void (async () => {
  try {
    const [{ texts }] = await Promise.all([api.closure(text, 'fill'), house.load()]);
    const [own] = texts;
    const { slots = [] } = own ? compileBundle({ text: own, texts, house: house.house }) : {};
    // What is worked out is never asked; lists and pictures stand in no mail.
    asked.value = slots.filter(
      ({ variable: { value, type } }) => value === undefined && type !== 'list' && type !== 'image',
    );
  } catch (failure) {
    problem.value = failure instanceof Error ? failure.message : 'The template could not be read.';
  }
})();

const rows = computed(() =>
  (asked.value ?? []).map(({ key, label, variable }) => ({
    key,
    label: label || labelFromKey(key),
    variable,
    source: values[key],
    sources: sourcesFor(variable),
  })),
);
const give = (key: string, source: Source | undefined): void => {
  const { [key]: _before, ...others } = values;
  emit('change', source ? { ...others, [key]: source } : others);
};
const written = (event: Event): string => (event.target as HTMLInputElement).value.trim();
</script>

<template>
  <fieldset>
    <legend>Its values come from</legend>
    <p v-if="problem" class="error small">⚠ {{ problem }}</p>
    <p v-else-if="asked && rows.length === 0" class="quiet small">It asks nothing.</p>
    <div v-for="{ key, label, variable, source, sources } in rows" :key="key" class="value">
      <span>{{ label }}</span>
      <PickOne
        :label="`${label} comes from`"
        :model-value="sourceKey(source)"
        :options="sources"
        @update:model-value="give(key, firstSource($event))"
      />
      <template v-if="source?.from === 'behind' || source?.from === 'fixed'">
        <PickOne
          v-if="source.from === 'fixed' && variable.options"
          class="own"
          :label="`${label}, always`"
          :model-value="source.value"
          :options="
            variable.options.map((option) => ({ value: option.key, words: option.label ?? labelFromKey(option.key) }))
          "
          @update:model-value="give(key, { from: 'fixed', value: $event })"
        />
        <InputText
          v-else
          class="own"
          :aria-label="source.from === 'behind' ? `${label}, the words before it` : `${label}, always`"
          :placeholder="source.from === 'behind' ? 'Number of people:' : ''"
          :model-value="source.from === 'behind' ? source.words : source.value"
          @change="
            give(
              key,
              source.from === 'behind'
                ? { from: 'behind', words: written($event) }
                : { from: 'fixed', value: written($event) },
            )
          "
        />
      </template>
    </div>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
  min-width: 0;
}
legend {
  padding: 0;
  margin-bottom: 6px;
  font-size: 0.8125rem;
  color: var(--quiet);
}
.value {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.3fr);
  gap: 4px 8px;
  align-items: center;
}
.own {
  grid-column: 2;
}
</style>
