<script setup lang="ts">
/** A letter as it reads: one that came, or one that is to go or went. */
import { onMounted, ref } from 'vue';
import { api } from '../api/client';
import { WHOLE_LOOK } from '../ui/look';
import { pageBody } from '../ui/pageBody';
import ProofFrame from '../ui/ProofFrame.vue';
import type { Item } from './useMailroom';

const props = defineProps<{ item: Pick<Item, 'id' | 'stack'> }>();
interface Shown {
  readonly head: string;
  readonly subject: string;
  readonly html: string;
  readonly text: string;
  readonly files: readonly string[];
  readonly broken: string;
}
const shown = ref<Shown>();
const problem = ref('');
onMounted(async () => {
  try {
    if (props.item.stack === 'answer') {
      const { from, html, text, files, subject, broken } = await api.letter(props.item.id);
      shown.value = { head: `From ${from || 'no sender given'}`, html, text, files, subject, broken };
    } else {
      const { name, address, html, text, files, subject, why } = await api.oneOutgoing(props.item.id);
      shown.value = { head: `To ${name ? `${name} <${address}>` : address}`, html, text, files, subject, broken: why };
    }
  } catch (error) {
    problem.value = error instanceof Error ? error.message : 'This letter cannot be shown.';
  }
});
</script>

<template>
  <section class="around" aria-label="Letter">
    <p v-if="problem" class="error">⚠ {{ problem }}</p>
    <article v-else-if="shown" class="sheet page">
      <h2>{{ shown.subject || 'no subject' }}</h2>
      <p class="quiet small">{{ [shown.head, ...shown.files].join(' · ') }}</p>
      <p v-if="shown.broken" class="warning small">‸ {{ shown.broken }}</p>
      <ProofFrame
        v-if="shown.html"
        class="words"
        :fragment="pageBody(shown.html)"
        :body-style="WHOLE_LOOK.bodyStyle"
        lang="en"
        dir="auto"
        title="The letter"
      />
      <pre v-else class="words">{{ shown.text }}</pre>
    </article>
  </section>
</template>

<style scoped>
.around {
  padding: 16px;
}
.page {
  max-width: 560px;
  height: 100%;
  margin: 0 auto;
  padding: 20px 28px;
  display: flex;
  flex-direction: column;
  gap: 4px;
}
h2 {
  font:
    600 0.9375rem/1.5rem Arial,
    sans-serif;
}
.words {
  flex: 1;
  margin: 12px 0 0;
  overflow: auto;
}
pre {
  white-space: pre-wrap;
  font:
    0.875rem/1.375rem Arial,
    sans-serif;
}
</style>
