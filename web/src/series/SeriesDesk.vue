<script setup lang="ts">
/** A series being written: its steps on the left, and on the right every way in which it can go. */
import { ON_ANSWER, type Step, type TextDocument } from '@vocabula/core';
import InputText from 'primevue/inputtext';
import Textarea from 'primevue/textarea';
import { storeToRefs } from 'pinia';
import { computed, defineAsyncComponent, nextTick, shallowRef, useTemplateRef, watch } from 'vue';
import { api } from '../api/client';
import FieldRow from '../ui/controls/FieldRow.vue';
import PickOne from '../ui/controls/PickOne.vue';
import PushButton from '../ui/controls/PushButton.vue';
import NoticeLine from '../ui/NoticeLine.vue';
import { useTexts } from '../ui/stores/lists';
import { useNotice } from '../ui/notice';
import type { Settled, useWorkingCopy } from '../write/useWorkingCopy';
import StepForm from './StepForm.vue';
import TriedOut from './TriedOut.vue';
import { useCompiledSeries } from './useCompiledSeries';

const { copy, document: opened } = defineProps<{
  copy: ReturnType<typeof useWorkingCopy>;
  document: TextDocument;
}>();
const ConflictDialog = defineAsyncComponent(() => import('../write/conflict/ConflictDialog.vue'));
const notice = useNotice();
const store = useTexts();
const { messages } = storeToRefs(store);
void store.load().catch(() => undefined);
const document = shallowRef(opened);
watch(
  () => opened,
  (now) => (document.value = now),
);
const { program, series, calendar } = useCompiledSeries(copy.name, document);
const steps = computed(() => document.value.attrs.steps ?? []);
const front = computed(() => document.value.attrs.front);
const findings = computed(() => program.value.findings.filter(({ place }) => place.text === undefined));
/** What is wrong with it as a whole, not with one of its steps' fields. */
const whole = computed(() => findings.value.filter(({ place }) => !/^steps\.\d/.test(place.attribute ?? '')));
const titles = computed(() =>
  steps.value.map(({ text }) => messages.value.find(({ name }) => name === text)?.title ?? text),
);
const days = computed(() =>
  (series.value?.plan.slots ?? [])
    .filter(({ variable }) => variable.type === 'date' || variable.type === 'datetime')
    .map(({ key }) => key),
);
const askedBy = (at: number): { key: string; label: string }[] =>
  (series.value?.steps[at]?.program?.slots ?? [])
    .filter(({ variable }) => variable.value === undefined && !variable.from?.startsWith('recipient.'))
    .map(({ key, label }) => ({ key, label }));

async function settle(settled: Settled): Promise<void> {
  const copies = await copy.settle(settled);
  document.value = settled.document;
  if (copies.length > 0) notice.say(`Kept besides: ${copies.join(', ')}.`);
}
function keep(changed: TextDocument): void {
  document.value = changed;
  copy.changed(changed);
}
const setSteps = (changed: readonly Step[]): void =>
  keep({ ...document.value, attrs: { ...document.value.attrs, steps: changed } });
const setFront = (key: 'title' | 'description' | 'on_answer', value: string): void => {
  const { [key]: _before, ...rest } = front.value;
  const set = value === '' && key !== 'title' ? rest : { ...rest, [key]: value };
  keep({ ...document.value, attrs: { ...document.value.attrs, front: set as typeof front.value } });
};
const change = (at: number, step: Step): void => setSteps(steps.value.with(at, step));
function move(at: number, by: 1 | -1): void {
  const moved = [...steps.value];
  const [step] = moved.splice(at, 1);
  if (step) moved.splice(at + by, 0, step);
  setSteps(moved);
}
const list = useTemplateRef('list');
async function add(): Promise<void> {
  const text = messages.value.find(({ version }) => version !== undefined)?.name ?? messages.value[0]?.name ?? '';
  setSteps([...steps.value, { text, ...(steps.value.length > 0 ? { days: 7 } : {}) }]);
  await nextTick();
  list.value?.lastElementChild?.querySelector<HTMLElement>('[role=combobox]')?.focus();
}
const ANSWERS = { stop: 'it stops', continue: 'it goes on' } as const;

/** A made-up recipient, for what the messages show of one. */
const usual = shallowRef<Readonly<Record<string, string>>>({});
void (async () => {
  const [set] = await api.tables('sample');
  const [row] = set ? (await api.table(set.id)).cells : [];
  if (row) usual.value = row;
})().catch(() => undefined);
</script>

<template>
  <header class="head">
    <h1>{{ front.title }}</h1>
    <span class="quiet small state" role="status">{{ copy.state.value }}</span>
    <RouterLink v-slot="{ navigate }" :to="{ name: 'versions', params: { name: copy.name.value } }" custom
      ><PushButton class="right" @click="navigate()">Versions</PushButton></RouterLink
    >
    <RouterLink v-slot="{ navigate }" :to="{ name: 'publish', params: { name: copy.name.value } }" custom
      ><PushButton kind="main" @click="navigate()">Publish…</PushButton></RouterLink
    >
  </header>
  <main class="two">
    <section class="left" aria-label="Steps">
      <FieldRow v-slot="{ id }" label="Title, for finding it">
        <InputText
          :id="id"
          :model-value="front.title"
          class="wide"
          maxlength="200"
          @change="setFront('title', ($event.target as HTMLInputElement).value.trim() || front.title)"
        />
      </FieldRow>
      <FieldRow v-slot="{ id }" label="What it is for">
        <Textarea
          :id="id"
          rows="2"
          class="wide"
          :model-value="front.description ?? ''"
          @change="setFront('description', ($event.target as HTMLTextAreaElement).value.trim())"
        />
      </FieldRow>
      <FieldRow v-slot="{ id, labelledBy }" label="When somebody answers">
        <PickOne
          :input-id="id"
          :labelled-by="labelledBy"
          :model-value="front.on_answer ?? 'stop'"
          :options="ON_ANSWER.map((value) => ({ value, words: ANSWERS[value] }))"
          @update:model-value="setFront('on_answer', $event === 'stop' ? '' : $event)"
        />
      </FieldRow>
      <p v-for="finding in whole" :key="finding.message" :class="finding.level === 'error' ? 'error' : 'warning'">
        {{ finding.level === 'error' ? '⚠' : '‸' }} {{ finding.message }}
      </p>
      <ol ref="list" class="steps">
        <StepForm
          v-for="(step, at) in steps"
          :key="at"
          :step="step"
          :number="at + 1"
          :last="at === steps.length - 1"
          :messages="messages"
          :days="days"
          :asked="askedBy(at)"
          :findings="findings"
          @change="change(at, $event)"
          @move="move(at, $event)"
          @remove="setSteps(steps.toSpliced(at, 1))"
        />
      </ol>
      <PushButton :disabled="messages.length === 0" @click="add">Add a step</PushButton>
    </section>
    <section class="right-half" aria-label="Try it out">
      <h2>Tried out</h2>
      <TriedOut v-if="series && steps.length" :series="series" :titles="titles" :calendar="calendar" :usual="usual" />
      <p v-else class="quiet">Add a step: here is shown what can happen, before anybody gets a message.</p>
    </section>
  </main>
  <footer class="foot"><NoticeLine /></footer>
  <ConflictDialog v-if="copy.conflict.value" :clash="copy.conflict.value" @settle="settle" />
</template>

<style scoped>
.two {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
}
.left,
.right-half {
  overflow: auto;
  padding: 20px 24px;
  display: grid;
  gap: 14px;
  align-content: start;
  grid-template-columns: minmax(0, 1fr);
}
.left {
  border-right: 1px solid var(--hair);
  justify-items: start;
}
.left > * {
  max-width: 100%;
}
.left > :deep(.field-row),
.steps,
.wide {
  width: 100%;
}
.steps {
  list-style: none;
  margin: 0;
  padding: 0;
}
h2 {
  font: inherit;
  font-weight: 600;
  margin: 0;
}
.left p {
  margin: 0;
}
@media (max-width: 899px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
    overflow: auto;
  }
  .left,
  .right-half {
    overflow: visible;
    border: 0;
    padding: 16px 12px;
  }
}
@media (max-width: 599px) {
  .state {
    display: none;
  }
}
</style>
