<script setup lang="ts">
/** The audit trail: who did what to which when. */
import PickOne from '../ui/controls/PickOne.vue';
import PeriodFields from '../ui/dates/PeriodFields.vue';
import InputText from 'primevue/inputtext';
import PushButton from '../ui/controls/PushButton.vue';
import type { AuditEntry } from '@vocabula/contract';
import Column from 'primevue/column';
import DataTable from 'primevue/datatable';
import { watchDebounced } from '@vueuse/core';
import { computed, onMounted, ref } from 'vue';
import { api, auditUrl } from '../api/client';
import { useNotice } from '../ui/notice';
import { usePeople } from '../ui/stores/lists';
import PartHead from './PartHead.vue';
import { showMoment } from '../ui/dates/reader';

const notice = useNotice();
const entries = ref<AuditEntry[]>([]);
const people = usePeople();
const q = ref('');
const who = ref('');
const what = ref('');
const from = ref('');
const until = ref('');
const more = ref(false);
const loading = ref(false);
const KINDS = ['person', 'group', 'folder', 'text', 'house', 'key', 'catalogue', 'table'];
const PAGE = 200;
const filter = computed(() => ({ q: q.value, who: who.value, what: what.value, from: from.value, until: until.value }));

let asked = 0;
async function load(before?: number): Promise<void> {
  const mine = (asked += 1);
  loading.value = true;
  try {
    const found = await api.audit({ ...filter.value, before });
    if (mine !== asked) return;
    entries.value = before === undefined ? found : [...entries.value, ...found];
    more.value = found.length === PAGE;
  } catch (problem) {
    notice.fail(problem);
  } finally {
    if (mine === asked) loading.value = false;
  }
}
onMounted(() => {
  void load();
  void people.load().catch(() => []);
});
watchDebounced(filter, () => load(), { debounce: 200 });
</script>

<template>
  <PartHead title="Audit trail" about="a record of every change; it cannot be edited">
    <a class="right" :href="auditUrl(filter)" download>Export as CSV</a>
  </PartHead>
  <div class="filter">
    <label class="field"><span>Words</span><InputText v-model="q" type="search" /></label>
    <label class="field"
      ><span>Who</span
      ><PickOne v-model="who">
        <option value="">anyone</option>
        <option v-for="person in people.list" :key="person.id" :value="person.id">{{ person.name }}</option>
      </PickOne></label
    >
    <label class="field"
      ><span>To what</span
      ><PickOne v-model="what">
        <option value="">anything</option>
        <option v-for="kind in KINDS" :key="kind">{{ kind }}</option>
      </PickOne></label
    >
    <PeriodFields v-model:from="from" v-model:until="until" />
  </div>
  <DataTable
    class="trail"
    :value="entries"
    data-key="id"
    :loading="loading && entries.length === 0"
    :pt="{ table: { 'aria-label': 'Audit trail' } }"
  >
    <Column field="at" header="When" class="short small quiet">
      <template #body="{ data: entry }: { data: AuditEntry }">{{ showMoment(entry.at, 'figures') }}</template>
    </Column>
    <Column field="whoName" header="Who" class="short" />
    <Column header="What">
      <template #body="{ data: entry }: { data: AuditEntry }">
        {{ entry.act }} <span class="quiet small">{{ entry.what }}</span> {{ entry.words }}
      </template>
    </Column>
    <template #empty><span class="quiet">No activity matches these filters.</span></template>
  </DataTable>
  <PushButton v-if="more" class="older" @click="load(entries.at(-1)?.id)">Older</PushButton>
</template>

<style scoped>
.filter {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 160px 128px 168px 168px;
  gap: 8px;
  margin-bottom: 12px;
}
.trail :deep(td) {
  vertical-align: top;
  overflow-wrap: anywhere;
}
.trail :deep(.short) {
  white-space: nowrap;
  width: 1%;
}
.older {
  margin-top: 12px;
}
@media (max-width: 899px) {
  .filter {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
