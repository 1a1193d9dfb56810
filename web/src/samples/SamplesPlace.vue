<script setup lang="ts">
/** Sample sets for proofs and recipient lists for messages: one table, two uses, one importer. */
import type { StoredTable, TableSummary, Use } from '@vocabula/contract';
import { computed, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client';
import NoticeLine from '../ui/NoticeLine.vue';
import TypeMark from '../ui/TypeMark.vue';
import { useNotice } from '../ui/notice';
import ImportPanel from './ImportPanel.vue';

const USES: readonly { use: Use; words: string; what: string }[] = [
  { use: 'sample', words: 'Sample sets', what: 'for proofs; never mailed' },
  { use: 'recipients', words: 'Recipient lists', what: 'real people to write to' },
];
const route = useRoute();
const router = useRouter();
const notice = useNotice();
const tables = ref<TableSummary[]>([]);
const loaded = ref(false);
const table = shallowRef<StoredTable>();
const file = ref<{ file: File; use: Use }>();
const picker = useTemplateRef('picker');
let use: Use = 'sample';

async function load(): Promise<void> {
  try {
    tables.value = await api.tables();
    loaded.value = true;
    if (!route.params.id && tables.value[0])
      await router.replace({
        name: 'samples',
        params: { id: (tables.value.find((each) => each.use === 'sample') ?? tables.value[0]).id },
      });
  } catch (problem) {
    notice.fail(problem);
  }
}
onMounted(load);
watch(
  () => route.params.id,
  async (id) => {
    table.value = undefined;
    if (!id) return;
    try {
      const found = await api.table(String(id));
      if (route.params.id === id) table.value = found;
    } catch (problem) {
      notice.fail(problem);
    }
  },
  { immediate: true },
);

const columns = computed(() =>
  (table.value?.columns ?? []).map((column) => {
    const cells = (table.value?.cells ?? []).map((row) => row[column.key] ?? '');
    const filled = cells.filter(Boolean);
    return {
      ...column,
      says: `${cells.length - filled.length} empty · ${new Set(filled).size} distinct · longest ${Math.max(0, ...filled.map((cell) => [...cell].length))}`,
    };
  }),
);
function pick(what: Use): void {
  use = what;
  picker.value?.click();
}
function picked(event: Event): void {
  const input = event.target as HTMLInputElement;
  const given = input.files?.[0];
  if (given) file.value = { file: given, use };
  input.value = '';
}
async function imported(made: TableSummary): Promise<void> {
  file.value = undefined;
  await load();
  await router.push({ name: 'samples', params: { id: made.id } });
  notice.say(`“${made.title}”: ${made.rows} rows imported.`);
}
async function bin(): Promise<void> {
  const gone = table.value;
  if (!gone) return;
  try {
    await api.binTable(gone.id);
    await router.replace({ name: 'samples', params: {} });
    await load();
    notice.say(`“${gone.title}” is in the bin.`, async () => {
      await api.restoreTable(gone.id);
      await load();
      await router.push({ name: 'samples', params: { id: gone.id } });
    });
  } catch (problem) {
    notice.fail(problem);
  }
}
</script>

<template>
  <div class="samples">
    <header class="head">
      <h1>Samples</h1>
      <span v-if="table" class="quiet small"
        >{{ table.title }} · {{ table.rows }} rows ·
        {{ table.use === 'sample' ? 'for proofs only' : 'people to write to' }}</span
      >
      <a v-if="table" class="right small" :href="`/api/tables/${table.id}/csv`" download>Save as CSV</a>
      <button v-if="table" class="plain" @click="bin">Bin</button>
    </header>
    <main>
      <nav class="sets" aria-label="Sets and lists">
        <template v-for="group in USES" :key="group.use">
          <h2>{{ group.words }}</h2>
          <p class="quiet small what">{{ group.what }}</p>
          <RouterLink
            v-for="each in tables.filter((one) => one.use === group.use)"
            :key="each.id"
            class="row"
            :to="{ name: 'samples', params: { id: each.id } }"
            :aria-current="each.id === route.params.id"
            >{{ each.title }} <span class="quiet small">{{ each.rows }}</span></RouterLink
          >
          <button class="import" @click="pick(group.use)">Import CSV…</button>
        </template>
        <input ref="picker" type="file" accept=".csv,.txt,.tsv,.json,text/csv" hidden @change="picked" />
      </nav>
      <ImportPanel
        v-if="file"
        :key="file.file.name + file.file.lastModified + file.use"
        class="table"
        :file="file.file"
        :use="file.use"
        @done="imported"
        @close="file = undefined"
      />
      <section v-else-if="table" class="table" tabindex="0" :aria-label="table.title">
        <table>
          <thead>
            <tr>
              <th v-for="column in columns" :key="column.key" scope="col">
                <span class="name"><TypeMark :type="column.type" />{{ column.name }}</span
                ><span class="quiet says">{{ column.says }}</span>
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(row, at) in table.cells" :key="at">
              <td
                v-for="column in columns"
                :key="column.key"
                :class="{ number: column.type === 'number', none: !row[column.key] }"
              >
                {{ row[column.key] || '—' }}
              </td>
            </tr>
          </tbody>
        </table>
      </section>
      <div v-else-if="loaded && tables.length === 0" class="empty">
        <h2>No recipients yet</h2>
        <p>Import a CSV of made-up or disguised people to proof templates against.</p>
        <button class="main" @click="pick('sample')">Import CSV…</button>
      </div>
    </main>
    <footer class="foot"><NoticeLine /></footer>
  </div>
</template>

<style scoped>
.samples {
  display: flex;
  flex-direction: column;
}
main {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 200px minmax(0, 1fr);
}
.sets {
  border-right: 1px solid var(--hair);
  padding: 12px 0;
  overflow: auto;
}
.sets h2,
.what,
.import {
  margin: 0 16px;
}
.sets h2:not(:first-child) {
  margin-top: 24px;
}
.sets .what {
  margin-bottom: 4px;
}
.import {
  margin-top: 8px;
}
.table {
  overflow: auto;
}
table {
  border-collapse: separate;
  border-spacing: 0;
  font-size: 0.8125rem;
}
th,
td {
  text-align: left;
  padding: 0 12px;
  white-space: nowrap;
  max-width: 280px;
  overflow: hidden;
  text-overflow: ellipsis;
  border-bottom: 1px solid var(--hair);
}
th {
  position: sticky;
  top: 0;
  height: 56px;
  background: var(--table);
  font-weight: 600;
  z-index: 1;
}
td {
  height: 32px;
}
th:first-child,
td:first-child {
  position: sticky;
  left: 0;
  background: var(--table);
  border-right: 1px solid var(--hair);
}
th:first-child {
  z-index: 2;
}
.name {
  display: flex;
  gap: 6px;
  align-items: center;
}
.says {
  font-weight: 400;
  font-size: 0.75rem;
}
.number {
  text-align: right;
}
.none {
  color: var(--quiet);
}
@media (max-width: 899px) {
  main {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: auto 1fr;
  }
  .sets {
    border: 0;
    border-bottom: 1px solid var(--hair);
  }
}
</style>
