<script setup lang="ts">
/** A line as it stands, for reading only: placeholders by their labels. */
import type { Inline } from '@vocabula/core';
import { labels } from '../editor/views/labels';

defineProps<{ line: readonly Inline[] }>();
</script>

<template>
  <span class="line-words"
    ><template v-for="(node, index) in line" :key="index"
      ><span v-if="node.type === 'placeholder'" class="placeholder">{{ labels.of(node.attrs.name).label }}</span
      ><br v-else-if="node.type === 'hardBreak'" /><span
        v-else-if="node.type === 'inlineInclusion'"
        class="placeholder"
        >{{ node.attrs.name }}</span
      ><span v-else-if="node.type === 'image'" class="quiet">[image]</span
      ><span v-else-if="node.type === 'text'" :class="node.marks?.map((mark) => mark.type)">{{
        node.text
      }}</span></template
    ></span
  >
</template>

<style scoped>
.line-words {
  overflow-wrap: anywhere;
}
.bold {
  font-weight: 600;
}
.italic {
  font-style: italic;
}
.phrase {
  border-bottom: 1.5px solid var(--quiet);
}
</style>
