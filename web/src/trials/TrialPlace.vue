<script setup lang="ts">
/** Versions of one text side by side: a trial begun, looked at, ended; beside it what differs between them. */
import type { CountedShare, Standing, StartTrial, State, Trial, TrialOutcome } from '@vocabula/contract';
import { computed, ref, shallowRef, watch } from 'vue';
import { useRoute } from 'vue-router';
import { api } from '../api/client';
import PushButton from '../ui/controls/PushButton.vue';
import { showMoment } from '../ui/dates/reader';
import NoticeLine from '../ui/NoticeLine.vue';
import { useNotice } from '../ui/notice';
import ComparedStates from '../versions/ComparedStates.vue';
import TrialChart from './TrialChart.vue';
import TrialForm from './TrialForm.vue';
import { OUTCOMES, pairs, rangeWords, verdictWords } from './trialWords';

const route = useRoute();
const notice = useNotice();
const name = String(route.params.name);
const standing = shallowRef<Standing>();
const trials = shallowRef<readonly Trial[]>([]);
const shares = shallowRef<Readonly<Record<TrialOutcome, CountedShare>>>();
const problem = ref('');
const busy = ref(false);
/** The versions whose words are compared, while none are tried. */
const chosen = ref<readonly number[]>([]);
const states = shallowRef<readonly [State, State]>();

const running = computed(() => trials.value.find(({ ended }) => !ended));
const past = computed(() => trials.value.filter(({ ended }) => ended));
const versions = computed(() => (standing.value?.versions ?? []).filter(({ withdrawn }) => !withdrawn).slice(0, 8));
const compared = computed(() => running.value?.arms.map(({ version }) => version) ?? chosen.value);

async function load(): Promise<void> {
  try {
    [standing.value, trials.value] = await Promise.all([api.standing(name), api.trials(name)]);
    problem.value = '';
  } catch (failure) {
    problem.value = failure instanceof Error ? failure.message : 'This could not be read.';
  }
}
watch(trials, async () => {
  // Only the form tells of them, and it can be begun without.
  if (running.value || shares.value) return;
  shares.value = (await api.ledger({}).catch(() => [])).find((row) => row.name === name);
});
void load();

watch(compared, async ([first, second]) => {
  states.value = undefined;
  if (first === undefined || second === undefined) return;
  try {
    states.value = await Promise.all([api.state(name, `version:${first}`), api.state(name, `version:${second}`)]);
  } catch (failure) {
    notice.fail(failure);
  }
});

async function act(work: () => Promise<Trial>, words: string): Promise<void> {
  busy.value = true;
  try {
    await work();
    await load();
    notice.say(words);
  } catch (failure) {
    notice.fail(failure);
  } finally {
    busy.value = false;
  }
}
const begin = (trial: StartTrial): Promise<void> =>
  act(() => api.startTrial(name, trial), 'The trial runs. New messages get their version by who they go to.');
const end = ({ id }: Trial, version: number): Promise<void> =>
  act(
    () => api.endTrial(name, id, { publish: version }),
    version === standing.value?.published?.number
      ? `The trial is over. Everybody gets version ${version}, as before.`
      : `The trial is over. The words of version ${version} are published for everybody.`,
  );
</script>

<template>
  <div class="trial">
    <header class="head">
      <RouterLink class="small" :to="{ name: 'versions', params: { name } }">‹ Versions</RouterLink>
      <h1>Trial of “{{ standing?.title ?? '' }}”</h1>
      <span v-if="running" class="quiet small since"
        >since {{ showMoment(running.startedAt, 'words') }} · begun by {{ running.by }}</span
      >
    </header>
    <main v-if="problem" class="empty">
      <p class="error">⚠ {{ problem }}</p>
    </main>
    <main v-else-if="standing" class="two">
      <div class="left">
        <section v-if="running" class="running" aria-label="The trial">
          <p class="verdict" role="status">{{ verdictWords(running) }}</p>
          <p class="quiet small">
            {{ OUTCOMES[running.outcome].about }} A difference of {{ Math.round(running.matters * 100) }} in 100
            matters.
          </p>
          <TrialChart :arms="running.arms" :best="running.best" />
          <ul v-if="running.best === undefined || running.arms.length > 2" class="small" aria-label="Differences">
            <li v-for="pair in pairs(running)" :key="`${pair.of} ${pair.to}`">
              {{ rangeWords(pair, running.outcome) }}
            </li>
          </ul>
          <p class="quiet small">
            Look as often as you like: of a hundred trials at most five ever say something wrong, whenever they are
            looked at.
          </p>
          <div v-if="running.mayEnd" class="acts">
            <PushButton
              v-for="{ version } in running.arms"
              :key="version"
              :kind="version === running.best ? 'main' : 'usual'"
              :disabled="busy"
              @click="end(running, version)"
              >Everybody gets version {{ version }}</PushButton
            >
          </div>
        </section>
        <p v-else-if="versions.length < 2" class="quiet">
          There is one version only. Publish another one, then both can be tried.
        </p>
        <p v-else-if="!standing.published" class="quiet">No version is in use. Publish one first.</p>
        <p v-else-if="!standing.mayPublish && !standing.whyNot" class="quiet">
          Those who may publish this text can begin a trial.
        </p>
        <TrialForm
          v-else
          :versions="versions"
          :used="standing.published.number"
          :shares="shares"
          :busy="busy"
          @begin="begin"
          @choose="chosen = $event"
        />
        <section v-if="past.length" class="past" aria-label="Past trials">
          <h2>Past trials</h2>
          <div v-for="each in past" :key="each.id" class="one">
            <p>
              <strong>{{ verdictWords(each) }}</strong>
            </p>
            <p class="quiet small">
              Until {{ each.ended ? showMoment(each.ended.at, 'words') : '' }}: {{ each.ended?.why }}
            </p>
            <TrialChart :arms="each.arms" :best="each.best" />
          </div>
        </section>
      </div>
      <section class="sheet page" aria-label="What differs">
        <ComparedStates
          v-if="states"
          :before="states[0].document"
          :after="states[1].document"
          :names="[`version ${compared[0]}`, `version ${compared[1]}`]"
        />
        <p v-else class="quiet">Choose two versions to see what differs between them.</p>
      </section>
    </main>
    <footer class="foot"><NoticeLine /></footer>
  </div>
</template>

<style scoped>
.trial {
  display: flex;
  flex-direction: column;
}
main {
  flex: 1;
}
.two {
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
}
.left {
  overflow: auto;
  padding: 20px 24px;
  border-right: 1px solid var(--hair);
  display: grid;
  gap: 28px;
  align-content: start;
}
.running {
  display: grid;
  gap: 14px;
}
.verdict {
  font: 500 1.375rem/1.75rem var(--serif);
  margin: 0;
}
.running p,
.one p {
  margin: 0;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.past {
  display: grid;
  gap: 12px;
}
.past h2 {
  font: inherit;
  font-weight: 600;
  margin: 0;
}
.one {
  border-top: 1px solid var(--hair);
  padding-top: 10px;
  display: grid;
  gap: 6px;
}
.one strong {
  font-weight: 500;
}
.page {
  margin: 16px 24px 24px;
  padding: 16px 28px 28px;
  overflow: auto;
}
@media (max-width: 899px) {
  .since {
    display: none;
  }
  .two {
    grid-template-columns: minmax(0, 1fr);
    overflow: auto;
  }
  .left {
    border: 0;
    overflow: visible;
    padding: 12px;
  }
  .page {
    margin: 12px;
    padding: 12px 16px;
    overflow: visible;
  }
}
</style>
