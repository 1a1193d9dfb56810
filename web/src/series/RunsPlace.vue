<script setup lang="ts">
/** Series under way, and those that have ended: what waits for somebody first. */
import type { RunSummary } from '@vocabula/contract';
import { computed, ref, shallowRef } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client';
import ActMenu from '../ui/controls/ActMenu.vue';
import NoticeLine from '../ui/NoticeLine.vue';
import { useTexts } from '../ui/stores/lists';
import RunSheet from './RunSheet.vue';
import { runWords } from './seriesWords';

const route = useRoute();
const router = useRouter();
const runs = shallowRef<readonly RunSummary[]>();
const texts = useTexts();
const problem = ref('');
const chosen = computed(() => String(route.params.id ?? '') || runs.value?.[0]?.id);

async function load(): Promise<void> {
  try {
    runs.value = await api.runs();
    problem.value = '';
  } catch (failure) {
    problem.value = failure instanceof Error ? failure.message : 'This could not be read.';
  }
}
void load();
void texts.load().catch(() => undefined);
/** What can be started. */
const offered = computed(() =>
  texts.standing
    .filter(({ kind, offered: isOffered }) => kind === 'series' && isOffered)
    .map(({ name, title }) => ({
      label: title,
      command: () => void router.push({ name: 'start-series', params: { name } }),
    })),
);
const groups = computed(() => {
  const all = runs.value ?? [];
  const waits = (run: RunSummary): boolean => run.next?.look === true;
  return [
    { title: 'Waits for you', runs: all.filter(waits) },
    { title: 'Under way', runs: all.filter((run) => run.state === 'going' && !waits(run)) },
    { title: 'Ended', runs: all.filter(({ state }) => state !== 'going') },
  ].filter((group) => group.runs.length > 0);
});
</script>

<template>
  <div class="runs">
    <header class="head">
      <h1>Series</h1>
      <span class="quiet small">Messages to one person over time</span>
      <ActMenu v-if="offered.length" class="right" label="Start…" :items="offered" />
    </header>
    <main v-if="problem" class="empty">
      <p class="error">⚠ {{ problem }}</p>
    </main>
    <main v-else-if="runs" class="two">
      <nav class="list" aria-label="Series">
        <p v-if="runs.length === 0" class="quiet">
          {{
            offered.length
              ? 'You have started none yet. Start… begins one.'
              : 'There is no series to start yet. Authors write them under Write.'
          }}
        </p>
        <section v-for="group in groups" :key="group.title">
          <h2>{{ group.title }} {{ group.runs.length }}</h2>
          <ul class="rows">
            <li v-for="run in group.runs" :key="run.id">
              <RouterLink
                class="row"
                :to="{ name: 'running', params: { id: run.id } }"
                :aria-current="run.id === chosen ? 'true' : undefined"
              >
                <span class="who">{{ run.name || run.address || 'forgotten' }}</span>
                <span class="small">{{ run.title }}</span>
                <span class="quiet small">{{ runWords(run) }}</span>
              </RouterLink>
            </li>
          </ul>
        </section>
      </nav>
      <RunSheet v-if="chosen" :id="chosen" :key="chosen" @changed="load" />
      <p v-else class="quiet nothing">What was started is shown here, step by step.</p>
    </main>
    <main v-else class="empty"><p class="quiet">Opening…</p></main>
    <footer class="foot"><NoticeLine /></footer>
  </div>
</template>

<style scoped>
.runs {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
main {
  flex: 1;
}
.two {
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(260px, 360px) minmax(0, 1fr);
}
.list {
  overflow: auto;
  padding: 16px 0;
  border-right: 1px solid var(--hair);
}
.list > p,
h2 {
  padding: 0 20px;
}
h2 {
  font: inherit;
  font-size: 0.8125rem;
  color: var(--quiet);
  margin: 8px 0 4px;
}
.row {
  display: grid;
  gap: 2px;
  padding-inline: 20px;
}
.who {
  font-weight: 500;
}
.nothing {
  padding: 24px;
}
@media (max-width: 899px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
    overflow: auto;
  }
  .list {
    border: 0;
    overflow: visible;
  }
}
</style>
