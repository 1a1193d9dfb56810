<script setup lang="ts">
/** Which sample recipient is looked at, with the one before and the next. */
defineProps<{ at: number; count: number; label: string }>();
defineEmits<{ step: [by: number] }>();
</script>

<template>
  <button class="plain" aria-label="Recipient before" @click="$emit('step', -1)">‹</button>
  <span class="count">{{ at + 1 }} of {{ count }}</span>
  <button class="plain" aria-label="Next recipient" @click="$emit('step', 1)">›</button>
  <b class="who">{{ label }}</b>
</template>

<style scoped>
button {
  height: 28px;
}
.who {
  font-weight: 600;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
