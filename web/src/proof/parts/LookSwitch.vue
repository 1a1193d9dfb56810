<script setup lang="ts">
import PushButton from '../../ui/controls/PushButton.vue';
import { LOOKS, LOOK_WORDS, type LookAs } from './looks';

defineProps<{ as: LookAs }>();
defineEmits<{ change: [as: LookAs] }>();
</script>

<template>
  <span class="looks" role="group" aria-label="Look at it as"
    ><PushButton
      kind="plain"
      size="small"
      v-for="each in LOOKS"
      :key="each"
      :aria-pressed="as === each"
      @click="$emit('change', each)"
    >
      {{ LOOK_WORDS[each] }}
    </PushButton></span
  >
</template>

<style scoped>
.looks {
  display: inline-flex;
}
button {
  height: 28px;
  color: var(--quiet);
}
[aria-pressed='true'] {
  color: var(--ink);
  font-weight: 600;
  box-shadow: inset 0 -2px var(--action);
}
</style>
