<script setup lang="ts">
/** The columns of a list: label, type, and whether they are asked or worked out from the others. */
import TickBox from '../../ui/controls/TickBox.vue';
import PickOne from '../../ui/controls/PickOne.vue';
import PushButton from '../../ui/controls/PushButton.vue';
import { useReorder } from '../../ui/controls/reorder';
import InputText from 'primevue/inputtext';
import { keyFromLabel, labelFromKey, TYPE_NAMES, valueType, type TypeName, type Variable } from '@vocabula/core';
import { nextTick, useTemplateRef } from 'vue';

const props = defineProps<{ variable: Variable }>();
const emit = defineEmits<{ change: [columns: readonly Variable[]]; refuse: [words: string] }>();
const TYPES = TYPE_NAMES.filter((name) => valueType(name).column !== undefined && valueType(name).governs !== 'option');
const list = useTemplateRef<HTMLElement>('list');
const columns = (): readonly Variable[] => props.variable.columns ?? [];
const put = (index: number, column: Variable): void => emit('change', columns().with(index, column));
const text = (event: Event): string => (event.target as HTMLInputElement).value.trim();

/** A column that nobody can have used yet gets the key of its label. */
function relabel(index: number, column: Variable, event: Event): void {
  const label = text(event) || labelFromKey(column.key);
  const fresh = /^column_\d+$/.test(column.key);
  const taken = new Set(['count', ...columns().flatMap((each) => (each === column ? [] : [each.key]))]);
  put(index, { ...column, label, key: fresh ? keyFromLabel(label, taken) : column.key });
}
function retype(index: number, column: Variable, type: TypeName): void {
  const { key, label, required, value } = column;
  put(index, {
    key,
    type,
    ...(label ? { label } : {}),
    ...(required ? { required } : {}),
    ...(value === undefined ? {} : { value }),
    ...valueType(type).initial,
    ...(type === 'money' && column.currency ? { currency: column.currency } : {}),
  });
}
function set(index: number, column: Variable, name: 'value' | 'currency' | 'required', value: unknown): void {
  const { [name]: _old, ...rest } = column;
  put(index, (value === '' || value === false ? rest : { ...rest, [name]: value }) as Variable);
}
async function add(): Promise<void> {
  const key = keyFromLabel(`column ${columns().length + 1}`, new Set(columns().map((each) => each.key)));
  emit('change', [...columns(), { key, type: 'text', label: labelFromKey(key) }]);
  await nextTick();
  const inputs = list.value?.querySelectorAll<HTMLInputElement>('.label');
  const last = inputs?.item(inputs.length - 1);
  last?.focus();
  last?.select();
}
function remove(index: number): void {
  if (columns().length === 1) return emit('refuse', 'A list has one column at least.');
  emit('change', columns().toSpliced(index, 1));
}
function move(index: number, to: number): void {
  const moved = columns()[index];
  if (moved && to >= 0 && to < columns().length) emit('change', columns().toSpliced(index, 1).toSpliced(to, 0, moved));
}
useReorder(list, move, { handle: '.handle' });
</script>

<template>
  <fieldset class="wide columns">
    <legend class="quiet small">Columns</legend>
    <ol ref="list">
      <li v-for="(column, index) in columns()" :key="column.key" class="column">
        <PushButton
          kind="plain"
          class="handle"
          :aria-label="`${column.label ?? column.key}, column ${index + 1}: move with the arrow keys`"
          @keydown.up.prevent="move(index, index - 1)"
          @keydown.down.prevent="move(index, index + 1)"
        >
          ⠿
        </PushButton>
        <InputText
          class="label"
          :model-value="column.label ?? labelFromKey(column.key)"
          :aria-label="`Label of column ${index + 1}`"
          @change="relabel(index, column, $event)"
        />
        <PickOne
          :model-value="column.type"
          :aria-label="`Type of column ${index + 1}`"
          @update:model-value="retype(index, column, $event as TypeName)"
        >
          <option v-for="type in TYPES" :key="type">{{ type }}</option>
        </PickOne>
        <InputText
          class="code"
          :model-value="column.value ?? ''"
          placeholder="asked, or a formula…"
          spellcheck="false"
          :aria-label="`Column ${index + 1} formula`"
          @change="set(index, column, 'value', text($event))"
        />
        <PushButton kind="plain" :aria-label="`Remove column ${column.label ?? column.key}`" @click="remove(index)">
          −
        </PushButton>
        <span v-if="column.type === 'money' || column.value === undefined" class="more">
          <label v-if="column.type === 'money'"
            >in
            <InputText
              class="currency"
              maxlength="3"
              :model-value="column.currency"
              :aria-label="`Currency of column ${index + 1}`"
              @change="set(index, column, 'currency', text($event).toUpperCase())" /></label
          ><label v-if="column.value === undefined"
            ><TickBox :checked="column.required ?? false" @change="set(index, column, 'required', $event)" />
            required</label
          >
        </span>
      </li>
    </ol>
    <PushButton kind="plain" size="small" @click="add">Add a column</PushButton>
  </fieldset>
</template>

<style scoped>
.columns {
  border: 0;
  margin: 0;
  padding: 0;
  min-width: 0;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
.column {
  display: grid;
  grid-template-columns: 24px minmax(0, 1fr) 84px minmax(0, 1fr) 28px;
  gap: 4px;
}
.handle {
  padding: 0;
  justify-content: center;
  color: var(--quiet);
}
.more {
  grid-column: 2 / -1;
  display: flex;
  gap: 16px;
  font-size: 0.75rem;
}
.currency {
  width: 52px !important;
  height: 24px !important;
}
.code {
  font-family: Consolas, Menlo, monospace;
  font-size: 0.75rem;
}
</style>
