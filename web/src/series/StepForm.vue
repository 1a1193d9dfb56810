<script setup lang="ts">
/** One step of a series: which template, when, under what condition, and whether somebody looks at it first. */
import type { TextSummary } from '@vocabula/contract';
import { labelFromKey, MOST_DAYS, type Finding, type Step } from '@vocabula/core';
import { computed } from 'vue';
import FieldRow from '../ui/controls/FieldRow.vue';
import PickOne from '../ui/controls/PickOne.vue';
import PushButton from '../ui/controls/PushButton.vue';
import TickBox from '../ui/controls/TickBox.vue';
import WholeField from '../ui/dates/WholeField.vue';
import StepCondition from './StepCondition.vue';

const { step, number, last, messages, days, asked, findings } = defineProps<{
  step: Step;
  /** From 1. */
  number: number;
  last: boolean;
  messages: readonly TextSummary[];
  /** Keys of the days among the values of the series. */
  days: readonly string[];
  /** Questions of the template, which may be asked on the day. */
  asked: readonly { readonly key: string; readonly label: string }[];
  findings: readonly Finding[];
}>();
const emit = defineEmits<{ change: [step: Step]; move: [by: 1 | -1]; remove: [] }>();

const change = (changed: Partial<Record<keyof Step, Step[keyof Step] | undefined>>): void => {
  const whole = { ...step, ...changed };
  emit(
    'change',
    Object.fromEntries(Object.entries(whole).filter(([, value]) => value !== undefined)) as unknown as Step,
  );
};
const UNITS = [
  { value: 'days', words: 'days' },
  { value: 'working', words: 'working days' },
];
/** What it is counted from: the step before, or a day among the values. */
const anchors = computed(() => [
  { value: '', words: number === 1 ? 'after the start' : 'after the step before' },
  ...days.flatMap((key) => [
    { value: `before ${key}`, words: `before ${labelFromKey(key)}` },
    { value: `after ${key}`, words: `after ${labelFromKey(key)}` },
  ]),
]);
const anchor = computed(() =>
  step.before !== undefined ? `before ${step.before}` : step.after !== undefined ? `after ${step.after}` : '',
);
function setAnchor(words: string): void {
  const [side, key] = words.split(' ');
  change({ before: side === 'before' ? key : undefined, after: side === 'after' ? key : undefined });
}
const problemOf = (attribute: string): string =>
  findings.find(({ place }) => place.attribute === `steps.${number}.${attribute}`)?.message ?? '';
const later = (key: string, isLater: boolean): void => {
  const keys = isLater ? [...(step.later ?? []), key] : (step.later ?? []).filter((each) => each !== key);
  change({ later: keys.length > 0 ? keys : undefined });
};
</script>

<template>
  <li class="step" :aria-label="`Step ${number}`">
    <span class="number" aria-hidden="true">{{ number }}</span>
    <div class="fields">
      <FieldRow v-slot="{ id, labelledBy, describedBy }" label="Template" :problem="problemOf('text')">
        <PickOne
          :input-id="id"
          :labelled-by="labelledBy"
          :described-by="describedBy"
          :model-value="step.text"
          :options="messages.map(({ name, title }) => ({ value: name, words: title }))"
          @update:model-value="change({ text: $event })"
        />
      </FieldRow>
      <div class="wait" role="group" aria-label="When">
        <WholeField
          type="number"
          class="count"
          aria-label="How many"
          :bounds="[0, MOST_DAYS]"
          :model-value="String(step.days ?? 0)"
          @update:model-value="change({ days: Number($event) || undefined })"
        />
        <PickOne
          label="Days or working days"
          :model-value="step.working ? 'working' : 'days'"
          :options="UNITS"
          @update:model-value="change({ working: $event === 'working' ? true : undefined })"
        />
        <PickOne
          label="Counted from"
          class="anchor"
          :model-value="anchor"
          :options="anchors"
          @update:model-value="setAnchor"
        />
        <label class="at"
          ><span class="quiet">at</span
          ><WholeField
            type="time"
            class="clock"
            aria-label="Time of day"
            :model-value="step.at ?? ''"
            @update:model-value="change({ at: $event || undefined })"
        /></label>
      </div>
      <p v-if="problemOf('wait')" class="error small">⚠ {{ problemOf('wait') }}</p>
      <StepCondition :when="step.when" :problem="problemOf('when')" @change="change({ when: $event })">
        <label class="tick"
          ><TickBox :checked="step.look === true" @change="change({ look: $event ? true : undefined })" /> look at it
          before it goes</label
        >
      </StepCondition>
      <details v-if="asked.length" :open="(step.later?.length ?? 0) > 0 || undefined">
        <summary class="small quiet">Asked on the day, not at the start: {{ step.later?.length ?? 0 }}</summary>
        <div class="later">
          <label v-for="each in asked" :key="each.key" class="tick"
            ><TickBox :checked="step.later?.includes(each.key) ?? false" @change="later(each.key, $event)" />
            {{ each.label }}</label
          >
        </div>
      </details>
    </div>
    <div class="acts">
      <PushButton
        kind="plain"
        size="small"
        :aria-label="`Move step ${number} up`"
        :disabled="number === 1"
        @click="emit('move', -1)"
        >↑</PushButton
      >
      <PushButton
        kind="plain"
        size="small"
        :aria-label="`Move step ${number} down`"
        :disabled="last"
        @click="emit('move', 1)"
        >↓</PushButton
      >
      <PushButton kind="plain" size="small" :aria-label="`Take step ${number} out`" @click="emit('remove')"
        >×</PushButton
      >
    </div>
  </li>
</template>

<style scoped>
.step {
  display: grid;
  grid-template-columns: 28px minmax(0, 1fr) auto;
  gap: 12px;
  padding: 16px 0;
  border-top: 1px solid var(--hair);
}
.number {
  width: 26px;
  height: 26px;
  border: 2px solid var(--action);
  border-radius: 50%;
  display: grid;
  place-items: center;
  font-weight: 600;
  font-size: 0.8125rem;
}
.fields {
  display: grid;
  gap: 10px;
}
.wait {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.wait > :deep(*) {
  width: auto;
}
.wait :deep(.count) {
  width: 64px;
}
.wait :deep(.clock) {
  width: 128px;
}
.at,
.tick {
  display: flex;
  gap: 6px;
  align-items: center;
}
.later {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  padding-top: 6px;
}
.acts {
  display: flex;
  align-items: start;
}
</style>
