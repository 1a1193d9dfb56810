<script setup lang="ts">
/** One side of the table: the original, or what a family makes of it. */
import { SMALL_SCREEN, type Arrival } from '@vocabula/core/arrives';
import ArrivalFrame from './ArrivalFrame.vue';

defineProps<{ arrival: Arrival; original?: boolean; title: string }>();
defineEmits<{ shown: [page: Document] }>();
</script>

<template>
  <div class="sheet" :class="{ dark: !original && arrival.family === 'dark' }">
    <ArrivalFrame
      v-if="original || arrival.html !== undefined"
      :html="original ? arrival.original : (arrival.html ?? '')"
      :title="title"
      :width="!original && arrival.family === 'narrow' ? SMALL_SCREEN : undefined"
      @shown="$emit('shown', $event)"
    />
    <pre v-else-if="arrival.text !== undefined" :aria-label="title">{{ arrival.text }}</pre>
    <ol v-else class="spoken" :aria-label="title">
      <li v-for="(each, index) in arrival.spoken" :key="index" :style="{ paddingLeft: `${each.level * 16}px` }">
        <span v-if="each.as" class="as">{{ each.as }}</span>
        {{ each.words }}
      </li>
    </ol>
  </div>
</template>

<style scoped>
.sheet {
  overflow: hidden;
}
.dark {
  background: #121212;
}
pre,
.spoken {
  margin: 0;
  padding: 16px 24px;
  font: 0.8125rem/20px var(--sans);
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
pre {
  font-family: var(--mono, monospace);
}
.spoken {
  list-style: none;
  display: grid;
  gap: 8px;
}
.as {
  color: var(--quiet);
  font-style: italic;
  margin-right: 4px;
}
</style>
