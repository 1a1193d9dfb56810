<script setup lang="ts">
/** Write: the manuscript with its score, the running proof, and a tray. */
import { computed, defineAsyncComponent, onMounted, watch } from 'vue';
import { useRoute } from 'vue-router';
import { useMe } from '../ui/me';
import NoticeLine from '../ui/NoticeLine.vue';
import { useNotice } from '../ui/notice';
import { useWorkingCopy } from './useWorkingCopy';

/** The two sides of the place are loaded when they are wanted: a new text, or one on the desk. */
const StartPanel = defineAsyncComponent(() => import('./start/StartPanel.vue'));
const WriteDesk = defineAsyncComponent(() => import('./WriteDesk.vue'));
const SeriesDesk = defineAsyncComponent(() => import('../series/SeriesDesk.vue'));
const route = useRoute();
const notice = useNotice();
const me = useMe();
const copy = useWorkingCopy();
const { opened, name } = copy;
const isSeries = computed(() => route.params.name && opened.value?.attrs.front.kind === 'series');

onMounted(() => void me.load().catch((problem) => notice.fail(problem)));
watch(
  () => route.params.name,
  async (wanted) => {
    notice.clear();
    if (!wanted) {
      await copy.flush();
      opened.value = undefined;
      return;
    }
    try {
      await copy.open(String(wanted));
    } catch (problem) {
      opened.value = undefined;
      notice.fail(problem);
    }
  },
  { immediate: true },
);
</script>

<template>
  <div class="write">
    <SeriesDesk v-if="isSeries && opened" :key="name" :copy="copy" :document="opened" />
    <WriteDesk v-else-if="route.params.name && opened" :key="name" :copy="copy" :document="opened" />
    <template v-else>
      <header class="head"><h1>Write</h1></header>
      <StartPanel v-if="!route.params.name" />
      <main v-else class="empty">
        <p v-if="!notice.current" class="quiet">Opening…</p>
        <RouterLink v-else to="/write">Choose another text</RouterLink>
      </main>
      <footer class="foot"><NoticeLine /></footer>
    </template>
  </div>
</template>

<style scoped>
.write {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
</style>
