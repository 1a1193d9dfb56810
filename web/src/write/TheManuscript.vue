<script setup lang="ts">
/** The manuscript: envelope and body in one editor, with one history. */
import type { Editor } from '@tiptap/core';
import { EditorContent } from '@tiptap/vue-3';
import { computed } from 'vue';

const props = defineProps<{ editor: Editor; kind: string; more: boolean }>();
const shows = computed(() => ({ message: props.kind === 'message', more: props.more }));
</script>

<template>
  <EditorContent class="manuscript" :class="shows" :editor="editor as never" />
</template>

<style>
.manuscript .ProseMirror {
  outline: none;
  font-size: 1rem;
  line-height: 1.75rem;
  min-height: 480px;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
.manuscript .line {
  display: none;
  font-size: 0.875rem;
  line-height: 1.625rem;
  grid-template-columns: 72px minmax(0, 1fr);
}
.manuscript.message .line.subject,
.manuscript.message .line.to {
  display: grid;
}
.manuscript.message.more .line.cc,
.manuscript.message.more .line.bcc,
.manuscript.message.more .line.reply_to {
  display: grid;
}
.manuscript .line-name {
  color: var(--quiet);
  user-select: none;
}
.manuscript .line-text {
  min-width: 0;
}
.manuscript .address {
  display: block;
}
.manuscript .attachment::before {
  content: attr(data-file) ' ';
  color: var(--quiet);
}
.manuscript .body {
  display: block;
}
.manuscript.message .body {
  border-top: 1px solid var(--hair);
  margin-top: 8px;
  padding-top: 16px;
}
.manuscript .body p {
  margin: 0 0 14px;
}
.manuscript .body li p {
  margin: 0 0 4px;
}
.manuscript .body h1,
.manuscript .body h2,
.manuscript .body h3 {
  font-family: var(--serif);
  font-weight: 500;
  margin: 0 0 10px;
  white-space: normal;
}
.manuscript .body h1 {
  font-size: 1.5rem;
  line-height: 2rem;
}
.manuscript .body h2 {
  font-size: 1.25rem;
  line-height: 1.75rem;
}
.manuscript .body h3 {
  font-size: 1.0625rem;
  line-height: 1.75rem;
}
.manuscript .body ul,
.manuscript .body ol {
  margin: 0 0 14px;
  padding-left: 24px;
}
.manuscript .body blockquote {
  margin: 0 0 14px;
  padding-left: 14px;
  border-left: 3px solid var(--hair);
}
.manuscript .body table {
  border-collapse: collapse;
  margin-bottom: 14px;
  width: 100%;
}
.manuscript .body td,
.manuscript .body th {
  border: 1px solid var(--hair);
  padding: 2px 8px;
  text-align: left;
  vertical-align: top;
}
.manuscript .body td p,
.manuscript .body th p {
  margin: 0;
}
.manuscript .passage {
  margin: 0 -8px 14px;
  padding: 4px 8px 0;
}
.manuscript .passage > :last-child {
  margin-bottom: 4px;
}
.manuscript .passage.ProseMirror-selectednode,
.manuscript .included.ProseMirror-selectednode {
  background: var(--selected);
}
.placeholder {
  border-bottom: 1px solid var(--ink);
  white-space: nowrap;
  padding: 0 1px;
  cursor: pointer;
}
.placeholder .sign {
  font-size: 0.625rem;
  line-height: 0;
  color: var(--quiet);
  margin-right: 2px;
}
.placeholder.unknown {
  border-bottom: 1.5px dotted var(--error);
}
.placeholder.ProseMirror-selectednode {
  background: var(--selected);
  outline: 2px solid var(--action);
  outline-offset: 1px;
}
.manuscript .phrase {
  border-bottom: 1.5px solid var(--quiet);
  border-left: 1.5px solid var(--quiet);
  border-right: 1.5px solid var(--quiet);
  border-image: linear-gradient(transparent 78%, var(--quiet) 78%) 1;
  padding: 0 1px 1px;
}
.manuscript .included {
  margin: 0 -8px 14px;
  padding: 4px 8px 1px;
}
.manuscript .included p:last-child {
  margin-bottom: 4px;
}
.manuscript .included.inline {
  margin: 0;
  padding: 0 2px;
  border-bottom: 3px double var(--quiet);
}
.manuscript .included .missing {
  color: var(--error);
}
.manuscript .note {
  color: var(--quiet);
  font-size: 0.8125rem;
  font-style: italic;
}
.manuscript .image {
  border: 1px dashed var(--edge);
  padding: 0 6px;
  color: var(--quiet);
  font-size: 0.8125rem;
}
.manuscript .found {
  box-shadow: inset 0 -2px var(--error);
}
.manuscript .flash {
  background: var(--selected);
}
</style>
