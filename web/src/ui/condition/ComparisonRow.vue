<script setup lang="ts">
/** One comparison: variable, comparison, value. */
import TickBox from '../controls/TickBox.vue';
import PickOne from '../controls/PickOne.vue';
import InputText from 'primevue/inputtext';
import {
  comparisonInWords,
  comparisonsOf,
  familyOf,
  labelFromKey,
  takesValue,
  type Comparison,
  type ComparisonName,
} from '@vocabula/core';
import { computed } from 'vue';
import { understandDay } from '@vocabula/core';
import { today } from '../today';
import { firstComparison, firstValue, NAME_GROUPS, type Named } from './names';

const props = defineProps<{ names: readonly Named[]; place: string }>();
const comparison = defineModel<Comparison>({ required: true });
const groups = computed(() => {
  const usable = props.names.filter(({ variable }) => variable.type !== 'paragraphs');
  return [...new Set(usable.map(({ group }) => group))].map((group) => ({
    group,
    names: usable.filter((each) => each.group === group),
  }));
});
const named = computed(() => props.names.find(({ name }) => name === comparison.value.of));
const family = computed(() => familyOf(named.value?.variable.type ?? 'text'));
const options = computed(() => named.value?.variable.options ?? []);
const WEEKDAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'];

function about(name: string): void {
  comparison.value = firstComparison(props.names.find((each) => each.name === name));
}
function compare(how: ComparisonName): void {
  const { of, value } = comparison.value;
  comparison.value = { of, how, value: (takesValue(how) && value) || firstValue(how, named.value?.variable) };
}

function give(value: string): void {
  comparison.value = { ...comparison.value, value: family.value === 'date' ? dayOf(value.trim()) : value };
}
/** A day as typed, or one counted from today. */
function dayOf(typed: string): string {
  const relative = /^(?:today)?\s*([+-])\s*(\d{1,5})$/.exec(typed);
  if (relative) return `today${relative[1]}${Number(relative[2])}`;
  return typed === 'today' ? typed : (understandDay(typed, today(), navigator.language) ?? typed);
}
function toggle(key: string): void {
  const keys = comparison.value.value.split('|').filter(Boolean);
  const next = keys.includes(key) ? keys.filter((each) => each !== key) : [...keys, key];
  comparison.value = { ...comparison.value, value: next.join('|') };
}
const text = (event: Event): string => (event.target as HTMLInputElement).value;
</script>

<template>
  <div class="comparison">
    <PickOne :model-value="comparison.of" :aria-label="`Variable ${place}`" @update:model-value="about($event)">
      <option value="" disabled>choose…</option>
      <optgroup v-for="{ group, names: each } in groups" :key="group" :label="NAME_GROUPS[group]">
        <option v-for="one in each" :key="one.name" :value="one.name">{{ one.label }}</option>
      </optgroup>
    </PickOne>
    <PickOne
      :model-value="comparison.how"
      :aria-label="`Comparison ${place}`"
      @update:model-value="compare($event as ComparisonName)"
    >
      <option v-for="how in comparisonsOf(family)" :key="how" :value="how">{{ comparisonInWords(family, how) }}</option>
    </PickOne>
    <template v-if="takesValue(comparison.how)">
      <span v-if="comparison.how === 'one-of'" class="several" role="group" :aria-label="`Values ${place}`">
        <label v-for="option in options" :key="option.key"
          ><TickBox :checked="comparison.value.split('|').includes(option.key)" @change="toggle(option.key)" />
          {{ option.label ?? labelFromKey(option.key) }}</label
        >
      </span>
      <PickOne
        v-else-if="options.length > 0 || comparison.how === 'weekday'"
        :model-value="comparison.value"
        :aria-label="`Value ${place}`"
        @update:model-value="give($event)"
      >
        <template v-if="comparison.how === 'weekday'"
          ><option v-for="day in WEEKDAYS" :key="day">{{ day }}</option></template
        >
        <template v-else
          ><option v-for="option in options" :key="option.key" :value="option.key">
            {{ option.label ?? labelFromKey(option.key) }}
          </option></template
        >
      </PickOne>
      <InputText
        v-else
        :model-value="comparison.value"
        :type="family === 'time' && named?.variable.type === 'time' ? 'time' : 'text'"
        :inputmode="family === 'number' || family === 'list' ? 'decimal' : undefined"
        :aria-label="`Value ${place}`"
        :placeholder="family === 'date' ? '11 May 2027, or today+14' : family === 'number' ? '15' : ''"
        @input="family === 'date' || give(text($event))"
        @change="give(text($event))"
      />
    </template>
  </div>
</template>

<style scoped>
.comparison {
  display: grid;
  grid-template-columns: minmax(0, 1.3fr) minmax(0, 1fr) minmax(0, 1fr);
  gap: 6px;
  flex: 1;
  min-width: 0;
}
.several {
  display: grid;
  gap: 2px;
  font-size: 0.8125rem;
}
</style>
