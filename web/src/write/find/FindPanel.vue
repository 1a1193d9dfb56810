<script setup lang="ts">
/** Find and replace in the text that is being written, wordings, targets and alternative texts included. */
import TickBox from '../../ui/controls/TickBox.vue';
import InputText from 'primevue/inputtext';
import PushButton from '../../ui/controls/PushButton.vue';
import { findMatches, patternFor, replaceMatches, type LineRef, type Match } from '@vocabula/core';
import { computed, onBeforeUnmount, onMounted, ref, useTemplateRef, watch } from 'vue';
import { useNotice } from '../../ui/notice';
import { placeInWords } from '../bar/placeInWords';
import type { Desk } from '../desk/useDesk';
import { point } from '../editor/plugins/highlights';
import { changeTo, documentOf } from '../editor/operations/apply';
import { goTo, positionOf, type Range } from '../editor/operations/places';

const props = defineProps<{ desk: Pick<Desk, 'checkpoint' | 'fields' | 'going' | 'manuscript'> }>();
const notice = useNotice();
const { manuscript, going, fields } = props.desk;
const { editor } = manuscript;
const field = useTemplateRef<{ $el: HTMLInputElement }>('field');
const words = ref('');
const by = ref('');
const exact = ref(false);
const whole = ref(false);
const at = ref(0);

const matches = computed<readonly Match[]>(() => {
  void manuscript.current.value;
  const pattern = patternFor(words.value, { exact: exact.value, whole: whole.value });
  return pattern ? findMatches(documentOf(editor), pattern, manuscript.front.value.locale ?? 'en-GB') : [];
});
/** The stretch of the manuscript that a match in a line of it is. */
function rangeOf({ line, start, end }: Match): Range | undefined {
  if (line.kind !== 'line') return undefined;
  const pos = positionOf(editor.state.doc, line.path);
  return pos === undefined ? undefined : { from: pos + 1 + start, to: pos + 1 + end };
}
function pointOut(): void {
  const ranges = matches.value.map((match) => rangeOf(match) ?? { from: 0, to: 0 });
  editor.view.dispatch(point(editor.state, ranges, at.value));
}
watch([matches, at], () => {
  if (at.value >= matches.value.length) at.value = 0;
  pointOut();
});
onMounted(() => {
  const { from, to } = editor.state.selection;
  const selected = editor.state.doc.textBetween(from, to, ' ').trim();
  if (selected !== '' && selected.length < 80) words.value = selected;
  field.value?.$el.focus();
  field.value?.$el.select();
});
onBeforeUnmount(() => {
  if (!editor.isDestroyed) editor.view.dispatch(point(editor.state, []));
});

/** Shows a match where it stands; the keys stay here. */
function show(index: number): void {
  const count = matches.value.length;
  if (count === 0) return;
  at.value = (index + count) % count;
  const match = matches.value[at.value] as Match;
  const range = rangeOf(match);
  if (range) {
    const kept = document.activeElement as HTMLElement | null;
    goTo(editor, range);
    kept?.focus();
  } else if (match.line.kind === 'wording') going.showVariable(match.line.variable, match.line.option);
  else going.showPath(match.line.path);
}
async function replace(which: readonly Match[]): Promise<void> {
  if (which.length === 0) return;
  if (which.length > 1) await props.desk.checkpoint('replace-all');
  const { tr } = editor.state;
  const next = replaceMatches(documentOf(editor), which, () => by.value);
  if (changeTo(tr, editor.schema.nodeFromJSON(next))) editor.view.dispatch(tr);
  manuscript.settle();
  notice.say(`${which.length} ${which.length === 1 ? 'place' : 'places'} replaced.`, fields.undo);
  pointOut();
}
const key = (line: LineRef): string => JSON.stringify(line);
</script>

<template>
  <form class="find" @submit.prevent="show(at + 1)">
    <div class="fields">
      <label class="field"
        ><span>Find</span
        ><InputText ref="field" v-model="words" type="search" @keydown.shift.enter.prevent="show(at - 1)"
      /></label>
      <label class="field"
        ><span>Replace with</span><InputText v-model="by" @keydown.enter.prevent="replace(matches.slice(at, at + 1))"
      /></label>
    </div>
    <p class="acts">
      <label><TickBox v-model="exact" /> match case</label>
      <label><TickBox v-model="whole" /> whole words</label>
      <span class="quiet small right" role="status">{{
        words.trim() === ''
          ? ''
          : matches.length === 0
            ? 'not found'
            : `${Math.min(at + 1, matches.length)} of ${matches.length}`
      }}</span>
    </p>
    <p class="acts">
      <PushButton type="submit" :disabled="matches.length === 0">Next</PushButton>
      <PushButton :disabled="matches.length === 0" @click="show(at - 1)">Before</PushButton>
      <PushButton :disabled="matches.length === 0" @click="replace(matches.slice(at, at + 1))"> Replace </PushButton>
      <PushButton :disabled="matches.length === 0" @click="replace(matches)">
        Replace all {{ matches.length || '' }}
      </PushButton>
    </p>
    <ul v-if="matches.length > 0" class="rows" aria-label="Found">
      <li v-for="(match, index) in matches.slice(0, 100)" :key="`${key(match.line)} ${match.start}`">
        <button type="button" class="row" :aria-current="index === at" @click="show(index)">
          <span v-if="placeInWords(match.line)" class="quiet small">{{ placeInWords(match.line) }} </span>{{
            match.before
          }}<b>{{ match.words }}</b
          >{{ match.after }}
        </button>
      </li>
    </ul>
  </form>
</template>

<style scoped>
.find {
  padding: 8px 14px;
  display: grid;
  gap: 8px;
}
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
.acts {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 0.8125rem;
}
.rows {
  margin: 0 -14px;
}
.row {
  padding: 4px 14px;
  font-size: 0.8125rem;
  line-height: 1.25rem;
}
</style>
