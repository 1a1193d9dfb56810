<script setup lang="ts">
/** The tools of form. What they do can be done by typing Markdown too. */
import PickOne from '../../ui/controls/PickOne.vue';
import PushButton from '../../ui/controls/PushButton.vue';
import { isInTable } from '@tiptap/pm/tables';
import { computed } from 'vue';
import type { Desk } from '../desk/useDesk';
import ColourMenu from './ColourMenu.vue';
import LayoutMenu from './LayoutMenu.vue';
import LinkMenu from './LinkMenu.vue';
import PutInMenu from './PutInMenu.vue';
import TableMenu from './TableMenu.vue';

const props = defineProps<{ desk: Desk }>();
const { manuscript, inserting, tab, fields, showingValues } = props.desk;
const editor = computed(() => fields.active.value);
const main = manuscript.editor;
const on = (name: string, attrs?: Record<string, unknown>): boolean =>
  fields.beat.value >= 0 && editor.value.isActive(name, attrs);
const level = computed(() =>
  String([1, 2, 3].find((each) => on('heading', { level: each })) ?? (on('codeBlock') ? 'code' : 0)),
);
const inTable = computed(() => fields.beat.value >= 0 && fields.line.value === undefined && isInTable(main.state));
function setLevel(value: string): void {
  const chain = main.chain().focus();
  if (value === 'code') chain.setNode('codeBlock').run();
  else if (value === '0') chain.setNode('paragraph').run();
  else chain.setNode('heading', { level: Number(value) }).run();
}
const MARKS = [
  ['bold', 'B', 'Bold'],
  ['italic', 'I', 'Italic'],
  ['underline', 'U', 'Underline'],
  ['strike', 'S', 'Strike'],
] as const;
</script>

<template>
  <div class="tools" role="toolbar" aria-label="Form">
    <PickOne :model-value="level" aria-label="Paragraph or heading" @update:model-value="setLevel($event)">
      <option value="0">Body text</option>
      <option value="1">Heading 1</option>
      <option value="2">Heading 2</option>
      <option value="3">Heading 3</option>
      <option value="code">Code</option>
    </PickOne>
    <PushButton
      kind="plain"
      v-for="[name, sign, words] in MARKS"
      :key="name"
      class="mark"
      :class="[name, { on: on(name) }]"
      :aria-label="words"
      :aria-pressed="on(name)"
      @mousedown.prevent
      @click="editor.chain().focus().toggleMark(name).run()"
    >
      {{ sign }}
    </PushButton>
    <ColourMenu :desk="desk" />
    <PushButton
      kind="plain"
      :aria-pressed="on('bulletList')"
      @mousedown.prevent
      @click="main.chain().focus().toggleList('bulletList', 'listItem').run()"
    >
      List
    </PushButton>
    <PushButton
      kind="plain"
      :aria-pressed="on('orderedList')"
      @mousedown.prevent
      @click="main.chain().focus().toggleList('orderedList', 'listItem').run()"
    >
      Numbers
    </PushButton>
    <PushButton
      kind="plain"
      :aria-pressed="on('blockquote')"
      @mousedown.prevent
      @click="main.chain().focus().toggleWrap('blockquote').run()"
    >
      Quote
    </PushButton>
    <LayoutMenu :desk="desk" />
    <LinkMenu :desk="desk" />
    <TableMenu v-if="inTable" :desk="desk" />
    <PutInMenu :desk="desk" @markers="tab = 'Markers'" />
    <PushButton
      kind="plain"
      class="right"
      title="Show the recipient’s values in place of names (Alt Shift Enter)"
      :aria-pressed="showingValues"
      @mousedown.prevent
      @click="showingValues = !showingValues"
    >
      Values
    </PushButton>
    <PushButton kind="plain" @mousedown.prevent @click="inserting.openList">Insert <kbd>Alt ⏎</kbd></PushButton>
  </div>
</template>

<style scoped>
.tools {
  height: 36px;
  border-bottom: 1px solid var(--hair);
  display: flex;
  align-items: center;
  gap: 2px;
  padding: 0 12px;
  font-size: 0.8125rem;
  color: var(--quiet);
  flex: none;
}
.tools :deep(button) {
  height: 28px;
  padding: 0 7px;
}
.p-select {
  width: 112px;
  height: 28px;
  border-color: transparent;
  background: transparent;
  color: var(--ink);
  flex: none;
}
.p-select :deep(.p-select-label) {
  font-weight: 600;
  padding: 3px 2px;
}
.mark {
  min-width: 28px;
  justify-content: center;
}
.tools :deep([aria-pressed='true']) {
  background: var(--selected);
  color: var(--ink);
  box-shadow: inset 0 -2px var(--action);
}
.bold {
  font-weight: 700;
}
.italic {
  font-style: italic;
}
.underline {
  text-decoration: underline;
}
.strike {
  text-decoration: line-through;
}
@media (max-width: 1279px) {
  .tools {
    overflow-x: auto;
  }
}
</style>
