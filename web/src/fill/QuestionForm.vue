<script setup lang="ts">
/** The questions in reading order, under the passages and blocks they belong to; the recipient first. */
import { fitting, isBorrowed, type FoundValue } from '@vocabula/core/filling';
import { computed, nextTick, useTemplateRef } from 'vue';
import { addedWords } from './addedWords';
import QuestionField from './QuestionField.vue';
import RecipientField from './RecipientField.vue';
import type { Filling } from './useFill';

const props = defineProps<{ filling: Filling; found: readonly FoundValue[] }>();
const emit = defineEmits<{ focused: [key: string | undefined]; done: [] }>();
const { recipient, answers, asked, offered, program, unsure, answer, confirm, fill, recipientTaken } = props.filling;
const form = useTemplateRef('form');

const titleOf = (name: string | undefined): string[] => {
  const title = fill.value?.texts.find((text) => text.name === name)?.document.attrs.front.title;
  return title ? [title] : [];
};
const groups = computed(() => {
  const out: { title: string; questions: typeof asked.value }[] = [];
  for (const question of asked.value) {
    const title = [...titleOf(question.block), ...question.within].join(' · ');
    const last = out.at(-1);
    if (last?.title === title) last.questions.push(question);
    else out.push({ title, questions: [question] });
  }
  return out;
});
const unsureKeys = computed(() => new Set(unsure.value.map(({ key }) => key)));

function focusOn(key: string): void {
  void nextTick(() => {
    const question = form.value?.querySelector<HTMLElement>(`[data-question="${CSS.escape(key)}"]`);
    const control = question?.querySelector<HTMLElement>('.control') ?? question?.querySelector<HTMLElement>('input');
    control?.focus();
    control?.scrollIntoView({ block: 'nearest' });
  });
}
const keyAt = (element: Element | null): string | undefined =>
  element?.closest<HTMLElement>('[data-question]')?.dataset.question;

/** What needs no look: the recipient’s and the sender’s own values, and what was answered or confirmed already. */
const isSettled = (key: string): boolean => {
  const question = asked.value.find((each) => each.key === key);
  return (
    question !== undefined &&
    !unsureKeys.value.has(key) &&
    question.value !== undefined &&
    (question.source === 'recipient' || question.source === 'sender')
  );
};
/** Goes on to the next question that somebody has to look at; behind the last to handing over. */
function next(from: Element | null): void {
  const controls = [...(form.value?.querySelectorAll<HTMLElement>('.control') ?? [])];
  const at = controls.findIndex((control) => control === from || control.contains(from));
  const found = controls.slice(at + 1).find((control) => !isSettled(keyAt(control) ?? ''));
  if (found) found.focus();
  else emit('done');
}
function onEnter(event: KeyboardEvent): void {
  const target = event.target as HTMLElement;
  if (event.ctrlKey || event.metaKey || event.altKey || target.tagName === 'BUTTON') return;
  if (target.tagName === 'TEXTAREA' && event.shiftKey) return;
  event.preventDefault();
  const key = keyAt(target);
  if (key) {
    confirm(key);
    // A borrowed value that was confirmed is this message's own from now on.
    const question = asked.value.find((each) => each.key === key);
    if (question && isBorrowed(question) && answers.value[key] === undefined) answer(key, offered.value[key]?.value);
  }
  // Whoever is meant is taken first: it decides what is still to be asked.
  void nextTick(() => next(target));
}
const controlsOf = (): HTMLElement | null | undefined => form.value?.querySelector<HTMLElement>('.control');
defineExpose({ focusOn, focusFirst: () => controlsOf()?.focus() });
</script>

<template>
  <form
    ref="form"
    class="questions"
    aria-label="Questions"
    @submit.prevent
    @keydown.enter="onEnter"
    @focusin="emit('focused', keyAt($event.target as Element))"
  >
    <slot />
    <RecipientField v-model="recipient" @taking="recipientTaken = $event" />
    <div v-for="group in groups" :key="group.title + group.questions[0]?.key" :class="{ group: group.title }">
      <p v-if="group.title" class="quiet small within">{{ group.title }}</p>
      <QuestionField
        v-for="question in group.questions"
        :key="question.key"
        :question="question"
        :given="answers[question.key]"
        :adds="program ? addedWords(program, question) : ''"
        :unsure="unsureKeys.has(question.key)"
        :from="offered[question.key]?.from"
        :offers="question.source === 'answer' ? [] : fitting(found, question.type)"
        @answer="answer(question.key, $event)"
      />
    </div>
    <p v-if="asked.length === 0" class="quiet">No more questions.</p>
  </form>
</template>

<style scoped>
.questions {
  overflow: auto;
  padding: 20px 28px;
  border-right: 1px solid var(--hair);
}
.group {
  position: relative;
  padding-left: 18px;
  margin-bottom: 16px;
}
.group::before {
  content: '';
  position: absolute;
  left: 0;
  top: 2px;
  bottom: 2px;
  width: 8px;
  border: 1.5px solid var(--quiet);
  border-right: 0;
}
.within {
  margin-bottom: 8px;
}
@media (max-width: 899px) {
  .questions {
    border: 0;
    padding: 16px;
  }
}
</style>
