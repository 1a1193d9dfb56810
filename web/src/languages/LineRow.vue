<script setup lang="ts">
/** A line of the original, and beside it that of the version, to be written. */
import { plainWords, type Inline, type Variable } from '@vocabula/core';
import { lineFrom, writtenLine, type LanguageRow } from '@vocabula/core/languages';
import { computed, ref, useTemplateRef } from 'vue';
import PushButton from '../ui/controls/PushButton.vue';
import ComparedWords from '../ui/ComparedWords.vue';
import LineEditor from '../write/line/LineEditor.vue';
import LineWords from '../write/line/LineWords.vue';
import { governedWords, isToDo, lineName, STATE } from './languageWords';

const { row, variables, langs } = defineProps<{
  row: LanguageRow;
  variables: readonly Variable[];
  /** The languages of original and version, as tags. */
  langs: readonly [string, string];
}>();
const emit = defineEmits<{ change: [content: Inline[]]; fits: []; next: [] }>();
const editor = useTemplateRef<{ focus(): void }>('editor');
const edited = ref(false);
const line = computed(() => row.version ?? row.original);
const name = computed(() => (line.value ? lineName(line.value, variables) : ''));
/** What the original says now and said before: its words, or all that its file has where only that differs. */
const changed = computed(() => {
  if (row.state !== 'changed' || row.was === undefined || !row.original) return undefined;
  const [was, now] = [plainWords(lineFrom(row.was)), plainWords(row.original.content)];
  return was === now ? { was: row.was, now: writtenLine(row.original) } : { was, now };
});
const around = computed(() => governedWords(row.governed, variables));
const label = computed(() => [name.value || 'Line', around.value, STATE[row.state]].filter(Boolean).join(', '));

function change(content: Inline[]): void {
  edited.value = true;
  emit('change', content);
}
/** A line that was written and is left says what the original says; one that was only looked at stays as it is. */
function left(): void {
  if (edited.value && row.original && row.version && writtenLine(row.original) !== writtenLine(row.version))
    emit('fits');
  edited.value = false;
}
function done(): void {
  edited.value = false;
  emit('fits');
  emit('next');
}
defineExpose({ focus: () => editor.value?.focus() });
</script>

<template>
  <li class="line" :class="row.state">
    <div v-if="name || around" class="about quiet small">{{ [name, around].filter(Boolean).join(' · ') }}</div>
    <div class="original" :lang="langs[0]">
      <ComparedWords v-if="changed" :left="[changed.was]" :right="[changed.now]" side="right" />
      <LineWords v-else-if="row.original" :line="row.original.content" />
      <details v-if="changed" class="small">
        <summary class="quiet">as it was</summary>
        {{ changed.was }}
      </details>
    </div>
    <div class="version">
      <LineEditor
        v-if="row.version"
        ref="editor"
        :line="row.version.content"
        :label="label"
        :form="row.version.plain ? 'plain' : 'whole'"
        :lang="langs[1]"
        @change="change"
        @blur="left"
        @done="done"
      />
    </div>
    <div class="state">
      <span v-if="STATE[row.state]" class="small" :class="isToDo(row) ? 'warning' : 'quiet'"
        >{{ isToDo(row) ? '‸ ' : '' }}{{ STATE[row.state] }}</span
      >
      <PushButton
        v-if="row.version && (row.state === 'changed' || row.state === 'unsure' || row.state === 'open')"
        kind="plain"
        size="small"
        :aria-label="`Fits as it is: ${label}`"
        @click="emit('fits')"
        >Fits as it is</PushButton
      >
    </div>
  </li>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) 128px;
  gap: 2px 24px;
  padding: 8px 0;
  border-bottom: 1px solid var(--hair);
}
.about {
  grid-column: 1 / -1;
}
.original {
  font: 400 0.9375rem/1.4375rem var(--serif);
  padding: 6px 0;
}
.version {
  font: 400 0.9375rem/1.4375rem var(--serif);
}
.state {
  display: grid;
  justify-items: start;
  align-content: start;
  padding-top: 6px;
}
.state > :deep(button) {
  margin-left: -9px;
}
@media (max-width: 899px) {
  .line {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
