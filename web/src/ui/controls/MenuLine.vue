<script setup lang="ts">
/** A line of a menu: a colour, the words, the keys. */
import type { MenuAct } from './menuActs';

defineProps<{ act: MenuAct }>();
</script>

<template>
  <span class="p-menu-item-link line" :class="{ selected: act.checked }">
    <i
      v-if="act.swatch"
      class="swatch"
      :class="{ none: act.swatch === 'none' }"
      :style="act.swatch === 'none' ? {} : { background: act.swatch }"
    />
    <span>{{ act.label }}</span>
    <kbd v-if="act.keys" class="right">{{ act.keys }}</kbd>
  </span>
</template>

<style scoped>
.line {
  width: 100%;
  font-size: 0.8125rem;
  line-height: 1.25rem;
}
.swatch {
  width: 14px;
  height: 14px;
  border: 1px solid var(--edge);
  flex: none;
}
.none {
  border-style: dashed;
}
</style>
