<script setup lang="ts">
/** Messages by week as a small line chart, with a text alternative. */
import { area, curveMonotoneX, line } from 'd3-shape';
import { computed } from 'vue';

const { weeks } = defineProps<{ weeks: readonly number[] }>();
const [WIDTH, HEIGHT] = [104, 24];
const most = computed(() => Math.max(1, ...weeks));
const x = (at: number): number => 1 + (at / Math.max(1, weeks.length - 1)) * (WIDTH - 2);
const y = (count: number): number => HEIGHT - 2 - (count / most.value) * (HEIGHT - 4);
const path = computed(() => line<number>((_, at) => x(at), y).curve(curveMonotoneX)(weeks) ?? '');
const below = computed(() => area<number>((_, at) => x(at), HEIGHT - 1, y).curve(curveMonotoneX)(weeks) ?? '');
const words = computed(
  () => `${weeks.length} weeks: ${weeks.at(-1) ?? 0} in the last, ${Math.max(0, ...weeks)} in the busiest`,
);
</script>

<template>
  <svg :width="WIDTH" :height="HEIGHT" role="img" :aria-label="words">
    <path :d="below" class="below" />
    <path :d="path" class="line" />
  </svg>
</template>

<style scoped>
svg {
  display: block;
}
.below {
  fill: var(--selected);
}
.line {
  fill: none;
  stroke: var(--action);
  stroke-width: 1.25;
}
</style>
