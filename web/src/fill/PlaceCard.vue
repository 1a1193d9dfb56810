<script setup lang="ts">
/** What stands at a place of the message: its questions, and its words. */
import PushButton from '../ui/controls/PushButton.vue';
import type { Question } from '@vocabula/core';
import type { Rewording } from '@vocabula/core/filling';
import { nextTick, onMounted, useTemplateRef } from 'vue';
import QuestionField from './QuestionField.vue';
import { useAtPoint } from '../ui/controls/atPoint';
import type { OpenPlace } from './usePlaces';

const props = defineProps<{
  place: OpenPlace;
  questions: readonly Question[];
  answers: Readonly<Record<string, unknown>>;
  /** Words that are not to be changed here. */
  fixed: boolean;
  reworded: Rewording | undefined;
}>();
const emit = defineEmits<{
  answer: [key: string, value: unknown];
  change: [];
  putBack: [];
  suggest: [];
  close: [];
}>();
const card = useTemplateRef('card');
const style = useAtPoint(card, () => props.place);
onMounted(() => void nextTick(() => card.value?.querySelector<HTMLElement>('.control, button')?.focus()));
function onKey(event: KeyboardEvent): void {
  const enter = event.key === 'Enter' && !(event.target as HTMLElement).matches('button, textarea');
  if (event.key !== 'Escape' && !enter) return;
  event.preventDefault();
  event.stopPropagation();
  emit('close');
}
</script>

<template>
  <div class="behind" @mousedown.prevent="emit('close')" />
  <div ref="card" class="sheet card" role="dialog" aria-label="About this place" :style="style" @keydown="onKey">
    <QuestionField
      v-for="question in questions"
      :key="question.key"
      :question="question"
      :given="answers[question.key]"
      adds=""
      @answer="emit('answer', question.key, $event)"
    />
    <p v-if="fixed && place.line" class="quiet small">This wording is fixed and cannot be changed here.</p>
    <div v-else-if="place.line" class="ways">
      <PushButton @click="emit('change')">Change these words</PushButton>
      <template v-if="reworded">
        <PushButton kind="plain" @click="emit('putBack')">Put back</PushButton>
        <PushButton kind="plain" @click="emit('suggest')">Suggest this wording</PushButton>
      </template>
    </div>
  </div>
</template>

<style scoped>
.behind {
  position: fixed;
  inset: 0;
  z-index: 14;
}
.card {
  width: 320px;
  z-index: 15;
  padding: 12px 16px;
  max-height: 60vh;
  overflow: auto;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
