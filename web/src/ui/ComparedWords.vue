<script setup lang="ts">
/** One side of two texts that were compared, line by line: the words that only this side has are marked. */
import { compareWords, type Run } from '@vocabula/core/compare';
import { computed } from 'vue';

const { left, right, side } = defineProps<{
  left: readonly string[];
  right: readonly string[];
  side: 'left' | 'right';
}>();
/** The side's runs, a line each. */
const lines = computed(() => {
  const result: Run[][] = [[]];
  for (const run of compareWords(left.join('\n'), right.join('\n'))) {
    if (run.in !== 'both' && run.in !== side) continue;
    run.text.split('\n').forEach((text, index) => {
      if (index > 0) result.push([]);
      if (text !== '') result.at(-1)?.push({ ...run, text });
    });
  }
  return result;
});
</script>

<template>
  <p v-for="(line, index) in lines" :key="index" class="compared">
    <template v-for="(run, at) in line" :key="at"
      ><mark v-if="run.in !== 'both'">{{ run.text }}</mark
      ><template v-else>{{ run.text }}</template></template
    >
  </p>
</template>

<style scoped>
.compared {
  font: 400 0.9375rem/1.4375rem var(--serif);
  overflow-wrap: anywhere;
}
mark {
  background: none;
  color: inherit;
  font-weight: 600;
  text-decoration: underline;
  text-underline-offset: 3px;
}
</style>
