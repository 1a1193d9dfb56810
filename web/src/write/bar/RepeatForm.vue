<script setup lang="ts">
/** Selected blocks, items or rows are repeated for every row of a list: one that is there, or a new one. */
import PickOne from '../../ui/controls/PickOne.vue';
import InputText from 'primevue/inputtext';
import Textarea from 'primevue/textarea';
import PushButton from '../../ui/controls/PushButton.vue';
import { keyFromLabel, labelFromKey, TYPE_NAMES, valueType, type TypeName, type Variable } from '@vocabula/core';
import { computed, ref } from 'vue';
import type { Making } from '../desk/making';
import type { Desk } from '../desk/useDesk';
import type { Range } from '../editor/operations/places';
import { newVariable } from '../editor/operations/variables';
import HowFar from './HowFar.vue';

const props = defineProps<{ desk: Pick<Desk, 'fields' | 'manuscript'>; crossings: readonly Range[] }>();
const emit = defineEmits<{ make: [making: Making] }>();
const { fields, manuscript } = props.desk;
const lists = computed(() => manuscript.variables.value.filter(({ type }) => type === 'list'));
const key = ref(lists.value[0]?.key ?? '');
const label = ref('');
const lines = ref('Item\nCount: number\nPrice: money');
const range = ref<Range>(fields.active.value.state.selection);

/** Columns from lines: a label, and after a colon a type. */
const columns = computed((): Variable[] => {
  const taken = new Set(['count']);
  return lines.value.split('\n').flatMap((line) => {
    const [name = '', kind = ''] = line.split(':').map((part) => part.trim());
    if (name === '') return [];
    const type = (TYPE_NAMES as readonly string[]).includes(kind) && kind !== 'list' ? (kind as TypeName) : 'text';
    const own = keyFromLabel(name, taken);
    taken.add(own);
    return [{ key: own, type, label: name, ...valueType(type).initial }];
  });
});
const ready = computed(() => key.value !== '' || (label.value.trim() !== '' && columns.value.length > 0));
function done(): void {
  if (!ready.value) return;
  const { from, to } = range.value;
  const list =
    lists.value.find((each) => each.key === key.value) ??
    newVariable(fields.main.state.doc, label.value.trim(), 'list', { columns: columns.value });
  emit('make', { what: 'repeat', list, range: { from, to } });
}
</script>

<template>
  <form @submit.prevent="done">
    <label class="field"
      ><span>Once for each row of</span
      ><PickOne v-model="key">
        <option v-for="list in lists" :key="list.key" :value="list.key">
          {{ list.label ?? labelFromKey(list.key) }}
        </option>
        <option value="">a new list</option>
      </PickOne></label
    >
    <template v-if="key === ''">
      <label class="field"
        ><span>Label of the question</span><InputText v-model="label" maxlength="80" placeholder="Tickets"
      /></label>
      <label class="field"
        ><span>Columns, one a line; “Price: money” gives a type</span><Textarea v-model="lines" rows="4" />
      </label>
    </template>
    <HowFar v-if="crossings.length > 0" v-model="range" :editor="fields.main" />
    <PushButton kind="main" type="submit" :disabled="!ready">Repeat</PushButton>
  </form>
</template>
