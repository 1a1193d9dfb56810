<script setup lang="ts">
/**
 * The search line that opens anywhere: call word, title, subject, text. Enter fills. It is there in the moment the key is
 * pressed, so that no letter typed after it is lost; the library's dialog would have to be loaded first, or with each page.
 */
import type { Hit } from '@vocabula/contract';
import { onMounted, ref, useTemplateRef } from 'vue';
import { useRouter } from 'vue-router';
import HitList from './HitList.vue';
import { fillAddress } from './fillAddress';
import { useWritingTo } from './writingTo';

const emit = defineEmits<{ close: [] }>();
const router = useRouter();
const line = useTemplateRef('line');
const opener = document.activeElement as HTMLElement | null;
const query = ref('');
const writingTo = useWritingTo();
onMounted(() => line.value?.focus());

function close(): void {
  emit('close');
  opener?.focus?.();
}
async function choose(hit: Hit): Promise<void> {
  emit('close');
  // Whoever is written to stays who is meant.
  const to = writingTo.address || undefined;
  await router.push(fillAddress(hit, { to }));
}
</script>

<template>
  <div class="veil" @mousedown.self="close">
    <section
      class="sheet call"
      role="dialog"
      aria-modal="true"
      aria-label="Call line"
      @keydown.esc.stop="close"
      @keydown.tab.prevent
    >
      <HitList ref="line" v-model="query" label="Find a template" @choose="choose" />
    </section>
  </div>
</template>

<style scoped>
.veil {
  position: fixed;
  inset: 0;
  background: rgb(32 38 46 / 0.15);
  z-index: 30;
}
.call {
  width: min(640px, calc(100vw - 32px));
  margin: 96px auto 0;
}
</style>
