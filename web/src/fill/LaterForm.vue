<script setup lang="ts">
/** When it goes: one of a few sensible times, or any other. */
import type { HandOverWays } from '@vocabula/contract';
import { ref } from 'vue';
import { fieldOf, sensibleTimes } from './times';

const props = defineProps<{ hours: HandOverWays }>();
const emit = defineEmits<{ at: [iso: string] }>();
const times = sensibleTimes(new Date(), props.hours);
const chosen = ref(fieldOf(times[0]?.at ?? new Date(Date.now() + 3_600_000)));
function go(): void {
  const at = new Date(chosen.value);
  if (!Number.isNaN(at.getTime())) emit('at', at.toISOString());
}
</script>

<template>
  <form class="later" @submit.prevent="go">
    <button
      v-for="{ at, words } in times"
      :key="words"
      type="button"
      class="row plain"
      @click="emit('at', at.toISOString())"
    >
      {{ words }}
    </button>
    <label class="field"
      ><span>or another time</span><input v-model="chosen" type="datetime-local" :min="fieldOf(new Date())"
    /></label>
    <button type="submit">Send then</button>
  </form>
</template>

<style scoped>
.later {
  padding: 8px 0 12px;
}
.later .field,
.later button[type='submit'] {
  margin: 8px 12px 0;
}
.later .row {
  width: 100%;
}
</style>
