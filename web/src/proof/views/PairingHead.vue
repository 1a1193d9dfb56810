<script setup lang="ts">
/** What every pairing comes to, in a sentence. */
import PickOne from '../../ui/controls/PickOne.vue';
import { computed } from 'vue';
import { useProofing } from '../table/useProofing';

defineProps<{ lookedAt: number; changed: number }>();
const proofing = useProofing();
const words = computed(() => (proofing.pairing?.strength === 3 ? 'triples' : 'pairs'));
const cannot = computed(() => proofing.pairing?.impossible.reduce((sum, { count }) => sum + count, 0) ?? 0);
const count = computed(() => proofing.pairs.cases.length);
</script>

<template>
  <section class="sentence">
    <template v-if="proofing.pairing">
      <p class="serif">
        <template v-if="proofing.pairing.covered === 0">This message is the same for all recipients.</template>
        <template v-else
          >{{ count }} {{ count === 1 ? 'message shows' : 'messages show' }}
          {{ proofing.pairing.notFound ? '' : 'all' }} {{ proofing.pairing.covered }} {{ words }} of options.</template
        >
      </p>
      <details v-if="cannot" class="cannot">
        <summary>{{ cannot }} {{ words }} cannot happen</summary>
        <ul class="sheet reasons">
          <li v-for="{ because, count: number } in proofing.pairing.impossible" :key="because">
            <span class="quiet">{{ number }}</span> {{ because }}
          </li>
        </ul>
      </details>
      <span v-if="proofing.pairing.notFound" class="warning"
        >‸ {{ proofing.pairing.notFound }} were neither found nor ruled out</span
      >
      <span class="quiet"
        >{{ lookedAt }} of {{ count }} looked at{{ changed ? `; ${changed} changed since` : '' }}</span
      >
      <label class="right small"
        >Together
        <PickOne
          :model-value="proofing.pairing.strength"
          aria-label="How many options together"
          @update:model-value="proofing.setStrength($event as 2 | 3)"
        >
          <option :value="2">two</option>
          <option :value="3">three</option>
        </PickOne></label
      >
    </template>
    <p v-else class="quiet">{{ proofing.progress.doing || 'Computing every pairing' }}…</p>
  </section>
</template>

<style scoped>
.sentence {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 12px;
  padding: 12px 20px;
  border-bottom: 1px solid var(--hair);
  font-size: 0.8125rem;
}
.serif {
  font: 500 1.25rem/1.75rem var(--serif);
}
.cannot {
  position: relative;
}
summary {
  cursor: pointer;
  color: var(--quiet);
  text-decoration: underline dotted;
}
.reasons {
  position: absolute;
  z-index: 3;
  top: 24px;
  width: 440px;
  max-height: 320px;
  overflow: auto;
  margin: 0;
  padding: 10px 14px 10px 14px;
  list-style: none;
}
.reasons li {
  padding: 3px 0;
}
.p-select {
  width: 92px;
  height: 28px;
}
</style>
