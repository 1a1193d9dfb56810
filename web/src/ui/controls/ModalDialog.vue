<script setup lang="ts">
/**
 * A dialog that is open for as long as it is there. It takes the focus, keeps it, and gives it back to what opened it;
 * Escape, the cross and `hide` ask whoever put it there to take it away (`close`).
 */
import Dialog from 'primevue/dialog';
import { nextTick, ref } from 'vue';

const { closable = true } = defineProps<{
  header: string;
  /** As CSS says it; at most the width of the page. */
  width?: string;
  /** Whether it can be left without an answer. */
  closable?: boolean;
}>();
const emit = defineEmits<{ shown: []; close: [] }>();
const visible = ref(true);
const opener = document.activeElement as HTMLElement | null;

/** Taken away only once it is closed: the library gives up its hold on the focus then. */
async function closed(): Promise<void> {
  emit('close');
  await nextTick();
  if (document.activeElement === document.body && opener?.isConnected) opener.focus();
}
defineExpose({ hide: () => (visible.value = false) });
</script>

<template>
  <Dialog
    v-model:visible="visible"
    modal
    :draggable="false"
    :closable="closable"
    :close-on-escape="closable"
    :header="header"
    :style="{ width: `min(${width ?? '480px'}, 94vw)` }"
    @show="emit('shown')"
    @after-hide="closed"
  >
    <slot />
    <template v-if="$slots.footer" #footer><slot name="footer" /></template>
  </Dialog>
</template>
