<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { showScriptsOf } from './ui/scriptFonts';
import { defineAsyncComponent, ref } from 'vue';
import { useRoute } from 'vue-router';
import AppRail from './ui/AppRail.vue';
import CallLine from './ui/CallLine.vue';
import { keyOf } from './ui/keys';

/** Loaded when it is asked for, with the library's dialog. */
const KeyTable = defineAsyncComponent(() => import('./ui/KeyTable.vue'));
const route = useRoute();
const calling = ref(false);
const showingKeys = ref(false);

function onKey(event: KeyboardEvent): void {
  if (keyOf(event)?.id !== 'call' || route.meta.open) return;
  event.preventDefault();
  calling.value = true;
}
useEventListener('keydown', onKey);
useEventListener('input', (event) => showScriptsOf((event as InputEvent).data ?? ''));
</script>

<template>
  <div class="app">
    <AppRail v-if="$route.matched.length > 0 && !$route.meta.open" @keys="showingKeys = true" />
    <RouterView v-slot="{ Component, route }">
      <component :is="Component" :key="route.meta.each ? route.path : route.name" class="place" />
    </RouterView>
    <CallLine v-if="calling" @close="calling = false" />
    <KeyTable v-if="showingKeys" @close="showingKeys = false" />
  </div>
</template>

<style scoped>
.app {
  display: flex;
  height: 100vh;
}
.place {
  flex: 1;
  min-width: 0;
  height: 100%;
}
@media (max-width: 899px) {
  .app {
    flex-direction: column;
  }
  .place {
    min-height: 0;
  }
}
</style>
