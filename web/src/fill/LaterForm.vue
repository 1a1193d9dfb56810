<script setup lang="ts">
/** When it goes: one of a few sensible times, or any other. */
import type { HandOverWays } from '@vocabula/contract';
import { ref, useId } from 'vue';
import PushButton from '../ui/controls/PushButton.vue';
import MomentField from '../ui/dates/MomentField.vue';
import { fieldOf, sensibleTimes } from './times';

const props = defineProps<{ hours: HandOverWays }>();
const id = useId();
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
    <PushButton
      v-for="{ at, words } in times"
      :key="words"
      kind="plain"
      class="row"
      @click="emit('at', at.toISOString())"
    >
      {{ words }}
    </PushButton>
    <div class="field">
      <span :id="id" class="quiet">or another time</span><MomentField v-model="chosen" :labelled-by="id" />
    </div>
    <PushButton type="submit">Send then</PushButton>
  </form>
</template>

<style scoped>
.later {
  padding: 8px 0 12px;
}
.later .field,
.later :deep(button[type='submit']) {
  margin: 8px 12px 0;
}
.later .row {
  width: 100%;
}
</style>
