<script setup lang="ts">
/** A message of many: only the lines that not all have; those that all have are a dotted line with their words counted. */
import { stretchesOf } from '@vocabula/core/proof';
import { computed } from 'vue';
import type { SentSheet } from '../table/protocol';

const props = defineProps<{
  sheet: SentSheet;
  label: string;
  /** Numbers of the lines that all shown messages have, in order. */
  common: readonly number[];
  lineOf: (number: number) => string;
}>();
const wordsIn = (lines: readonly number[]): number =>
  lines.reduce((sum, line) => sum + (props.lineOf(line).match(/[\p{L}\p{N}]+/gu)?.length ?? 0), 0);
const parts = computed(() => stretchesOf(props.sheet.lines, props.common));
</script>

<template>
  <article class="sheet slip">
    <header>
      <b>{{ label }}</b>
      <span v-if="sheet.blanks.length" class="blank">{{
        sheet.blanks.length === 1 ? '1 blank' : `${sheet.blanks.length} blanks`
      }}</span>
      <span v-else-if="sheet.findings.length" class="warning"
        >‸ {{ sheet.findings.length }}<span class="unseen"> findings</span></span
      >
    </header>
    <template v-for="(part, at) in parts" :key="at">
      <p v-if="part.common" class="folded">{{ wordsIn(part.items) }} words</p>
      <template v-else>
        <p v-for="(line, index) in part.items" :key="`${at} ${index}`" class="line">{{ lineOf(line) }}</p>
      </template>
    </template>
  </article>
</template>

<style scoped>
.slip {
  padding: 10px 14px;
  font-size: 0.8125rem;
  line-height: 1.125rem;
  height: 100%;
  overflow: hidden;
}
header {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  margin-bottom: 4px;
}
b {
  font-weight: 600;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.line {
  margin: 3px 0;
  overflow-wrap: anywhere;
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 4;
  line-clamp: 4;
  overflow: hidden;
}
.folded {
  display: flex;
  align-items: center;
  gap: 8px;
  color: var(--quiet);
  font-size: 0.6875rem;
}
.folded::after {
  content: '';
  flex: 1;
  border-top: 1.5px dotted var(--edge);
}
</style>
