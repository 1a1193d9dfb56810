<script setup lang="ts">
/** A column: its name, its type, and what it is worked out from. Without a key, a new one. */
import { columnSchema } from '@vocabula/contract/forms';
import CheckedForm from '../ui/controls/CheckedForm.vue';
import FieldRow from '../ui/controls/FieldRow.vue';
import PickOne from '../ui/controls/PickOne.vue';
import InputText from 'primevue/inputtext';
import PushButton from '../ui/controls/PushButton.vue';
import { fold } from '@vocabula/core';
import { COLUMN_TYPES, type ColumnType } from '@vocabula/core/tables';
import { computed, onMounted, ref, useTemplateRef } from 'vue';
import { useNotice } from '../ui/notice';
import type { WorkedSet } from './useSet';

const props = defineProps<{ set: WorkedSet; column: string }>();
const emit = defineEmits<{ close: [] }>();
const notice = useNotice();
const old = props.set.columns.value.find(({ key }) => key === props.column);
const name = ref(old?.name ?? '');
const type = ref<ColumnType>(old?.type ?? 'text');
const expression = ref(old?.value ?? '');
const field = useTemplateRef<{ $el: HTMLInputElement }>('field');
onMounted(() => field.value?.$el.focus());

/** Once there, a column keeps its key. */
const own = ref(old?.key);
const key = computed(
  () =>
    own.value ??
    freeKey(
      name.value,
      props.set.columns.value.map((each) => each.key),
    ),
);
const problem = computed(() => props.set.table.value?.problems[key.value]);

/** A key of small letters that no other column has. */
function freeKey(words: string, taken: readonly string[]): string {
  const base =
    fold(words)
      .replace(/[^a-z0-9]+/g, '_')
      .replace(/^_+|_+$/g, '')
      .replace(/^(?=\d)/, 'c_')
      .slice(0, 36) || 'column';
  if (!taken.includes(base)) return base;
  let number = 2;
  while (taken.includes(`${base}_${number}`)) number += 1;
  return `${base}_${number}`;
}
const held = computed(() => ({
  key: key.value,
  name: name.value,
  type: type.value,
  ...(expression.value.trim() ? { value: expression.value.trim() } : {}),
}));
async function keep(column: typeof held.value): Promise<void> {
  own.value = key.value;
  await props.set.putColumn(column);
  if (!props.set.table.value?.problems[key.value]) emit('close');
}
async function remove(): Promise<void> {
  if (!old) return;
  await props.set.change({ what: 'remove-column', key: old.key });
  emit('close');
  // A column’s cells stay with their rows, so that it can come back.
  notice.say(`Column “${old.name}” is deleted.`, () => props.set.putColumn(old));
}
</script>

<template>
  <CheckedForm
    v-slot="{ problemOf, busy }"
    class="form"
    :aria-label="old ? `Column ${old.name}` : 'New column'"
    :schema="columnSchema"
    :held="held"
    :send="keep"
    @keydown.esc="emit('close')"
  >
    <h2>{{ old ? 'Column' : 'New column' }}</h2>
    <FieldRow v-slot="{ id, describedBy }" label="Name" :problem="problemOf('name')"
      ><InputText :id="id" ref="field" v-model="name" name="name" maxlength="200" :aria-describedby="describedBy"
    /></FieldRow>
    <p class="quiet small">Key: {{ key }}</p>
    <FieldRow v-slot="{ id, labelledBy }" label="Type"
      ><PickOne v-model="type" :input-id="id" :labelled-by="labelledBy" :options="COLUMN_TYPES"
    /></FieldRow>
    <FieldRow
      v-slot="{ id, describedBy, invalid }"
      label="Formula from other columns"
      :problem="problem"
      help="Leave empty to type the cells yourself."
      ><InputText
        :id="id"
        v-model="expression"
        name="value"
        placeholder="party * 4.5"
        spellcheck="false"
        :aria-invalid="invalid ? 'true' : undefined"
        :aria-describedby="describedBy"
    /></FieldRow>
    <div class="acts">
      <PushButton kind="main" type="submit" :disabled="busy">{{ own ? 'Keep' : 'Add' }}</PushButton>
      <PushButton kind="plain" @click="emit('close')">Cancel</PushButton>
      <PushButton kind="plain" v-if="old" class="right" @click="remove">Remove</PushButton>
    </div>
  </CheckedForm>
</template>

<style scoped>
.form {
  width: 280px;
  border-left: 1px solid var(--hair);
  padding: 16px;
  display: grid;
  gap: 10px;
  align-content: start;
  overflow: auto;
}
.acts {
  display: flex;
  gap: 8px;
}
</style>
