<script setup lang="ts">
/**
 * The steps of a series on a line of time: each at its moment on the sender's clock. Days on which nothing is sent are
 * shaded, as long as days can be told apart.
 */
import { isWorkday } from '@vocabula/core/series';
import { dayFromNumber, dayNumber, wallAt } from '@vocabula/core';
import { useElementSize } from '@vueuse/core';
import { scaleUtc } from 'd3-scale';
import { computed, useTemplateRef } from 'vue';
import { showMoment } from '../ui/dates/reader';
import { momentWords } from './seriesWords';
import type { ShownStep } from './shownSteps';

const { steps, start, now, calendar, chosen } = defineProps<{
  steps: readonly ShownStep[];
  /** When it begins, or began; milliseconds. */
  start: number;
  now?: number | undefined;
  calendar: { readonly zone: string; readonly days: readonly number[]; readonly holidays: ReadonlySet<string> };
  chosen?: number | undefined;
}>();
const emit = defineEmits<{ choose: [at: number] }>();
const [TOP, LINE, HEIGHT, EDGE] = [26, 52, 84, 28];
/** Days are shaded while each is at least so wide, in pixels. */
const NARROWEST = 4;
const plot = useTemplateRef('plot');
const { width } = useElementSize(plot, { width: 640, height: 0 });

/** Moments as the sender's wall clock has them, so that days begin where they do there. */
const wall = (at: number): Date => new Date(`${wallAt(at, calendar.zone)}Z`);
const placed = computed(() =>
  steps.flatMap((step) => (step.moment === undefined ? [] : [{ ...step, moment: step.moment }])),
);
const x = computed(() => {
  const all = [start, ...(now === undefined ? [] : [now]), ...placed.value.map(({ moment }) => moment)];
  const [first, last] = [wall(Math.min(...all)), wall(Math.max(...all))];
  first.setUTCHours(0, 0, 0, 0);
  last.setUTCHours(24, 0, 0, 0);
  return scaleUtc([first, last], [EDGE, Math.max(width.value, 280) - EDGE]);
});
const days = computed(() => {
  const [from, to] = x.value.domain().map((each) => dayNumber(each.toISOString().slice(0, 10)));
  return Array.from({ length: (to ?? 0) - (from ?? 0) }, (_, at) => dayFromNumber((from ?? 0) + at) ?? '');
});
const dayWidth = computed(() => x.value(new Date(86_400_000)) - x.value(new Date(0)));
const shaded = computed(() =>
  dayWidth.value < NARROWEST
    ? []
    : days.value
        .filter((day) => !isWorkday(day, calendar))
        .map((day) => ({ day, at: x.value(new Date(`${day}T00:00Z`)), holiday: calendar.holidays.has(day) })),
);
/** As many days are named as there is room for. */
const ticks = computed(() => {
  const every = Math.max(1, Math.ceil(74 / dayWidth.value));
  return days.value
    .filter((_day, at) => at % every === 0)
    .map((day) => ({ day, at: x.value(new Date(`${day}T00:00Z`)), words: showMoment(`${day}T12:00`, 'day') }));
});
const said = computed(() =>
  steps
    .map(({ title, moment, words }, at) => `${at + 1} ${title}: ${moment === undefined ? words : momentWords(moment)}`)
    .join('; '),
);
/** Steps of one moment stand beside each other. */
const circles = computed(() => {
  let last = Number.NEGATIVE_INFINITY;
  return placed.value.map((step) => {
    const at = Math.max(x.value(wall(step.moment)), last + 22);
    last = at;
    return { ...step, x: at };
  });
});
</script>

<template>
  <div ref="plot" class="plot">
    <svg :width="Math.max(width, 280)" :height="HEIGHT" role="img" :aria-label="said">
      <rect
        v-for="each in shaded"
        :key="each.day"
        :x="each.at"
        :y="TOP - 6"
        :width="dayWidth"
        :height="LINE - TOP + 26"
        :class="each.holiday ? 'holiday' : 'free'"
      />
      <g v-for="tick in ticks" :key="tick.day">
        <line :x1="tick.at" :x2="tick.at" :y1="TOP - 6" :y2="LINE + 20" class="grid" />
        <text :x="tick.at + 4" y="12">{{ tick.words }}</text>
      </g>
      <line :x1="EDGE" :x2="Math.max(width, 280) - EDGE" :y1="LINE" :y2="LINE" class="line" />
      <g v-if="now !== undefined">
        <line :x1="x(wall(now))" :x2="x(wall(now))" :y1="TOP - 6" :y2="HEIGHT - 4" class="now" />
        <text :x="x(wall(now)) + 4" :y="HEIGHT - 4" class="now-words">now</text>
      </g>
      <g
        v-for="step in circles"
        :key="step.at"
        :class="['step', step.kind, { chosen: step.at === chosen }]"
        @click="emit('choose', step.at)"
      >
        <circle :cx="step.x" :cy="LINE" r="10" />
        <text :x="step.x" :y="LINE + 4" text-anchor="middle">{{ step.at + 1 }}</text>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.plot {
  min-width: 0;
  /* What scrolls may be made lower than what is in it. */
  min-height: 84px;
  overflow: hidden;
}
svg {
  display: block;
}
text {
  font-size: 0.6875rem;
  fill: var(--quiet);
}
.free {
  fill: var(--hover);
}
.holiday {
  fill: #f3e2bd;
}
.grid {
  stroke: var(--hair);
}
.line {
  stroke: var(--quiet);
  stroke-width: 1.5;
}
.now {
  stroke: var(--action);
  stroke-dasharray: 3 3;
}
.now-words {
  fill: var(--action);
}
.step {
  cursor: pointer;
}
.step circle {
  fill: var(--sheet);
  stroke: var(--action);
  stroke-width: 2;
}
.step text {
  fill: var(--ink);
  font-weight: 600;
}
.step.gone circle {
  fill: var(--action);
}
.step.gone text {
  fill: var(--sheet);
}
.step.perhaps circle {
  stroke-dasharray: 3 3;
}
.step.look circle {
  fill: var(--saffron);
  stroke: var(--warning);
}
.step.out circle {
  stroke: var(--quiet);
  stroke-dasharray: 2 3;
}
.step.chosen circle {
  stroke-width: 4;
}
</style>
