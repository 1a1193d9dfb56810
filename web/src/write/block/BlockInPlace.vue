<script setup lang="ts">
/** The words of a block, written where it stands. They are kept as the block's own working copy. */
import { Editor } from '@tiptap/core';
import { normalise, type TextDocument } from '@vocabula/core';
import { computed, defineAsyncComponent, onBeforeUnmount, onMounted, ref, shallowRef, useTemplateRef } from 'vue';
import { api } from '../../api/client';
import PushButton from '../../ui/controls/PushButton.vue';
import { keyOf } from '../../ui/keys';
import { putText } from '../../ui/library';
import { useNotice } from '../../ui/notice';
import { extensions } from '../editor/extensions';
import { applyDocument } from '../editor/operations/apply';
import { useWorkingCopy, type Settled } from '../useWorkingCopy';

const ConflictDialog = defineAsyncComponent(() => import('../conflict/ConflictDialog.vue'));
const { name, host } = defineProps<{ name: string; host: HTMLElement }>();
const emit = defineEmits<{ close: [] }>();
const notice = useNotice();
const copy = useWorkingCopy();
const words = useTemplateRef<HTMLElement>('words');
const editor = shallowRef<Editor>();
/** Published templates that change with it; undefined until it is known. */
const changes = ref<number>();
const title = computed(() => copy.opened.value?.attrs.front.title ?? name);

onMounted(async () => {
  try {
    await copy.open(name);
    // Closed again before it was there.
    if (!words.value) return;
    if (copy.opened.value) editor.value = editorOf(copy.opened.value);
    editor.value?.commands.setTextSelection(editor.value.state.doc.content.size);
    editor.value?.view.focus();
    const { texts, hidden } = await api.dependents(name);
    changes.value = texts.length + hidden;
  } catch (problem) {
    notice.fail(problem);
    emit('close');
  }
});
onBeforeUnmount(() => {
  void copy.flush();
  editor.value?.destroy();
});
/** A browser would go to the ends of the text around it with these keys. @returns whether a key leads to the end */
function isToEnd({ key, ctrlKey, metaKey, altKey, shiftKey }: KeyboardEvent): boolean | undefined {
  if (!(ctrlKey || metaKey) || altKey || shiftKey) return undefined;
  const keys = metaKey ? ['ArrowUp', 'ArrowDown'] : ['Home', 'End'];
  return keys.includes(key) ? key === keys[1] : undefined;
}
const editorOf = (document: TextDocument): Editor =>
  new Editor({
    element: words.value,
    extensions: extensions(),
    content: document as never,
    editorProps: {
      attributes: { 'aria-label': `Words of ${title.value}`, role: 'textbox', 'aria-multiline': 'true' },
      handleKeyDown(_view, event) {
        const end = isToEnd(event);
        if (end !== undefined)
          return editor.value?.commands.setTextSelection(end ? editor.value.state.doc.content.size : 0) ?? false;
        if (event.key !== 'Escape') return false;
        emit('close');
        return true;
      },
    },
    onUpdate: ({ editor: own }) => keep(normalise(own.getJSON() as unknown as TextDocument)),
  });
/** What is put in by key goes into the text around it, over the block that is chosen there: not from in here. */
function onKey(event: KeyboardEvent): void {
  const id = keyOf(event)?.id;
  if (id !== 'insert' && id !== 'alternative') return;
  event.preventDefault();
  event.stopPropagation();
}
function keep(document: TextDocument): void {
  copy.changed(document);
  // All that includes it follows at once: the proof, and other places where it stands.
  putText(name, document);
}
async function settle(settled: Settled): Promise<void> {
  try {
    await copy.settle(settled);
    if (editor.value) applyDocument(editor.value, settled.document);
  } catch (problem) {
    notice.fail(problem);
  }
}
const follow = computed(() => {
  if (changes.value === undefined) return '';
  if (changes.value === 0) return 'changes no published template';
  return `changes ${changes.value} published ${changes.value === 1 ? 'template' : 'templates'}`;
});
</script>

<template>
  <Teleport :to="host">
    <div class="in-place" role="group" :aria-label="`Block ${title}`" @keydown="onKey">
      <p class="strip small" contenteditable="false">
        <b>{{ title }}</b>
        <span class="quiet">{{ follow }}</span>
        <span class="right quiet" :class="{ error: copy.failed.value }" role="status">{{ copy.state.value }}</span>
        <RouterLink :to="{ name: 'publish', params: { name } }">Publish…</RouterLink>
        <PushButton size="small" @click="emit('close')">Done</PushButton>
      </p>
      <div ref="words"></div>
    </div>
  </Teleport>
  <ConflictDialog v-if="copy.conflict.value" :clash="copy.conflict.value" @settle="settle" />
</template>

<style scoped>
.in-place {
  border: 1px solid var(--action);
  border-radius: 3px;
  background: var(--sheet);
  padding: 0 8px 8px;
}
.strip {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  margin: 0 0 8px !important;
  padding: 4px 0;
  border-bottom: 1px solid var(--hair);
  font-family: var(--sans);
}
.in-place :deep(.ProseMirror) {
  min-height: 0;
}
/* A block has no envelope, whatever it stands in. */
.in-place :deep(.ProseMirror > :not(.body)) {
  display: none;
}
.in-place :deep(.body) {
  border: 0;
  padding: 0;
  margin: 0;
}
</style>
