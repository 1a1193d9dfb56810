<script setup lang="ts">
/** A message on paper: its subject, what is still blank, its words. */
import ProofFrame from './ProofFrame.vue';
import type { Look } from './look';

defineProps<{ subject: string; blanks: readonly string[]; fragment: string; look: Look }>();
</script>

<template>
  <article class="sheet page">
    <h2 class="subject">{{ subject }}</h2>
    <p v-if="blanks.length" class="warning small">‸ Still blank: {{ blanks.join(', ') }}</p>
    <ProofFrame class="words" :fragment="fragment" v-bind="look" title="The message" />
  </article>
</template>

<style scoped>
.page {
  padding: 16px 24px;
  min-height: 320px;
  display: flex;
  flex-direction: column;
  gap: 4px;
}
.subject {
  font:
    600 0.9375rem/1.5rem Arial,
    sans-serif;
  margin: 0;
}
.page p {
  margin: 0;
}
.words {
  flex: 1;
}
</style>
