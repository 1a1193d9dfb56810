<script setup lang="ts">
/** What was decided on the last mails, with the reason, also where nothing was done. */
import type { StandingDecisionLine } from '@vocabula/contract';
import { ref, shallowRef } from 'vue';
import { api } from '../api/client';
import PushButton from '../ui/controls/PushButton.vue';
import { showMoment } from '../ui/dates/reader';
import { DONE } from './standingWords';

const lines = shallowRef<readonly StandingDecisionLine[]>();
const open = ref(false);
const problem = ref('');
async function toggle(): Promise<void> {
  open.value = !open.value;
  if (!open.value) return;
  try {
    lines.value = await api.standingDecisions();
    problem.value = '';
  } catch (failure) {
    problem.value = failure instanceof Error ? failure.message : 'This could not be read.';
  }
}
</script>

<template>
  <section class="decided" aria-label="Decided">
    <PushButton kind="plain" :aria-expanded="open" @click="toggle"
      >{{ open ? '▾' : '▸' }} What was decided on mail that came</PushButton
    >
    <template v-if="open">
      <p v-if="problem" class="error small">⚠ {{ problem }}</p>
      <p v-else-if="lines?.length === 0" class="quiet small">Nothing yet: it begins when a rule is switched on.</p>
      <ul>
        <li v-for="each in lines" :key="each.letter" class="small">
          <RouterLink
            v-if="each.what === 'suggest'"
            :to="{ name: 'mailroom', params: { stack: 'answer', id: each.letter } }"
            >{{ each.subject || 'no subject' }}</RouterLink><span v-else>{{ each.subject || 'no subject' }}</span>
          <span class="quiet">
            {{ showMoment(each.at, 'figures') }} · {{ each.title ? `${each.title}: ` : '' }}{{ DONE[each.what]
            }}{{ each.why ? `, ${each.why}` : '' }}</span
          >
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.decided {
  margin-top: auto;
  border-top: 1px solid var(--hair);
  padding: 8px 4px;
}
p,
ul {
  padding: 0 12px;
}
ul {
  list-style: none;
  margin: 4px 0;
  display: grid;
  gap: 4px;
}
</style>
