<script setup lang="ts">
/** A share with its interval and count. */
import type { CountedShare } from '@vocabula/contract';
import { computed } from 'vue';
import { shareWords } from './shares';

const { share } = defineProps<{ share: CountedShare }>();
const words = computed(() => shareWords(share));
</script>

<template>
  <span class="share" :class="{ quiet: words.order < 0 }">{{ words.share }}</span>
  <span v-if="words.span" class="quiet span">{{ words.span }}</span>
</template>

<style scoped>
.share,
.span {
  display: block;
  white-space: nowrap;
  font-variant-numeric: tabular-nums;
}
.span {
  font-size: 0.6875rem;
  line-height: 0.875rem;
}
</style>
