<script setup lang="ts">
/** The foot of Fill: what is missing, what the last answer did, and the ways out. */
import { computed, ref, useTemplateRef, watch } from 'vue';
import { command } from '../ui/keys';
import { useMe } from '../ui/me';
import NoticeLine from '../ui/NoticeLine.vue';
import { useNotice } from '../ui/notice';
import PopMenu from '../ui/PopMenu.vue';
import ServiceLine from '../ui/ServiceLine.vue';
import LaterForm from './LaterForm.vue';
import type { Filling } from './useFill';
import type { Chosen } from './useHandOver';

const props = defineProps<{ filling: Filling; busy: boolean; subjectCopied: boolean }>();
const emit = defineEmits<{ handOver: [chosen: Chosen] }>();
const { message, asked, unsure, did, fill } = props.filling;
const notice = useNotice();
const me = useMe();
const spoken = ref('');
const later = useTemplateRef('later');

const blanks = computed(() => message.value?.blanks ?? []);
const labelOf = (key: string): string => asked.value.find((question) => question.key === key)?.label ?? key;
const finding = computed(() => (message.value?.findings ?? []).find(({ level }) => level === 'error'));
const change = computed(() => {
  const { adds = '', takes = '' } = did.value ?? {};
  const short = (words: string): string => (words.length > 60 ? `${words.slice(0, 59).trimEnd()}…` : words);
  return [adds ? `adds “${short(adds)}”` : '', takes ? `takes away “${short(takes)}”` : ''].filter(Boolean).join(', ');
});
const state = computed(
  () => change.value || (blanks.value[0] ? `${labelOf(blanks.value[0])} is blank` : (finding.value?.message ?? '')),
);
const counted = computed(() => {
  const missing = blanks.value.length;
  return missing === 0 ? 'nothing is blank' : `${missing} ${missing === 1 ? 'blank' : 'blanks'}`;
});
const toConfirm = computed(() => (unsure.value.length > 0 ? `${unsure.value.length} to confirm` : ''));
watch([counted, toConfirm], (_now, _before, onCleanup) => {
  // Spoken after a pause, so that typing is not talked over.
  const timer = setTimeout(() => (spoken.value = [counted.value, toConfirm.value].filter(Boolean).join(', ')), 1200);
  onCleanup(() => clearTimeout(timer));
});
const copyWords = computed(() =>
  me.ways.order === 'together'
    ? 'Copy for my mail program'
    : props.subjectCopied
      ? 'Copy the body'
      : 'Copy the subject',
);
const purpose = computed(() => fill.value?.texts[0]?.document.attrs.front.purpose ?? 'new');
const WAYS = computed((): readonly (readonly [words: string, chosen: Chosen])[] => [
  ['Send now', { way: 'service' }],
  ['Keep as a draft in the mailroom', { way: 'service', at: 'draft' }],
  ['To many, one message each…', { way: 'many' }],
  ['Open as draft (.eml)', { way: 'draft' }],
  ['Open in my mail program', { way: 'mailto' }],
  ...(purpose.value === 'invitation' ? [['Calendar file (.ics)', { way: 'ics' }] as const] : []),
  ['Web page (.html)', { way: 'html' }],
  ['Plain text (.txt)', { way: 'txt' }],
  ['Print', { way: 'print' }],
]);
</script>

<template>
  <footer class="bar">
    <b>{{ counted }}</b><kbd v-if="blanks.length">F2</kbd><b v-if="toConfirm" class="confirm">{{ toConfirm }}</b>
    <NoticeLine v-if="notice.current" class="state" /><span v-else class="quiet small state" role="status">{{
      state
    }}</span>
    <span class="unseen" role="status">{{ spoken }}</span>
    <span class="right ways">
      <PopMenu label="Other ways" :width="260">
        <template #button>Other ways ▴</template>
        <template #default="{ close }">
          <ServiceLine class="line" />
          <button
            v-for="[words, chosen] in WAYS.slice(0, 1)"
            :key="words"
            class="row plain"
            role="menuitem"
            @click="(close(), emit('handOver', chosen))"
          >
            {{ words }}
          </button>
          <button class="row plain" role="menuitem" @click="(close(false), later?.show())">Send later…</button>
          <button
            v-for="[words, chosen] in WAYS.slice(1)"
            :key="words"
            class="row plain"
            role="menuitem"
            @click="(close(), emit('handOver', chosen))"
          >
            {{ words }}
          </button>
        </template>
      </PopMenu>
      <PopMenu ref="later" class="unseen-opener" label="Send later" :menu="false" :width="300">
        <template #default="{ close }">
          <LaterForm :hours="me.ways" @at="(at) => (close(), emit('handOver', { way: 'service', at }))" />
        </template>
      </PopMenu>
    </span>
    <RouterLink v-if="!me.ways.tried" class="small" to="/settings/handing-over">Set it once</RouterLink>
    <button class="main hand-over" :aria-disabled="busy" @click="emit('handOver', { way: 'copy' })">
      {{ copyWords }} <kbd>{{ command }} ⏎</kbd>
    </button>
  </footer>
</template>

<style scoped>
.bar {
  min-height: 56px;
  border-top: 1px solid var(--edge);
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 0 20px;
  flex: none;
}
.bar .hand-over {
  height: 36px;
}
.ways {
  display: flex;
}
.ways :deep(.pop > button) {
  height: 36px;
  border-color: var(--edge);
  padding: 0 12px;
}
/* It is opened from the menu, and stands where that stood. */
.ways .unseen-opener > :deep(button) {
  width: 0;
  padding: 0;
  border: 0;
  overflow: hidden;
}
.line {
  padding: 4px 12px;
}
.confirm {
  color: var(--warning);
}
.state {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  min-width: 0;
}
@media (max-width: 899px) {
  .bar {
    flex-wrap: wrap;
    padding: 8px 12px;
    gap: 8px;
  }
  .state {
    order: 5;
    flex-basis: 100%;
  }
}
</style>
