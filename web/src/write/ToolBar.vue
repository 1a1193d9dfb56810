<script setup lang="ts">
/** The tools of form: what Markdown can say. */
import type { Editor } from '@tiptap/core';
import { ref, onMounted, onUnmounted } from 'vue';
import { safeUrl } from '@vocabula/core';

const props = defineProps<{ editor: Editor }>();
const emit = defineEmits<{ insert: []; markers: [] }>();
const beat = ref(0);
const address = ref<string>();
const tick = (): void => void (beat.value += 1);
onMounted(() => props.editor.on('transaction', tick));
onUnmounted(() => props.editor.off('transaction', tick));
const on = (name: string, attrs?: Record<string, unknown>): boolean =>
  beat.value >= 0 && props.editor.isActive(name, attrs);
const level = (): string => String([1, 2, 3].find((each) => on('heading', { level: each })) ?? 0);
function setLevel(value: string): void {
  const chain = props.editor.chain().focus();
  if (value === '0') chain.setNode('paragraph').run();
  else chain.setNode('heading', { level: Number(value) }).run();
}
const MARKS = [
  ['bold', 'B', 'Bold'],
  ['italic', 'I', 'Italic'],
  ['underline', 'U', 'Underline'],
  ['strike', 'S', 'Strike'],
] as const;
function setLink(): void {
  const href = address.value?.trim() ?? '';
  const chain = props.editor.chain().focus();
  if (href === '') chain.unsetMark('link').run();
  else if (safeUrl(href) || href.includes('{{')) chain.setMark('link', { href }).run();
  address.value = undefined;
}
</script>

<template>
  <div class="tools" role="toolbar" aria-label="Form">
    <select
      :value="level()"
      aria-label="Paragraph or heading"
      @change="setLevel(($event.target as HTMLSelectElement).value)"
    >
      <option value="0">Body text</option>
      <option value="1">Heading 1</option>
      <option value="2">Heading 2</option>
      <option value="3">Heading 3</option>
    </select>
    <button
      v-for="[name, sign, words] in MARKS"
      :key="name"
      class="plain mark"
      :class="[name, { on: on(name) }]"
      :aria-label="words"
      :aria-pressed="on(name)"
      @mousedown.prevent
      @click="editor.chain().focus().toggleMark(name).run()"
    >
      {{ sign }}
    </button>
    <button
      class="plain"
      :aria-pressed="on('bulletList')"
      @mousedown.prevent
      @click="editor.chain().focus().toggleList('bulletList', 'listItem').run()"
    >
      List
    </button>
    <button
      class="plain wide"
      :aria-pressed="on('orderedList')"
      @mousedown.prevent
      @click="editor.chain().focus().toggleList('orderedList', 'listItem').run()"
    >
      Numbers
    </button>
    <button
      class="plain wide"
      :aria-pressed="on('blockquote')"
      @mousedown.prevent
      @click="editor.chain().focus().toggleWrap('blockquote').run()"
    >
      Quote
    </button>
    <button
      class="plain wide"
      @mousedown.prevent
      @click="editor.chain().focus().insertTable({ rows: 3, cols: 2, withHeaderRow: true }).run()"
    >
      Table
    </button>
    <button
      class="plain"
      :aria-pressed="on('link')"
      @mousedown.prevent
      @click="address = String(editor.getAttributes('link').href ?? '')"
    >
      Link
    </button>
    <form v-if="address !== undefined" class="link sheet" @submit.prevent="setLink" @keydown.esc="address = undefined">
      <label class="field"
        ><span>Leads to; empty takes the link off</span
        ><input v-model="address" autofocus placeholder="https://larkmoor.example/visit" /></label
      ><button>Set</button>
    </form>
    <button class="plain right" @mousedown.prevent @click="emit('markers')">Find markers</button>
    <button class="plain" @mousedown.prevent @click="emit('insert')">Insert <kbd>Alt ⏎</kbd></button>
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
  position: relative;
  flex: none;
}
.tools button {
  height: 28px;
}
select {
  width: 104px;
  height: 28px;
  border-color: transparent;
  background: transparent;
  font-weight: 600;
  padding: 0 2px;
  color: var(--ink);
}
.mark {
  min-width: 28px;
  justify-content: center;
}
[aria-pressed='true'] {
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
.link {
  position: absolute;
  left: 320px;
  top: 38px;
  z-index: 6;
  padding: 12px;
  display: flex;
  gap: 8px;
  align-items: end;
  width: 380px;
}
.link label {
  flex: 1;
}
@media (max-width: 1099px) {
  .tools {
    overflow-x: auto;
  }
}
</style>
