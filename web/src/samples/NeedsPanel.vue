<script setup lang="ts">
/** What a template needs of this set: what is there, what is missing, and what could stand in for it. */
import PickOne from '../ui/controls/PickOne.vue';
import PushButton from '../ui/controls/PushButton.vue';
import { compile, valueType } from '@vocabula/core';
import { cellFor, madeUpSet, needs, type Need } from '@vocabula/core/proof';
import { matchColumns } from '@vocabula/core/tables';
import { storeToRefs } from 'pinia';
import { computed, onMounted, ref, shallowRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client';
import { useHouse } from '../ui/house';
import { useNotice } from '../ui/notice';
import { useTexts } from '../ui/stores/lists';
import { today } from '../ui/today';
import type { WorkedSet } from './useSet';

const props = defineProps<{ set: WorkedSet }>();
const emit = defineEmits<{ made: [id: string] }>();
const route = useRoute();
const router = useRouter();
const notice = useNotice();
const house = useHouse();
const textStore = useTexts();
const { messages: texts } = storeToRefs(textStore);
const wanted = shallowRef<readonly Need[]>([]);
const busy = ref(false);
const name = computed(() => String(route.query.for ?? ''));

onMounted(async () => {
  await textStore.load().catch(() => []);
});
watch(
  name,
  async (chosen) => {
    wanted.value = [];
    if (!chosen) return;
    try {
      await house.load();
      const { texts: all } = await api.closure(chosen);
      const [own] = all;
      if (!own || name.value !== chosen) return;
      const library = { get: (each: string) => all.find((text) => text.name === each)?.document };
      wanted.value = needs(compile(own, { library, house: house.house, today: today() }));
    } catch (problem) {
      notice.fail(problem);
    }
  },
  { immediate: true },
);
const columns = computed(() => props.set.columns.value);
const cells = computed(() => props.set.table.value?.cells ?? []);
const missing = computed(() => wanted.value.filter(({ column }) => !columns.value.some(({ key }) => key === column)));
const columnOf = ({ column, label, type }: Need) => ({
  key: column,
  name: label,
  type: valueType(type).column ?? 'text',
});
/** A column that may be the one that is missing, under another name. */
const standsIn = computed(() => {
  const matches = matchColumns(
    { columns: missing.value.map(columnOf), rows: [] },
    { columns: columns.value.filter(({ key }) => !wanted.value.some(({ column }) => column === key)), rows: [] },
  );
  return new Map(
    matches.flatMap(({ from, into }) => {
      const column = columns.value.find(({ key }) => key === into);
      return column ? [[from, column] as const] : [];
    }),
  );
});
async function guarded(work: () => Promise<void>): Promise<void> {
  busy.value = true;
  try {
    await work();
  } catch (problem) {
    notice.fail(problem);
  } finally {
    busy.value = false;
  }
}
/** Adds the column as a copy of the one that stands in for it. */
const use = (need: Need, column: string): Promise<void> =>
  guarded(() => props.set.putColumn({ ...columnOf(need), value: column }));
/** Adds the column with made-up cells, which differ from row to row. */
const fill = (need: Need): Promise<void> =>
  guarded(async () => {
    const positions = props.set.table.value?.positions ?? [];
    await props.set.change(
      { what: 'column', column: columnOf(need) },
      ...positions.slice(0, 900).map((position, at) => ({
        what: 'cells' as const,
        position,
        cells: { [need.column]: cellFor(need, at, today()) },
      })),
    );
  });
const make = (): Promise<void> =>
  guarded(async () => {
    const title = texts.value.find((text) => text.name === name.value)?.title ?? name.value;
    const { columns: made, rows } = madeUpSet(wanted.value, 24, today());
    if (made.length === 0) throw new Error('This template uses no recipient data.');
    const set = await api.makeTable({
      use: 'sample',
      title: `Made up for ${title}`.slice(0, 200),
      columns: [...made],
      rows: [...rows],
      ownOf: name.value,
    });
    emit('made', set.id);
  });
</script>

<template>
  <section class="needs" aria-label="What a template needs">
    <label class="small"
      ><span class="quiet">Needed by </span
      ><PickOne
        :model-value="name"
        aria-label="Needed by"
        @update:model-value="router.replace({ query: { ...route.query, for: $event || undefined } })"
      >
        <option value="">no template in particular</option>
        <option v-for="text in texts" :key="text.name" :value="text.name">{{ text.title }}</option>
      </PickOne></label
    >
    <template v-if="name && wanted.length > 0">
      <span v-if="missing.length === 0" class="small">All {{ wanted.length }} columns that it needs are here.</span>
      <ul v-else class="missing">
        <li v-for="need in missing" :key="need.column" class="small">
          <span class="warning">‸ {{ need.label }}</span>
          <span class="quiet"> {{ need.column }}{{ need.required ? ', required' : '' }}</span>
          <PushButton
            kind="plain"
            size="small"
            v-if="standsIn.get(need.column)"
            :disabled="busy"
            @click="use(need, standsIn.get(need.column)!.key)"
          >
            Take “{{ standsIn.get(need.column)!.name }}” for it
          </PushButton>
          <PushButton
            kind="plain"
            size="small"
            v-if="set.table.value?.use === 'sample'"
            :disabled="busy"
            @click="fill(need)"
          >
            Add made-up values
          </PushButton>
        </li>
      </ul>
      <PushButton size="small" :disabled="busy" @click="make">Create a made-up set</PushButton>
    </template>
    <span v-if="name && wanted.length === 0" class="quiet small">This template uses no recipient data.</span>
    <span v-if="cells.length === 0" class="unseen">This set has no rows.</span>
  </section>
</template>

<style scoped>
.needs {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 16px;
  padding: 6px 16px;
  border-bottom: 1px solid var(--hair);
}
.p-select {
  width: 220px;
  height: 28px;
  padding: 0 4px;
}
.missing {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  margin: 0;
  padding: 0;
  list-style: none;
}
.missing .quiet {
  margin-left: 6px;
}
.missing button {
  height: 24px;
  color: var(--action);
  text-decoration: underline;
}
</style>
