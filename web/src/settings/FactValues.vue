<script setup lang="ts">
/** What a fact is worth: now, and from which days on something else. */
import InputText from 'primevue/inputtext';
import PushButton from '../ui/controls/PushButton.vue';
import { type Fact, isDay, showDay, understandDay, valueType } from '@vocabula/core';
import { computed } from 'vue';
import { today } from '../ui/today';

const props = defineProps<{ fact: Fact; locale: string }>();
const emit = defineEmits<{ change: [fact: Fact] }>();
const text = (event: Event): string => (event.target as HTMLInputElement).value.trim();
/** Words against a value that does not fit the fact's type. */
function problem(value: string): string {
  if (value === '') return '';
  const parsed = valueType(props.fact.variable.type).parse(value, props.fact.variable, {
    today: today(),
    locale: props.locale,
  });
  return 'problem' in parsed ? parsed.problem : '';
}
const changes = computed(() => props.fact.changes);
function change(index: number, more: Partial<Fact['changes'][number]>): void {
  const old = changes.value[index];
  if (!old) return;
  const next = changes.value.with(index, { ...old, ...more }).toSorted((a, b) => (a.date < b.date ? -1 : 1));
  emit('change', { ...props.fact, changes: next });
}
function date(index: number, event: Event): void {
  const day = understandDay(text(event), today(), props.locale);
  if (day) change(index, { date: day });
  else (event.target as HTMLInputElement).value = showDay(changes.value[index]?.date ?? '', props.locale);
}
function add(): void {
  const tomorrow = understandDay('+1', today(), props.locale) ?? today();
  emit('change', { ...props.fact, changes: [...changes.value, { date: tomorrow, value: props.fact.value }] });
}
</script>

<template>
  <fieldset class="wide values">
    <label class="field"
      ><span>{{ changes.length > 0 ? 'Until then' : 'Value' }}</span
      ><InputText
        :model-value="fact.value"
        :aria-invalid="problem(fact.value) !== ''"
        @change="emit('change', { ...fact, value: text($event) })"
      /><span v-if="problem(fact.value)" class="error small">{{ problem(fact.value) }}</span></label
    >
    <div v-for="(each, index) in changes" :key="`${each.date} ${index}`" class="change">
      <label class="field"
        ><span>From this day on</span
        ><InputText
          :model-value="isDay(each.date) ? showDay(each.date, locale) : each.date"
          @change="date(index, $event)"
      /></label>
      <label class="field"
        ><span>Value</span
        ><InputText
          :model-value="each.value"
          :aria-invalid="problem(each.value) !== ''"
          @change="change(index, { value: text($event) })"
        /><span v-if="problem(each.value)" class="error small">{{ problem(each.value) }}</span></label
      >
      <PushButton
        kind="plain"
        :aria-label="`Remove the change of ${each.date}`"
        @click="emit('change', { ...fact, changes: changes.toSpliced(index, 1) })"
      >
        −
      </PushButton>
    </div>
    <PushButton size="small" @click="add">It changes on a day</PushButton>
  </fieldset>
</template>

<style scoped>
.values {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 8px;
  width: 100%;
  justify-items: start;
}
.change {
  display: grid;
  grid-template-columns: 1fr 1fr 32px;
  gap: 12px;
  align-items: end;
  width: 100%;
}
</style>
