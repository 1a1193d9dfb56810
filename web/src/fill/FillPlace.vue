<script setup lang="ts">
/** A message being filled: questions beside the message they change. */
import { useEventListener } from '@vueuse/core';
import PushButton from '../ui/controls/PushButton.vue';
import { foundValues, type FoundValue } from '@vocabula/core/filling';
import { computed, nextTick, onMounted, onUnmounted, ref, useTemplateRef, watch } from 'vue';
import { useRoute } from 'vue-router';
import { api } from '../api/client';
import { keyOf } from '../ui/keys';
import { useNotice } from '../ui/notice';
import { today } from '../ui/today';
import { useWritingTo } from '../ui/writingTo';
import FillFoot from './FillFoot.vue';
import FillHead from './FillHead.vue';
import FillNotes from './FillNotes.vue';
import MessageSheet from './MessageSheet.vue';
import QuestionForm from './QuestionForm.vue';
import StitchPanel from './StitchPanel.vue';
import AnswerPanel from './AnswerPanel.vue';
import { useClipboard } from './useClipboard';
import { useFill } from './useFill';
import { useHandOver } from './useHandOver';
import { useOpening } from './useOpening';
import type { LinePlace } from './useRewording';

const route = useRoute();
const notice = useNotice();
const filling = useFill();
const { fill, recipient, message, program, original, settled } = filling;
const form = useTemplateRef('form');
const sheet = useTemplateRef('sheet');
const focused = ref<string>();
const side = ref<'questions' | 'message'>('questions');
const panel = ref<'stitch' | 'answer'>();
/** Behind which block of the template the caret was last. */
const caret = ref<number>();
const { words: clipboard } = useClipboard(filling);

const found = computed((): FoundValue[] => {
  const { locale = 'en-GB' } = program.value ?? {};
  const mail = original.value ? foundValues(`${original.value.subject}\n${original.value.text}`, today(), locale) : [];
  return [...mail, ...foundValues(clipboard.value, today(), locale)];
});
const blanks = computed(() => message.value?.blanks ?? []);

const { problem, open } = useOpening(filling);
onMounted(async () => {
  notice.clear();
  await open();
  await nextTick();
  const note = fill.value?.notes[0] ?? route.query.noted;
  if (note) notice.say(String(note));
  // Who it is for is known, as when a mail is answered: then what is missing comes first.
  const first = recipient.value.email ? (blanks.value[0] ?? filling.unsure.value[0]?.key) : undefined;
  if (first) focusQuestion(first);
  else form.value?.focusFirst();
});
watch(
  () => route.params.id,
  (id, before) => {
    if (id !== fill.value?.id && (id === 'new' || before !== 'new')) void open();
  },
);
const writingTo = useWritingTo();
watch(
  () => recipient.value.email,
  (address) => (writingTo.address = address ?? ''),
);
onUnmounted(() => (writingTo.address = ''));

function focusQuestion(key: string): void {
  side.value = 'questions';
  form.value?.focusOn(key);
}
const { busy, handOver, subjectCopied } = useHandOver(filling, focusQuestion);
watch(
  () => `${message.value?.subject}\n${message.value?.text}`,
  () => (subjectCopied.value = false),
);

function nextBlank(back: boolean): void {
  const keys = blanks.value.length > 0 ? blanks.value : filling.unsure.value.map(({ key }) => key);
  if (keys.length === 0) return;
  const now = focused.value ? keys.indexOf(focused.value) : -1;
  const next = keys[(now + (back ? -1 : 1) + keys.length) % keys.length] ?? keys[0];
  if (next) focusQuestion(next);
}
function intoMessage(): void {
  side.value = 'message';
  void nextTick(() => sheet.value?.enter());
}
function backToQuestions(): void {
  side.value = 'questions';
  if (focused.value) form.value?.focusOn(focused.value);
  else form.value?.focusFirst();
}
function onKey(event: KeyboardEvent): void {
  const key = keyOf(event);
  const inForm = (event.target as Element | null)?.closest?.('form.questions') !== null;
  switch (key?.id) {
    case 'blank':
      nextBlank(key.back);
      break;
    case 'hand-over':
      void handOver({ way: 'copy' });
      break;
    case 'anyway':
      void handOver(undefined, true);
      break;
    case 'outline':
      if (inForm) intoMessage();
      else backToQuestions();
      break;
    default:
      return;
  }
  event.preventDefault();
}
useEventListener('keydown', onKey);

async function suggest(place: LinePlace): Promise<void> {
  if (!fill.value) return;
  try {
    await settled();
    await api.suggest(fill.value.id, { text: place.text, path: [...place.path] });
    notice.say('Suggested to the owner of this text, without the recipient’s data.');
  } catch (error) {
    notice.fail(error);
  }
}
</script>

<template>
  <div class="fill" :data-fill="fill?.id">
    <FillHead :filling="filling" @panel="panel = panel === $event ? undefined : $event" />
    <main v-if="problem" class="empty">
      <p class="error">⚠ {{ problem }}</p>
      <RouterLink to="/fill">Find another template</RouterLink>
    </main>
    <template v-if="!problem && program && message">
      <FillNotes :filling="filling" :rewording="sheet?.rewording" />
      <nav class="sides" aria-label="Parts">
        <PushButton
          kind="plain"
          v-for="each in ['questions', 'message'] as const"
          :key="each"
          :aria-pressed="side === each"
          @click="side = each"
        >
          {{ each === 'questions' ? 'Questions' : 'Message' }}
        </PushButton>
      </nav>
      <main class="work" :class="`shows-${side}`">
        <QuestionForm
          ref="form"
          class="left"
          :filling="filling"
          :found="found"
          @focused="focused = $event"
          @done="($el.querySelector('.hand-over') as HTMLElement | null)?.focus()"
        >
          <StitchPanel v-if="panel === 'stitch'" :filling="filling" :caret="caret" @close="panel = undefined" />
          <AnswerPanel
            v-if="panel === 'answer'"
            :original="original"
            @take="
              (read) => (
                (original = read?.original),
                read && !recipient.email && (recipient = { ...read.recipient }),
                (panel = undefined)
              )
            "
            @close="panel = undefined"
          />
        </QuestionForm>
        <MessageSheet
          ref="sheet"
          :filling="filling"
          :focused="focused"
          @blank="focusQuestion"
          @key="onKey"
          @leave="backToQuestions"
          @suggest="suggest"
          @caret="caret = $event"
        />
      </main>
      <FillFoot :filling="filling" :busy="busy" :subject-copied="subjectCopied" @hand-over="handOver($event)" />
    </template>
    <p v-else-if="!problem" class="quiet empty">Opening…</p>
  </div>
</template>

<style scoped>
.fill {
  display: flex;
  flex-direction: column;
}
.work {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 448px minmax(0, 1fr);
}
.sides {
  display: none;
}
@media (max-width: 1099px) {
  .work {
    grid-template-columns: 360px minmax(0, 1fr);
  }
}
@media (max-width: 899px) {
  .sides {
    display: flex;
    border-bottom: 1px solid var(--hair);
    padding: 0 8px;
  }
  .sides [aria-pressed='true'] {
    font-weight: 600;
    box-shadow: inset 0 -3px var(--action);
  }
  .work {
    grid-template-columns: minmax(0, 1fr);
  }
  .work.shows-questions > :deep(.message),
  .work.shows-message > .left {
    display: none;
  }
}
</style>
