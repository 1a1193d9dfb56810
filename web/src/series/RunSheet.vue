<script setup lang="ts">
/** One series under way: its line of time, each step with what may be done to it, and the message that it is. */
import type { ChangeStep, Run, RunStep, ShownMessage } from '@vocabula/contract';
import { computed, ref, shallowRef, useId, watch } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../api/client';
import PushButton from '../ui/controls/PushButton.vue';
import MessagePaper from '../ui/MessagePaper.vue';
import MomentField from '../ui/dates/MomentField.vue';
import { showMoment } from '../ui/dates/reader';
import { WHOLE_LOOK } from '../ui/look';
import { pageBody } from '../ui/pageBody';
import { useNotice } from '../ui/notice';
import { fieldOf } from '../fill/times';
import SeriesTimeline from './SeriesTimeline.vue';
import StepList from './StepList.vue';
import { runWords, stepWords } from './seriesWords';
import { shownStep } from './shownSteps';

const { id } = defineProps<{ id: string }>();
const emit = defineEmits<{ changed: [] }>();
const notice = useNotice();
const router = useRouter();
const run = shallowRef<Run>();
const problem = ref('');
const busy = ref(false);
const shown = ref(0);
const message = shallowRef<ShownMessage>();
const moving = ref<string>();
const momentLabel = useId();

async function load(): Promise<void> {
  try {
    const found = await api.run(id);
    run.value = found;
    shown.value = found.next?.at ?? Math.max(0, found.plan.length - 1);
  } catch (failure) {
    problem.value = failure instanceof Error ? failure.message : 'This could not be read.';
  }
}
void load();
watch([shown, run], async ([at, now]) => {
  moving.value = undefined;
  if (!now) return;
  const found = await api.stepMessage(id, at).catch(() => undefined);
  if (shown.value === at) message.value = found;
});
const step = computed((): RunStep | undefined => run.value?.plan[shown.value]);
const steps = computed(() => (run.value?.plan ?? []).map((each) => shownStep(each, stepWords(each))));
const calendar = computed(() => ({
  zone: run.value?.zone ?? 'UTC',
  days: run.value?.days ?? [],
  holidays: new Set(run.value?.holidays),
}));
/** A later step that has gone leaves the ones before it as they are. */
const isOpen = computed(
  () =>
    run.value?.state === 'going' &&
    !run.value.plan.some(({ at, state }) => at > shown.value && state === 'gone') &&
    step.value?.state !== 'gone',
);
const isAhead = computed(() => isOpen.value && (step.value?.state === 'waiting' || step.value?.state === 'look'));

async function act(work: () => Promise<Run>, words: string): Promise<void> {
  busy.value = true;
  try {
    run.value = await work();
    emit('changed');
    notice.say(words);
  } catch (failure) {
    notice.fail(failure);
  } finally {
    busy.value = false;
  }
}
const change = (body: ChangeStep, words: string): Promise<void> =>
  act(() => api.changeStep(id, shown.value, body), words);
const stop = (): Promise<void> => act(() => api.stopRun(id), 'Stopped: no more of its messages go.');
function move(): void {
  const at = new Date(moving.value ?? '');
  if (Number.isNaN(at.getTime())) return notice.fail(new Error('Type a day and a time.'));
  void change({ due: at.toISOString() }, 'Moved. What is counted from it moves along.');
}
const beginMove = (): void => void (moving.value = fieldOf(new Date(step.value?.moment ?? Date.now())));
const edit = (): void => void router.push({ name: 'filling', params: { id: step.value?.fill ?? '' } });
</script>

<template>
  <section class="sheet-of-run" aria-label="This series">
    <p v-if="problem" class="error">⚠ {{ problem }}</p>
    <template v-if="run">
      <div class="title">
        <h2>{{ run.name || run.address || 'Somebody forgotten' }}</h2>
        <RouterLink v-if="run.address" class="small" :to="{ name: 'recipients', params: { address: run.address } }">{{
          run.address
        }}</RouterLink>
        <PushButton v-if="run.state === 'going'" class="right" :disabled="busy" @click="stop">Stop it</PushButton>
      </div>
      <p class="quiet small" role="status">
        “{{ run.title }}”, started {{ showMoment(run.startedAt, 'figures') }} · {{ runWords(run) }}
      </p>
      <SeriesTimeline
        :steps="steps"
        :start="Date.parse(run.startedAt)"
        :now="run.state === 'going' ? Date.parse(run.now) : undefined"
        :calendar="calendar"
        :chosen="shown"
        @choose="shown = $event"
      />
      <StepList :steps="steps" :chosen="shown" @choose="shown = $event" />
      <div v-if="isOpen" class="acts">
        <PushButton
          v-if="step?.state === 'look'"
          kind="main"
          :disabled="busy || (message?.blanks.length ?? 0) > 0"
          @click="change({ act: 'let go' }, 'It goes.')"
          >Let it go</PushButton
        >
        <template v-if="isAhead">
          <PushButton :disabled="busy" @click="edit">Change the message…</PushButton>
          <PushButton
            :disabled="busy"
            :aria-expanded="moving !== undefined"
            @click="moving === undefined ? beginMove() : (moving = undefined)"
            >Move…</PushButton
          >
          <PushButton :disabled="busy" @click="change({ act: 'skip' }, 'This step is left out.')">Leave out</PushButton>
        </template>
        <PushButton v-else :disabled="busy" @click="change({ act: 'take in' }, 'It goes after all.')"
          >Take in again</PushButton
        >
      </div>
      <form v-if="moving !== undefined" class="acts" aria-label="Another moment" @submit.prevent="move">
        <span :id="momentLabel" class="small quiet">It goes on</span>
        <MomentField v-model="moving" :labelled-by="momentLabel" />
        <PushButton type="submit" :disabled="busy">Move it there</PushButton>
      </form>
      <MessagePaper
        v-if="message"
        :subject="message.subject"
        :blanks="message.blanks"
        :fragment="pageBody(message.html)"
        :look="WHOLE_LOOK"
      />
    </template>
  </section>
</template>

<style scoped>
.sheet-of-run {
  overflow: auto;
  padding: 20px 24px;
  display: grid;
  gap: 12px;
  align-content: start;
  grid-template-columns: minmax(0, 1fr);
}
.title,
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: baseline;
}
.title h2 {
  font: 500 1.25rem/1.75rem var(--serif);
  margin: 0;
}
.sheet-of-run p {
  margin: 0;
}
@media (max-width: 899px) {
  .sheet-of-run {
    overflow: visible;
    padding: 16px 12px;
  }
}
</style>
