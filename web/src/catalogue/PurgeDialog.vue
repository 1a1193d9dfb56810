<script setup lang="ts">
/** Taking texts out for good, with what that means said first. */
import PushButton from '../ui/controls/PushButton.vue';
import type { TextSummary } from '@vocabula/contract';
import Dialog from 'primevue/dialog';
import { computed } from 'vue';

const { texts } = defineProps<{ texts: readonly TextSummary[] }>();
const emit = defineEmits<{ purge: []; close: [] }>();
const used = computed(() => texts.reduce((sum, text) => sum + text.used, 0));
</script>

<template>
  <Dialog
    visible
    modal
    :draggable="false"
    :header="texts.length === 1 ? `Purge “${texts[0]?.title}”?` : `Purge ${texts.length} texts?`"
    :style="{ width: 'min(480px, 94vw)' }"
    @update:visible="emit('close')"
  >
    <p>
      The working {{ texts.length === 1 ? 'copy, its' : 'copies, their' }} checkpoints, remarks and requests are gone
      for good; this cannot be undone.
    </p>
    <p v-if="used" class="gap">
      {{ used }} {{ used === 1 ? 'message was' : 'messages were' }} begun on {{ texts.length === 1 ? 'it' : 'them' }}.
      What was sent stays on record.
    </p>
    <template #footer>
      <PushButton kind="plain" autofocus @click="emit('close')">
        Leave {{ texts.length === 1 ? 'it' : 'them' }} in the bin
      </PushButton>
      <PushButton @click="emit('purge')">Purge for good</PushButton>
    </template>
  </Dialog>
</template>

<style scoped>
.gap {
  margin-top: 8px;
}
</style>
