<script setup lang="ts">
/** The history of a text: versions and checkpoints, any two compared, any one restored. */
import PushButton from '../ui/controls/PushButton.vue';
import type { SentFrom, State } from '@vocabula/contract';
import { HOUSE_NAME } from '@vocabula/contract/constants';
import { computed, ref, shallowRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client';
import NoticeLine from '../ui/NoticeLine.vue';
import { useNotice } from '../ui/notice';
import ComparedStates from './ComparedStates.vue';
import HistoryList from './HistoryList.vue';
import { momentsOf } from './moments';
import WithdrawForm from './WithdrawForm.vue';
import { showMoment } from '../ui/dates/reader';
import { standingInWords, useStanding } from './useStanding';

const route = useRoute();
const router = useRouter();
const notice = useNotice();
const name = computed(() => String(route.params.name));
const { standing, problem, load } = useStanding();
const states = shallowRef<readonly [State, State]>();
const sent = shallowRef<readonly SentFrom[]>();
const withdrawing = ref(false);

const moments = computed(() => (standing.value ? momentsOf(standing.value) : []));
const titleOf = (state: string): string => {
  const moment = moments.value.find((each) => each.state === state);
  if (!moment) return state;
  return moment.state.startsWith('checkpoint') ? `${showMoment(moment.at, 'figures')}` : moment.title.toLowerCase();
};
/** The older of the two that are compared, and the newer; by default what colleagues use with the working copy. */
const before = computed(() => String(route.query.before ?? usual.value[0]));
const after = computed(() => String(route.query.after ?? usual.value[1]));
const usual = computed((): [string, string] => {
  const now = standing.value;
  const [last, earlier] = now?.versions ?? [];
  const of = (version: { number: number } | undefined): string => (version ? `version:${version.number}` : 'working');
  if (now?.mayWrite && (now.changed || !earlier)) return [of(now.published ?? last), 'working'];
  return [of(earlier ?? last), of(last)];
});
/** A template of messages with two versions: one can be tried against the other. */
const isTried = computed(() => {
  const document = states.value?.[0].document;
  const isMessage = document && 'type' in document && document.attrs.front.kind === 'message';
  return isMessage && standing.value?.mayWrite && standing.value.versions.length > 1;
});
const chosen = computed(() => moments.value.find(({ state }) => state === after.value));
/** The version that would be withdrawn: the one that is looked at, else the one in use. */
const toWithdraw = computed(() => {
  const version = chosen.value?.version ?? standing.value?.published;
  return version && !version.withdrawn ? version : undefined;
});
const compare = (change: { before?: string; after?: string }): void =>
  void router.replace({ query: { before: before.value, after: after.value, ...change } });

watch(name, (wanted) => void load(wanted), { immediate: true });
watch([before, after, standing], async ([from, to, now]) => {
  withdrawing.value = false;
  sent.value = undefined;
  if (!now) return;
  try {
    states.value = await Promise.all([api.state(name.value, from), api.state(name.value, to)]);
    const version = chosen.value?.version;
    if (version && version.sent > 0 && now.mayWrite) sent.value = await api.sentFrom(name.value, version.number);
  } catch (failure) {
    states.value = undefined;
    notice.fail(failure);
  }
});

async function act(work: () => Promise<unknown>, words: string): Promise<void> {
  try {
    await work();
    await load(name.value);
    notice.say(words);
  } catch (failure) {
    notice.fail(failure);
  }
}
const restore = (): Promise<void> =>
  act(
    () => api.restoreState(name.value, { state: after.value, revision: standing.value?.revision ?? 0 }),
    `The working copy is as ${titleOf(after.value)} was. The state before is kept as a checkpoint.`,
  );
async function withdraw(because: string): Promise<void> {
  const version = toWithdraw.value;
  if (!version) return;
  withdrawing.value = false;
  await act(
    () => api.withdraw(name.value, version.number, because),
    `Version ${version.number} is withdrawn. Unfinished messages begun on it say so and cannot be sent.`,
  );
}
const takeBack = (id: string): Promise<void> =>
  act(() => api.takeBackTimed(name.value, id), 'Taken back: it is not published by itself.');
</script>

<template>
  <div class="versions">
    <header class="head">
      <RouterLink
        class="small"
        :to="
          name === HOUSE_NAME ? { name: 'settings', params: { part: 'style' } } : { name: 'write', params: { name } }
        "
        >‹ {{ name === HOUSE_NAME ? 'Settings' : 'Write' }}</RouterLink
      >
      <h1>Versions of “{{ standing?.title ?? '' }}”</h1>
      <span v-if="standing" class="quiet small">{{ standingInWords(standing) }}</span>
      <RouterLink v-if="standing?.mayWrite" v-slot="{ navigate }" :to="{ name: 'publish', params: { name } }" custom
        ><PushButton class="right" @click="navigate()">Publish…</PushButton></RouterLink
      >
      <RouterLink v-if="isTried" v-slot="{ navigate }" :to="{ name: 'trial', params: { name } }" custom
        ><PushButton @click="navigate()">Trial…</PushButton></RouterLink
      >
    </header>
    <main v-if="problem" class="empty">
      <p class="error">⚠ {{ problem }}</p>
    </main>
    <main v-else-if="standing" class="two">
      <div class="left">
        <p
          v-for="each in standing.timed"
          :key="each.id"
          class="timed small"
          :class="{ warning: each.state === 'stopped' }"
        >
          {{
            each.state === 'waiting' ? `Publishes ${showMoment(each.due, 'words')}` : `Did not publish: ${each.words}`
          }}
          <span class="quiet">{{ each.note }}</span>
          <PushButton kind="plain" size="small" v-if="standing.mayPublish" @click="takeBack(each.id)">
            {{ each.state === 'waiting' ? 'Take back' : 'Remove from the list' }}
          </PushButton>
        </p>
        <HistoryList :moments="moments" :before="before" :after="after" @compare="compare" />
      </div>
      <section class="sheet page" aria-label="Comparison">
        <div class="acts">
          <p>
            <strong>{{ titleOf(before) }}</strong> compared with <strong>{{ titleOf(after) }}</strong>
          </p>
          <PushButton v-if="standing.mayWrite && after !== 'working'" class="right" @click="restore">
            Restore {{ titleOf(after) }}
          </PushButton>
          <PushButton v-if="standing.mayPublish && toWithdraw" @click="withdrawing = !withdrawing"
            >Withdraw…</PushButton
          >
        </div>
        <WithdrawForm
          v-if="withdrawing && toWithdraw"
          :version="toWithdraw"
          :used="toWithdraw.number === standing.published?.number"
          @withdraw="withdraw"
          @close="withdrawing = false"
        />
        <p v-if="chosen?.version?.withdrawn" class="warning small">
          ‸ Withdrawn {{ showMoment(chosen.version.withdrawn.at, 'figures') }} by {{ chosen.version.withdrawn.by }}:
          {{ chosen.version.withdrawn.because }}
        </p>
        <details v-if="sent" class="small">
          <summary>{{ sent.length }} {{ sent.length === 1 ? 'message was' : 'messages were' }} sent from it</summary>
          <ul>
            <li v-for="(each, index) in sent" :key="index">
              {{ showMoment(each.at, 'figures') }} · {{ each.recipients.join(', ') || 'no recipient named' }} ·
              {{ each.subject }} ·
              {{ each.who }}
            </li>
          </ul>
        </details>
        <ComparedStates
          v-if="states"
          :before="states[0].document"
          :after="states[1].document"
          :names="[titleOf(before), titleOf(after)]"
        />
      </section>
    </main>
    <footer class="foot"><NoticeLine /></footer>
  </div>
</template>

<style scoped>
.versions {
  display: flex;
  flex-direction: column;
}
.two {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 352px minmax(0, 1fr);
}
.left {
  border-right: 1px solid var(--hair);
  overflow: auto;
}
.timed {
  padding: 8px 16px;
  border-bottom: 1px solid var(--hair);
}
.page {
  margin: 16px 24px 24px;
  padding: 16px 28px 28px;
  overflow: auto;
  display: grid;
  gap: 16px;
  align-content: start;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
}
.acts > :deep(button) {
  flex: none;
}
details ul {
  margin: 6px 0 0;
  padding-left: 18px;
}
@media (max-width: 899px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
    overflow: auto;
  }
  .left {
    border: 0;
    max-height: 40vh;
  }
  .page {
    margin: 12px;
    padding: 12px 16px;
  }
  .acts {
    flex-wrap: wrap;
  }
}
</style>
