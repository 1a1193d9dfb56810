<script setup lang="ts">
/** Taking texts out for good, with what that means said first. */
import PushButton from '../ui/controls/PushButton.vue';
import type { TextSummary } from '@vocabula/contract';
import { computed, useTemplateRef } from 'vue';
import ModalDialog from '../ui/controls/ModalDialog.vue';

const { texts } = defineProps<{ texts: readonly TextSummary[] }>();
const emit = defineEmits<{ purge: []; close: [] }>();
const dialog = useTemplateRef('dialog');
const used = computed(() => texts.reduce((sum, text) => sum + text.used, 0));
</script>

<template>
  <ModalDialog
    ref="dialog"
    :header="texts.length === 1 ? `Purge “${texts[0]?.title}”?` : `Purge ${texts.length} texts?`"
    @close="emit('close')"
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
      <PushButton kind="plain" autofocus @click="dialog?.hide()">
        Leave {{ texts.length === 1 ? 'it' : 'them' }} in the bin
      </PushButton>
      <PushButton @click="emit('purge')">Purge for good</PushButton>
    </template>
  </ModalDialog>
</template>

<style scoped>
.gap {
  margin-top: 8px;
}
</style>
