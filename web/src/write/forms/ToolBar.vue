<script setup lang="ts">
/** The tools of form. What they do can be done by typing Markdown too. */
import {
  AlignLeft,
  Bold,
  ImagePlus,
  Italic,
  Link,
  List,
  ListOrdered,
  Palette,
  Strikethrough,
  Table,
  TextQuote,
  Underline,
} from '@lucide/vue';
import PickOne from '../../ui/controls/PickOne.vue';
import PushButton from '../../ui/controls/PushButton.vue';
import { vTip } from '../../ui/controls/tip';
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
  ['bold', Bold, 'Bold'],
  ['italic', Italic, 'Italic'],
  ['underline', Underline, 'Underline'],
  ['strike', Strikethrough, 'Strike through'],
] as const;
const BLOCKS = [
  ['bulletList', List, 'Bulleted list', () => main.chain().focus().toggleList('bulletList', 'listItem').run()],
  ['orderedList', ListOrdered, 'Numbered list', () => main.chain().focus().toggleList('orderedList', 'listItem').run()],
  ['blockquote', TextQuote, 'Quote', () => main.chain().focus().toggleWrap('blockquote').run()],
] as const;
const icon = { size: 16, strokeWidth: 1.5 } as const;
</script>

<template>
  <div class="tools" role="toolbar" aria-label="Format">
    <PickOne :model-value="level" aria-label="Paragraph or heading" @update:model-value="setLevel($event)">
      <option value="0">Body text</option>
      <option value="1">Heading 1</option>
      <option value="2">Heading 2</option>
      <option value="3">Heading 3</option>
      <option value="code">Code</option>
    </PickOne>
    <PushButton
      v-for="[name, sign, words] in MARKS"
      :key="name"
      v-tip="words"
      kind="plain"
      :aria-label="words"
      :aria-pressed="on(name)"
      @mousedown.prevent
      @click="editor.chain().focus().toggleMark(name).run()"
    >
      <component :is="sign" v-bind="icon" />
    </PushButton>
    <ColourMenu :desk="desk"><Palette v-bind="icon" /></ColourMenu>
    <i class="gap" />
    <PushButton
      v-for="[name, sign, words, act] in BLOCKS"
      :key="name"
      v-tip="words"
      kind="plain"
      :aria-label="words"
      :aria-pressed="on(name)"
      @mousedown.prevent
      @click="act"
    >
      <component :is="sign" v-bind="icon" />
    </PushButton>
    <LayoutMenu :desk="desk"><AlignLeft v-bind="icon" /></LayoutMenu>
    <i class="gap" />
    <LinkMenu :desk="desk"><Link v-bind="icon" /></LinkMenu>
    <TableMenu v-if="inTable" :desk="desk"><Table v-bind="icon" /></TableMenu>
    <PutInMenu :desk="desk" @markers="tab = 'markers'"><ImagePlus v-bind="icon" /></PutInMenu>
    <PushButton
      v-tip="'Show the recipient’s values in place of names (Alt Shift Enter)'"
      kind="plain"
      class="right"
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
.gap {
  width: 1px;
  height: 16px;
  margin: 0 4px;
  background: var(--hair);
}
.tools :deep([aria-pressed='true']) {
  background: var(--selected);
  color: var(--ink);
  box-shadow: inset 0 -2px var(--action);
}
.tools > :deep(*) {
  flex: none;
}
@media (max-width: 1279px) {
  .tools {
    height: auto;
    min-height: 36px;
    padding-block: 3px;
    flex-wrap: wrap;
  }
}
</style>
