<script setup lang="ts">
/** What became of messages, told apart by one thing; the difference between any two groups with its interval. */
import type { OutcomeGroup, OutcomesBy } from '@vocabula/contract';
import Column from 'primevue/column';
import DataTable from 'primevue/datatable';
import { computed, ref, watch } from 'vue';
import PickOne from '../ui/controls/PickOne.vue';
import { differenceWords, OUTCOME_NAMES } from './outcomes';
import ShareCell from './ShareCell.vue';

const { outcomes } = defineProps<{ outcomes: readonly OutcomesBy[] }>();
const NAMES: Readonly<Record<OutcomesBy['by'], string>> = {
  version: 'Version',
  answer: 'Answer',
  passage: 'Passage',
  weekday: 'Weekday',
  'time of day': 'Time of day',
};
const chosen = ref(0);
const table = computed(() => outcomes[chosen.value]);
const first = ref(0);
const second = ref(1);
watch(
  () => outcomes,
  () => (chosen.value = 0),
);
watch(table, () => ([first.value, second.value] = [0, 1]));
const nameOf = ({ by, about }: OutcomesBy): string => (about ? `${NAMES[by]}: ${about}` : NAMES[by]);
const choices = computed(() => outcomes.map((each, value) => ({ value, words: nameOf(each) })));
const groups = computed(() => (table.value?.groups ?? []).map(({ label }, value) => ({ value, words: label })));
/** What the second group has more of than the first, an outcome a line. */
const differences = computed(() => {
  const [a, b] = [table.value?.groups[first.value], table.value?.groups[second.value]];
  if (!a || !b || a === b) return [];
  return OUTCOME_NAMES.map(([key, words]) => ({ words, said: differenceWords(a[key], b[key]) }));
});
</script>

<template>
  <section aria-label="Outcomes">
    <h3>What became of them</h3>
    <p v-if="!table" class="quiet small">Not enough messages went through the mail service to tell them apart.</p>
    <template v-else>
      <PickOne v-model="chosen" label="Told apart by" :options="choices" />
      <DataTable :value="[...table.groups]" data-key="label" :pt="{ table: { 'aria-label': 'Outcomes' } }">
        <Column field="label" :header="NAMES[table.by]" />
        <Column field="messages" header="Messages" class="number" />
        <Column v-for="[key, words] in OUTCOME_NAMES" :key="key" :header="words">
          <template #body="{ data: group }: { data: OutcomeGroup }"><ShareCell :share="group[key]" /></template>
        </Column>
      </DataTable>
      <div class="compared">
        <p class="pair small">
          <PickOne v-model="second" label="Compared" :options="groups" /> against
          <PickOne v-model="first" label="Against" :options="groups" />
        </p>
        <p v-if="differences.length === 0" class="quiet small">Choose two different groups.</p>
        <ul v-else class="small" aria-label="Differences">
          <li v-for="each in differences" :key="each.words">
            <span>{{ each.words }}</span> <span>{{ each.said }}</span>
          </li>
        </ul>
        <p class="quiet small">
          Differences in percentage points, with their 95 % intervals. Groups were not chosen by chance: other things
          may differ as well.
        </p>
      </div>
    </template>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
  justify-items: start;
}
section > :deep(.p-datatable) {
  width: 100%;
}
h3 {
  font: inherit;
  font-weight: 600;
  margin: 0;
}
.pair {
  display: flex;
  gap: 8px;
  align-items: center;
  margin: 0;
}
ul {
  list-style: none;
  margin: 4px 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 96px 1fr;
}
</style>
