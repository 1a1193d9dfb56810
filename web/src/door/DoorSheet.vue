<script setup lang="ts">
/** The sheet on which one enters. */
defineProps<{ title: string }>();
</script>

<template>
  <main class="door">
    <div class="sheet">
      <p class="wordmark" aria-hidden="true">Vocabula</p>
      <h1>{{ title }}</h1>
      <slot />
    </div>
  </main>
</template>

<style scoped>
.door {
  overflow: auto;
  display: grid;
  place-items: start center;
  padding: 12vh 16px 48px;
}
.sheet {
  width: 100%;
  max-width: 416px;
  padding: 28px 32px 32px;
  display: grid;
  gap: 16px;
}
.wordmark {
  font: 500 1.5rem/2rem var(--serif);
  border-bottom: 1px solid var(--hair);
  padding-bottom: 12px;
}
h1 {
  padding: 0;
}
</style>
