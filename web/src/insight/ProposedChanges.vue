<script setup lang="ts">
/** What messages that people changed propose to change in the template, to be put into its working copy together. */
import type { Proposal } from '@vocabula/core/insight';
import { computed, ref, watch } from 'vue';
import PushButton from '../ui/controls/PushButton.vue';
import TickBox from '../ui/controls/TickBox.vue';

const props = defineProps<{
  proposals: readonly Proposal[];
  /** Words with the labels of questions in place of keys. */
  named: (words: string) => string;
  busy: boolean;
}>();
const emit = defineEmits<{ put: [proposals: readonly Proposal[]] }>();
const taken = ref<boolean[]>([]);
watch(
  () => props.proposals,
  (proposals) => (taken.value = proposals.map(() => true)),
  { immediate: true },
);
const chosen = computed(() => props.proposals.filter((_, at) => taken.value[at]));
const quoted = (words: string): string => `“${props.named(words)}”`;
const WORDS: Readonly<Record<Proposal['kind'], (proposal: Proposal) => string>> = {
  replace: ({ words, instead }) => `Say ${quoted(instead)} instead of ${quoted(words)}`,
  choose: ({ words, instead, also = [] }) => {
    const all = [words, instead, ...also].map(quoted);
    return `Let people choose: ${all.slice(0, -1).join(', ')} or ${all.at(-1) ?? ''}`;
  },
  optional: ({ words }) => `Make ${quoted(words)} optional`,
  add: ({ instead }) => `Add ${quoted(instead)}`,
  'add sometimes': ({ instead }) => `Add ${quoted(instead)} as an option`,
};
const wordsOf = (proposal: Proposal): string => WORDS[proposal.kind](proposal);
const evidence = ({ kind, count, of }: Proposal): string =>
  `${count} of ${of} messages ${kind === 'optional' ? 'left it out' : kind.startsWith('add') ? 'say so' : 'say so instead'}.`;
</script>

<template>
  <form aria-label="Proposed changes" @submit.prevent="emit('put', chosen)">
    <h3>What its messages propose</h3>
    <ul>
      <li v-for="(proposal, at) in proposals" :key="wordsOf(proposal)">
        <label>
          <TickBox v-model="taken[at]" />
          <span
            >{{ wordsOf(proposal) }}<br /><span class="quiet small">{{ evidence(proposal) }}</span></span
          >
        </label>
      </li>
    </ul>
    <PushButton type="submit" :disabled="busy || chosen.length === 0">Put {{ chosen.length }} in Write</PushButton>
  </form>
</template>

<style scoped>
h3 {
  font: inherit;
  font-weight: 600;
  margin: 0 0 4px;
}
ul {
  list-style: none;
  margin: 0 0 8px;
  padding: 0;
}
li {
  border-top: 1px solid var(--hair);
  padding: 6px 0;
}
label {
  display: grid;
  grid-template-columns: 20px minmax(0, 1fr);
  gap: 8px;
  align-items: start;
}
</style>
