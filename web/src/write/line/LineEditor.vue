<script setup lang="ts">
/** One line of words with placeholders and passages in it. */
import { Editor } from '@tiptap/core';
import { EditorContent } from '@tiptap/vue-3';
import type { Inline, LineRef } from '@vocabula/core';
import { inject, onBeforeUnmount, watch } from 'vue';
import { FIELDS } from '../desk/useFields';
import { lineContent, lineExtensions, lineOf, type LineForm } from './oneLine';

const props = withDefaults(
  defineProps<{
    line: readonly Inline[];
    /** Which line of the manuscript it is, on the desk. */
    of?: LineRef;
    label: string;
    form?: LineForm;
    placeholder?: string;
    /** The language of its words, where it is not the page's. */
    lang?: string;
  }>(),
  {
    of: undefined,
    form: 'rich',
    placeholder: '',
    lang: undefined,
  },
);
const emit = defineEmits<{ change: [line: Inline[]]; done: []; focus: []; blur: [] }>();
const fields = inject(FIELDS, undefined);

const editor = new Editor({
  extensions: lineExtensions(props.form, {
    ...(fields ? { undo: fields.undo, redo: fields.redo } : {}),
    done: () => emit('done'),
  }),
  content: lineContent(props.line),
  editorProps: {
    attributes: { 'aria-label': props.label, role: 'textbox', ...(props.lang ? { lang: props.lang } : {}) },
    // What is pasted into a line is one.
    transformPastedText: (text) => text.replace(/\s*\n\s*/g, ' '),
  },
  onUpdate: () => emit('change', lineOf(editor)),
  onTransaction: ({ transaction }) => fields?.acted(editor, transaction),
  onFocus() {
    fields?.enter(editor, props.of);
    emit('focus');
  },
  onBlur: () => emit('blur'),
});
onBeforeUnmount(() => {
  fields?.leave(editor);
  editor.destroy();
});
watch(
  () => props.line,
  (line) => {
    if (JSON.stringify(line) === JSON.stringify(lineOf(editor))) return;
    const { anchor } = editor.state.selection;
    editor.commands.setContent(lineContent(line), { emitUpdate: false });
    editor.commands.setTextSelection(Math.min(anchor, editor.state.doc.content.size - 1));
  },
);
watch(
  () => props.label,
  (label) => editor.view.dom.setAttribute('aria-label', label),
);
/** At once: whoever goes on typing types here. */
function focus(): void {
  editor.commands.setTextSelection(editor.state.doc.content.size - 1);
  editor.view.focus();
}
defineExpose({ focus });
</script>

<template>
  <div class="line-editor" :data-placeholder="line.length === 0 ? placeholder : undefined">
    <EditorContent :editor="editor as never" />
  </div>
</template>

<style scoped>
.line-editor {
  position: relative;
  border: 1px solid var(--edge);
  border-radius: 3px;
  background: var(--sheet);
  min-height: 32px;
  padding: 5px 8px;
  cursor: text;
}
.line-editor:focus-within {
  outline: 2px solid var(--action);
  outline-offset: 2px;
}
.line-editor :deep(.ProseMirror) {
  outline: none;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
.line-editor[data-placeholder]::before {
  content: attr(data-placeholder);
  position: absolute;
  color: var(--quiet);
  pointer-events: none;
}
</style>
