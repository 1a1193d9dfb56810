<script setup lang="ts">
/** The foot of Write: where the caret is, how long the text is, how easy to read, what is blank or was noticed. */
import { vTip } from '../ui/controls/tip';
import { computed } from 'vue';
import type { Desk } from './desk/useDesk';

const props = defineProps<{ desk: Pick<Desk, 'blanks' | 'manuscript' | 'proof'> }>();
const { manuscript, proof, blanks } = props.desk;
const { path } = manuscript;
const time = computed(() => {
  const minutes = proof.measure.value?.minutes ?? 0;
  return minutes < 0.75 ? `${Math.max(5, Math.round(minutes * 12) * 5)} s` : `${Math.round(minutes)} min`;
});
/** R. Flesch's names for the steps of reading ease. */
const easeInWords = computed(() => {
  const ease = proof.measure.value?.ease;
  if (ease === undefined) return '';
  const names = ['very hard', 'hard', 'fairly hard', 'plain', 'fairly easy', 'easy', 'very easy'];
  const step = [30, 50, 60, 70, 80, 90].filter((from) => ease >= from).length;
  return `${names[step]} (${ease})`;
});
const many = (count: number, one: string): string => `${count} ${one}${count === 1 ? '' : 's'}`;
</script>

<template>
  <span class="path" v-tip="path">{{ path }}</span>
  <span v-if="proof.measure.value" v-tip="'Words; a placeholder counts as one'"
    >{{ many(proof.measure.value.words, 'word') }} · {{ time }}</span
  >
  <span v-if="easeInWords" v-tip="'Reading ease, from 0 to 100'">reads {{ easeInWords }}</span>
  <span>{{ many(blanks.length, 'blank') }} for this recipient <kbd>F2</kbd></span>
  <span>{{ many(proof.findings.value.length, 'finding') }} <kbd>F8</kbd></span>
</template>

<style scoped>
.path {
  overflow: hidden;
  text-overflow: ellipsis;
  max-width: 36%;
}
</style>
