<script setup lang="ts">
/** Which sample recipient is looked at, with the one before and the next, and what else a view offers in its slot. */
import PushButton from '../../ui/controls/PushButton.vue';
defineProps<{ at: number; count: number; label: string }>();
defineEmits<{ step: [by: number] }>();
</script>

<template>
  <div class="bar">
    <PushButton kind="plain" aria-label="Recipient before" @click="$emit('step', -1)">‹</PushButton>
    <span class="count">{{ at + 1 }} of {{ count }}</span>
    <PushButton kind="plain" aria-label="Next recipient" @click="$emit('step', 1)">›</PushButton>
    <b class="who">{{ label }}</b>
    <slot />
  </div>
</template>

<style scoped>
.bar {
  grid-column: 1 / -1;
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 36px;
  padding: 0 16px;
  border-bottom: 1px solid var(--hair);
  font-size: 0.8125rem;
  min-width: 0;
  white-space: nowrap;
}
button {
  height: 28px;
}
.who {
  font-weight: 600;
  overflow: hidden;
  text-overflow: ellipsis;
}
@media (max-width: 1099px) {
  .bar {
    flex-wrap: wrap;
  }
}
</style>
