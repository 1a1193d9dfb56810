<script setup lang="ts">
/** The derived questions: label (editable), type, places and values. */
import Column from 'primevue/column';
import DataTable from 'primevue/datatable';
import InputText from 'primevue/inputtext';
import type { TextDocument, Variable } from '@vocabula/core';
import type { Derived } from '@vocabula/core/derive';
import { computed } from 'vue';

const { derived, template } = defineProps<{ derived: Derived; template: TextDocument }>();
const emit = defineEmits<{ relabel: [key: string, label: string] }>();
/** Number of example values. */
const MOST = 3;

interface Row {
  readonly key: string;
  readonly label: string;
  readonly type: string;
  readonly distinct: number;
  readonly places: number;
  readonly values: string;
}
const rows = computed((): Row[] =>
  derived.variables.flatMap(({ key, type, distinct, places }) => {
    const variable = template.attrs.variables.find((each) => each.key === key);
    return variable ? [{ key, label: variable.label ?? key, type, distinct, places, values: valuesOf(variable) }] : [];
  }),
);
function valuesOf({ key, value, options = [] }: Variable): string {
  if (value !== undefined) return `= ${value}`;
  const given = derived.mails.map(({ answers }) => answers[key]).filter((answer) => answer !== undefined);
  const words = [...new Set(given.map((answer) => wordsOf(answer, options)))];
  return `${words.slice(0, MOST).join(' · ')}${words.length > MOST ? ' …' : ''}`;
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
    <template #empty><span class="quiet">Nothing varies in these mails.</span></template>
  </DataTable>
</template>
