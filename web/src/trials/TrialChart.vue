<script setup lang="ts">
/** Versions of a trial on one scale: the share of each, and the range that holds however often one looks. */
import type { TrialArm } from '@vocabula/contract';
import { scaleLinear } from 'd3-scale';
import { useElementSize } from '@vueuse/core';
import { computed, useTemplateRef } from 'vue';

const { arms, best } = defineProps<{ arms: readonly TrialArm[]; best?: number | undefined }>();
const [ROW, AXIS, EDGE] = [44, 24, 18];
const plot = useTemplateRef('plot');
const { width } = useElementSize(plot, { width: 480, height: 0 });
const height = computed(() => arms.length * ROW + AXIS);
/** Only as much of the scale as the ranges take, on round numbers. */
const x = computed(() => {
  const [low, high] = [Math.min(...arms.map((arm) => arm.low)), Math.max(...arms.map((arm) => arm.high))];
  return scaleLinear([Math.max(0, low), Math.min(1, high)], [EDGE, Math.max(width.value, 160) - EDGE]).nice(5);
});
const ticks = computed(() => x.value.ticks(5).map((share) => ({ at: x.value(share), words: percent(share) })));
const percent = (share: number): string => `${Math.round(share * 100)} %`;
const share = ({ successes, trials }: TrialArm): number | undefined => (trials > 0 ? successes / trials : undefined);
const words = (arm: TrialArm): string => {
  const now = share(arm);
  const range = `range ${percent(arm.low)} to ${percent(arm.high)}`;
  return `Version ${arm.version}: ${now === undefined ? 'no recipient yet' : `${percent(now)} of ${arm.trials}`}, ${range}`;
};
</script>

<template>
  <figure>
    <ul aria-label="Shares by version">
      <li v-for="arm in arms" :key="arm.version" class="arm">
        <strong :class="{ best: arm.version === best }">Version {{ arm.version }}</strong>
        <span class="quiet small note">{{ arm.note }}</span>
        <span class="count">{{ arm.successes }} of {{ arm.trials }}</span>
      </li>
    </ul>
    <div ref="plot" class="plot">
      <svg :width="Math.max(width, 160)" :height="height" role="img" :aria-label="arms.map(words).join('; ')">
        <g v-for="tick in ticks" :key="tick.at">
          <line :x1="tick.at" :x2="tick.at" y1="0" :y2="height - AXIS" class="grid" />
          <text :x="tick.at" :y="height - 6" text-anchor="middle">{{ tick.words }}</text>
        </g>
        <g v-for="(arm, index) in arms" :key="arm.version" :class="{ best: arm.version === best }">
          <line
            :x1="x(arm.low)"
            :x2="x(arm.high)"
            :y1="index * ROW + ROW / 2"
            :y2="index * ROW + ROW / 2"
            class="range"
          />
          <circle
            v-if="share(arm) !== undefined"
            :cx="x(share(arm) ?? 0)"
            :cy="index * ROW + ROW / 2"
            r="5"
            class="share"
          />
        </g>
      </svg>
    </div>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  display: grid;
  grid-template-columns: minmax(120px, 200px) minmax(0, 1fr);
  gap: 16px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.plot {
  min-width: 0;
  overflow: hidden;
}
svg {
  display: block;
}
.arm {
  height: 44px;
  display: grid;
  align-content: center;
  grid-template-columns: 1fr auto;
  column-gap: 8px;
}
.arm strong {
  font-weight: 500;
}
.note {
  grid-row: 2;
  grid-column: 1 / -1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.count {
  font-variant-numeric: tabular-nums;
}
strong.best {
  color: var(--action);
}
.grid {
  stroke: var(--hair);
}
text {
  font-size: 11px;
  fill: var(--quiet);
}
.range {
  stroke: var(--quiet);
  stroke-width: 6;
  stroke-linecap: round;
  opacity: 0.45;
}
.share {
  fill: var(--ink);
}
.best .range {
  stroke: var(--action);
}
.best .share {
  fill: var(--action);
}
@media (max-width: 599px) {
  figure {
    grid-template-columns: minmax(0, 1fr);
    gap: 4px;
  }
}
</style>
