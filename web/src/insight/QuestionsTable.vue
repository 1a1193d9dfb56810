<script setup lang="ts">
/** How the questions of a text were answered. */
import type { QuestionInsight } from '@vocabula/contract';
import Column from 'primevue/column';
import DataTable from 'primevue/datatable';

defineProps<{ questions: readonly QuestionInsight[] }>();
const optionsOf = ({ options, usual, asked }: QuestionInsight): string =>
  options.length > 0
    ? options.map(({ label, count }) => `${label} ${count}`).join(' · ')
    : usual && usual.count > asked / 2
      ? `${usual.words} ${usual.count}`
      : '';
</script>

<template>
  <DataTable :value="[...questions]" data-key="key" :pt="{ table: { 'aria-label': 'Questions' } }">
    <Column field="label" header="Question" sortable />
    <Column field="asked" header="Asked" sortable class="number" />
    <Column field="empty" header="Left empty" sortable class="number" />
    <Column field="changed" header="Not the default" sortable class="number">
      <template #body="{ data: question }: { data: QuestionInsight }">{{ question.changed ?? '–' }}</template>
    </Column>
    <Column header="Answered">
      <template #body="{ data: question }: { data: QuestionInsight }">
        <span class="small">{{ optionsOf(question) }}</span>
      </template>
    </Column>
    <template #empty><span class="quiet">This text asks no questions.</span></template>
  </DataTable>
</template>
