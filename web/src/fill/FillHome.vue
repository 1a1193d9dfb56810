<script setup lang="ts">
/** Fill with nothing open: the call line, unfinished messages, recent ones. */
import type { FillSummary, Hit } from '@vocabula/contract';
import { computed, onMounted, ref, useTemplateRef } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../api/client';
import HitList from '../ui/HitList.vue';
import NoticeLine from '../ui/NoticeLine.vue';
import { useNotice } from '../ui/notice';
import { whenInWords } from '../ui/today';

const router = useRouter();
const notice = useNotice();
const query = ref('');
const fills = ref<FillSummary[]>([]);
const line = useTemplateRef('line');
const groups = computed(() => [
  { title: 'Unfinished', list: fills.value.filter((fill) => fill.state === 'unfinished') },
  { title: 'Handed over', list: fills.value.filter((fill) => fill.state === 'handed over').slice(0, 12) },
]);

async function load(): Promise<void> {
  try {
    fills.value = await api.fills();
  } catch (problem) {
    notice.fail(problem);
  }
}
const choose = (hit: Hit): void =>
  void router.push({ name: 'filling', params: { id: 'new' }, query: { template: hit.name } });
async function bin(fill: FillSummary): Promise<void> {
  try {
    await api.binFill(fill.id);
    await load();
    notice.say(`“${fill.title}” is in the bin.`, async () => {
      await api.restoreFill(fill.id);
      await load();
    });
  } catch (problem) {
    notice.fail(problem);
  }
}
onMounted(() => {
  line.value?.focus();
  void load();
});
</script>

<template>
  <div class="home">
    <header class="head">
      <h1>Fill</h1>
      <span class="quiet small">choose a template, then answer its questions</span>
    </header>
    <main>
      <section class="sheet find">
        <HitList ref="line" v-model="query" label="Find a template" @choose="choose" />
      </section>
      <section class="messages" aria-label="Messages">
        <template v-for="group in groups" :key="group.title">
          <h2>{{ group.title }}</h2>
          <ul v-if="group.list.length" class="rows">
            <li v-for="fill in group.list" :key="fill.id">
              <RouterLink class="row" :to="{ name: 'filling', params: { id: fill.id } }"
                ><span>{{ fill.title }}</span
                ><span class="quiet small"
                  >{{ fill.recipient || 'nobody yet' }} · {{ whenInWords(fill.updatedAt)
                  }}<span v-if="fill.state === 'unfinished' && fill.standing === 'withdrawn'" class="warning">
                    ‸ its wording was withdrawn</span
                  ></span
                ></RouterLink
              >
              <button class="plain small" :aria-label="`Move “${fill.title}” to the bin`" @click="bin(fill)">
                Bin
              </button>
            </li>
          </ul>
          <p v-else class="quiet small none">
            {{
              group.title === 'Unfinished'
                ? 'Nothing is left unfinished.'
                : 'Nothing yet. What you copy or open as a draft is listed here.'
            }}
          </p>
        </template>
      </section>
    </main>
    <footer class="foot"><NoticeLine /></footer>
  </div>
</template>

<style scoped>
.home {
  display: flex;
  flex-direction: column;
}
main {
  flex: 1;
  overflow: auto;
  display: grid;
  grid-template-columns: minmax(0, 640px) minmax(240px, 360px);
  gap: 32px;
  padding: 24px 28px;
  align-content: start;
}
h2 {
  margin: 0 0 4px;
  padding: 0 16px;
}
.messages h2:not(:first-child) {
  margin-top: 24px;
}
.messages li {
  display: flex;
  align-items: center;
}
.messages .row {
  display: grid;
  flex: 1;
  min-width: 0;
}
.none {
  padding: 4px 16px;
}
@media (max-width: 899px) {
  main {
    grid-template-columns: minmax(0, 1fr);
    padding: 16px;
  }
}
</style>
