<script setup lang="ts">
/** Somebody else saved in the meantime: both texts, and a choice that loses neither. */
import type { Conflict } from '@vocabula/contract';
import { bodyOf, childrenOf, plainWords, visit, type Inline, type TextDocument } from '@vocabula/core';
import Dialog from 'primevue/dialog';

defineProps<{ conflict: Conflict }>();
const emit = defineEmits<{ settle: [choice: 'mine' | 'theirs'] }>();
function linesOf(document: TextDocument): string[] {
  const lines: string[] = [];
  for (const block of bodyOf(document))
    visit(block, (node) => {
      if (node.type === 'paragraph' || node.type === 'heading')
        lines.push(plainWords(childrenOf(node) as readonly Inline[]));
    });
  return lines;
}
const differs = (line: string, other: TextDocument): boolean => !linesOf(other).includes(line);
</script>

<template>
  <Dialog
    visible
    modal
    :closable="false"
    :draggable="false"
    header="This text was saved from somewhere else"
    :style="{ width: 'min(900px, 94vw)' }"
  >
    <p>Both texts are here. The one you do not choose is kept as a copy.</p>
    <div class="two">
      <section
        v-for="[title, mine, other] in [
          ['Yours', conflict.yours, conflict.theirs.document],
          ['Theirs', conflict.theirs.document, conflict.yours],
        ] as const"
        :key="title"
        class="side"
      >
        <h2>{{ title }}</h2>
        <p v-for="(line, index) in linesOf(mine)" :key="index" :class="{ differs: differs(line, other) }">{{ line }}</p>
      </section>
    </div>
    <template #footer
      ><button @click="emit('settle', 'theirs')">Go on with theirs, keep mine as a copy</button
      ><button class="main" @click="emit('settle', 'mine')">Go on with mine, keep theirs as a copy</button></template
    >
  </Dialog>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 24px;
  margin-top: 12px;
  max-height: 50vh;
  overflow: auto;
}
.side p {
  margin-bottom: 8px;
}
.differs {
  font-weight: 600;
  text-decoration: underline;
}
</style>
