<script setup lang="ts">
/** Days that do not count as working days. */
import Textarea from 'primevue/textarea';
import PushButton from '../ui/controls/PushButton.vue';
import { computed, ref } from 'vue';
import { showDay, understandDay } from '@vocabula/core';
import { today } from '../ui/today';
import PartHead from './PartHead.vue';
import { useHouseDraft } from './useHouseDraft';

const { draft, ready, changed, save } = useHouseDraft();
const typed = ref('');
const problem = ref('');
const years = computed(() => {
  const all = draft.value.holidays.toSorted();
  return [...new Set(all.map((day) => day.slice(0, 4)))].map((year) => ({
    year,
    days: all.filter((day) => day.startsWith(year)),
  }));
});
/** Takes one day, or several lines of them. */
function add(): void {
  const lines = typed.value.split(/[\n;]+/).filter((line) => line.trim() !== '');
  const days = lines.map((line) => understandDay(line, today(), draft.value.locale));
  const odd = lines.find((_line, index) => days[index] === undefined);
  problem.value = odd === undefined ? '' : `“${odd.trim()}” is not understood as a day.`;
  if (odd !== undefined) return;
  draft.value = { ...draft.value, holidays: [...new Set([...draft.value.holidays, ...(days as string[])])].toSorted() };
  typed.value = '';
}
const remove = (day: string): void =>
  void (draft.value = { ...draft.value, holidays: draft.value.holidays.filter((each) => each !== day) });
</script>

<template>
  <PartHead
    house
    title="Holidays"
    about="days off besides weekends, where working days are counted"
    :changed="changed"
    @save="save"
  />
  <div v-if="ready">
    <form class="add" @submit.prevent="add">
      <label class="field"
        ><span>A day, or several, one a line</span
        ><Textarea v-model="typed" rows="2" placeholder="17 March 2027" :aria-invalid="problem !== ''" />
      </label>
      <PushButton type="submit" :disabled="typed.trim() === ''">Add</PushButton>
    </form>
    <p v-if="problem" class="error small">{{ problem }}</p>
    <section v-for="{ year, days } in years" :key="year">
      <h3>{{ year }}</h3>
      <ul>
        <li v-for="day in days" :key="day">
          {{ showDay(day, draft.locale) }}
          <PushButton kind="plain" :aria-label="`Remove ${day}`" @click="remove(day)">−</PushButton>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.add {
  display: flex;
  gap: 8px;
  align-items: end;
  max-width: 420px;
}
.add .field {
  flex: 1;
}
h3 {
  font-size: 0.8125rem;
  margin: 16px 0 4px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  columns: 240px;
}
li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  max-width: 240px;
}
</style>
