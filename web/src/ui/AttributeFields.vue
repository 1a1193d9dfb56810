<script setup lang="ts">
/** The constraints and formats that a variable's type has. */
import TickBox from './controls/TickBox.vue';
import TypeOrPick from './controls/TypeOrPick.vue';
import InputText from 'primevue/inputtext';
import { valueType, type Variable } from '@vocabula/core';
import { loadPatterns } from '@vocabula/core/patterns';
import { computed, nextTick, ref } from 'vue';
import { attributeFields, WEEKDAYS, type AttributeField } from './attributes';

const props = defineProps<{ variable: Variable; locale: string; about?: AttributeField['about'] }>();
const emit = defineEmits<{ set: [name: keyof Variable, value: unknown] }>();
/** Values that are offered; any other can be typed. */
const OFFERED = {
  zone: ['Europe/Dublin', 'Europe/London', 'Europe/Berlin', 'America/New_York', 'Asia/Tokyo', 'UTC'],
  currency: ['EUR', 'GBP', 'USD', 'CHF', 'SEK', 'PLN', 'JPY'],
} as const;
const fields = computed(() => attributeFields(props.variable.type, props.about));
/** Said again when the engine of patterns is there. */
const patternsReady = ref(false);
if (valueType(props.variable.type).attributes.includes('pattern'))
  void loadPatterns().then(() => (patternsReady.value = true));
const problems = computed(() => {
  void patternsReady.value;
  const said = valueType(props.variable.type).declared(props.variable, { today: '2026-01-01', locale: props.locale });
  return new Map(said.map(({ attribute, message }) => [attribute, message]));
});
const shown = (name: keyof Variable): string => {
  const value = props.variable[name];
  return Array.isArray(value) ? value.join(', ') : value === undefined ? '' : String(value);
};
const text = (event: Event): string => (event.target as HTMLInputElement).value.trim();
function give({ name, control }: AttributeField, value: string): void {
  if (value === '') return emit('set', name, undefined);
  if (control === 'number') {
    const number = Number(value.replace(',', '.'));
    if (Number.isFinite(number)) emit('set', name, number);
  } else if (control === 'names') emit('set', name, value.split(/[\s,;]+/).filter(Boolean));
  else emit('set', name, control === 'currency' ? value.toUpperCase() : value);
}
function typed(field: AttributeField, event: Event): void {
  give(field, text(event));
  // What is no number gives way to what was there.
  void nextTick(() => ((event.target as HTMLInputElement).value = shown(field.name)));
}
function tick({ name, usual = false }: AttributeField, on: boolean): void {
  // What is as usual is left out; a usual yes that is off is written.
  emit('set', name, on === usual ? undefined : on || 'off');
}
function weekday(day: string): void {
  const days = props.variable.weekdays ?? [];
  const next = WEEKDAYS.filter((each) => (each === day ? !days.includes(day) : days.includes(each)));
  emit('set', 'weekdays', next.length > 0 ? next : undefined);
}
function word(which: 'yes' | 'no', event: Event): void {
  const { [which]: _old, ...rest } = props.variable.words ?? {};
  const words = text(event) === '' ? rest : { ...rest, [which]: text(event) };
  emit('set', 'words', Object.keys(words).length > 0 ? words : undefined);
}
</script>

<template>
  <template v-for="field in fields" :key="field.name">
    <label v-if="field.control === 'tick'" class="tick"
      ><TickBox
        :checked="(variable[field.name] as boolean | undefined) ?? field.usual ?? false"
        @change="tick(field, $event)"
      />
      {{ field.label }}</label
    >
    <fieldset v-else-if="field.control === 'weekdays'" class="wide days">
      <legend class="quiet small">{{ field.label }}</legend>
      <label v-for="day in WEEKDAYS" :key="day"
        ><TickBox :checked="variable.weekdays?.includes(day) ?? false" @change="weekday(day)" /> {{ day }}</label
      >
    </fieldset>
    <template v-else-if="field.control === 'words'">
      <label v-for="which in ['yes', 'no'] as const" :key="which" class="field"
        ><span>{{ which === 'yes' ? 'A yes is shown as' : 'A no is shown as' }}</span
        ><InputText :model-value="variable.words?.[which] ?? ''" @change="word(which, $event)"
      /></label>
    </template>
    <label v-else class="field"
      ><span>{{ field.label }}</span
      ><TypeOrPick
        v-if="field.control === 'zone' || field.control === 'currency'"
        :model-value="shown(field.name)"
        :options="OFFERED[field.control]"
        :label="field.label"
        :invalid="problems.has(field.name)"
        @change="give(field, $event)"
      /><InputText
        v-else
        :model-value="shown(field.name)"
        :inputmode="field.control === 'number' ? 'decimal' : undefined"
        :placeholder="field.example"
        :invalid="problems.has(field.name)"
        @change="typed(field, $event)"
      /><span v-if="problems.has(field.name)" class="error small">{{ problems.get(field.name) }}</span></label
    >
  </template>
</template>

<style scoped>
.days {
  border: 0;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  font-size: 0.8125rem;
}
</style>
