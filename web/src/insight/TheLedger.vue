<script setup lang="ts">
/** The ledger: one row for each text with its use and what happened to its messages. */
import type { LedgerRow } from '@vocabula/contract';
import Column from 'primevue/column';
import DataTable from 'primevue/datatable';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import { whenInWords } from '../ui/today';
import ShareCell from './ShareCell.vue';
import { lengthWords, shareWords } from './shares';
import WeekLine from './WeekLine.vue';

const { rows } = defineProps<{ rows: readonly LedgerRow[]; loading: boolean; empty: string }>();
const router = useRouter();
const SHARES = [
  ['missing', 'Missing', 'handed over with something missing'],
  ['reworded', 'Reworded', 'words changed by hand before sending'],
  ['opened', 'Opened', 'of messages that count openings'],
  ['followed', 'Followed', 'a link in it was followed'],
  ['answered', 'Answered', 'of messages sent by the mail service'],
  ['bounced', 'Bounced', 'could not be delivered'],
] as const;
/** Rows with the numbers that the columns of shares are sorted by. */
const sortable = computed(() =>
  rows.map((row) => ({
    ...row,
    orders: Object.fromEntries(SHARES.map(([key]) => [key, shareWords(row[key]).order])),
  })),
);
const open = ({ data }: { data: LedgerRow }): void =>
  void router.push({ name: 'looking-back', params: { name: data.name }, query: router.currentRoute.value.query });
</script>

<template>
  <DataTable
    class="ledger"
    :value="sortable"
    data-key="name"
    scrollable
    scroll-height="flex"
    :loading="loading && rows.length === 0"
    :pt="{ table: { 'aria-label': 'Texts and what happened to their messages' } }"
    @row-click="open"
  >
    <Column field="title" header="Text" sortable class="title">
      <template #body="{ data: row }: { data: LedgerRow }">
        <RouterLink :to="{ name: 'looking-back', params: { name: row.name }, query: $route.query }">{{
          row.title
        }}</RouterLink>
      </template>
    </Column>
    <Column field="uses" header="Messages" sortable class="number" />
    <Column field="people" header="People" sortable class="number" />
    <Column field="lastUse" header="Last used" sortable class="small when">
      <template #body="{ data: row }: { data: LedgerRow }">{{
        row.lastUse ? whenInWords(row.lastUse) : 'not in this period'
      }}</template>
    </Column>
    <Column header="26 weeks">
      <template #body="{ data: row }: { data: LedgerRow }"><WeekLine :weeks="row.weeks" /></template>
    </Column>
    <Column field="worked" header="Time" sortable class="number">
      <template #body="{ data: row }: { data: LedgerRow }">{{ lengthWords(row.worked) }}</template>
    </Column>
    <Column v-for="[key, words] in SHARES" :key="key" :header="words" :sort-field="`orders.${key}`" sortable>
      <template #body="{ data: row }: { data: LedgerRow }"><ShareCell :share="row[key]" /></template>
    </Column>
    <template #empty
      ><span class="quiet">{{ empty }}</span></template
    >
  </DataTable>
</template>

<style scoped>
.ledger :deep(td) {
  height: 44px;
  padding-top: 4px;
  padding-bottom: 4px;
}
.ledger :deep(tbody tr) {
  cursor: pointer;
}
.ledger :deep(tbody tr:hover) {
  background: var(--hover);
}
.ledger :deep(.number) {
  text-align: right;
  font-variant-numeric: tabular-nums;
}
.ledger :deep(.title) {
  min-width: 176px;
}
.ledger :deep(.title a) {
  color: inherit;
  font-weight: 500;
}
.ledger :deep(.when) {
  white-space: nowrap;
}
</style>
