<script setup lang="ts">
/** What was recognised in a file, before anything is taken from it; types, and where columns go, are decided here. */
import Column from 'primevue/column';
import DataTable from 'primevue/datatable';
import RadioButton from 'primevue/radiobutton';
import { tableTitleSchema } from '@vocabula/contract/forms';
import CheckedForm from '../ui/controls/CheckedForm.vue';
import FieldRow from '../ui/controls/FieldRow.vue';
import PickOne from '../ui/controls/PickOne.vue';
import InputText from 'primevue/inputtext';
import PushButton from '../ui/controls/PushButton.vue';
import type { Choices, Recognised, TableSummary, Use } from '@vocabula/contract';
import { COLUMN_TYPES, type ColumnType } from '@vocabula/core/tables';
import { computed, nextTick, onMounted, ref, shallowRef, useTemplateRef } from 'vue';
import { api } from '../api/client';
import TypeMark from '../ui/TypeMark.vue';

const props = defineProps<{
  file: File;
  use: Use;
  /** The set that is open, which the rows may be added to. */
  open: TableSummary | undefined;
  openColumns: readonly { readonly key: string; readonly name: string }[];
}>();
const emit = defineEmits<{ done: [table: TableSummary]; close: [] }>();
type FoundColumn = Recognised['columns'][number];
const found = shallowRef<Recognised>();
const problem = ref('');
const title = ref(props.file.name.replace(/\.[a-z]+$/i, '').replace(/[_-]+/g, ' '));
const busy = ref(false);
const adding = ref(false);
const choices = ref<Choices>({});
const button = useTemplateRef<{ $el: HTMLElement }>('button');
const mayAdd = computed(() => props.open?.use === props.use);
const doubtful = computed(() =>
  (found.value?.columns ?? []).filter(({ key, doubtful: cells }) => cells.length > 0 && !choices.value[key]?.type),
);
const unanswered = computed(() => doubtful.value.filter(({ key }) => !choices.value[key]?.order));
const BY = { name: 'the same name', likeness: 'a name like it', content: 'what it holds' } as const;

async function recognise(): Promise<void> {
  busy.value = true;
  try {
    const decided = Object.fromEntries(
      Object.entries(choices.value).map(([key, { into: _into, ...rest }]) => [key, rest]),
    );
    found.value = await api.recognise(props.file, decided, adding.value ? props.open?.id : undefined);
    problem.value = '';
  } catch (error) {
    problem.value = error instanceof Error ? error.message : 'This file cannot be read.';
  } finally {
    busy.value = false;
  }
}
onMounted(async () => {
  await recognise();
  await nextTick();
  button.value?.$el.focus();
});
async function choose(key: string, change: Choices[string]): Promise<void> {
  choices.value = { ...choices.value, [key]: { ...choices.value[key], ...change } };
  if (!('into' in change)) await recognise();
}
const intoOf = (column: Recognised['columns'][number]): string =>
  choices.value[column.key]?.into ?? column.into ?? column.key;

/** Takes the rows in: a problem is shown by the form, which stays. */
async function take(): Promise<void> {
  busy.value = true;
  try {
    if (!adding.value || !props.open)
      return emit('done', await api.importTable(props.use, title.value.trim(), props.file, choices.value));
    const placed = Object.fromEntries(
      (found.value?.columns ?? []).map((column) => [
        column.key,
        { ...choices.value[column.key], into: intoOf(column) },
      ]),
    );
    emit('done', await api.addRows(props.open.id, props.open.revision, props.file, placed));
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <section class="panel" aria-label="Import" @keydown.esc="emit('close')">
    <h2>{{ file.name }}</h2>
    <p v-if="problem" class="error" role="alert">⚠ {{ problem }}</p>
    <template v-if="found">
      <p>
        {{ found.format }}<template v-if="found.separator">, separated by {{ found.separator }}</template
        >, {{ found.encoding }}: {{ found.rows }} rows, {{ found.columns.length }} columns.
      </p>
      <p v-for="note in found.notes" :key="note" class="warning">‸ {{ note }}</p>
      <fieldset v-for="column in doubtful" :key="column.key" class="doubt">
        <legend>“{{ column.name }}” could be read either way: {{ column.doubtful.join(', ') }}</legend>
        <label v-for="order in ['day first', 'month first'] as const" :key="order"
          ><RadioButton
            :name="column.key"
            :value="true"
            :model-value="choices[column.key]?.order === order"
            @change="choose(column.key, { order })"
          />
          {{ order }}</label
        >
        <label
          ><RadioButton
            :name="column.key"
            :value="true"
            :model-value="false"
            @change="choose(column.key, { type: 'text' })"
          />
          leave it as text</label
        >
      </fieldset>
      <div v-if="mayAdd" class="where" role="radiogroup" aria-label="Where to">
        <label
          ><RadioButton v-model="adding" name="adding" :value="false" @change="recognise" /> a set of its own</label
        >
        <label
          ><RadioButton v-model="adding" name="adding" :value="true" @change="recognise" /> added to “{{
            open?.title
          }}”</label
        >
      </div>
      <div class="scroll">
        <DataTable :value="[...found.columns]" data-key="key" :pt="{ table: { 'aria-label': 'Columns found' } }">
          <Column field="name" header="Column" sortable />
          <Column :header="adding ? 'Goes into' : 'Key'">
            <template #body="{ data: column }: { data: FoundColumn }">
              <template v-if="adding">
                <PickOne
                  :model-value="intoOf(column)"
                  :aria-label="`Where ${column.name} goes`"
                  @update:model-value="choose(column.key, { into: $event })"
                >
                  <option v-for="each in openColumns" :key="each.key" :value="each.key">{{ each.name }}</option>
                  <option v-if="!openColumns.some(({ key }) => key === column.key)" :value="column.key">
                    a new column
                  </option>
                  <option value="">skip this column</option>
                </PickOne>
                <span v-if="column.by && intoOf(column) === column.into" class="quiet small"> {{ BY[column.by] }}</span>
              </template>
              <span v-else class="quiet">{{ column.key }}</span>
            </template>
          </Column>
          <Column field="type" header="Type" sortable class="type">
            <template #body="{ data: column }: { data: FoundColumn }">
              <TypeMark :type="column.type" /><PickOne
                :model-value="column.type"
                :aria-label="`Type of ${column.name}`"
                @update:model-value="choose(column.key, { type: $event as ColumnType })"
              >
                <option v-for="type in COLUMN_TYPES" :key="type" :value="type">{{ type }}</option>
              </PickOne>
              <span v-if="column.misfits" class="warning small">‸ {{ column.misfits }} are not</span>
            </template>
          </Column>
          <Column field="empty" header="Empty" sortable class="number" />
          <Column field="distinct" header="Distinct" sortable class="number" />
          <Column header="For example" class="quiet examples">
            <template #body="{ data: column }: { data: FoundColumn }">{{ column.examples.join(' · ') }}</template>
          </Column>
        </DataTable>
      </div>
      <CheckedForm v-slot="{ problemOf }" class="take" :schema="tableTitleSchema" :held="{ title }" :send="take">
        <FieldRow v-if="!adding" v-slot="{ id, describedBy }" label="Call it" :problem="problemOf('title')"
          ><InputText :id="id" v-model="title" name="title" :aria-describedby="describedBy"
        /></FieldRow>
        <PushButton kind="main" type="submit" ref="button" :disabled="busy || unanswered.length > 0">
          {{ adding ? 'Add' : found.notes.length ? 'Import with these names' : 'Import' }} {{ found.rows }}
          {{ found.rows === 1 ? 'row' : 'rows' }}
        </PushButton>
        <PushButton @click="emit('close')">Cancel</PushButton>
        <span v-if="unanswered.length" class="warning small">Choose the date format first.</span>
      </CheckedForm>
    </template>
    <PushButton v-else-if="problem" @click="emit('close')">Back</PushButton>
    <p v-else class="quiet" role="status">Reading…</p>
  </section>
</template>

<style scoped>
.panel {
  padding: 24px 28px;
  display: grid;
  gap: 12px;
  align-content: start;
  justify-items: start;
  overflow: auto;
}
.scroll {
  max-width: 100%;
  overflow: auto;
}
.scroll :deep(td) {
  white-space: nowrap;
}
.p-select {
  width: 120px;
  height: 26px;
  padding: 0 4px;
}
.scroll :deep(td .p-select) {
  margin-left: 6px;
}
.scroll :deep(.number) {
  text-align: right;
}
.scroll :deep(.examples) {
  max-width: 320px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.doubt {
  border: 1px solid var(--edge);
  padding: 8px 14px;
  display: flex;
  gap: 16px;
}
.where {
  display: flex;
  gap: 16px;
}
.take {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: end;
}
.take :deep(.field-row) {
  width: 280px;
}
</style>
