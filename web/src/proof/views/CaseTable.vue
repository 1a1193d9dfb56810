<script setup lang="ts">
/** Hard cases, or every pairing: what each is for, the message, its values, and whether it has been looked at. */
import PushButton from '../../ui/controls/PushButton.vue';
import { computed, ref, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useMe } from '../../ui/me';
import { useNotice } from '../../ui/notice';
import FindingMarks from '../parts/FindingMarks.vue';
import LookSwitch from '../parts/LookSwitch.vue';
import SheetView from '../parts/SheetView.vue';
import type { LookAs } from '../parts/looks';
import { useShown } from '../parts/useShown';
import { stretchesWhere } from '../parts/usePointing';
import type { Which } from '../table/protocol';
import { casesOf, useProofing } from '../table/useProofing';

const props = defineProps<{ series: 'hard' | 'pairing' }>();
const route = useRoute();
const router = useRouter();
const me = useMe();
const notice = useNotice();
const proofing = useProofing();
const as = ref<LookAs>('rich');
const list = useTemplateRef<HTMLElement>('list');
const all = computed(() => casesOf(proofing, props.series));
const at = computed(() =>
  Math.min(Math.max(0, all.value.cases.length - 1), Math.max(0, Number(route.query.at ?? 0) || 0)),
);
const which = computed((): Which => ({ series: props.series, at: at.value }));
const chosen = computed(() => all.value.cases[at.value]);
const sheet = computed(() => all.value.sheets[at.value]);
const message = useShown(proofing, which, sheet);
const state = (index: number): 'yes' | 'changed' | 'no' => {
  const each = all.value.cases[index];
  return each ? proofing.looked(each, all.value.sheets[index]) : 'no';
};
const lookedAt = computed(() => all.value.cases.filter((_, index) => state(index) === 'yes').length);
const changed = computed(() => all.value.cases.filter((_, index) => state(index) === 'changed').length);

/** The words that a case shows for the first time. */
const fresh = computed(() => {
  const shown = message.value;
  const labels = new Set(chosen.value?.levels.filter((level) => level.fresh).map(({ label }) => label.split(':')[0]));
  if (!shown || labels.size === 0) return new Set<string>();
  const keys = new Set(proofing.values.filter(({ label }) => labels.has(label)).map(({ key }) => key));
  return stretchesWhere(
    shown,
    ({ tags, variable, wordingOf }) =>
      keys.has(variable ?? '') ||
      keys.has(wordingOf ?? '') ||
      tags.some((tag) => keys.has(/[#^]([a-z0-9_]+)/.exec(tag)?.[1] ?? '')),
  );
});
/** What the case is filled with, where it has no levels to say so. */
const filled = computed(() => {
  const { levels } = chosen.value ?? { levels: [] };
  if (levels.length > 0) return levels;
  const values = sheet.value?.values ?? [];
  const own = proofing.values.flatMap(({ label }, index) =>
    values[index] ? [{ label, words: values[index], fresh: false }] : [],
  );
  return own;
});

function go(to: number): void {
  void router.replace({ query: { at: String(to) } });
}
function step(by: number): void {
  const { length } = all.value.cases;
  if (length > 0) go((at.value + by + length) % length);
}
function stepFinding(by: number): void {
  const { sheets } = all.value;
  for (let tried = 1; tried <= sheets.length; tried += 1) {
    const to = (at.value + by * tried + sheets.length * tried) % sheets.length;
    if ((sheets[to]?.findings.length ?? 0) > 0) return go(to);
  }
}
/** Ticks the case and goes on to the next that nobody has looked at as it is. */
async function lookedNext(): Promise<void> {
  const [each, now] = [chosen.value, sheet.value];
  if (!each || !now) return;
  try {
    if (state(at.value) !== 'yes') await proofing.lookAt(each, now);
    const { length } = all.value.cases;
    for (let tried = 1; tried < length; tried += 1) {
      const to = (at.value + tried) % length;
      if (state(to) !== 'yes') return go(to);
    }
  } catch (problem) {
    notice.fail(problem);
  }
}
async function tick(index: number): Promise<void> {
  const [each, now] = [all.value.cases[index], all.value.sheets[index]];
  if (!each || !now) return;
  try {
    await (state(index) === 'yes' ? proofing.unlook(now) : proofing.lookAt(each, now));
  } catch (problem) {
    notice.fail(problem);
  }
}
watch(at, () => list.value?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest' }), {
  flush: 'post',
});
defineExpose({ step, stepFinding, lookedNext, lookedAt, changed });
</script>

<template>
  <div class="cases">
    <ol ref="list" class="list" :aria-label="series === 'hard' ? 'Hard cases' : 'Cases'">
      <li v-for="(each, index) in all.cases" :key="each.key" class="case" :class="{ chosen: index === at }">
        <button class="row" :aria-current="index === at ? 'step' : undefined" @click="go(index)">
          <span class="number">{{ index + 1 }}</span>
          <span class="what">
            <span class="label">{{ each.label }}</span>
            <span class="quiet small">{{ state(index) === 'changed' ? 'changed since looked at' : each.detail }}</span>
          </span>
          <span v-if="all.sheets[index]?.findings.length || all.sheets[index]?.blanks.length" class="warning"
            >‸<span class="unseen"> has findings</span></span
          >
        </button>
        <input
          type="checkbox"
          :checked="state(index) === 'yes'"
          :aria-label="`Looked at: ${each.label}`"
          :disabled="!all.sheets[index]"
          @change="tick(index)"
        />
      </li>
    </ol>
    <div class="table">
      <div class="tools"><LookSwitch :as="as" @change="as = $event" /></div>
      <div class="paper-room">
        <SheetView v-if="message" :message="message" :as="as" :fresh="fresh" :sender="me.profile.email" />
      </div>
    </div>
    <aside class="values" aria-label="This case">
      <h2>{{ series === 'hard' ? 'Filled with' : 'This case' }}</h2>
      <p v-if="series === 'hard' && chosen" class="small provokes">Here {{ chosen.detail }}.</p>
      <dl>
        <div v-for="(level, index) in filled" :key="index">
          <dt>{{ level.label }}</dt>
          <dd :class="{ fresh: level.fresh }">{{ level.words }}</dd>
        </div>
      </dl>
      <FindingMarks v-if="message" :blanks="message.blanks" :findings="message.findings" />
      <PushButton v-if="chosen" class="next" :disabled="!sheet" @click="lookedNext">
        Looked at, next <kbd>Space</kbd>
      </PushButton>
    </aside>
  </div>
</template>

<style scoped>
.cases {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 320px minmax(0, 1fr) 256px;
}
.list {
  margin: 0;
  padding: 0;
  list-style: none;
  overflow: auto;
  border-right: 1px solid var(--hair);
}
.case {
  display: flex;
  align-items: center;
  border-bottom: 1px solid var(--hair);
  padding-right: 12px;
}
.chosen {
  background: var(--selected);
  box-shadow: inset 3px 0 var(--action);
}
.case .row {
  display: flex;
  align-items: baseline;
  gap: 14px;
  flex: 1;
  min-width: 0;
  min-height: 54px;
}
.number {
  font: 500 1rem/1.25rem var(--serif);
  color: var(--quiet);
  min-width: 18px;
}
.what {
  flex: 1;
  min-width: 0;
  display: grid;
}
.label {
  overflow-wrap: anywhere;
}
.table {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.tools {
  display: flex;
  justify-content: flex-end;
  padding: 4px 16px 0;
}
.paper-room {
  flex: 1;
  min-height: 0;
  padding: 8px 16px 16px;
  overflow: auto;
}
.values {
  padding: 16px 16px 16px 0;
  overflow: auto;
  font-size: 0.8125rem;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
dl {
  margin: 0;
}
dl div {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  border-bottom: 1px solid var(--hair);
  padding: 4px 0;
}
dt {
  color: var(--quiet);
}
dd {
  margin: 0;
  text-align: right;
  overflow-wrap: anywhere;
  min-width: 0;
  max-height: 4.5em;
  overflow: hidden;
}
.fresh {
  font-weight: 600;
}
.provokes {
  color: var(--quiet);
}
.next {
  justify-content: center;
}
@media (max-width: 1099px) {
  .cases {
    grid-template: minmax(420px, 1fr) auto / 240px minmax(0, 1fr);
    overflow: auto;
  }
  .values {
    grid-column: 1 / -1;
    padding: 12px 16px;
    border-top: 1px solid var(--hair);
    overflow: visible;
  }
  .values dl {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(240px, 1fr));
    gap: 0 24px;
  }
  .next {
    order: -1;
    align-self: start;
  }
}
@media (max-width: 699px) {
  .cases {
    grid-template: 220px minmax(420px, auto) auto / minmax(0, 1fr);
  }
  .list {
    border-right: 0;
    border-bottom: 1px solid var(--hair);
  }
}
</style>
