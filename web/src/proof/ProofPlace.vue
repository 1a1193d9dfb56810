<script setup lang="ts">
/** Proof: a template with sample data, and with everything that can happen. */
import { useEventListener } from '@vueuse/core';
import ProgressLine from '../ui/controls/ProgressLine.vue';
import PushButton from '../ui/controls/PushButton.vue';
import { computed, ref, shallowRef, useTemplateRef, watch, type Component } from 'vue';
import { useRoute } from 'vue-router';
import NoticeLine from '../ui/NoticeLine.vue';
import { keyOf } from '../ui/keys';
import { useNotice } from '../ui/notice';
import ChooseTemplate from './parts/ChooseTemplate.vue';
import SampleSetChoice from './parts/SampleSetChoice.vue';
import { useProofing } from './table/useProofing';
import AllMessages from './views/AllMessages.vue';
import AsItArrives from './views/AsItArrives.vue';
import CaseTable from './views/CaseTable.vue';
import FindingsView from './views/FindingsView.vue';
import OneMessage from './views/OneMessage.vue';
import PairingHead from './views/PairingHead.vue';
import ReportView from './views/ReportView.vue';
import SendView from './views/SendView.vue';
import SideBySide from './views/SideBySide.vue';

type View = 'one' | 'all' | 'beside' | 'arrives' | 'hard' | 'pairing' | 'findings' | 'send' | 'report';
/** What a view may answer to. */
interface Stepping {
  step?(by: number): void;
  stepFinding?(by: number): void;
  lookedNext?(): Promise<void>;
  readonly lookedAt?: number;
  readonly changed?: number;
}
const VIEWS: Readonly<Record<View, { readonly component: Component; readonly props?: object }>> = {
  one: { component: OneMessage },
  all: { component: AllMessages },
  beside: { component: SideBySide },
  arrives: { component: AsItArrives },
  hard: { component: CaseTable, props: { series: 'hard' } },
  pairing: { component: CaseTable, props: { series: 'pairing' } },
  findings: { component: FindingsView },
  send: { component: SendView },
  report: { component: ReportView },
};
const route = useRoute();
const notice = useNotice();
const proofing = useProofing();
const shown = useTemplateRef<Stepping>('shown');
const opened = ref(false);
const state = shallowRef('');

const name = computed(() => String(route.params.name ?? ''));
const view = computed((): View => (route.params.view as View | undefined) || 'one');
const noticed = computed(() => {
  const sheets = [...proofing.recipients.sheets, ...proofing.hard.sheets, ...proofing.pairs.sheets];
  return (
    proofing.findings.length +
    sheets.filter((sheet) => sheet && (sheet.findings.length > 0 || sheet.blanks.length > 0)).length
  );
});
const tabs = computed(() =>
  (
    [
      ['one', 'One message', undefined],
      ['all', 'All messages', proofing.recipients.cases.length],
      ['beside', 'Side by side', undefined],
      ['arrives', 'As it arrives', undefined],
      ['hard', 'Hard cases', proofing.hard.cases.length],
      ['pairing', 'Every pairing', proofing.pairing ? proofing.pairs.cases.length : undefined],
      ['findings', 'Findings', noticed.value > 0 ? undefined : 0],
    ] as const
  ).map(([id, words, count]) => ({ id, words, count })),
);

watch(
  name,
  async (wanted) => {
    opened.value = false;
    if (!wanted) return;
    notice.clear();
    try {
      await proofing.open(wanted);
      opened.value = true;
    } catch (problem) {
      notice.fail(problem);
    }
  },
  { immediate: true },
);
function onKey(event: KeyboardEvent): void {
  const key = keyOf(event);
  const by = key?.back ? -1 : 1;
  const inField = (event.target as HTMLElement | null)?.closest(
    'input:not([type="checkbox"]), textarea, [role="combobox"], button, a, [role="grid"], .slips',
  );
  if (key?.id === 'recipient') shown.value?.step?.(by);
  else if (key?.id === 'finding') shown.value?.stepFinding?.(by);
  else if (event.key === ' ' && !inField && shown.value?.lookedNext) void shown.value.lookedNext();
  else return;
  event.preventDefault();
}
useEventListener('keydown', onKey);
watch(
  () => proofing.progress,
  ({ over, doing, done, total, fresh }) => {
    state.value = over
      ? fresh > 0
        ? `${fresh} ${fresh === 1 ? 'message' : 'messages'} proofed`
        : ''
      : `${doing}: ${done} of ${total}`;
  },
  { immediate: true },
);
</script>

<template>
  <div class="proof">
    <header class="head">
      <h1>{{ opened ? proofing.title : 'Proof' }}</h1>
      <template v-if="opened">
        <span class="quiet small">working copy</span>
        <RouterLink class="small" :to="{ name: 'write', params: { name } }">Write</RouterLink>
        <span class="right quiet small progress" role="status">
          <ProgressLine
            v-if="!proofing.progress.over && proofing.progress.total"
            :done="proofing.progress.done"
            :total="proofing.progress.total"
            label="Proofing"
          />
          {{ state }}
        </span>
        <PushButton
          kind="plain"
          size="small"
          v-if="!proofing.progress.over && !proofing.stopped"
          @click="proofing.stop"
        >
          Stop
        </PushButton>
        <PushButton kind="plain" size="small" v-else-if="proofing.stopped" @click="proofing.goOn">Go on</PushButton>
        <RouterLink
          v-slot="{ navigate }"
          :to="{
            name: 'proof',
            params: { name, view: 'send' },
            query: { at: route.query.at, series: view === 'hard' || view === 'pairing' ? view : 'recipients' },
          }"
          custom
          ><PushButton @click="navigate">Send proofs…</PushButton></RouterLink
        >
        <RouterLink v-slot="{ navigate }" :to="{ name: 'proof', params: { name, view: 'report' } }" custom
          ><PushButton @click="navigate">Proof report…</PushButton></RouterLink
        >
      </template>
    </header>
    <template v-if="opened">
      <nav class="tabs" aria-label="Ways to proof">
        <RouterLink
          v-for="tab in tabs"
          :key="tab.id"
          :to="{ name: 'proof', params: { name, view: tab.id } }"
          :aria-current="view === tab.id ? 'page' : undefined"
          >{{ tab.words }}<template v-if="tab.count !== undefined">&nbsp;{{ tab.count }}</template></RouterLink
        >
        <SampleSetChoice class="right" />
      </nav>
      <main class="view">
        <PairingHead v-if="view === 'pairing'" :looked-at="shown?.lookedAt ?? 0" :changed="shown?.changed ?? 0" />
        <component :is="VIEWS[view].component" :key="`${name} ${view}`" ref="shown" v-bind="VIEWS[view].props ?? {}" />
      </main>
    </template>
    <ChooseTemplate v-else-if="!name" />
    <main v-else class="empty">
      <p v-if="!notice.current" class="quiet">Opening…</p>
      <RouterLink v-else to="/proof">Choose another template</RouterLink>
    </main>
    <footer class="foot">
      <NoticeLine v-if="notice.current" />
      <template v-else-if="opened">
        <span>next recipient or case <kbd>F9</kbd></span>
        <span>next finding <kbd>F8</kbd></span>
      </template>
    </footer>
  </div>
</template>

<style scoped>
.proof {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.tabs {
  display: flex;
  align-items: center;
  gap: 24px;
  height: 40px;
  padding: 0 20px;
  border-bottom: 1px solid var(--hair);
  flex: none;
  white-space: nowrap;
  overflow-x: auto;
}
.tabs > a {
  color: var(--quiet);
  text-decoration: none;
  line-height: 2.5rem;
}
.tabs > a:hover {
  color: var(--ink);
}
.tabs > [aria-current] {
  color: var(--ink);
  font-weight: 600;
  box-shadow: inset 0 -2px var(--action);
}
.view {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.progress {
  display: flex;
  gap: 8px;
  align-items: center;
}
@media (max-width: 1099px) {
  .tabs {
    flex-wrap: wrap;
    gap: 0 20px;
    height: auto;
    padding-bottom: 4px;
  }
  .tabs > a {
    line-height: 2.25rem;
  }
}
@media (max-width: 899px) {
  .tabs {
    gap: 0 16px;
    padding: 0 12px;
  }
  .head {
    flex-wrap: wrap;
    height: auto;
    min-height: 48px;
    padding: 6px 12px;
  }
}
</style>
