<script setup lang="ts">
/** Looking back: what happened to messages, for all texts (the ledger) or for one text sentence by sentence. */
import type { LedgerRow } from '@vocabula/contract';
import { computed, ref, shallowRef, watch } from 'vue';
import { useRoute } from 'vue-router';
import { api, ledgerUrl } from '../api/client';
import FilterLine from '../catalogue/FilterLine.vue';
import { holds, narrow } from '../catalogue/narrow';
import PickOne from '../ui/controls/PickOne.vue';
import PeriodFields from '../ui/dates/PeriodFields.vue';
import { useMe } from '../ui/me';
import NoticeLine from '../ui/NoticeLine.vue';
import { useNotice } from '../ui/notice';
import { useFolders, useTexts } from '../ui/stores/lists';
import { today } from '../ui/today';
import OneText from './OneText.vue';
import TheLedger from './TheLedger.vue';
import { PERIODS, usePeriod } from './usePeriod';

const route = useRoute();
const me = useMe();
const notice = useNotice();
const [texts, folders] = [useTexts(), useFolders()];
const { choice, from, until, period } = usePeriod();
const rows = shallowRef<readonly LedgerRow[]>([]);
const loading = ref(true);
const typed = ref('');
const name = computed(() => String(route.params.name ?? ''));

void Promise.all([texts.load(), folders.load()]).catch(notice.fail);
let latestRequest = 0;
/** Loads the ledger; only the answer to the latest request is shown. */
async function loadLedger(): Promise<void> {
  const request = (latestRequest += 1);
  loading.value = true;
  try {
    const ledger = await api.ledger(period.value);
    if (request === latestRequest) rows.value = ledger;
  } catch (problem) {
    notice.fail(problem);
  } finally {
    if (request === latestRequest) loading.value = false;
  }
}
watch([period, name], () => (name.value ? undefined : loadLedger()), { immediate: true });
const narrowing = computed(() => narrow(typed.value, { folders: folders.list, people: new Map(), today: today() }));
const shown = computed(() => {
  if (typed.value.trim() === '') return rows.value;
  const { words, matches } = narrowing.value;
  const found = new Set(
    texts.list.filter((text) => matches(text) && (words === '' || holds(text, words))).map((text) => text.name),
  );
  return rows.value.filter((row) => found.has(row.name));
});
const messages = computed(() => shown.value.reduce((sum, { uses }) => sum + uses, 0));
</script>

<template>
  <div class="looking-back">
    <header class="head">
      <h1>Looking back</h1>
      <span class="quiet small about">{{
        me.isAuthor ? 'Figures are by text, never by colleague.' : 'Your own messages. Only you see these figures.'
      }}</span>
      <PickOne v-model="choice" class="period" label="Period" :options="PERIODS" />
      <a v-if="!name" class="small" :href="ledgerUrl(period)" download>Export as CSV</a>
    </header>
    <div v-if="choice === 'days'" class="days">
      <PeriodFields v-model:from="from" v-model:until="until" />
    </div>
    <OneText v-if="name" :key="name" :name="name" :period="period" />
    <main v-else>
      <FilterLine
        v-model="typed"
        label="Filter the ledger"
        placeholder="Filter: any words, in Visits, tagged spring, unused…"
        :understood="narrowing.understood"
      />
      <div class="table">
        <TheLedger
          :rows="shown"
          :loading="loading"
          :empty="loading ? 'Counting…' : typed ? 'No text matches this filter.' : 'No messages in this period.'"
        />
      </div>
    </main>
    <footer class="foot">
      <span v-if="!name"
        >{{ shown.length }} {{ shown.length === 1 ? 'text' : 'texts' }}, {{ messages }}
        {{ messages === 1 ? 'message' : 'messages' }}. Ranges are 95 % intervals.</span
      ><NoticeLine />
    </footer>
  </div>
</template>

<style scoped>
.looking-back {
  display: flex;
  flex-direction: column;
}
.about {
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.period {
  width: 176px !important;
}
.days {
  display: flex;
  gap: 12px;
  padding: 8px 16px;
  border-bottom: 1px solid var(--hair);
}
main {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.table {
  flex: 1;
  min-height: 0;
  padding: 0 8px;
  overflow: auto;
}
@media (max-width: 899px) {
  .about {
    display: none;
  }
}
</style>
