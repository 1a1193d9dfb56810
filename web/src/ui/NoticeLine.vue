<script setup lang="ts">
import PushButton from './controls/PushButton.vue';
import { useNotice } from './notice';

const notice = useNotice();
</script>

<template>
  <span v-if="notice.current" class="notice" :class="{ error: notice.current.problem }" role="status">
    <span>{{ notice.current.problem ? '⚠ ' : '' }}{{ notice.current.words }}</span>
    <PushButton kind="plain" v-if="notice.current.act" @click="notice.run()">{{ notice.current.act.label }}</PushButton>
    <PushButton kind="plain" v-else-if="notice.current.problem" @click="notice.clear()">Dismiss</PushButton>
  </span>
</template>

<style scoped>
.notice {
  display: inline-flex;
  align-items: center;
  gap: 8px;
  color: var(--ink);
  overflow: hidden;
  text-overflow: ellipsis;
}
.notice.error {
  color: var(--error);
}
button {
  height: 20px;
  font-size: 0.75rem;
  text-decoration: underline;
  color: var(--action);
}
</style>
