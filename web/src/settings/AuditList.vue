<script setup lang="ts">
/** The audit trail: who did what to which when. */
import PickOne from '../ui/controls/PickOne.vue';
import FieldRow from '../ui/controls/FieldRow.vue';
import DayField from '../ui/dates/DayField.vue';
import InputText from 'primevue/inputtext';
import PushButton from '../ui/controls/PushButton.vue';
import type { AuditEntry, Person } from '@vocabula/contract';
import { computed, onMounted, ref, watch } from 'vue';
import { api, auditUrl } from '../api/client';
import { useNotice } from '../ui/notice';
import PartHead from './PartHead.vue';
import { showMoment } from '../ui/dates/reader';

const notice = useNotice();
const entries = ref<AuditEntry[]>([]);
const people = ref<Person[]>([]);
const q = ref('');
const who = ref('');
const what = ref('');
const from = ref('');
const until = ref('');
const more = ref(false);
const KINDS = ['person', 'group', 'folder', 'text', 'house', 'key', 'catalogue', 'table'];
const PAGE = 200;
const filter = computed(() => ({ q: q.value, who: who.value, what: what.value, from: from.value, until: until.value }));

let asked = 0;
async function load(before?: number): Promise<void> {
  const mine = (asked += 1);
  try {
    const found = await api.audit({ ...filter.value, before });
    if (mine !== asked) return;
    entries.value = before === undefined ? found : [...entries.value, ...found];
    more.value = found.length === PAGE;
  } catch (problem) {
    notice.fail(problem);
  }
}
onMounted(async () => {
  people.value = await api.people().catch(() => []);
  await load();
});
let timer: ReturnType<typeof setTimeout> | undefined;
watch(filter, () => {
  clearTimeout(timer);
  timer = setTimeout(() => void load(), 200);
});
</script>

<template>
  <PartHead title="Audit trail" about="it cannot be changed, by anybody">
    <a class="right" :href="auditUrl(filter)" download>Export as CSV</a>
  </PartHead>
  <div class="filter">
    <label class="field"><span>Words</span><InputText v-model="q" type="search" /></label>
    <label class="field"
      ><span>Who</span
      ><PickOne v-model="who">
        <option value="">anybody</option>
        <option v-for="person in people" :key="person.id" :value="person.id">{{ person.name }}</option>
      </PickOne></label
    >
    <label class="field"
      ><span>To what</span
      ><PickOne v-model="what">
        <option value="">anything</option>
        <option v-for="kind in KINDS" :key="kind">{{ kind }}</option>
      </PickOne></label
    >
    <FieldRow v-slot="{ id, labelledBy }" label="From"
      ><DayField :id="id" v-model="from" :labelled-by="labelledBy"
    /></FieldRow>
    <FieldRow v-slot="{ id, labelledBy }" label="Until"
      ><DayField :id="id" v-model="until" :labelled-by="labelledBy"
    /></FieldRow>
  </div>
  <table>
    <thead class="unseen">
      <tr>
        <th>When</th>
        <th>Who</th>
        <th>What</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="entry in entries" :key="entry.id">
        <td class="small quiet">{{ showMoment(entry.at, 'figures') }}</td>
        <td>{{ entry.whoName }}</td>
        <td>
          {{ entry.act }} <span class="quiet small">{{ entry.what }}</span> {{ entry.words }}
        </td>
      </tr>
    </tbody>
  </table>
  <p v-if="entries.length === 0" class="quiet">Nothing was done that fits.</p>
  <PushButton v-if="more" class="older" @click="load(entries.at(-1)?.id)">Older</PushButton>
</template>

<style scoped>
.filter {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 168px 128px 144px 144px;
  gap: 8px;
  margin-bottom: 12px;
}
table {
  border-collapse: collapse;
  width: 100%;
}
td {
  border-top: 1px solid var(--hair);
  padding: 5px 16px 5px 0;
  vertical-align: top;
  overflow-wrap: anywhere;
}
td:nth-child(-n + 2) {
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
