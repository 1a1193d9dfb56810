<script setup lang="ts">
/** The mail of the past that a rule would have answered, the newest first; what looks wrong is marked. */
import type { TriedStanding } from '@vocabula/contract';
import { computed } from 'vue';
import PushButton from '../ui/controls/PushButton.vue';
import { showMoment } from '../ui/dates/reader';
import { WOULD } from './standingWords';

const { tried } = defineProps<{ tried: TriedStanding | undefined; trying: boolean; cannot: string }>();
const emit = defineEmits<{ mark: [letter: string, isWrong: boolean] }>();
const letter = defineModel<string>({ required: true });
const trial = computed(() => tried?.standing.trial);
/** How many of them would only be offered, where the rule does more. */
const parts = computed(() => {
  const offered = tried?.mails.filter(({ what }) => what === 'suggest').length ?? 0;
  return tried?.standing.rule.does === 'suggest' || offered === 0 ? '' : `, ${offered} of them only offered`;
});
const mails = (count: number): string => (count === 1 ? 'one mail' : `${count} mails`);
const whose = (from: string): string => from.replace(/\s*<[^<>]*>\s*$/, '').replace(/^"|"$/g, '') || from || 'nobody';

function onKey(event: KeyboardEvent): void {
  const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
  const all = tried?.mails ?? [];
  const next = all[all.findIndex((each) => each.letter === letter.value) + step];
  if (step === 0 || !next) return;
  event.preventDefault();
  letter.value = next.letter;
  requestAnimationFrame(() => document.querySelector<HTMLElement>('.tried [aria-current="true"]')?.focus());
}
</script>

<template>
  <section class="tried" aria-label="Tried on the past" :aria-busy="trying">
    <h2>Tried on the past</h2>
    <p v-if="cannot" class="quiet">{{ cannot }}</p>
    <template v-else-if="trial && tried">
      <p role="status">
        Of <b>{{ mails(trial.looked) }}</b> since {{ showMoment(trial.since, 'day') }} it would have answered
        <b>{{ trial.answered }}</b>{{ parts }}.
        <template v-if="trial.stillWrong"
          ><span class="warning">‸ {{ trial.stillWrong }} of them marked as wrong.</span></template
        >
        <template v-else-if="trial.wrong.length">What was marked as wrong is not answered any more.</template>
      </p>
      <ul class="rows" @keydown="onKey">
        <li v-for="each in tried.mails" :key="each.letter" class="line" :class="{ wrong: each.wrong }">
          <PushButton
            kind="plain"
            class="row mail"
            :aria-current="each.letter === letter ? 'true' : undefined"
            @click="letter = each.letter"
          >
            <span class="who">{{ whose(each.from) }}</span><span class="quiet small right">{{
              showMoment(each.at, 'day')
            }}</span>
            <span class="small words">{{ each.subject || 'no subject' }}</span>
            <span class="quiet small words"
              >{{ WOULD[each.what] }}{{ each.why ? `: ${each.why}` : ''
              }}{{ each.answeredWith ? ` · you took “${each.answeredWith}”` : '' }}</span
            >
          </PushButton>
          <PushButton
            v-if="each.what !== 'nothing' || each.wrong"
            kind="plain"
            size="small"
            :aria-pressed="each.wrong"
            :aria-label="`Wrong: ${each.subject || whose(each.from)}`"
            @click="emit('mark', each.letter, !each.wrong)"
            >{{ each.wrong ? '‸ wrong' : 'wrong?' }}</PushButton
          >
        </li>
      </ul>
      <p v-if="tried.mails.length === 0" class="quiet">No mail of the past half year meets the condition.</p>
    </template>
    <p v-else-if="trying" class="quiet">Trying…</p>
  </section>
</template>

<style scoped>
.tried {
  padding: 16px 0;
}
h2,
p {
  padding: 0 16px;
}
h2,
p {
  margin: 0 0 8px;
}
.line {
  display: flex;
  align-items: center;
}
.mail {
  flex: 1;
  min-width: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 8px;
  height: auto;
  padding: 6px 4px 6px 16px;
  border-radius: 0;
  text-align: left;
  align-items: baseline;
}
.who,
.words {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.words {
  grid-column: 1 / -1;
}
.wrong .who {
  text-decoration: line-through;
}
</style>
