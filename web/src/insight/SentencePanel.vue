<script setup lang="ts">
/** The sentence that is chosen: how often it was changed, and what was written instead. */
import type { SentenceInsight } from '@vocabula/contract';
import PushButton from '../ui/controls/PushButton.vue';
import { shareWords } from './shares';

defineProps<{
  sentence: SentenceInsight;
  /** Words with the labels of questions in place of keys. */
  named: (words: string) => string;
  busy: boolean;
}>();
const emit = defineEmits<{ put: [words: string] }>();
</script>

<template>
  <section aria-label="The sentence">
    <h3>“{{ named(sentence.words) }}”</h3>
    <p class="small">
      In {{ sentence.shown }} messages; reworded in
      {{ shareWords({ successes: Math.min(sentence.reworded, sentence.shown), trials: sentence.shown }).share }}
      <span class="quiet">({{ sentence.reworded }})</span>, taken out in
      {{ shareWords({ successes: Math.min(sentence.takenOut, sentence.shown), trials: sentence.shown }).share }}
      <span class="quiet">({{ sentence.takenOut }})</span>.
    </p>
    <ul v-if="sentence.replacements.length">
      <li v-for="each in sentence.replacements" :key="each.words" class="instead">
        <span
          >“{{ named(each.words) }}” <span class="quiet small">{{ each.count }} ×</span>
          <template v-for="other in each.all.slice(1)" :key="other.words"
            ><br /><span class="quiet small">also “{{ named(other.words) }}”</span></template
          ></span
        >
        <PushButton size="small" :disabled="busy" @click="emit('put', each.words)">Put it in Write</PushButton>
      </li>
    </ul>
    <p v-else class="quiet small">No other wording was used.</p>
  </section>
</template>

<style scoped>
h3 {
  font: inherit;
  font-weight: 600;
  margin: 0 0 4px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  border-top: 1px solid var(--hair);
  padding: 6px 0;
}
.instead {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 12px;
  align-items: start;
}
</style>
