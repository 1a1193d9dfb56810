<script setup lang="ts">
/** The proof report: which sheets it holds is chosen; it is printed, or saved as one HTML file. */
import PickOne from '../../ui/controls/PickOne.vue';
import PushButton from '../../ui/controls/PushButton.vue';
import { saveFile } from '../../ui/saveFile';
import { computed, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { useMe } from '../../ui/me';
import type { Which } from '../table/protocol';
import { writeReport, type ReportSheet } from '../table/report';
import { casesOf, useProofing } from '../table/useProofing';

/** As many as anybody reads in one report. */
const MOST = 200;
const me = useMe();
const proofing = useProofing();
const choice = ref<'pairing' | 'looked' | 'hard' | 'recipients' | 'none'>('pairing');
const sheets = shallowRef<readonly ReportSheet[]>([]);
const frame = useTemplateRef<HTMLIFrameElement>('frame');
const made = ref(new Date().toISOString());

const chosen = computed((): Which[] => {
  const all = (['pairing', 'hard', 'recipients'] as const).flatMap((series) =>
    casesOf(proofing, series).cases.map((each, at) => ({
      series,
      at,
      each,
      sheet: casesOf(proofing, series).sheets[at],
    })),
  );
  return all
    .filter(({ series, each, sheet }) =>
      choice.value === 'looked' ? proofing.looked(each, sheet) === 'yes' : series === choice.value,
    )
    .slice(0, MOST)
    .map(({ series, at }) => ({ series, at }));
});
watch(
  chosen,
  async (wanted) => {
    const found: ReportSheet[] = [];
    for (const which of wanted) {
      const message = await proofing.message(which);
      const all = casesOf(proofing, which.series);
      const each = all.cases[which.at];
      if (!message || !each) continue;
      const digest = all.sheets[which.at]?.digest;
      found.push({
        label: each.label,
        detail: each.detail,
        subject: message.subject,
        to: message.to,
        fragment: message.fragment,
        blanks: message.blanks,
        looked: proofing.record.lookedAt.find((tick) => tick.digest === digest),
      });
    }
    if (chosen.value === wanted) sheets.value = found;
  },
  { immediate: true },
);
const html = computed(() =>
  writeReport({
    title: proofing.title,
    revision: proofing.revision,
    set: proofing.set?.title ?? 'no sample set',
    by: me.profile.name || me.profile.email || 'unknown',
    at: made.value,
    recipients: proofing.recipients.cases.length,
    ready: proofing.recipients.sheets.filter((sheet) => sheet?.ready).length,
    hard: proofing.hard.cases.length,
    pairing: proofing.pairing,
    pairs: proofing.pairs.cases.length,
    lookedAt: proofing.pairs.cases.filter((each, at) => proofing.looked(each, proofing.pairs.sheets[at]) === 'yes')
      .length,
    findings: proofing.groups,
    sheets: sheets.value,
    bodyStyle: proofing.look?.bodyStyle ?? '',
    lang: proofing.look?.lang ?? 'en-GB',
  }),
);
const print = (): void => frame.value?.contentWindow?.print();
const save = (): void => saveFile(new Blob([html.value], { type: 'text/html' }), `proof-report-${proofing.name}.html`);
</script>

<template>
  <div class="report">
    <div class="tools">
      <label class="small"
        >Messages in it
        <PickOne v-model="choice">
          <option value="pairing">every pairing</option>
          <option value="looked">those looked at</option>
          <option value="hard">hard cases</option>
          <option value="recipients">recipients</option>
          <option value="none">none</option>
        </PickOne></label
      >
      <span class="quiet small">{{ sheets.length }} {{ sheets.length === 1 ? 'message' : 'messages' }}</span>
      <span v-if="!proofing.progress.over" class="quiet small">Proofing is running; the report follows.</span>
      <PushButton class="right" @click="save">Save as HTML</PushButton>
      <PushButton kind="main" @click="print">Print</PushButton>
    </div>
    <div class="room">
      <iframe
        ref="frame"
        class="sheet frame"
        sandbox="allow-same-origin allow-modals"
        :srcdoc="html"
        title="Proof report"
      />
    </div>
  </div>
</template>

<style scoped>
.report {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 12px;
  padding: 8px 16px;
  border-bottom: 1px solid var(--hair);
}
.p-select {
  width: 170px;
  height: 28px;
  padding: 0 4px;
}
.room {
  flex: 1;
  min-height: 0;
  padding: 16px;
}
.frame {
  display: block;
  width: 100%;
  max-width: 900px;
  height: 100%;
  margin: 0 auto;
}
</style>
