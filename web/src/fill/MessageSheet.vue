<script setup lang="ts">
/** The message beside its questions, and worked in: values, ticks and options where they stand, words by typing. */
import { PROOF_CLASS, PROOF_DATA, writtenEnvelope } from '@vocabula/core';
import { computed, nextTick, useTemplateRef } from 'vue';
import { useMe } from '../ui/me';
import { WORKED_STOPS } from '../ui/proofMarks';
import ProofFrame from '../ui/ProofFrame.vue';
import OriginalMail from './OriginalMail.vue';
import PlaceCard from './PlaceCard.vue';
import type { Worked } from './useMessage';
import { usePlaces } from './usePlaces';
import { useRewording, type LinePlace } from './useRewording';

const props = defineProps<{ filling: Worked; focused?: string | undefined }>();
const emit = defineEmits<{
  blank: [key: string];
  key: [event: KeyboardEvent];
  leave: [];
  suggest: [place: LinePlace];
  /** Behind which block of the template the caret was last. */
  caret: [block: number];
}>();
const { message, look, unsure, original, all, fill, answer, confirm } = props.filling;
const me = useMe();
const frame = useTemplateRef('frame');
const rewording = useRewording(props.filling);
const { editing, begin, end, placeOf, isFixed, rewordingAt, putBack, reworded } = rewording;
const places = usePlaces(props.filling, placeOf);
const { open } = places;
const unsureKeys = computed(() => new Set(unsure.value.map(({ key }) => key)));
const addresses = computed(() => {
  if (!message.value) return [];
  const { to, cc, bcc } = writtenEnvelope(message.value);
  return [
    `To ${to.join(', ') || 'no one yet'}`,
    cc.length > 0 ? `Cc ${cc.join(', ')}` : '',
    bcc.length > 0 ? `Bcc ${bcc.join(', ')}` : '',
    message.value.attachments.map((file) => file.name).join(', '),
    me.who?.workspace.counting ? 'opening and links are counted if the mail service sends it' : '',
  ].filter(Boolean);
});
const isReply = computed(() => fill.value?.texts[0]?.document.attrs.front.purpose === 'reply');

/** The lines and what is left out, as keys go through them. */
const stops = (): HTMLElement[] => [...(frame.value?.page()?.querySelectorAll<HTMLElement>(WORKED_STOPS) ?? [])];
function enter(): void {
  const marked = frame.value?.page()?.querySelector('.vx-now')?.closest<HTMLElement>(`[${PROOF_DATA.line}]`);
  (marked ?? stops()[0])?.focus();
}
function frameBox(): DOMRect {
  return frame.value?.frame?.getBoundingClientRect() ?? new DOMRect();
}
function press(target: Element): void {
  if (editing.value) end(true);
  const blank = target.closest(`[${PROOF_DATA.blank}]`);
  noteCaret(target);
  const left = target.closest(`.${PROOF_CLASS.leftOut} > summary`);
  places.show(left ?? target, frameBox());
  if (blank && open.value?.questions.length === 0) emit('blank', blank.getAttribute(PROOF_DATA.blank) ?? '');
}
function noteCaret(target: Element): void {
  const path = target.closest(`[${PROOF_DATA.path}]`)?.getAttribute(PROOF_DATA.path)?.split('.').map(Number);
  if (path?.[1] !== undefined) emit('caret', path[1] + 1);
}
async function change(line: LinePlace): Promise<void> {
  places.close();
  await nextTick();
  begin(line);
}
function onKey(event: KeyboardEvent): void {
  if (editing.value) {
    if (event.key === 'Escape' || (event.key === 'Enter' && !event.shiftKey)) {
      event.preventDefault();
      const { address } = editing.value;
      end(event.key === 'Enter');
      void nextTick(() =>
        stops()
          .find((stop) => stop.getAttribute(PROOF_DATA.line) === address)
          ?.focus(),
      );
      if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) emit('key', event);
      return;
    }
    if (event.ctrlKey || event.metaKey || event.key.length === 1) return;
    return emit('key', event);
  }
  const page = frame.value?.page();
  const at = stops().indexOf(page?.activeElement as HTMLElement);
  const stop = stops()[at];
  const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
  if (step !== 0 && at >= 0) {
    event.preventDefault();
    return stops()[(at + step + stops().length) % stops().length]?.focus();
  }
  if (event.key === 'Escape') return emit('leave');
  const plain = !event.ctrlKey && !event.metaKey && !event.altKey;
  const changed = stop?.matches('.vx-reworded') ? placeOf(stop) : undefined;
  if (changed && plain && (event.key === 's' || event.key === 'Backspace')) {
    event.preventDefault();
    if (event.key === 's') emit('suggest', changed);
    else putBack(changed);
    return;
  }
  if (stop && plain && (event.key === 'Enter' || event.key === ' ')) {
    event.preventDefault();
    noteCaret(stop);
    const line = stop.matches(`[${PROOF_DATA.line}]`) ? placeOf(stop) : undefined;
    if (event.key === 'Enter' && line && !isFixed(line)) return begin(line);
    return places.show(stop, frameBox());
  }
  emit('key', event);
}
function onBlur(event: FocusEvent): void {
  if (editing.value && event.target === editing.value.element) end(true);
}
/** Each time the page was made or replaced: a listener that is there already is not added again. */
function shown(): void {
  frame.value?.page()?.addEventListener('focusout', onBlur);
}
function closeCard(): void {
  const address = open.value?.line?.address;
  places.close();
  const stop = stops().find((each) => each.getAttribute(PROOF_DATA.line) === address);
  if (stop) stop.focus();
  else emit('leave');
}
defineExpose({ enter, rewording });
</script>

<template>
  <section class="message" aria-label="Message">
    <article v-if="message" class="sheet page">
      <h2 class="subject">
        {{ message.subject || (original ? `Re: ${original.subject}` : 'uses the subject of the mail it answers') }}
      </h2>
      <p class="quiet small">{{ addresses.join(' · ') }}</p>
      <ProofFrame
        v-if="look"
        ref="frame"
        class="words"
        :fragment="message.fragment"
        v-bind="look"
        title="The message"
        :focus-of="focused"
        :held="editing !== undefined"
        :reworded="reworded"
        :unsure="unsureKeys"
        worked
        pad="4px 8px"
        @press="press"
        @shown="shown"
        @key="onKey"
      />
      <OriginalMail v-if="original" v-model:all="all" :original="original" :quoted="isReply" />
    </article>
    <PlaceCard
      v-if="open"
      :place="open"
      :questions="places.questionsOf(open)"
      :answers="filling.answers.value"
      :fixed="open.line ? isFixed(open.line) : true"
      :reworded="open.line ? rewordingAt(open.line) : undefined"
      @answer="(key, value) => (answer(key, value), confirm(key))"
      @change="open.line && change(open.line)"
      @put-back="open.line && (putBack(open.line), places.close())"
      @suggest="open.line && (emit('suggest', open.line), places.close())"
      @close="closeCard"
    />
    <p class="unseen">
      Press words to change what stands there. F6 goes into the message, arrows through its lines. Enter types, Space
      shows what governs a line; on a changed line S suggests its wording and Backspace puts it back.
    </p>
  </section>
</template>

<style scoped>
.message {
  overflow: hidden;
  padding: 24px;
  min-width: 0;
  position: relative;
}
.page {
  max-width: 640px;
  height: 100%;
  margin: 0 auto;
  padding: 26px 40px;
  display: flex;
  flex-direction: column;
  gap: 4px;
}
.subject {
  font:
    600 0.9375rem/1.5rem Arial,
    sans-serif;
}
.words {
  flex: 1;
  margin-top: 8px;
  /* Room for what is lit around lines: the page has as much on either side. */
  width: calc(100% + 16px);
  margin-inline: -8px;
}
@media (max-width: 1099px) {
  .page {
    padding: 20px 24px;
  }
}
@media (max-width: 899px) {
  .message {
    padding: 12px;
  }
}
</style>
