<script setup lang="ts">
/** Sample sets for proofs and recipient lists for messages: one table, two uses, one importer. */
import InputText from 'primevue/inputtext';
import PushButton from '../ui/controls/PushButton.vue';
import type { TableSummary, Use } from '@vocabula/contract';
import { computed, onBeforeUnmount, onMounted, ref, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client';
import { keepingWords } from '../ui/keeper';
import NoticeLine from '../ui/NoticeLine.vue';
import { useNotice } from '../ui/notice';
import ImportPanel from './ImportPanel.vue';
import NeedsPanel from './NeedsPanel.vue';
import SetsList from './SetsList.vue';
import SetTable from './SetTable.vue';
import { useSet } from './useSet';

const route = useRoute();
const router = useRouter();
const notice = useNotice();
const tables = ref<TableSummary[]>([]);
const loaded = ref(false);
const file = ref<{ file: File; use: Use }>();
const list = useTemplateRef('list');
const cells = useTemplateRef('cells');
const set = useSet(load);
const { table, keeping } = set;
const summary = computed(() => tables.value.find(({ id }) => id === table.value?.id));

async function load(): Promise<void> {
  try {
    tables.value = await api.tables();
    loaded.value = true;
    if (!route.params.id && tables.value[0])
      await router.replace({
        name: 'samples',
        params: { id: (tables.value.find((each) => each.use === 'sample') ?? tables.value[0]).id },
        query: route.query,
      });
  } catch (problem) {
    notice.fail(problem);
  }
}
onMounted(load);
onBeforeUnmount(() => void set.flush());
watch(
  () => route.params.id,
  async (id) => {
    if (!id) return set.close();
    try {
      await set.open(String(id));
    } catch (problem) {
      set.close();
      notice.fail(problem);
    }
  },
  { immediate: true },
);

async function paste(use: Use): Promise<void> {
  try {
    const text = await navigator.clipboard.readText();
    if (text.trim() === '') throw new Error('There is no text on the clipboard.');
    file.value = { file: new File([text], 'Pasted.csv', { type: 'text/csv' }), use };
  } catch (problem) {
    notice.fail(
      problem instanceof DOMException ? new Error('The browser does not allow reading the clipboard.') : problem,
    );
  }
}
async function imported(made: TableSummary): Promise<void> {
  const into = made.id === table.value?.id;
  file.value = undefined;
  await load();
  if (into) await set.open(made.id);
  else await router.push({ name: 'samples', params: { id: made.id } });
  notice.say(into ? `“${made.title}” has ${made.rows} rows now.` : `“${made.title}”: ${made.rows} rows imported.`);
}
async function made(id: string): Promise<void> {
  await load();
  await router.push({ name: 'samples', params: { id }, query: route.query });
  notice.say('Made up, and marked as the template’s own.');
}
async function copy(disguise: boolean): Promise<void> {
  const now = table.value;
  if (!now) return;
  try {
    const title = disguise ? `${now.title}, disguised` : `${now.title}, copy`;
    const { id } = await api.copyTable(now.id, { title: title.slice(0, 200), disguise });
    await load();
    await router.push({ name: 'samples', params: { id } });
    notice.say(disguise ? 'Copied with made-up names and addresses.' : 'Copied.');
  } catch (problem) {
    notice.fail(problem);
  }
}
async function rename(event: Event): Promise<void> {
  const title = (event.target as HTMLInputElement).value.trim();
  if (title && title !== table.value?.title) await set.change({ what: 'title', title });
  if (table.value) table.value = { ...table.value, title: title || table.value.title };
}
async function bin(): Promise<void> {
  const gone = table.value;
  if (!gone) return;
  try {
    await set.flush();
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
      <template v-if="table">
        <InputText
          :key="table.id"
          class="title"
          :model-value="table.title"
          aria-label="Name of the set"
          @change="rename"
        />
        <span class="quiet small"
          >{{ table.cells.length }} rows · {{ table.use === 'sample' ? 'for proofs only' : 'people to write to'
          }}<template v-if="summary?.ownOf.length"> · own set of {{ summary.ownOf.length }}</template></span
        >
        <span class="quiet small" role="status">{{ keepingWords(keeping) }}</span>
        <PushButton kind="plain" size="small" class="right" @click="cells?.addRow()">Add row</PushButton>
        <PushButton kind="plain" size="small" @click="cells?.openNew()">Add column</PushButton>
        <PushButton kind="plain" size="small" @click="copy(table.use === 'recipients')">
          {{ table.use === 'recipients' ? 'Disguised copy' : 'Copy' }}
        </PushButton>
        <a class="small" :href="`/api/tables/${table.id}/csv`" download>CSV</a>
        <a class="small" :href="`/api/tables/${table.id}/json`" download>JSON</a>
        <PushButton kind="plain" size="small" @click="bin">Bin</PushButton>
      </template>
    </header>
    <main>
      <SetsList
        ref="list"
        :tables="tables"
        :open="String(route.params.id ?? '')"
        @file="(given, use) => (file = { file: given, use })"
        @paste="paste"
      />
      <ImportPanel
        v-if="file"
        :key="file.file.name + file.file.lastModified + file.use"
        :file="file.file"
        :use="file.use"
        :open="summary"
        :open-columns="table?.columns ?? []"
        @done="imported"
        @close="file = undefined"
      />
      <div v-else-if="table" class="open">
        <NeedsPanel :set="set" @made="made" />
        <SetTable ref="cells" :set="set" />
      </div>
      <div v-else-if="loaded && tables.length === 0" class="empty">
        <h2>No recipients yet</h2>
        <p>Import made-up or disguised people to proof templates against: CSV, a workbook, JSON or address cards.</p>
        <PushButton kind="main" @click="list?.pick('sample')">Import…</PushButton>
      </div>
    </main>
    <footer class="foot">
      <NoticeLine v-if="notice.current" />
      <template v-else-if="table">
        <span>edit a cell <kbd>Enter</kbd></span>
        <span>empty it <kbd>Delete</kbd></span>
        <span>paste rows from the current cell on</span>
      </template>
    </footer>
  </div>
</template>

<style scoped>
.samples {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
main {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 200px minmax(0, 1fr);
}
.title {
  width: 220px;
  background: transparent;
  border-color: transparent;
}
.title:hover,
.title:focus {
  border-color: var(--edge);
  background: var(--sheet);
}
.head {
  gap: 8px;
  white-space: nowrap;
}
.open {
  min-height: 0;
  min-width: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
}
@media (max-width: 1099px) {
  .head {
    flex-wrap: wrap;
    height: auto;
    min-height: 48px;
    padding: 6px 16px;
  }
}
@media (max-width: 899px) {
  main {
    grid-template-columns: minmax(0, 1fr);
    /* The rows stay readable where the window is low, as it is at twice the size: the place scrolls then. */
    grid-template-rows: auto minmax(280px, 1fr);
    overflow: auto;
  }
}
</style>
