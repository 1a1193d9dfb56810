<script setup lang="ts">
/** Begins a trial: which versions, how often each, what counts, and the smallest difference that matters. */
import type { CountedShare, StartTrial, Version } from '@vocabula/contract';
import { FEWEST_ARMS, MOST_ARMS, TRIAL_OUTCOMES, type TrialOutcome } from '@vocabula/contract/constants';
import { recipientsNeeded } from '@vocabula/core/insight';
import { computed, ref, watch } from 'vue';
import PickOne from '../ui/controls/PickOne.vue';
import PushButton from '../ui/controls/PushButton.vue';
import TickBox from '../ui/controls/TickBox.vue';
import WholeField from '../ui/dates/WholeField.vue';
import FieldRow from '../ui/controls/FieldRow.vue';
import { OUTCOMES } from './trialWords';

const { versions, used, shares, busy } = defineProps<{
  /** Those that may be tried, the latest first. */
  versions: readonly Version[];
  /** The version in use, which is always one of them. */
  used: number;
  /** What came of the text's messages until now. */
  shares: Readonly<Record<TrialOutcome, CountedShare>> | undefined;
  busy: boolean;
}>();
const emit = defineEmits<{ begin: [trial: StartTrial]; choose: [versions: readonly number[]] }>();

const chosen = ref<readonly number[]>(
  [used, ...versions.map(({ number }) => number).filter((each) => each !== used)].slice(0, 2),
);
const weights = ref<Readonly<Record<number, string>>>({});
const outcome = ref<TrialOutcome>('answered');
const matters = ref('5');
watch(
  chosen,
  (now) =>
    emit(
      'choose',
      [...now].sort((a, b) => a - b),
    ),
  { immediate: true },
);

const choices = TRIAL_OUTCOMES.map((value) => ({ value, words: OUTCOMES[value].label }));
/** A whole number as it was typed, if it lies between the two. */
const within = (typed: string, [least, most]: readonly [number, number]): number | undefined =>
  /^\d{1,3}$/.test(typed) && Number(typed) >= least && Number(typed) <= most ? Number(typed) : undefined;
const [WEIGHTS, POINTS] = [
  [1, 100],
  [1, 50],
] as const;
const points = computed(() => within(matters.value, POINTS));
const weightOf = (version: number): number | undefined => within(weights.value[version] ?? '1', WEIGHTS);
const areWeighed = computed(() => chosen.value.every((version) => weightOf(version) !== undefined));
const isWhole = computed(
  () =>
    chosen.value.length >= FEWEST_ARMS &&
    chosen.value.length <= MOST_ARMS &&
    areWeighed.value &&
    points.value !== undefined,
);
/** How many recipients it takes, at the share that the text has now. */
const needed = computed(() => {
  const before = shares?.[outcome.value];
  if (!before || before.trials === 0 || !isWhole.value || points.value === undefined) return undefined;
  const share = before.successes / before.trials;
  // Of few messages none may have come out well; that none ever will is not to be expected.
  const expected = (before.successes + 1) / (before.trials + 2);
  const count = recipientsNeeded(expected, { matters: points.value / 100, arms: chosen.value.length });
  return count === undefined ? undefined : { count: count.toLocaleString('en'), share: `${Math.round(share * 100)} %` };
});
const toggle = (version: number, isChosen: boolean): void =>
  void (chosen.value = isChosen ? [...chosen.value, version] : chosen.value.filter((each) => each !== version));
function begin(): void {
  const arms = [...chosen.value].sort((a, b) => a - b).map((version) => ({ version, weight: weightOf(version) ?? 1 }));
  emit('begin', { arms, outcome: outcome.value, matters: (points.value ?? 1) / 100 });
}
</script>

<template>
  <form class="begin" aria-label="Begin a trial" @submit.prevent="isWhole && !busy && begin()">
    <fieldset>
      <legend>Versions, and how often each is given: 1 and 1 is half and half</legend>
      <div v-for="version in versions" :key="version.number" class="version">
        <label
          ><TickBox
            :checked="chosen.includes(version.number)"
            :disabled="version.number === used || (chosen.length >= MOST_ARMS && !chosen.includes(version.number))"
            @change="toggle(version.number, $event)"
          />
          Version {{ version.number }}
          <span class="quiet small">{{ version.number === used ? 'in use' : '' }}</span></label
        >
        <span class="quiet small note">{{ version.note }}</span>
        <WholeField
          v-if="chosen.includes(version.number)"
          type="number"
          class="weight"
          :aria-label="`Times version ${version.number} is given`"
          :model-value="weights[version.number] ?? '1'"
          :bounds="WEIGHTS"
          :invalid="weightOf(version.number) === undefined"
          raw
          @update:model-value="weights = { ...weights, [version.number]: $event }"
        />
      </div>
      <p v-if="!areWeighed" class="error small">
        ⚠ Type whole numbers from 1 to 100: with 3 and 1, one version is given three times as often.
      </p>
    </fieldset>
    <FieldRow v-slot="{ id, labelledBy }" label="A message did well when">
      <PickOne v-model="outcome" :input-id="id" :labelled-by="labelledBy" :options="choices" class="outcome" />
    </FieldRow>
    <FieldRow
      v-slot="{ id, describedBy }"
      label="Smallest difference that matters, in 100 recipients"
      :problem="points === undefined ? 'Type a whole number from 1 to 50.' : ''"
    >
      <WholeField
        :id="id"
        v-model="matters"
        type="number"
        class="points"
        :bounds="POINTS"
        :invalid="points === undefined"
        raw
        :described-by="describedBy"
      />
    </FieldRow>
    <p v-if="needed" class="quiet small">
      Until now {{ needed.share }} of its messages do. At that share it takes about {{ needed.count }} recipients a
      version to say that no difference matters; a large difference shows sooner.
    </p>
    <p class="quiet small">
      Each recipient gets one version, the same every time, drawn from their address. Messages sent through the mail
      service count.
    </p>
    <PushButton kind="main" type="submit" :disabled="!isWhole || busy">Begin the trial</PushButton>
  </form>
</template>

<style scoped>
.begin {
  display: grid;
  gap: 16px;
  justify-items: start;
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  width: 100%;
}
legend {
  padding: 0;
  margin-bottom: 4px;
  font-size: 0.8125rem;
}
.version {
  display: grid;
  grid-template-columns: max-content minmax(0, 1fr) 64px;
  gap: 12px;
  align-items: center;
  min-height: 40px;
  border-top: 1px solid var(--hair);
}
.note {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.weight {
  width: 64px;
}
.points {
  width: 96px;
}
.outcome {
  width: 240px;
}
</style>
