<script setup lang="ts">
/** The mail that a message answers, folded; and whether a reply goes to everybody who got it. */
import type { Original } from '@vocabula/contract';
import Checkbox from 'primevue/checkbox';
import { computed, ref } from 'vue';
import PushButton from '../ui/controls/PushButton.vue';

const { original, quoted } = defineProps<{
  original: Original;
  /** Whether the reply quotes it below its own words. */
  quoted: boolean;
}>();
/** Whether the reply goes to all. */
const all = defineModel<boolean>('all', { required: true });
const open = ref(false);
const hasOthers = computed(() => (original.to?.length ?? 0) + (original.cc?.length ?? 0) > 1);
</script>

<template>
  <div class="original">
    <PushButton kind="plain" size="small" :aria-expanded="open" @click="open = !open">
      {{ open ? '▾' : '▸' }} {{ quoted ? 'quoted below: ' : 'answers: ' }}{{ original.from || 'unknown sender' }}
      <span v-if="original.subject" class="quiet">“{{ original.subject }}”</span>
    </PushButton>
    <label v-if="quoted && hasOthers" class="small all"><Checkbox v-model="all" binary size="small" /> to all</label>
    <pre v-if="open" class="small quiet">{{ original.text }}</pre>
  </div>
</template>

<style scoped>
.original {
  border-top: 1px solid var(--hair);
  padding-top: 8px;
  max-height: 40%;
  overflow: auto;
  flex: none;
}
.original button {
  height: auto;
  padding: 2px 0;
  white-space: normal;
  text-align: left;
}
.all {
  margin-left: 12px;
}
pre {
  white-space: pre-wrap;
  margin: 8px 0 0;
  font-family: var(--sans);
  border-left: 2px solid var(--edge);
  padding-left: 12px;
}
</style>
