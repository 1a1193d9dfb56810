<script setup lang="ts">
/** Steps beneath their line of time: each with its title and its moment, or why it has none. One is chosen. */
import type { ShownStep } from './shownSteps';

defineProps<{ steps: readonly ShownStep[]; chosen: number | undefined }>();
const emit = defineEmits<{ choose: [at: number] }>();
</script>

<template>
  <ol class="rows" aria-label="Messages">
    <li v-for="step in steps" :key="step.at">
      <button type="button" class="row step" :aria-current="chosen === step.at" @click="emit('choose', step.at)">
        <b>{{ step.at + 1 }}</b><span>{{ step.title }}</span
        ><span class="small quiet">{{ step.words }}</span>
      </button>
    </li>
  </ol>
</template>

<style scoped>
.step {
  display: grid;
  grid-template-columns: 20px minmax(0, 1fr) minmax(0, 1.2fr);
  gap: 12px;
  align-items: baseline;
  min-height: 36px;
  font: inherit;
  cursor: pointer;
}
</style>
