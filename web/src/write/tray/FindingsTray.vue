<script setup lang="ts">
/** What the checker noticed, with the way there and the repair where there is one. */
import PushButton from '../../ui/controls/PushButton.vue';
import type { Finding } from '@vocabula/core';

defineProps<{ findings: readonly Finding[]; current: number }>();
const emit = defineEmits<{ show: [index: number]; repair: [finding: Finding] }>();
const MARK = { error: '⚠', warning: '‸', note: '·' } as const;
</script>

<template>
  <p v-if="findings.length === 0" class="quiet none">No findings.</p>
  <ul class="rows">
    <li v-for="(finding, index) in findings" :key="index" class="finding" :class="{ selected: index === current }">
      <button class="row" @click="emit('show', index)">
        <span :class="finding.level" aria-hidden="true">{{ MARK[finding.level] }}</span>
        <span class="unseen">{{ finding.level }}: </span>{{ finding.message }}
        <span class="quiet small">{{ finding.place.text ? `in ${finding.place.text}` : '' }}</span>
      </button>
      <PushButton kind="plain" size="small" v-if="finding.repair" @click="emit('repair', finding)">
        {{ finding.repair.label }}
      </PushButton>
    </li>
  </ul>
</template>

<style scoped>
.none {
  padding: 12px 14px;
}
.finding {
  display: flex;
  align-items: center;
}
.row {
  padding: 6px 14px;
  font-size: 0.8125rem;
  line-height: 1.25rem;
}
</style>
