<script setup lang="ts">
/** Words that agree with a number: what it counts, and the author's own (`{{party.is}}`: is, are). */
import InputText from 'primevue/inputtext';
import PushButton from '../../ui/controls/PushButton.vue';
import type { Variable } from '@vocabula/core';
import { computed, ref } from 'vue';

const props = defineProps<{ variable: Variable; locale: string }>();
const emit = defineEmits<{ set: [name: keyof Variable, value: unknown] }>();
const name = ref('');
/** The plural categories of the text's language: one and other in English, four in Polish. */
const categories = computed(() => {
  try {
    return new Intl.PluralRules(props.locale).resolvedOptions().pluralCategories;
  } catch {
    return ['one', 'other'];
  }
});
const sets = computed(() => [
  { view: 'counted', words: props.variable.plural ?? {} },
  ...Object.entries(props.variable.forms ?? {}).map(([view, words]) => ({ view, words })),
]);

function give(view: string, category: string, event: Event): void {
  const value = (event.target as HTMLInputElement).value.trim();
  const { [category]: _old, ...rest } = sets.value.find((each) => each.view === view)?.words ?? {};
  const words = value === '' ? rest : { ...rest, [category]: value };
  const empty = Object.keys(words).length === 0;
  if (view === 'counted') emit('set', 'plural', empty ? undefined : words);
  else emit('set', 'forms', { ...props.variable.forms, [view]: words });
}
function add(): void {
  const view = name.value.trim();
  if (!/^[a-z][a-z0-9_]*$/.test(view) || sets.value.some((each) => each.view === view)) return;
  emit('set', 'forms', { ...props.variable.forms, [view]: { one: view, other: view } });
  name.value = '';
}
function remove(view: string): void {
  const { [view]: _gone, ...rest } = props.variable.forms ?? {};
  emit('set', 'forms', Object.keys(rest).length > 0 ? rest : undefined);
}
</script>

<template>
  <fieldset class="wide agreeing">
    <legend class="quiet small">Words that agree with the number</legend>
    <div v-for="{ view, words } in sets" :key="view" class="set">
      <span class="small">{{ view }}</span>
      <InputText
        v-for="category in categories"
        :key="category"
        :model-value="words[category] ?? ''"
        :aria-label="`${view}, ${category}`"
        :placeholder="view === 'counted' ? (category === 'one' ? 'guest' : 'guests') : category"
        @change="give(view, category, $event)"
      />
      <PushButton kind="plain" v-if="view !== 'counted'" :aria-label="`Remove ${view}`" @click="remove(view)">
        −
      </PushButton>
    </div>
    <div class="set">
      <InputText v-model="name" aria-label="Another word that agrees" placeholder="is" @keydown.enter.prevent="add" />
      <PushButton kind="plain" size="small" :disabled="name.trim() === ''" @click="add">Add agreeing words</PushButton>
    </div>
  </fieldset>
</template>

<style scoped>
.agreeing {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
.set {
  display: grid;
  grid-auto-flow: column;
  grid-template-columns: 64px;
  grid-auto-columns: minmax(0, 1fr);
  gap: 6px;
  align-items: center;
}
</style>
