<script setup lang="ts">
/** The foot of Fill: what is missing, what the last answer did, and the ways out. */
import { computed, defineAsyncComponent, ref, useTemplateRef, watch } from 'vue';
import { command } from '../ui/keys';
import { useMe } from '../ui/me';
import NoticeLine from '../ui/NoticeLine.vue';
import { useNotice } from '../ui/notice';
import ActMenu from '../ui/controls/ActMenu.vue';
import PushButton from '../ui/controls/PushButton.vue';
import ServiceLine from '../ui/ServiceLine.vue';
import type { Filling } from './useFill';
import type { Chosen } from './useHandOver';

const props = defineProps<{ filling: Filling; busy: boolean; subjectCopied: boolean }>();
const emit = defineEmits<{ handOver: [chosen: Chosen] }>();
const { message, asked, unsure, did, fill } = props.filling;
const notice = useNotice();
const me = useMe();
const spoken = ref('');
const LaterPopover = defineAsyncComponent(() => import('./LaterPopover.vue'));
const later = ref<HTMLElement | null>();
const ways = useTemplateRef<HTMLElement>('ways');

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
const items = computed(() => {
  const all = WAYS.value.map(([label, chosen]) => ({ label, command: () => emit('handOver', chosen) }));
  return [...all.slice(0, 1), { label: 'Send later…', command: sendLater }, ...all.slice(1)];
});
/** It stands where the menu stood. */
function sendLater(): void {
  later.value = ways.value?.querySelector('button');
}
</script>

<template>
  <footer class="bar">
    <b>{{ counted }}</b><kbd v-if="blanks.length">F2</kbd><b v-if="toConfirm" class="confirm">{{ toConfirm }}</b>
    <NoticeLine v-if="notice.current" class="state" /><span v-else class="quiet small state" role="status">{{
      state
    }}</span>
    <span class="unseen" role="status">{{ spoken }}</span>
    <span class="break" aria-hidden="true"></span>
    <span ref="ways" class="right ways">
      <ActMenu label="Other ways" kind="usual" size="large" :items="items"
        >Other ways ▴<template #start><ServiceLine class="line" /></template
      ></ActMenu>
      <LaterPopover
        v-if="later"
        :hours="me.ways"
        :opener="later"
        @at="(at) => emit('handOver', { way: 'service', at })"
        @close="later = undefined"
      />
    </span>
    <RouterLink v-if="!me.ways.tried" class="small" to="/settings/handing-over">Set it once</RouterLink>
    <PushButton kind="main" size="large" :aria-disabled="busy || undefined" @click="emit('handOver', { way: 'copy' })">
      {{ copyWords }} <kbd>{{ command }} ⏎</kbd>
    </PushButton>
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
.ways {
  display: flex;
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
.break {
  display: none;
}
@media (max-width: 599px) {
  /* What is said above, what can be done below. */
  .break {
    display: block;
    flex-basis: 100%;
  }
}
@media (max-width: 899px) {
  .bar {
    flex-wrap: wrap;
    padding: 6px 12px 8px;
    gap: 6px 8px;
  }
  .state {
    flex: 1;
  }
  .ways {
    margin-left: 0;
  }
  .bar > :deep(.p-button) {
    flex: 1;
    white-space: nowrap;
  }
}
</style>
