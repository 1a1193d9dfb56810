<script setup lang="ts">
/** One message of a series as it will read. */
import { render, type Program, type RenderInput } from '@vocabula/core';
import { computed } from 'vue';
import ProofFrame from '../ui/ProofFrame.vue';
import { lookOf } from '../ui/look';

const { program, input } = defineProps<{ program: Program; input: RenderInput }>();
const message = computed(() => render(program, input, { proof: true }));
</script>

<template>
  <article class="sheet page">
    <h2 class="subject">{{ message.subject }}</h2>
    <p class="quiet small">
      {{
        message.blanks.length === 0 ? '' : message.blanks.length === 1 ? '1 blank' : `${message.blanks.length} blanks`
      }}
    </p>
    <ProofFrame class="words" :fragment="message.fragment" v-bind="lookOf(program)" title="The message" />
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
