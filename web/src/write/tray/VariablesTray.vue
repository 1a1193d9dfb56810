<script setup lang="ts">
/** Each variable: type, label, where its value comes from, its value for the current recipient, how many places use it. */
import { vTip } from '../../ui/controls/tip';
import PickOne from '../../ui/controls/PickOne.vue';
import InputText from 'primevue/inputtext';
import PushButton from '../../ui/controls/PushButton.vue';
import { holdsWords, labelFromKey, type Variable } from '@vocabula/core';
import { computed, defineAsyncComponent, nextTick, ref, watch } from 'vue';
import TypeMark from '../../ui/TypeMark.vue';
import { bracketInWords } from '../caret';
import type { Desk } from '../desk/useDesk';
import { bracketsAround } from '../editor/brackets';
import { arranged, type Arrangement } from './arrange';

/** Loaded with the first variable that is opened. */
const VariableDetails = defineAsyncComponent(() => import('./VariableDetails.vue'));
const props = defineProps<{ desk: Desk }>();
const { tray, manuscript, proof } = props.desk;
const { variables, places, uses, brackets } = manuscript;
const { open } = tray;
const query = ref('');
const order = ref<Arrangement>('reading');
const label = (variable: Variable): string => variable.label ?? labelFromKey(variable.key);

/** The innermost passage in which each use stands, in words. */
function passageOf(use: { readonly path?: readonly number[] }): string {
  const pos = tray.placeOf(use as never);
  const around = pos === undefined ? undefined : bracketsAround(brackets.value, pos, pos, []).at(-1);
  return around ? bracketInWords(around, variables.value) : '';
}
const groups = computed(() =>
  arranged(
    variables.value.filter((variable) =>
      holdsWords(`${label(variable)} ${variable.key} ${variable.type}`, query.value),
    ),
    order.value,
    uses.value,
    passageOf,
  ),
);
/** Questions that blocks bring along. */
const brought = computed(() =>
  proof.slots.value.filter(
    (slot) =>
      !variables.value.some((variable) => variable.key === slot.key) &&
      holdsWords(`${slot.label} ${slot.key}`, query.value),
  ),
);
function source(variable: Variable): string {
  if (variable.value !== undefined) return 'calculated';
  const { from } = variable;
  if (!from) return variable.required ? 'asked' : 'asked, optional';
  const [owner, field] = from.split('.');
  return field ? `${owner}’s ${labelFromKey(field).toLowerCase()}` : from === 'last' ? 'last answer' : from;
}
const valueOf = (variable: Variable): string =>
  proof.values.value.get(variable.key)?.words ??
  (variable.required ? `[${label(variable)}]` : variable.type === 'list' ? '' : '—');
watch(open, async (key) => {
  if (!key) return;
  await nextTick();
  document.getElementById(`variable-${key}`)?.scrollIntoView({ block: 'nearest' });
});
</script>

<template>
  <div class="variables">
    <div v-if="variables.length > 0" class="find">
      <InputText v-model="query" type="search" placeholder="Find" aria-label="Find a variable" />
      <PickOne v-model="order" aria-label="Order">
        <option value="reading">in reading order</option>
        <option value="name">by name</option>
        <option value="passage">by passage</option>
      </PickOne>
      <PushButton kind="plain" size="small" class="right" @click="tray.add()">New variable</PushButton>
    </div>
    <p v-if="variables.length === 0 && brought.length === 0" class="quiet none">
      No variables yet. Select words and press <kbd>Alt ⏎</kbd>, or
      <PushButton kind="plain" @click="tray.add()">make one here</PushButton>.
    </p>
    <template v-for="group in groups" :key="group.title">
      <h3 v-if="group.title" class="quiet small">{{ group.title }}</h3>
      <ul class="rows">
        <li v-for="variable in group.variables" :id="`variable-${variable.key}`" :key="variable.key">
          <button
            class="row line"
            :class="{ selected: open === variable.key }"
            :aria-expanded="open === variable.key"
            @click="open = open === variable.key ? undefined : variable.key"
          >
            <TypeMark :type="variable.type" /><span class="name" v-tip="variable.key">{{ label(variable) }}</span>
            <span class="value" :class="{ blank: !proof.values.value.has(variable.key) && variable.required }">{{
              valueOf(variable)
            }}</span>
            <span class="quiet small from">{{ source(variable) }}</span>
            <span class="quiet small count"
              >{{ places.get(variable.key) ?? 0 }} {{ places.get(variable.key) === 1 ? 'place' : 'places' }}</span
            >
          </button>
          <VariableDetails v-if="open === variable.key" :desk="desk" :variable="variable" />
        </li>
      </ul>
    </template>
    <ul v-if="brought.length > 0" class="rows">
      <li v-for="slot in brought" :key="slot.key" class="line brought">
        <TypeMark :type="slot.type" /><span class="name">{{ slot.label }}</span
        ><span class="value">{{ proof.values.value.get(slot.key)?.words ?? '—' }}</span
        ><span class="quiet small from">of {{ slot.text }}</span>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.find {
  display: flex;
  gap: 8px;
  padding: 6px 14px;
  align-items: center;
}
.find input {
  flex: 0 1 120px;
  min-width: 64px;
  height: 28px !important;
}
.find > button {
  flex: none;
}
.find .p-select {
  width: auto;
  height: 28px;
  padding: 0 4px;
  border-color: transparent;
  background: transparent;
}
h3 {
  font: inherit;
  font-size: 0.75rem;
  margin: 0;
  padding: 6px 14px 2px;
}
.line {
  display: grid;
  grid-template-columns: 16px minmax(0, 9fr) minmax(0, 9fr) minmax(0, 8fr) 52px;
  gap: 8px;
  padding: 4px 14px;
  min-height: 28px;
  font-size: 0.8125rem;
  line-height: 1.25rem;
  align-items: center;
}
.name,
.value,
.from {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  justify-self: start;
  max-width: 100%;
}
.count {
  justify-self: end;
  white-space: nowrap;
}
.brought {
  color: var(--quiet);
}
.none {
  padding: 12px 14px;
}
</style>
