<script setup lang="ts">
/** One message as it would arrive, with what was left out beside it and where every word comes from. */
import TickBox from '../../ui/controls/TickBox.vue';
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useMe } from '../../ui/me';
import FindingMarks from '../parts/FindingMarks.vue';
import FoldedScore from '../parts/FoldedScore.vue';
import LookSwitch from '../parts/LookSwitch.vue';
import RecipientBar from '../parts/RecipientBar.vue';
import OriginPanel from '../parts/OriginPanel.vue';
import SheetView from '../parts/SheetView.vue';
import { useShown } from '../parts/useShown';
import type { LookAs, Part } from '../parts/looks';
import { stretchesWhere, usePointing } from '../parts/usePointing';
import type { ShownStretch, Which } from '../table/protocol';
import { useProofing } from '../table/useProofing';

const route = useRoute();
const router = useRouter();
const me = useMe();
const proofing = useProofing();
const as = ref<LookAs>('rich');
const onlyFindings = ref(false);
const passage = ref<string>();
const sheet = useTemplateRef('sheet');

const count = computed(() => Math.max(1, proofing.recipients.cases.length));
const at = computed(() => Math.min(count.value - 1, Math.max(0, Number(route.query.at ?? 0) || 0)));
const which = computed((): Which => ({ series: 'recipients', at: at.value }));
const current = computed(() => proofing.recipients.sheets[at.value]);
const message = useShown(proofing, which, current);
const label = computed(() => proofing.recipients.cases[at.value]?.label ?? 'no recipient');

/** What an address may ask to be lit: a value, a passage, or a place of the manuscript. */
const wanted = computed(() => {
  const { value, passage: tag, place } = route.query;
  const path = typeof place === 'string' ? place.split('.') : undefined;
  const [text, ...steps] = path ?? [];
  return (stretch: ShownStretch): boolean =>
    (typeof value === 'string' && (stretch.variable === value || stretch.wordingOf === value)) ||
    (typeof tag === 'string' && stretch.tags.includes(tag)) ||
    (text !== undefined &&
      stretch.text === text &&
      steps.every((step, index) => stretch.path[index] === Number(step))) ||
    (text !== undefined && steps.length > 0 && stretch.blocks[0] === text);
});
const pointing = usePointing(proofing, which, message, (shown) =>
  stretchesWhere(shown, (stretch) =>
    passage.value === undefined ? wanted.value(stretch) : stretch.tags.includes(passage.value),
  ),
);
const { explanation, words, lit } = pointing;
/** Pressed words lead to their place in the manuscript. */
function write(part: Part, stretch: number): void {
  const place = pointing.placeOf(part, stretch);
  if (place) void router.push({ name: 'write', params: { name: place.text }, query: { at: place.path.join('.') } });
}
watch([message, passage], async () => {
  await nextTick();
  // A frame is filled when it has loaded.
  setTimeout(() => {
    const first = [...lit.value].find((each) => each.startsWith('body '));
    if (first) sheet.value?.show(Number(first.slice(5)));
  }, 60);
});

function go(to: number): void {
  void router.replace({ query: { at: String(to) } });
}
/** The next recipient, or the next with a finding or a blank where only those are gone through. */
function step(by: number): void {
  for (let tried = 1; tried <= count.value; tried += 1) {
    const to = (at.value + by * tried + count.value * tried) % count.value;
    const there = proofing.recipients.sheets[to];
    if (!onlyFindings.value || (there && (there.findings.length > 0 || there.blanks.length > 0))) return go(to);
  }
}
defineExpose({ step, stepFinding: (by: number) => ((onlyFindings.value = true), step(by)) });
</script>

<template>
  <div class="one">
    <RecipientBar :at="at" :count="count" :label="label" @step="step">
      <label class="small only"><TickBox v-model="onlyFindings" /> only those with findings</label>
      <LookSwitch class="right" :as="as" @change="as = $event" />
    </RecipientBar>
    <FoldedScore
      :passages="proofing.passages"
      :kept="current?.kept ?? ''"
      :chosen="passage"
      @choose="passage = $event"
    />
    <div class="table">
      <SheetView
        v-if="message"
        ref="sheet"
        :message="message"
        :as="as"
        :lit="lit"
        :sender="me.profile.email"
        @point="pointing.point"
        @choose="write"
      />
    </div>
    <aside class="beside" tabindex="0" aria-label="About this message">
      <OriginPanel :words="words" :explanation="explanation" @step="pointing.step" />
      <FindingMarks v-if="message" :blanks="message.blanks" :findings="message.findings" />
    </aside>
  </div>
</template>

<style scoped>
.one {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template: 36px minmax(0, 1fr) / 144px minmax(0, 1fr) 320px;
}
.only {
  color: var(--quiet);
}
.table {
  padding: 16px;
  min-height: 0;
  overflow: auto;
}
.beside {
  border-left: 1px solid var(--hair);
  overflow: auto;
}
@media (max-width: 1099px) {
  .one {
    grid-template: auto minmax(320px, 1fr) auto / 120px minmax(0, 1fr);
    overflow: auto;
  }
  .beside {
    grid-column: 1 / -1;
    border: 0;
    border-top: 1px solid var(--hair);
  }
}
@media (max-width: 699px) {
  .one {
    grid-template: auto auto minmax(320px, 1fr) auto / minmax(0, 1fr);
  }
  .table {
    padding: 12px 8px;
  }
}
</style>
