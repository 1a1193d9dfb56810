<script setup lang="ts">
/** Blanks and findings of one message. */
import type { Finding } from '@vocabula/core';
import { useProofing } from '../table/useProofing';

defineProps<{ blanks: readonly string[]; findings: readonly Finding[] }>();
const proofing = useProofing();
const labelOf = (key: string): string => proofing.values.find((each) => each.key === key)?.label ?? key;
const MARK = { error: '⚠', warning: '‸', note: '·' } as const;
</script>

<template>
  <section v-if="blanks.length || findings.length" class="marks" aria-label="Blanks and findings">
    <p v-if="blanks.length">
      <span class="blank">{{ blanks.length === 1 ? '1 blank' : `${blanks.length} blanks` }}</span>:
      {{ blanks.map(labelOf).join(', ') }}
    </p>
    <p v-for="(finding, at) in findings" :key="at">
      <span :class="finding.level" aria-hidden="true">{{ MARK[finding.level] }}</span>
      <span class="unseen">{{ finding.level }}: </span>{{ finding.message }}
    </p>
  </section>
</template>

<style scoped>
.marks {
  padding: 12px 16px;
  border-top: 1px solid var(--hair);
  font-size: 0.8125rem;
  display: grid;
  gap: 6px;
}
</style>
