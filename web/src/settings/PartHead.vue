<script setup lang="ts">
/** The head of one part of Settings, with the button that keeps it. */
defineProps<{ title: string; about: string; changed: boolean }>();
const emit = defineEmits<{ save: [] }>();
</script>

<template>
  <header class="part-head">
    <h2>{{ title }}</h2>
    <span class="quiet small">{{ about }}</span>
    <button class="main right" :disabled="!changed" @click="emit('save')">Save</button>
  </header>
</template>

<style scoped>
.part-head {
  display: flex;
  align-items: center;
  gap: 12px;
  margin-bottom: 16px;
}
h2 {
  font: 500 1.125rem/1.5rem var(--serif);
}
</style>
