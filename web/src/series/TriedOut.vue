<script setup lang="ts">
/** A series tried out: every way in which it can go, and the messages of each. */
import type { SeriesProgram } from '@vocabula/core';
import { answersOf, exampleAnswers, tryOut, type Calendar, type Path } from '@vocabula/core/series';
import { computed, ref, watch } from 'vue';
import { showMoment } from '../ui/dates/reader';
import { useMe } from '../ui/me';
import { today } from '../ui/today';
import MessageOfStep from './MessageOfStep.vue';
import SeriesTimeline from './SeriesTimeline.vue';
import StepList from './StepList.vue';
import { cameWords, endWords, momentWords } from './seriesWords';
import type { ShownStep } from './shownSteps';

const { series, titles, calendar, usual } = defineProps<{
  series: SeriesProgram;
  /** Of the templates, by step. */
  titles: readonly string[];
  calendar: Calendar;
  /** A recipient for what nothing depends on. */
  usual: Readonly<Record<string, string>>;
}>();
const me = useMe();
const start = Date.now();
const options = computed(() => ({ start, today: today(), calendar, usual }));
const tried = computed(() => tryOut(series, options.value));
const chosen = ref(0);
const path = computed((): Path | undefined => tried.value.paths[chosen.value] ?? tried.value.paths[0]);
const shown = ref<number>();
watch(path, (now) => (shown.value = now?.steps[0]?.at), { immediate: true });
const steps = computed((): ShownStep[] =>
  (path.value?.steps ?? []).map(({ at, due, then }) => ({
    at,
    title: titles[at] ?? '',
    moment: due,
    kind: 'ahead',
    words: [momentWords(due), ...(then.length > 0 ? [`then ${cameWords(then)}`] : [])].join(' · '),
  })),
);
/** The values with which it goes this way, as far as conditions and waits ask for them. */
const values = computed(() =>
  Object.entries(path.value?.filling.answers ?? {})
    .map(([key, value]) => {
      const label = series.plan.slots.find((slot) => slot.key === key)?.label ?? key;
      const words = typeof value === 'boolean' ? (value ? 'yes' : 'no') : String(value);
      return `${label}: ${/^\d{4}-\d{2}-\d{2}$/.test(words) ? showMoment(`${words}T12:00`, 'weekday') : words}`;
    })
    .join(', '),
);
const message = computed(() => {
  const at = shown.value;
  const program = at === undefined ? undefined : series.steps[at]?.program;
  if (at === undefined || !program || !path.value) return undefined;
  const { recipient, answers } = path.value.filling;
  const due = path.value.steps.find((step) => step.at === at)?.due ?? start;
  return {
    program,
    input: {
      recipient: { ...usual, ...recipient },
      sender: me.fields(),
      answers: exampleAnswers(program, answersOf(series, at, answers), options.value),
      today: new Date(due).toISOString().slice(0, 10),
      zone: calendar.zone,
    },
  };
});
const count = (number: number, one: string): string => `${number} ${one}${number === 1 ? '' : 's'}`;
const MOST_SHOWN = 60;
</script>

<template>
  <section class="tried" aria-label="Tried out">
    <p class="sum" role="status">
      At most {{ count(tried.most, 'message') }} to one person, over {{ tried.complete ? '' : 'at least '
      }}{{ count(tried.longest, 'day') }}. {{ tried.complete ? '' : 'At least '
      }}{{ count(tried.paths.length, 'way') }} it can go.
    </p>
    <p v-if="tried.never.length" class="warning">
      ‸ {{ tried.never.map((at) => `Step ${at + 1}`).join(', ') }} {{ tried.never.length === 1 ? 'goes' : 'go' }} in
      none of them: no values and no outcome let
      {{ tried.never.length === 1 ? 'its condition' : 'their conditions' }} hold.
    </p>
    <p v-if="!tried.complete" class="quiet small">
      There are too many ways to go through all of them; these are the first.
    </p>
    <ol class="rows paths" aria-label="Ways it can go">
      <li v-for="(each, index) in tried.paths.slice(0, MOST_SHOWN)" :key="index">
        <button type="button" class="row path" :aria-current="path === each" @click="chosen = index">
          <span v-for="step in each.steps" :key="step.at" class="leg"
            ><b>{{ step.at + 1 }}</b
            ><span class="small quiet">{{ cameWords(step.then) }}</span></span
          >
          <span class="small quiet">{{ endWords(each) }} · {{ count(each.span, 'day') }}</span>
        </button>
      </li>
    </ol>
    <template v-if="path">
      <p v-if="values" class="quiet small">For example with {{ values }}</p>
      <SeriesTimeline :steps="steps" :start="start" :calendar="calendar" :chosen="shown" @choose="shown = $event" />
      <StepList :steps="steps" :chosen="shown" @choose="shown = $event" />
      <MessageOfStep v-if="message" v-bind="message" />
    </template>
  </section>
</template>

<style scoped>
.tried {
  display: grid;
  gap: 12px;
  align-content: start;
  grid-template-columns: minmax(0, 1fr);
}
.sum {
  font: 500 1.125rem/1.5rem var(--serif);
  margin: 0;
}
.tried p {
  margin: 0;
}
.paths {
  max-height: 216px;
  overflow: auto;
  border-top: 1px solid var(--hair);
}
.path {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: baseline;
  min-height: 36px;
  font: inherit;
  cursor: pointer;
}
.leg {
  display: flex;
  gap: 4px;
  align-items: baseline;
}
</style>
