<script setup lang="ts">
/** The passages of a message in reading order: kept ones solid, left out ones dotted; choosing one lights its words. */
import PushButton from '../../ui/controls/PushButton.vue';
defineProps<{
  passages: readonly { readonly tag: string; readonly label: string }[];
  /** A figure a passage: 1 for kept. */
  kept: string;
  chosen: string | undefined;
}>();
defineEmits<{ choose: [tag: string | undefined] }>();
</script>

<template>
  <nav class="score" aria-label="Passages">
    <p v-if="passages.length === 0" class="quiet small none">No passages: every recipient gets all of it.</p>
    <PushButton
      size="small"
      v-for="(passage, at) in passages"
      :key="passage.tag"
      class="passage"
      :class="kept[at] === '1' ? 'kept' : 'gone'"
      :aria-pressed="chosen === passage.tag"
      @click="$emit('choose', chosen === passage.tag ? undefined : passage.tag)"
    >
      {{ passage.label }}<span class="unseen">, {{ kept[at] === '1' ? 'kept' : 'left out' }}</span>
    </PushButton>
  </nav>
</template>

<style scoped>
.score {
  padding: 16px 0 16px 12px;
  overflow: auto;
  display: grid;
  gap: 6px;
  align-content: start;
}
.passage {
  height: auto;
  min-height: 28px;
  padding: 4px 8px;
  border: 0;
  border-left: 2px solid var(--edge);
  border-radius: 0;
  white-space: normal;
  text-align: left;
}
.gone {
  border-left-style: dotted;
  color: var(--quiet);
}
[aria-pressed='true'] {
  background: var(--selected);
  border-left-color: var(--action);
}
.none {
  padding-right: 8px;
}
</style>
