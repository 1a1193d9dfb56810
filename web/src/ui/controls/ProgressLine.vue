<script setup lang="ts">
/** How much of some work is done. */
import ProgressBar from 'primevue/progressbar';

defineProps<{ done: number; total: number; label: string }>();
</script>

<template>
  <ProgressBar
    class="line"
    :value="total > 0 ? Math.round((100 * done) / total) : 0"
    :show-value="false"
    :aria-label="label"
  />
</template>

<style scoped>
.line {
  width: 120px;
}
</style>
