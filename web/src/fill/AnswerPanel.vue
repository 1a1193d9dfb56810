<script setup lang="ts">
/** A mail that is answered: pasted as text, dropped as a file, or put back. */
import Textarea from 'primevue/textarea';
import PushButton from '../ui/controls/PushButton.vue';
import type { Original, ReadOriginal } from '@vocabula/contract';
import { onMounted, ref, useTemplateRef } from 'vue';
import { api } from '../api/client';
import { useNotice } from '../ui/notice';

defineProps<{ original: Original | undefined }>();
const emit = defineEmits<{ take: [read: ReadOriginal | undefined]; close: [] }>();
const notice = useNotice();
const words = ref('');
const box = useTemplateRef<{ $el: HTMLTextAreaElement }>('box');
const over = ref(false);
onMounted(() => box.value?.$el.focus());

async function read(mail: Blob): Promise<void> {
  try {
    emit('take', await api.readOriginal(mail));
  } catch (problem) {
    notice.fail(problem);
  }
}
const readWords = (): void => void read(new Blob([words.value]));
/** What another program put on the clipboard: its rich form says no more than its words. */
function paste(event: ClipboardEvent): void {
  const [file] = event.clipboardData?.files ?? [];
  const text = event.clipboardData?.getData('text/plain') ?? '';
  if (!file && text.trim() === '') return;
  event.preventDefault();
  void read(file ?? new Blob([text]));
}
function drop(event: DragEvent): void {
  over.value = false;
  const [file] = event.dataTransfer?.files ?? [];
  const text = event.dataTransfer?.getData('text/plain') ?? '';
  if (file || text) void read(file ?? new Blob([text]));
}
</script>

<template>
  <section
    class="sheet answer"
    :class="{ over }"
    aria-label="Answering"
    @keydown.esc.stop="emit('close')"
    @keydown.enter.stop
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="drop"
  >
    <label class="field"
      ><span>The mail you answer: paste it here, or drop it as a file (.eml)</span>
      <Textarea ref="box" v-model="words" rows="4" @paste="paste" />
    </label>
    <p class="ways">
      <PushButton :disabled="words.trim() === ''" @click="readWords">Answer this</PushButton>
      <PushButton kind="plain" v-if="original" @click="emit('take', undefined)">Answer nothing</PushButton>
      <PushButton kind="plain" class="right" @click="emit('close')">Close</PushButton>
    </p>
  </section>
</template>

<style scoped>
.answer {
  padding: 12px 16px;
  margin-bottom: 16px;
}
.over {
  outline: 2px dashed var(--action);
}
.ways {
  display: flex;
  gap: 8px;
  margin-top: 8px;
}
</style>
