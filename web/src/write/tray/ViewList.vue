<script setup lang="ts">
/** The views of a variable, each as it would read, in the text's language. */
import { valueType, type Variable } from '@vocabula/core';
import { computed } from 'vue';
import type { Previews } from '../desk/usePreviews';

const props = defineProps<{ variable: Variable; previews: Previews; current?: string | undefined }>();
const emit = defineEmits<{ choose: [view: string] }>();
const views = computed(() => {
  const { type } = props.variable;
  return [...(type === 'list' ? [] : ['']), ...valueType(type).views(props.variable)];
});
</script>

<template>
  <ul class="views" aria-label="Views">
    <li v-for="view in views" :key="view">
      <button
        type="button"
        class="row"
        :aria-pressed="current === view"
        :class="{ selected: current === view }"
        @click="emit('choose', view)"
      >
        <span class="quiet small name">{{ view || 'plain' }}</span><span class="shown">{{
          previews.shown(variable, view)
        }}</span>
      </button>
    </li>
  </ul>
</template>

<style scoped>
.views {
  list-style: none;
  margin: 0;
  padding: 0;
  border: 1px solid var(--hair);
  background: var(--sheet);
}
.row {
  display: grid;
  grid-template-columns: 72px minmax(0, 1fr);
  gap: 8px;
  padding: 3px 8px;
  font-size: 0.8125rem;
  line-height: 1.25rem;
}
.shown {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
