<script setup lang="ts">
/** Everything that was noticed, in the template and over all its messages: what, where, for whom, and what to do. */
import InputText from 'primevue/inputtext';
import PushButton from '../../ui/controls/PushButton.vue';
import { computed, nextTick, ref, useTemplateRef } from 'vue';
import { whenInWords } from '../../ui/today';
import type { FindingGroup } from '../table/findings';
import type { Series } from '../table/protocol';
import { casesOf, useProofing } from '../table/useProofing';
import { useFindingActs } from './useFindingActs';

const proofing = useProofing();
const settingAside = ref<string>();
const reason = ref('');
const current = ref(-1);
const list = useTemplateRef<HTMLElement>('list');
const MARK = { error: '⚠', warning: '‸', note: '·' } as const;
const SERIES_WORDS: Readonly<Record<Series, string>> = {
  recipients: 'recipients',
  hard: 'hard cases',
  pairing: 'pairings',
};

const open = computed(() => proofing.groups.filter(({ aside }) => !aside));
const aside = computed(() => proofing.groups.filter((group) => group.aside));
const titleOf = (name: string): string =>
  proofing.texts.find((text) => text.name === name)?.document.attrs.front.title ?? name;

/** The first few it is for, each with the way to its message. */
function whom(group: FindingGroup): { series: Series; words: string; first: { at: number; label: string }[] }[] {
  return (Object.entries(group.in) as [Series, readonly number[]][]).flatMap(([series, numbers]) => {
    if (numbers.length === 0) return [];
    const all = casesOf(proofing, series);
    const words = SERIES_WORDS[series];
    const first = numbers.slice(0, 3).map((at) => ({ at, label: all.cases[at]?.label ?? `${at + 1}` }));
    return [{ series, words: `${numbers.length} of ${all.cases.length} ${words}`, first }];
  });
}
const VIEW = { recipients: 'one', hard: 'hard', pairing: 'pairing' } as const;

const { repair, setAside, bringBack } = useFindingActs();
async function begin(group: FindingGroup): Promise<void> {
  settingAside.value = group.fingerprint;
  reason.value = '';
  await nextTick();
  list.value?.querySelector<HTMLInputElement>('.reason input')?.focus();
}
async function keepAside(group: FindingGroup): Promise<void> {
  await setAside(group, reason.value);
  settingAside.value = undefined;
}
function stepFinding(by: number): void {
  const { length } = open.value;
  if (length === 0) return;
  current.value = (current.value + by + length) % length;
  const items = list.value?.querySelectorAll<HTMLElement>('.group');
  items?.[current.value]?.focus();
  items?.[current.value]?.scrollIntoView({ block: 'nearest' });
}
defineExpose({ stepFinding, step: stepFinding });
</script>

<template>
  <div ref="list" class="findings">
    <p v-if="open.length === 0" class="none">
      <template v-if="proofing.progress.over">No findings in any message.</template>
      <template v-else>No findings yet.</template>
    </p>
    <article
      v-for="(group, index) in open"
      :key="group.fingerprint"
      class="group"
      :class="{ now: index === current }"
      tabindex="-1"
    >
      <span class="mark" :class="group.finding.level" aria-hidden="true">{{ MARK[group.finding.level] }}</span>
      <div class="what">
        <p>
          <span class="unseen">{{ group.finding.level }}: </span><b>{{ group.finding.message }}</b>
        </p>
        <p v-if="group.context" class="quiet context">{{ group.context }}</p>
        <p class="small for">
          <span v-if="group.always">in the {{ group.finding.place.text ? 'block' : 'template' }} itself</span>
          <span v-for="each in whom(group)" :key="each.series"
            >{{ each.words }}:
            <template v-for="(one, n) in each.first" :key="one.at"
              ><RouterLink
                :to="{
                  name: 'proof',
                  params: { name: proofing.name, view: VIEW[each.series] },
                  query: { at: String(one.at) },
                }"
                >{{ one.label }}</RouterLink
              >{{ n < each.first.length - 1 ? ', ' : '' }}</template
            ><template v-if="each.first.length < group.in[each.series].length"> …</template></span
          >
        </p>
        <form
          v-if="settingAside === group.fingerprint"
          class="reason"
          @submit.prevent="keepAside(group)"
          @keydown.esc="settingAside = undefined"
        >
          <InputText
            v-model="reason"
            aria-label="Reason to keep it"
            placeholder="Reason to keep it"
            maxlength="500"
            required
          />
          <PushButton type="submit" :disabled="!reason.trim()">Set aside</PushButton>
          <PushButton kind="plain" @click="settingAside = undefined">Cancel</PushButton>
        </form>
      </div>
      <div class="acts">
        <PushButton size="small" v-if="group.finding.repair && !group.finding.place.text" @click="repair(group)">
          {{ group.finding.repair.label }}
        </PushButton>
        <RouterLink
          v-if="group.finding.place.path || group.finding.place.text"
          class="small"
          :to="{
            name: 'write',
            params: { name: group.finding.place.text ?? proofing.name },
            query: group.finding.place.path ? { at: group.finding.place.path.join('.') } : {},
          }"
          >{{
            group.finding.place.text ? `In “${titleOf(group.finding.place.text)}”` : 'In the manuscript'
          }}</RouterLink
        >
        <PushButton kind="plain" size="small" v-if="settingAside !== group.fingerprint" @click="begin(group)"
          >Set aside…</PushButton
        >
      </div>
    </article>
    <section v-if="aside.length" class="aside">
      <h2>Set aside</h2>
      <article v-for="group in aside" :key="group.fingerprint" class="group">
        <span class="mark quiet" aria-hidden="true">{{ MARK[group.finding.level] }}</span>
        <div class="what">
          <p>{{ group.finding.message }}</p>
          <p v-if="group.context" class="quiet context">{{ group.context }}</p>
          <p class="small quiet">
            “{{ group.aside?.reason }}” — {{ group.aside?.who }}, {{ whenInWords(group.aside?.at) }}. It comes back when
            its words change.
          </p>
        </div>
        <div class="acts">
          <PushButton kind="plain" size="small" @click="bringBack(group.fingerprint)">Bring back</PushButton>
        </div>
      </article>
    </section>
  </div>
</template>

<style scoped>
.findings {
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 8px 24px 24px;
}
.group {
  display: grid;
  grid-template-columns: 20px minmax(0, 1fr) auto;
  gap: 8px;
  padding: 12px 8px;
  border-bottom: 1px solid var(--hair);
  max-width: 1120px;
}
.now {
  background: var(--selected);
}
.group:focus-visible {
  outline-offset: -2px;
}
b {
  font-weight: 600;
}
.mark {
  font-size: 1.125rem;
  font-weight: 600;
}
.what {
  display: grid;
  gap: 4px;
  min-width: 0;
}
.context {
  font: 0.875rem/1.25rem var(--serif);
  overflow-wrap: anywhere;
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  line-clamp: 2;
  overflow: hidden;
}
.for {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
}
.acts {
  display: flex;
  gap: 8px;
  align-items: start;
  justify-content: flex-end;
}
.acts a {
  padding: 8px 0;
}
.reason {
  display: flex;
  gap: 8px;
  margin-top: 4px;
}
.reason input {
  max-width: 420px;
}
.aside {
  margin-top: 28px;
}
.none {
  padding: 24px 8px;
}
@media (max-width: 699px) {
  .findings {
    padding: 8px;
  }
  .group {
    grid-template-columns: 20px minmax(0, 1fr);
  }
  .acts {
    grid-column: 2;
    justify-content: start;
    flex-wrap: wrap;
  }
}
</style>
