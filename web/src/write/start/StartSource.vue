<script setup lang="ts">
/** Where the words come from: the clipboard, a file, a starter for an occasion, another text. */
import { useFileChoice } from '../../ui/controls/fileChoice';
import PushButton from '../../ui/controls/PushButton.vue';
import InputText from 'primevue/inputtext';
import type { Starter, TextSummary } from '@vocabula/contract';
import { holdsWords } from '@vocabula/core';
import { computed, onMounted, ref, useTemplateRef } from 'vue';
import { api } from '../../api/client';
import type { Start } from './useStart';

const props = defineProps<{ start: Start; texts: readonly TextSummary[] }>();
const { from, document, notes, problem, busy } = props.start;
const starters = ref<readonly Starter[]>([]);
const chosen = ref('');
const query = ref('');
const over = ref(false);
const pasteHere = useTemplateRef<HTMLElement>('pasteHere');
const copies = computed(() =>
  props.texts
    .filter((text) => holdsWords(`${text.title} ${text.subject} ${text.call ?? ''}`, query.value))
    .slice(0, 12),
);
onMounted(async () => {
  pasteHere.value?.focus();
  if (from.value === 'starter') starters.value = await api.starters().catch(() => []);
});
function given([file]: readonly File[]): void {
  over.value = false;
  if (file) void props.start.file(file);
}
const choose = useFileChoice(given, { accept: '.eml,.html,.htm,.md,.markdown,.txt,.docx,.odt' });
function takeStarter(starter: Starter): void {
  chosen.value = starter.name;
  props.start.starter(starter);
}
function takeCopy(text: TextSummary): void {
  chosen.value = text.name;
  void props.start.copy(text.name);
}
</script>

<template>
  <div
    v-if="from === 'paste'"
    ref="pasteHere"
    class="drop"
    tabindex="0"
    role="button"
    aria-label="Paste here"
    @paste.prevent="start.paste($event.clipboardData)"
  >
    {{
      document ? 'Pasted. Paste again to put something else in its place.' : 'Paste here: its form is kept and cleaned.'
    }}
  </div>
  <div
    v-else-if="from === 'file'"
    class="drop"
    :class="{ over }"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="given([...($event.dataTransfer?.files ?? [])])"
  >
    <PushButton :disabled="busy" @click="choose">{{ busy ? 'Reading…' : 'Choose a file…' }}</PushButton>
    <p class="small">or drop it here: .eml, .html, .md, .txt, .docx, .odt</p>
  </div>
  <ul v-else-if="from === 'starter'" class="rows list" role="listbox" aria-label="Starters">
    <li v-for="starter in starters" :key="starter.name">
      <button
        type="button"
        class="row"
        role="option"
        :aria-selected="chosen === starter.name"
        @click="takeStarter(starter)"
      >
        {{ starter.title }} <span class="quiet small">{{ starter.description }}</span>
      </button>
    </li>
  </ul>
  <template v-else-if="from === 'copy'">
    <InputText v-model="query" type="search" placeholder="Find the text" aria-label="Find the text to copy" />
    <ul class="rows list" role="listbox" aria-label="Texts">
      <li v-for="text in copies" :key="text.name">
        <button type="button" class="row" role="option" :aria-selected="chosen === text.name" @click="takeCopy(text)">
          {{ text.title }} <span class="quiet small">{{ text.kind === 'message' ? '' : text.kind }}</span>
        </button>
      </li>
    </ul>
  </template>
  <p v-if="problem" class="error small" role="alert">⚠ {{ problem }}</p>
  <ul v-if="notes.length > 0" class="notes small">
    <li v-for="note in notes" :key="note">{{ note }}</li>
  </ul>
</template>

<style scoped>
.drop {
  display: block;
  border: 1px dashed var(--edge);
  padding: 20px 16px;
  color: var(--quiet);
  text-align: center;
  cursor: pointer;
}
.drop.over,
.drop:focus-within {
  background: var(--selected);
  outline: 2px solid var(--action);
}
.list {
  max-height: 280px;
  overflow: auto;
  border: 1px solid var(--hair);
}
.notes {
  margin: 0;
  padding-left: 16px;
}
</style>
