<script setup lang="ts">
/** The running proof: rich, plain, narrow or dark, for one sample recipient. */
import { vTip } from '../../ui/controls/tip';
import PickOne from '../../ui/controls/PickOne.vue';
import PushButton from '../../ui/controls/PushButton.vue';
import { nextTick, ref, useTemplateRef, watch } from 'vue';
import ProofFrame from '../../ui/ProofFrame.vue';
import type { useProof } from './useProof';

const props = defineProps<{
  proof: ReturnType<typeof useProof>;
  level: { path: string; height: number } | undefined;
}>();
const emit = defineEmits<{ pick: [path: number[]]; blank: [key: string] }>();
const { set, sets, at, recipientName, message, step, choose } = props.proof;
const view = ref<'rich' | 'plain' | 'narrow' | 'dark'>('rich');
const frame = useTemplateRef('frame');
const page = useTemplateRef<HTMLElement>('page');
// The paragraph with the caret stands level in manuscript and proof.
watch(
  () => [props.level?.path, props.level?.height],
  async () => {
    await nextTick();
    const top = page.value?.getBoundingClientRect().top;
    if (props.level && top !== undefined)
      frame.value?.level(props.level.path, Math.max(8, props.level.height - top - 48));
  },
);
</script>

<template>
  <section class="proof" aria-label="Proof">
    <div class="strip">
      <b>Proof</b>
      <template v-if="set"
        ><PushButton kind="plain" aria-label="Recipient before" @click="step(-1)">‹</PushButton
        ><span>{{ at + 1 }} of {{ set.rows }}</span
        ><PushButton kind="plain" aria-label="Next recipient" @click="step(1)">›</PushButton
        ><span class="who" v-tip="set.title">{{ recipientName }}</span>
        <PickOne
          v-if="sets.length > 1"
          class="small"
          :model-value="set.id"
          aria-label="Sample set"
          @update:model-value="choose($event)"
        >
          <option v-for="each in sets" :key="each.id" :value="each.id">{{ each.title }}</option>
        </PickOne></template
      >
      <RouterLink v-else class="small" to="/samples">Import sample recipients</RouterLink>
      <span class="right views" role="group" aria-label="Proof as"
        ><PushButton
          kind="plain"
          size="small"
          v-for="each in ['rich', 'plain', 'narrow', 'dark'] as const"
          :key="each"
          :aria-pressed="view === each"
          @click="view = each"
        >
          {{ each }}
        </PushButton></span
      >
    </div>
    <div v-if="message" ref="page" class="sheet page" :class="view">
      <p v-if="message.subject" class="subject">{{ message.subject }}</p>
      <pre v-if="view === 'plain'" class="words">{{ message.text }}</pre>
      <ProofFrame
        v-else
        ref="frame"
        class="words"
        :fragment="message.fragment"
        v-bind="message.look"
        :dark="view === 'dark'"
        title="Proof"
        @pick="emit('pick', $event.split('.').map(Number))"
        @blank="emit('blank', $event)"
      />
    </div>
  </section>
</template>

<style scoped>
.proof {
  flex: 1 0 0;
  min-height: min(220px, 40%);
  display: flex;
  flex-direction: column;
  min-width: 0;
}
.strip {
  min-height: 36px;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 6px;
  padding: 4px 14px 0;
  font-size: 0.8125rem;
  border-bottom: 1px solid var(--hair);
  flex: none;
  white-space: nowrap;
}
.strip button {
  height: 24px;
  padding: 0 5px;
}
.strip .p-select {
  flex: 1 1 120px;
  max-width: 200px;
  height: 28px;
}
.strip .p-select :deep(.p-select-label) {
  padding: 3px 8px;
}
.who {
  flex: 0 1 auto;
  max-width: 180px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.views {
  display: flex;
  height: 34px;
  align-items: center;
}
.views button {
  color: var(--quiet);
}
.views [aria-pressed='true'] {
  color: var(--ink);
  font-weight: 600;
  box-shadow: inset 0 -2px var(--action);
  border-radius: 0;
}
.page {
  flex: 1;
  min-height: 0;
  margin: 12px;
  padding: 16px 20px;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.page.narrow {
  width: 360px;
  align-self: center;
}
.page.dark {
  background: #1b1d21;
  color: #e8e6e1;
}
.subject {
  font:
    600 0.875rem/1.25rem Arial,
    sans-serif;
}
.words {
  flex: 1;
  min-height: 0;
  margin: 0;
  overflow: auto;
  white-space: pre-wrap;
  font:
    0.8125rem/1.25rem Consolas,
    Menlo,
    monospace;
}
</style>
