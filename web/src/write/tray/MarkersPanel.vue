<script setup lang="ts">
/** Old hand-made markers, found in the whole manuscript, to be turned into variables in one go. */
import TickBox from '../../ui/controls/TickBox.vue';
import PickOne from '../../ui/controls/PickOne.vue';
import PushButton from '../../ui/controls/PushButton.vue';
import Column from 'primevue/column';
import DataTable from 'primevue/datatable';
import InputText from 'primevue/inputtext';
import type { TypeName } from '@vocabula/core';
import { fieldMeant } from '@vocabula/core/marker-field';
import { computed, onMounted, ref, shallowRef, watch } from 'vue';
import { api } from '../../api/client';
import type { MarkerGroup, TakenMarkers } from '../editor/operations/markers';

const props = defineProps<{
  groups: readonly MarkerGroup[];
  /** Fields of recipient and sender that there are, `recipient.first_name`. */
  fields: readonly string[];
}>();
const emit = defineEmits<{ convert: [groups: TakenMarkers[]]; show: [place: { from: number; to: number }] }>();
const TYPES: readonly TypeName[] = [
  'text',
  'paragraphs',
  'number',
  'money',
  'date',
  'choice',
  'email',
  'phone',
  'link',
];
/** What markers that stand around words become. */
const BECOMES = { optional: 'optional words', alternatives: 'one of them is kept' } as const;
/** Columns of recipient lists and sample sets, as fields, by the title of the first that has them. */
const columns = shallowRef<ReadonlyMap<string, string>>(new Map());
onMounted(async () => {
  const tables = (await Promise.all([api.lists(), api.tables('sample')]).catch(() => [])).flat();
  const found = tables.flatMap(({ keys, title }) => keys.map((key) => [`recipient.${key}`, title] as const));
  columns.value = new Map(found.toReversed());
});
const fields = computed(() => [...new Set([...props.fields, ...columns.value.keys()])]);
const called = (field: string): string => {
  const title = props.fields.includes(field) ? undefined : columns.value.get(field);
  return title === undefined ? '' : `, a column of “${title}”`;
};
/** `field` is the one that its words mean, and `filled` whether it is filled from it. */
type Row = MarkerGroup & { take: boolean; field: string | undefined; filled: boolean };
const rows = ref<Row[]>([]);
watch(
  [() => props.groups, fields],
  ([groups]) => {
    const before = new Map(rows.value.map((row) => [row.id, row]));
    rows.value = groups.map((group) => ({
      ...group,
      take: before.get(group.id)?.take ?? true,
      label: before.get(group.id)?.label ?? group.label,
      type: before.get(group.id)?.type ?? group.type,
      field: group.becomes === 'value' ? fieldMeant(group.words, fields.value) : undefined,
      filled: before.get(group.id)?.filled ?? true,
    }));
  },
  { immediate: true },
);
</script>

<template>
  <form
    class="markers"
    @submit.prevent="
      emit(
        'convert',
        rows
          .filter((row) => row.take && row.label.trim())
          .map((row) => ({ ...row, from: row.filled && row.field ? row.field : undefined })),
      )
    "
  >
    <p v-if="rows.length === 0" class="quiet">
      No markers are left: no [brackets], &lt;&lt;angles&gt;&gt;, blanks, WORDS IN CAPITALS, highlighted words, nor
      words for some recipients only.
    </p>
    <template v-else>
      <DataTable :value="rows" data-key="id" :pt="{ table: { 'aria-label': 'Markers' } }">
        <Column>
          <template #header><span class="unseen">Take</span></template>
          <template #body="{ data: row }: { data: Row }">
            <TickBox v-model="row.take" :aria-label="`Turn ${row.text} into a variable`" />
          </template>
        </Column>
        <Column field="text" header="Marker" sortable>
          <template #body="{ data: row }: { data: Row }">
            <span class="marker">
              <PushButton kind="plain" class="found" @click="row.places[0] && emit('show', row.places[0])">
                <span class="cut">{{ row.text }}</span>
              </PushButton>
              <span v-if="row.places.length > 1" class="times quiet small" :aria-label="`${row.places.length} places`"
                >{{ row.places.length }} ×</span
              ></span
            >
          </template>
        </Column>
        <Column header="Label">
          <template #body="{ data: row }: { data: Row }"
            ><InputText v-model="row.label" :aria-label="`Label for ${row.text}`"
          /></template>
        </Column>
        <Column header="Type">
          <template #body="{ data: row }: { data: Row }">
            <span v-if="row.becomes !== 'value'" class="quiet small">{{ BECOMES[row.becomes] }}</span>
            <PickOne v-else v-model="row.type" :aria-label="`Type for ${row.text}`">
              <option v-for="type in TYPES" :key="type">{{ type }}</option>
            </PickOne>
          </template>
        </Column>
      </DataTable>
      <p v-if="rows.some(({ field }) => field)" class="filled" role="group" aria-label="Filled from fields">
        <label v-for="row in rows.filter(({ field }) => field)" :key="row.id" class="small"
          ><TickBox v-model="row.filled" :disabled="!row.take" /> {{ row.label }} from <code>{{ row.field }}</code>{{
            called(row.field ?? '')
          }}</label
        >
      </p>
      <PushButton kind="main" type="submit" :disabled="!rows.some((row) => row.take)">
        Turn {{ rows.filter((row) => row.take).length }} into variables
      </PushButton>
    </template>
  </form>
</template>

<style scoped>
.markers {
  container-type: inline-size;
  padding: 8px 14px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  justify-items: start;
}
.markers :deep(td) {
  padding: 2px 6px 2px 0;
}
.markers :deep(table) {
  table-layout: fixed;
}
.markers :deep(th:first-child) {
  width: 28px;
}
.markers :deep(th:last-child) {
  width: 114px;
}
.markers :deep(.p-datatable) {
  width: 100%;
}
.filled {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  margin: 0;
}
.marker {
  display: flex;
  align-items: center;
  gap: 4px;
}
.times {
  white-space: nowrap;
}
.found {
  height: 28px;
  min-width: 0;
  padding: 0 4px;
  justify-content: flex-start;
  text-decoration: underline dotted;
}
.cut {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.markers :deep(.p-inputtext),
.p-select {
  width: 100%;
}
@container (max-width: 360px) {
  .markers :deep(thead) {
    display: none;
  }
  .markers :deep(tr) {
    display: grid;
    grid-template-columns: 28px minmax(0, 1fr) 112px;
    align-items: center;
  }
  .markers :deep(td) {
    border: 0;
  }
  .markers :deep(td:nth-child(2)) {
    grid-column: 2 / -1;
  }
  .markers :deep(td:nth-child(3)) {
    grid-column: 2;
  }
}
</style>
