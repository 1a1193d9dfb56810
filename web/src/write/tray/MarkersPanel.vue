<script setup lang="ts">
/** Old hand-made markers, found in the whole manuscript, to be turned into variables in one go. */
import TickBox from '../../ui/controls/TickBox.vue';
import PickOne from '../../ui/controls/PickOne.vue';
import PushButton from '../../ui/controls/PushButton.vue';
import Column from 'primevue/column';
import DataTable from 'primevue/datatable';
import InputText from 'primevue/inputtext';
import type { TypeName } from '@vocabula/core';
import { ref, watch } from 'vue';
import type { MarkerGroup } from '../editor/operations/markers';

const props = defineProps<{ groups: readonly MarkerGroup[] }>();
const emit = defineEmits<{ convert: [groups: MarkerGroup[]]; show: [place: { from: number; to: number }] }>();
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
type Row = MarkerGroup & { take: boolean };
const rows = ref<Row[]>([]);
watch(
  () => props.groups,
  (groups) => {
    const before = new Map(rows.value.map((row) => [row.id, row]));
    rows.value = groups.map((group) => ({
      ...group,
      take: before.get(group.id)?.take ?? true,
      label: before.get(group.id)?.label ?? group.label,
      type: before.get(group.id)?.type ?? group.type,
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
        rows.filter((row) => row.take && row.label.trim()),
      )
    "
  >
    <p v-if="rows.length === 0" class="quiet">
      No markers are left: no [brackets], &lt;&lt;angles&gt;&gt;, blanks or WORDS IN CAPITALS.
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
            <PushButton kind="plain" class="found" @click="row.places[0] && emit('show', row.places[0])">
              {{ row.text }}
            </PushButton>
          </template>
        </Column>
        <Column header="Label">
          <template #body="{ data: row }: { data: Row }"
            ><InputText v-model="row.label" :aria-label="`Label for ${row.text}`"
          /></template>
        </Column>
        <Column header="Type">
          <template #body="{ data: row }: { data: Row }">
            <PickOne v-model="row.type" :aria-label="`Type for ${row.text}`">
              <option v-for="type in TYPES" :key="type">{{ type }}</option>
            </PickOne>
          </template>
        </Column>
        <Column class="quiet small">
          <template #header><span class="unseen">Places</span></template>
          <template #body="{ data: row }: { data: Row }">
            {{ row.places.length }} {{ row.places.length === 1 ? 'place' : 'places' }}
          </template>
        </Column>
      </DataTable>
      <PushButton kind="main" type="submit" :disabled="!rows.some((row) => row.take)">
        Turn {{ rows.filter((row) => row.take).length }} into variables
      </PushButton>
    </template>
  </form>
</template>

<style scoped>
.markers {
  padding: 8px 14px;
  display: grid;
  gap: 8px;
  justify-items: start;
}
.markers :deep(td) {
  padding: 2px 6px 2px 0;
}
.found {
  height: 28px;
  max-width: 110px;
  padding: 0 4px;
  overflow: hidden;
  text-overflow: ellipsis;
  text-decoration: underline dotted;
}
.p-select {
  width: 92px;
}
</style>
