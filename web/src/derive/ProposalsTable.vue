<script setup lang="ts">
/** The derived questions: label (editable), type, places and values. */
import Column from 'primevue/column';
import DataTable from 'primevue/datatable';
import InputText from 'primevue/inputtext';
import { labelFromKey, type TextDocument, type Variable } from '@vocabula/core';
import { RETYPED, type Derived, type Settlement } from '@vocabula/core/derive';
import { computed } from 'vue';
import ActMenu from '../ui/controls/ActMenu.vue';
import type { MenuAct } from '../ui/controls/menuActs';
import PushButton from '../ui/controls/PushButton.vue';

const { derived, template, settled } = defineProps<{
  derived: Derived;
  template: TextDocument;
  /** What was said of the questions so far. */
  settled: readonly Settlement[];
}>();
const emit = defineEmits<{
  relabel: [key: string, label: string];
  settle: [settlement: Settlement];
  unsettle: [settlement: Settlement];
}>();
/** Number of example values. */
const MOST = 3;

interface Row {
  readonly key: string;
  readonly label: string;
  readonly type: string;
  readonly distinct: number;
  readonly places: number;
  readonly values: string;
  readonly isCalculated: boolean;
}
const rows = computed((): Row[] =>
  derived.variables.flatMap(({ key, type, distinct, places }) => {
    const variable = template.attrs.variables.find((each) => each.key === key);
    const isCalculated = variable?.value !== undefined;
    return variable
      ? [{ key, label: variable.label ?? key, type, distinct, places, values: valuesOf(variable), isCalculated }]
      : [];
  }),
);
function valuesOf({ key, value, options = [] }: Variable): string {
  if (value !== undefined) return `= ${value}`;
  const given = derived.mails.map(({ answers }) => answers[key]).filter((answer) => answer !== undefined);
  const words = [...new Set(given.map((answer) => wordsOf(answer, options)))];
  return `${words.slice(0, MOST).join(' · ')}${words.length > MOST ? ' …' : ''}`;
}
/** What may be said of a question. */
function actsOf({ key, type }: Row): MenuAct[] {
  const others = rows.value.filter((each) => each.key !== key && each.type === type && !each.isCalculated);
  const types = RETYPED.filter((each) => each !== type);
  return [
    { label: 'Refuse: write what most say', command: () => emit('settle', { how: 'refuse', key }) },
    ...(others.length > 0
      ? [
          {
            label: 'It is the same as',
            items: others.map(({ key: into, label }) => ({
              label,
              command: () => emit('settle', { how: 'merge', key, into }),
            })),
          },
        ]
      : []),
    {
      label: 'It is of the kind',
      items: types.map((each) => ({
        label: each,
        command: () => emit('settle', { how: 'retype', key, type: each }),
      })),
    },
  ];
}
/** What was said, in words. */
function saidWords(said: Settlement): string {
  if (said.how === 'take') return `“${said.words.slice(0, 60)}”: taken in`;
  const label = labelFromKey(said.key);
  switch (said.how) {
    case 'refuse':
      return `${label}: refused`;
    case 'merge':
      return `${label}: the same as ${labelFromKey(said.into)}`;
    case 'retype':
      return `${label}: ${said.type}`;
  }
}
function wordsOf(answer: unknown, options: NonNullable<Variable['options']>): string {
  if (typeof answer === 'boolean') return answer ? 'yes' : 'no';
  if (Array.isArray(answer)) return `${answer.length} rows`;
  return options.find(({ key }) => key === answer)?.label ?? String(answer);
}
</script>

<template>
  <DataTable :value="rows" data-key="key" :pt="{ table: { 'aria-label': 'What varies' } }">
    <Column header="Question">
      <template #body="{ data: row }: { data: Row }">
        <InputText
          :model-value="row.label"
          size="small"
          :aria-label="`Label of ${row.key}`"
          maxlength="120"
          @change="emit('relabel', row.key, ($event.target as HTMLInputElement).value)"
        />
      </template>
    </Column>
    <Column field="type" header="Kind" sortable />
    <Column field="distinct" header="Values" sortable class="number" />
    <Column field="places" header="Places" sortable class="number" />
    <Column header="For example">
      <template #body="{ data: row }: { data: Row }"
        ><span class="small quiet">{{ row.values }}</span></template
      >
    </Column>
    <Column class="acts">
      <template #header><span class="unseen">What to do</span></template>
      <template #body="{ data: row }: { data: Row }">
        <ActMenu v-if="!row.isCalculated" kind="plain" size="small" :label="`What ${row.label} is`" :items="actsOf(row)"
          >…</ActMenu
        >
      </template>
    </Column>
    <template #empty><span class="quiet">Nothing varies in these mails.</span></template>
  </DataTable>
  <ul v-if="settled.length > 0" class="said" aria-label="Said of the questions">
    <li v-for="(each, at) in settled" :key="at" class="small">
      {{ saidWords(each) }}
      <PushButton
        kind="plain"
        size="small"
        :aria-label="`Take back: ${saidWords(each)}`"
        @click="emit('unsettle', each)"
        >take back</PushButton
      >
    </li>
  </ul>
</template>

<style scoped>
.said {
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
}
</style>
